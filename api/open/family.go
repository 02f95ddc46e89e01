package open

import (
	"context"
	"crypto/rand"
	"encoding/base64"
	"fmt"
	"time"

	"github.com/oklog/ulid/v2"

	"patientladder/core/planning/week"
	"patientladder/core/wording"
	"patientladder/store"
)

// linkDays is for how long a link opens the page when nothing else is said: about a term.
const linkDays = 120

// OpenLink returns how a family is reached, with a link that still opens: a new one where there is none.
func (d *Desk) OpenLink(ctx context.Context, studio, ladder string, today time.Time) (store.Family, error) {
	f, err := d.Store.Family(ctx, studio, ladder)
	if err != nil || f.Token != "" && f.Expires.After(today.AddDate(0, 0, week.Days)) {
		return f, err
	}
	f.Token, f.Expires = NewToken(), today.AddDate(0, 0, linkDays)
	return f, d.Store.SetFamilyToken(ctx, f)
}

// NewToken is 256 bits that nobody can guess.
func NewToken() string {
	b := make([]byte, 32)
	rand.Read(b) // never fails (crypto/rand)
	return base64.RawURLEncoding.EncodeToString(b)
}

// FamilyPath is where a link opens the family's page.
func FamilyPath(token string) string { return "/home/" + token }

// Recipients are the addresses that messages about a ladder go to: of those who agreed to be written to,
// else the one that was given for the week.
func (d *Desk) Recipients(ctx context.Context, studio, ladder string, f store.Family) ([]string, error) {
	list, err := d.Store.Recipients(ctx, studio, ladder)
	if err == nil && len(list) == 0 && f.Email != "" {
		list = []string{f.Email}
	}
	return list, err
}

// Announce are the messages that something is ready on a family's page, one to each who is written to: says is what
// is ready, words are the teacher's own.
func (d *Desk) Announce(ctx context.Context, s Student, f store.Family, subject, says, words string) ([]store.Message, error) {
	to, err := d.Recipients(ctx, s.Tenant.ID, s.Ladder, f)
	if err != nil || len(to) == 0 {
		return nil, err
	}
	me, err := d.Store.Teacher(ctx, Actor(ctx).Teacher)
	if err != nil {
		return nil, err
	}
	body := fmt.Sprintf("%s is ready:\n%s\n\nThe link opens the page without an account; whoever has it can open it too. It works until %s.\n",
		says, d.URL+FamilyPath(f.Token), wording.DayAndYear(f.Expires))
	if words != "" {
		body += "\n" + words + "\n"
	}
	body += "\n" + me.Name + ", " + s.Tenant.Name + "\n"
	var out []store.Message
	for _, address := range to {
		out = append(out, store.Message{ID: ulid.Make().String(), Ladder: s.Ladder, To: address, Subject: subject, Body: body, MadeAt: s.Now})
	}
	return out, nil
}

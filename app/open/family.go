package open

import (
	"context"
	"crypto/rand"
	"encoding/base64"
	"time"

	"github.com/oklog/ulid/v2"

	"patientladder/core/planning/athome"
	"patientladder/core/planning/week"
	"patientladder/core/planning/withfamily"
	"patientladder/core/wording"
	"patientladder/store"
)

// OpenLink returns how a family is reached, with a link that still opens: a new one where there is none.
func (d *Loader) OpenLink(ctx context.Context, studio, ladder string, today time.Time) (store.Family, error) {
	f, err := d.Store.Family(ctx, studio, ladder)
	if err != nil || f.Link().Lasts(today) {
		return f, err
	}
	f.Token, f.Expires = NewToken(), today.AddDate(0, 0, athome.LinkDays)
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
func (d *Loader) Recipients(ctx context.Context, studio, ladder string, f store.Family) ([]string, error) {
	list, err := d.Store.Recipients(ctx, studio, ladder)
	if err == nil && len(list) == 0 && f.Email != "" {
		list = []string{f.Email}
	}
	return list, err
}

// Letter is what a message says: its subject, a sentence before the link, and the teacher's own words.
type Letter struct {
	Kind                 store.About
	Subject, Says, Words string
	// Day it reminds of, and when it is sent; zero where neither is set.
	Day, At time.Time
}

// Announce are the messages of a letter, one to each who is written to; none where the family wishes none. They wait
// for the end of the quiet hours, or for Monday.
func (d *Loader) Announce(ctx context.Context, s Student, f store.Family, l Letter) ([]store.Message, error) {
	if f.Mail == withfamily.NoMail {
		return nil, nil
	}
	to, err := d.Recipients(ctx, s.Tenant.ID, s.Ladder, f)
	if err != nil || len(to) == 0 {
		return nil, err
	}
	me, err := d.Store.Teacher(ctx, Actor(ctx).Teacher)
	if err != nil {
		return nil, err
	}
	t := s.Tongue(f)
	page := d.URL + FamilyPath(f.Token)
	body := wording.FamilyLetter(
		t,
		wording.LetterParts{
			Says:  l.Says,
			Page:  page,
			Words: l.Words,
			From:  me.Name + ", " + s.Tenant.Name,
			Under: s.Tenant.Letterhead,
			Until: f.Expires,
			Stop:  page + StopPlace,
		},
	)
	at := l.At
	if at.IsZero() {
		wish := f.Mail
		if l.Kind != store.AboutWeek {
			wish = withfamily.EachWeek
		}
		at = withfamily.SendAt(s.Now.In(s.Zone), wish, s.Tenant.Quiet)
	}
	var out []store.Message
	for _, address := range to {
		out = append(out, store.Message{
			ID: ulid.Make().String(), Ladder: s.Ladder, To: address, Subject: l.Subject, Body: body, MadeAt: s.Now, NotBefore: at, Kind: l.Kind,
			Day: l.Day, Stop: page + StopPlace,
		})
	}
	return out, nil
}

// StopPlace is where on its page a family says what it wishes to be sent.
const StopPlace = "#messages"

// WeekMessages are the messages about a week that is published: that it is ready, and a reminder for each day of
// practice to come where that is wished.
func (d *Loader) WeekMessages(
	ctx context.Context,
	s Student,
	f store.Family,
	start time.Time,
	plan week.Plan,
	words string,
) ([]store.Message, error) {
	t := s.Tongue(f)
	first := s.First()
	out, err := d.Announce(ctx, s, f, Letter{
		Kind: store.AboutWeek, Subject: t.Say("mail.week", "name", first, "date", t.Day(start)),
		Says: t.Say("mail.week.body", "date", t.Day(start)), Words: words,
	})
	if err != nil || !f.Remind {
		return out, err
	}
	for _, r := range withfamily.Reminders(s.Student.Studio, plan) {
		more, err := d.Announce(
			ctx,
			s,
			f,
			Letter{Kind: store.AboutRemind, Day: r.Day, At: r.At, Subject: t.Say("mail.remind", "name", first), Says: wording.AtHome(t, r.AtHome)},
		)
		if err != nil {
			return nil, err
		}
		out = append(out, more...)
	}
	return out, nil
}

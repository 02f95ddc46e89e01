package store

import (
	"context"
	"crypto/sha256"
	"database/sql"
	"encoding/hex"
	"errors"
	"fmt"
	"strings"
	"time"

	"patientladder/core/planning/athome"
	"patientladder/core/planning/week"
	"patientladder/core/planning/withfamily"
	"patientladder/store/document"
	"patientladder/store/rows"
)

// PracticeWeek is one week of practice as it was kept.
type PracticeWeek struct {
	Ladder string
	Start  time.Time
	Hand   week.Hand
	// Published is what the family sees, nil until it was published at PublishedAt.
	Published   *week.Plan
	PublishedAt time.Time
	// Version guards it against a stale form; 0 for one that was never kept.
	Version int64
}

// PracticeWeek returns the week that begins on a day, with version 0 when nothing of it was kept.
func (s *Store) PracticeWeek(ctx context.Context, studio, ladderID string, start time.Time) (PracticeWeek, error) {
	w := PracticeWeek{Ladder: ladderID, Start: start}
	r, err := s.q(ctx).PracticeWeek(ctx, rows.PracticeWeekParams{StudioID: studio, LadderID: ladderID, Start: start})
	if errors.Is(err, sql.ErrNoRows) {
		return w, nil
	}
	if err != nil {
		return w, err
	}
	w.Version, w.PublishedAt = r.Version, r.PublishedAt.Time
	if w.Hand, err = document.DecodeWeekHand([]byte(r.Hand)); err != nil {
		return w, damagedWeek(ladderID, start, err)
	}
	w.Published, err = publishedOf(ladderID, start, r.Published)
	return w, err
}

// StudioHands are what was set by hand in the weeks of a studio that begin after a day, by ladder, without what was published.
func (s *Store) StudioHands(ctx context.Context, studio string, after time.Time) (map[string][]PracticeWeek, error) {
	list, err := s.q(ctx).StudioHands(ctx, rows.StudioHandsParams{StudioID: studio, Start: after})
	out := map[string][]PracticeWeek{}
	for _, r := range list {
		w := PracticeWeek{Ladder: r.LadderID, Start: r.Start, Version: r.Version}
		if w.Hand, err = document.DecodeWeekHand([]byte(r.Hand)); err != nil {
			return nil, damagedWeek(r.LadderID, r.Start, err)
		}
		out[r.LadderID] = append(out[r.LadderID], w)
	}
	return out, err
}

func publishedOf(ladderID string, start time.Time, body string) (*week.Plan, error) {
	if body == "" {
		return nil, nil
	}
	p, err := document.DecodeWeek([]byte(body))
	if err != nil {
		return nil, damagedWeek(ladderID, start, err)
	}
	return &p, nil
}

func damagedWeek(ladderID string, start time.Time, err error) error {
	return fmt.Errorf("the week of ladder %s from %s cannot be read: %w", ladderID, start.Format(time.DateOnly), err)
}

// PublishedWeeks returns the weeks of a ladder that were published and begin after a day, in order.
func (s *Store) PublishedWeeks(ctx context.Context, studio, ladderID string, after time.Time) ([]PracticeWeek, error) {
	list, err := s.q(ctx).PublishedWeeks(ctx, rows.PublishedWeeksParams{StudioID: studio, LadderID: ladderID, Start: after})
	var out []PracticeWeek
	for _, r := range list {
		p, err := publishedOf(ladderID, r.Start, r.Published)
		if err != nil {
			return nil, err
		}
		out = append(out, PracticeWeek{Ladder: ladderID, Start: r.Start, Published: p, PublishedAt: r.PublishedAt.Time})
	}
	return out, err
}

// WeekBefore returns the latest published week that begins before a day; none where there is no such week.
func (s *Store) WeekBefore(ctx context.Context, studio, ladderID string, day time.Time) ([]PracticeWeek, error) {
	r, err := s.q(ctx).WeekBefore(ctx, rows.WeekBeforeParams{StudioID: studio, LadderID: ladderID, Start: day})
	if errors.Is(err, sql.ErrNoRows) {
		return nil, nil
	}
	if err != nil {
		return nil, err
	}
	p, err := publishedOf(ladderID, r.Start, r.Published)
	return []PracticeWeek{{Ladder: ladderID, Start: r.Start, Published: p, PublishedAt: r.PublishedAt.Time}}, err
}

// StudioWeeks returns the days that were set in the published weeks of a whole
// studio that begin after a day, by ladder and in order.
func (s *Store) StudioWeeks(ctx context.Context, studio string, after time.Time) (map[string][]week.SetDays, error) {
	list, err := s.q(ctx).StudioWeeks(ctx, rows.StudioWeeksParams{StudioID: studio, Start: after})
	out := map[string][]week.SetDays{}
	for _, r := range list {
		w, err := setDays(r.LadderID, r.Start, r.Days)
		if err != nil {
			return nil, err
		}
		out[r.LadderID] = append(out[r.LadderID], w)
	}
	return out, err
}

// LadderWeeks returns the days that were set in all published weeks of one ladder, in order.
func (s *Store) LadderWeeks(ctx context.Context, studio, ladderID string) ([]week.SetDays, error) {
	list, err := s.q(ctx).LadderWeeks(ctx, rows.LadderWeeksParams{StudioID: studio, LadderID: ladderID})
	out := make([]week.SetDays, len(list))
	for i, r := range list {
		if out[i], err = setDays(r.LadderID, r.Start, r.Days); err != nil {
			return nil, err
		}
	}
	return out, err
}

// setDays reads the days of a published week.
func setDays(ladderID string, start time.Time, days string) (week.SetDays, error) {
	w := week.SetDays{Start: start}
	for _, text := range strings.Fields(days) {
		day, err := time.Parse(time.DateOnly, text)
		if err != nil {
			return w, damagedWeek(ladderID, start, err)
		}
		w.Days = append(w.Days, day)
	}
	return w, nil
}

// daysOf are the dates of a plan on which something is set.
func daysOf(p *week.Plan) string {
	var out []string
	for _, d := range p.Days {
		if !d.Rest && len(d.Items) > 0 {
			out = append(out, d.Date.Format(time.DateOnly))
		}
	}
	return strings.Join(out, " ")
}

// SavePracticeWeek keeps a week. Its version is the one that it was made from,
// 0 for a new one; a stale one is ErrConflict. Messages are kept
// with it or not at all.
func (s *Store) SavePracticeWeek(ctx context.Context, studio string, w PracticeWeek, messages []Message) error {
	hand, err := document.EncodeWeekHand(w.Hand)
	if err != nil {
		return err
	}
	body, days, at := []byte{}, "", sql.NullTime{}
	if w.Published != nil {
		at, days = sql.NullTime{Time: w.PublishedAt, Valid: true}, daysOf(w.Published)
		if body, err = document.EncodeWeek(*w.Published); err != nil {
			return err
		}
	}
	return explain(s.within(ctx, func(q *rows.Queries) error {
		if w.Version == 0 {
			err := q.AddPracticeWeek(
				ctx,
				rows.AddPracticeWeekParams{
					StudioID:    studio,
					LadderID:    w.Ladder,
					Start:       w.Start,
					Hand:        string(hand),
					Published:   string(body),
					Days:        days,
					PublishedAt: at,
				},
			)
			if err != nil {
				return err
			}
		} else {
			err := changed(q.ChangePracticeWeek(ctx, rows.ChangePracticeWeekParams{Hand: string(hand), Published: string(body), Days: days, PublishedAt: at, StudioID: studio, LadderID: w.Ladder, Start: w.Start, Version: w.Version}))
			if err != nil {
				return err
			}
		}
		return s.addMessages(ctx, q, studio, messages)
	}))
}

// addMessages puts messages into the mailbox. What waits for a later time, of the same kind for the same ladder, is
// overtaken by them and goes, but for reports and answers, which say something each.
func (s *Store) addMessages(ctx context.Context, q *rows.Queries, studio string, messages []Message) error {
	overtaken := map[[2]string]bool{}
	for _, m := range messages {
		key := [2]string{m.Ladder, string(m.Kind)}
		if overtaken[key] || m.Kind == AboutReport || m.Kind == AboutAnswer {
			continue
		}
		overtaken[key] = true
		if err := q.DropWaiting(ctx, rows.DropWaitingParams{StudioID: studio, LadderID: m.Ladder, Kind: string(m.Kind), NotBefore: m.MadeAt}); err != nil {
			return err
		}
	}
	for _, m := range messages {
		before := m.NotBefore
		if before.IsZero() {
			before = m.MadeAt
		}
		err := q.AddMessage(ctx, rows.AddMessageParams{
			StudioID: studio, ID: m.ID, LadderID: m.Ladder, Recipient: m.To, Subject: shortened(m.Subject, 200), Body: s.secret.close(m.Body),
			MadeAt: m.MadeAt, NotBefore: before,
			Kind: string(m.Kind), Day: sql.NullTime{Time: m.Day, Valid: !m.Day.IsZero()}, Stop: s.secret.close(m.Stop),
		})
		if err != nil {
			return err
		}
	}
	return nil
}

// WeekVersions returns the versions of the weeks that begin after a day, by ladder and start.
func (s *Store) WeekVersions(ctx context.Context, studio string, after time.Time) (map[string]map[time.Time]int64, error) {
	list, err := s.q(ctx).WeekVersions(ctx, rows.WeekVersionsParams{StudioID: studio, Start: after})
	out := map[string]map[time.Time]int64{}
	for _, r := range list {
		if out[r.LadderID] == nil {
			out[r.LadderID] = map[time.Time]int64{}
		}
		out[r.LadderID][r.Start] = r.Version
	}
	return out, err
}

// NoteShownWeek keeps the plan of a week as a teacher saw it, in place of the one seen before.
func (s *Store) NoteShownWeek(ctx context.Context, studio, ladderID string, start time.Time, print string, p week.Plan) error {
	last, err := s.q(ctx).ShownPrint(ctx, rows.ShownPrintParams{StudioID: studio, LadderID: ladderID, Start: start})
	if err != nil && !errors.Is(err, sql.ErrNoRows) || last == print {
		return err
	}
	body, err := document.EncodeWeek(p)
	if err != nil {
		return err
	}
	return s.q(ctx).
		NoteShownWeek(ctx, rows.NoteShownWeekParams{StudioID: studio, LadderID: ladderID, Start: start, Print: print, Body: string(body)})
}

// ShownWeek returns the plan of a week that a teacher saw, by its print; known is false when another was seen since.
func (s *Store) ShownWeek(
	ctx context.Context,
	studio, ladderID string,
	start time.Time,
	print string,
) (p week.Plan, known bool, err error) {
	body, err := s.q(ctx).ShownWeek(ctx, rows.ShownWeekParams{StudioID: studio, LadderID: ladderID, Start: start, Print: print})
	if errors.Is(err, sql.ErrNoRows) {
		return p, false, nil
	}
	if err != nil {
		return p, false, err
	}
	p, err = document.DecodeWeek([]byte(body))
	return p, err == nil, err
}

// Family is how a student's family is reached.
type Family struct {
	Studio, Ladder string
	// Email is where messages go; empty for nowhere.
	Email string
	// Token opens the family's page until the end of the day Expires; empty when there is no link.
	Token   string
	Expires time.Time
	// Language it is spoken to in, by its short name; empty for the usual one.
	Language string
	// Mail says what it wishes to be sent; empty for each week. Remind wishes a message on days of practice.
	Mail   withfamily.Mail
	Remind bool
}

// Link is how the family comes to its page.
func (f Family) Link() athome.Link { return athome.Link{Token: f.Token, Expires: f.Expires} }

// Wish is what a family wishes to be sent: each week where it has said nothing.
func (f Family) Wish() withfamily.Mail {
	if f.Mail == "" {
		return withfamily.EachWeek
	}
	return f.Mail
}

// Family returns how a student's family is reached; the zero value but for the ids when nothing is kept.
func (s *Store) Family(ctx context.Context, studio, ladderID string) (Family, error) {
	r, err := s.q(ctx).Family(ctx, rows.FamilyParams{StudioID: studio, LadderID: ladderID})
	if errors.Is(err, sql.ErrNoRows) {
		return Family{Studio: studio, Ladder: ladderID}, nil
	}
	if err != nil {
		return Family{}, err
	}
	return s.familyOf(r)
}

// FamilyByToken returns the family whose page a token opens, or ErrNotFound. It
// does not look at the day on which the link expires.
func (s *Store) FamilyByToken(ctx context.Context, token string) (Family, error) {
	r, err := s.q(ctx).FamilyByToken(ctx, hashed(token))
	if err != nil {
		return Family{}, explain(err)
	}
	return s.familyOf(r)
}

// SetFamilyEmail says where messages go; empty for nowhere.
func (s *Store) SetFamilyEmail(ctx context.Context, studio, ladderID, email string) error {
	return s.family(ctx, studio, ladderID, func(q *rows.Queries) error {
		return q.SetFamilyEmail(ctx, rows.SetFamilyEmailParams{StudioID: studio, LadderID: ladderID, Email: email})
	})
}

// SetFamilyToken gives a family a new link, and so shuts the old one; an empty
// token leaves none.
func (s *Store) SetFamilyToken(ctx context.Context, f Family) error {
	return s.family(ctx, f.Studio, f.Ladder, func(q *rows.Queries) error {
		return q.SetFamilyToken(ctx, rows.SetFamilyTokenParams{
			StudioID: f.Studio, LadderID: f.Ladder, Token: s.secret.close(f.Token), TokenHash: hashed(f.Token),
			Expires: sql.NullTime{Time: f.Expires, Valid: f.Token != ""},
		})
	})
}

// family changes what is kept of a family, which is made where there is none.
func (s *Store) family(ctx context.Context, studio, ladderID string, change func(q *rows.Queries) error) error {
	return explain(s.within(ctx, func(q *rows.Queries) error {
		if err := q.EnsureFamily(ctx, rows.EnsureFamilyParams{StudioID: studio, LadderID: ladderID}); err != nil {
			return err
		}
		return change(q)
	}))
}

func hashed(token string) sql.NullString {
	sum := sha256.Sum256([]byte(token))
	return sql.NullString{String: hex.EncodeToString(sum[:]), Valid: token != ""}
}

func (s *Store) familyOf(r rows.Family) (Family, error) {
	err := s.opened(&r.Token)
	return Family{
		Studio: r.StudioID, Ladder: r.LadderID, Email: r.Email, Token: r.Token, Expires: r.Expires.Time, Language: r.Language,
		Mail: withfamily.Mail(r.Mail), Remind: r.Remind,
	}, err
}

// About says what a message is about.
type About string

// The kinds of messages.
const (
	AboutWeek   About = "week"
	AboutRemind About = "remind"
	AboutReport About = "report"
	AboutAnswer About = "answer"
)

// Message is one to a family.
type Message struct {
	Studio, ID, Ladder string
	// Student is the name of whom it is about; only read.
	Student           string
	To, Subject, Body string
	MadeAt            time.Time
	// NotBefore is when it may be sent; as soon as it is made when zero.
	NotBefore time.Time
	// Kind says what it is about; a reminder is for a Day.
	Kind About
	Day  time.Time
	// Stop is where the family asks for no more of these; empty for nowhere.
	Stop string
	// SentAt is zero until a mail server took it. Tries counts, Failure is what the server said last.
	SentAt  time.Time
	Tries   int
	Failure string
}

// Messages returns the latest hundred of a studio, the newest first.
func (s *Store) Messages(ctx context.Context, studio string) ([]Message, error) {
	list, err := s.q(ctx).Messages(ctx, studio)
	var out []Message
	for _, r := range list {
		if err := s.opened(&r.Body, &r.Stop); err != nil {
			return nil, err
		}
		out = append(out, Message{
			Studio: studio, ID: r.ID, Ladder: r.LadderID, Student: r.Name, To: r.Recipient, Subject: r.Subject, Body: r.Body,
			MadeAt: r.MadeAt, SentAt: r.SentAt.Time, Tries: int(r.Tries), Failure: r.Failure, NotBefore: r.NotBefore, Kind: About(r.Kind),
			Day: r.Day.Time, Stop: r.Stop,
		})
	}
	return out, err
}

// Delivery is how far a message is.
type Delivery string

// The deliveries.
const (
	Delivered Delivery = "delivered" // a mail server took it
	ToCopy    Delivery = "to copy"   // nothing is sent from here
	GivenUp   Delivery = "given up"  // it was tried often enough
	Pending   Delivery = "pending"   // it waits for its time, or for the next try
)

// Delivery is how far a message is where mail is sent, or is not.
func (m Message) Delivery(mails bool) Delivery {
	switch {
	case !m.SentAt.IsZero():
		return Delivered
	case !mails:
		return ToCopy
	case m.Tries >= MostTries:
		return GivenUp
	}
	return Pending
}

// MostTries is how often a message is given to the mail server before it waits for the teacher.
const MostTries = 8

// TakeMessage takes the next message of any studio that is due and holds it
// back until the given time, so that no other server sends it too; ErrNotFound
// when nothing is due.
func (s *Store) TakeMessage(ctx context.Context, now, until time.Time) (Message, error) {
	var m Message
	err := s.within(ctx, func(q *rows.Queries) error {
		r, err := q.DueMessage(ctx, rows.DueMessageParams{NotBefore: now, Tries: MostTries})
		if err != nil {
			return err
		}
		if err := s.opened(&r.Body, &r.Stop); err != nil {
			return err
		}
		m = Message{
			Studio:  r.StudioID,
			ID:      r.ID,
			Ladder:  r.LadderID,
			To:      r.Recipient,
			Subject: r.Subject,
			Body:    r.Body,
			MadeAt:  r.MadeAt,
			Tries:   int(r.Tries) + 1,
			Kind:    About(r.Kind),
			Stop:    r.Stop,
		}
		return q.HoldMessage(ctx, rows.HoldMessageParams{NotBefore: until, StudioID: r.StudioID, ID: r.ID})
	})
	return m, explain(err)
}

// MessageSent notes that a mail server took a message.
func (s *Store) MessageSent(ctx context.Context, m Message, at time.Time) error {
	return s.q(ctx).MessageSent(ctx, rows.MessageSentParams{SentAt: sql.NullTime{Time: at, Valid: true}, StudioID: m.Studio, ID: m.ID})
}

// MessageFailed notes what the mail server said, and holds the message back until a time.
func (s *Store) MessageFailed(ctx context.Context, m Message, why string, until time.Time) error {
	return s.q(ctx).MessageFailed(ctx, rows.MessageFailedParams{Failure: shortened(why, 300), NotBefore: until, StudioID: m.Studio, ID: m.ID})
}

// RetryMessage lets a message that was not sent be tried again.
func (s *Store) RetryMessage(ctx context.Context, studio, id string, now time.Time) error {
	return found(s.q(ctx).RetryMessage(ctx, rows.RetryMessageParams{NotBefore: now, StudioID: studio, ID: id}))
}

func shortened(s string, most int) string {
	if r := []rune(s); len(r) > most {
		return string(r[:most])
	}
	return s
}

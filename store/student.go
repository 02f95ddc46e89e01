package store

import (
	"cmp"
	"context"
	"database/sql"
	"slices"
	"strings"
	"time"

	"github.com/oklog/ulid/v2"

	"patientladder/core/base/calendar"
	"patientladder/core/planning/studentplan"
	"patientladder/core/reading/naming"
	"patientladder/core/student/consent"
	"patientladder/store/rows"
)

// Person is who a student is.
type Person struct {
	ID, Name string
	// Called is how the student is called; empty for the first name.
	Called string
	Born   time.Time
	// BornAbout says that only the age was given.
	BornAbout bool
	// Notes are for the teacher only.
	Notes string
	// Since is the first day in the studio, zero where nobody said; Left the first day without the student, zero for none.
	Since, Left time.Time
	Contacts    []Contact
	Pauses      []Pause
	// Version guards it against a stale form.
	Version int64
}

// Contact is whoever can be reached for a student.
type Contact struct {
	ID, Name, Relation, Email string
	// Messages says that they agreed to be written to.
	Messages bool
	// Named is what they said to the student's name on programmes.
	Named consent.Said
}

// Pause is a stretch without lessons; a zero Last is one whose end nobody knows.
type Pause struct {
	ID          string
	First, Last time.Time
}

// Ladder is one student on one instrument, with the lessons and the practice settings.
type Ladder struct {
	ID, StudentID string
	Name, Called  string
	Born          time.Time
	Instrument    string
	// Teacher is whose student it is, by id; empty for the owner's.
	Teacher string
	// PracticeDays says for each weekday, Sunday first, whether there is practice.
	PracticeDays    [7]bool
	PracticeMinutes int
	HandsApart      bool
	// NoName says that a contact refused that the student is named on programmes; only read.
	NoName bool
	// Approach is the student's own way of reading; empty for the studio's.
	Approach naming.Approach
	// Own holds the switches in which the student's way differs from the studio's (see way.Own).
	Own []byte
	// Entries counts the log.
	Entries int64
	// RungsVersion changes with the order of the rungs; Arrange wants the one that was read.
	RungsVersion int64
	// Version of the practice settings; SetPractice wants the one that was read.
	Version int64
	// Since is the first day in the studio; zero where nobody said.
	Since time.Time
	// Ended is the first day without lessons on this instrument, Left the first without the student; zero for none.
	Ended, Left time.Time
	// Lessons are the slots with what was changed, and the pauses: those of the student, and from the day on
	// that lessons ended. The holidays are not among them.
	Lessons calendar.Timetable
}

// Profile is the student as planning knows them.
func (l Ladder) Profile() studentplan.Profile {
	return studentplan.Profile{
		Ladder: l.ID, Student: l.StudentID, Name: l.Name, Called: l.Called, Born: l.Born, Instrument: l.Instrument, Lessons: l.Lessons,
		Until: l.until(), Since: l.Since, Added: added(l.ID),
		Practises: l.PracticeDays, PracticeMinutes: l.PracticeMinutes, HandsApart: l.HandsApart, NoName: l.NoName,
	}
}

// added is the time in an id; zero where it has none.
func added(id string) time.Time {
	u, err := ulid.ParseStrict(id)
	if err != nil {
		return time.Time{}
	}
	return ulid.Time(u.Time())
}

// until is the first day without lessons; zero for none.
func (l Ladder) until() time.Time {
	if l.Ended.IsZero() || !l.Left.IsZero() && l.Left.Before(l.Ended) {
		return l.Left
	}
	return l.Ended
}

// AddPerson adds a student with a ladder. Adding the same again, by id, changes nothing.
func (s *Store) AddPerson(ctx context.Context, studio string, p Person, l Ladder) error {
	return explain(s.within(ctx, func(q *rows.Queries) error {
		n, err := q.StudentExists(ctx, rows.StudentExistsParams{StudioID: studio, ID: p.ID})
		if err != nil || n > 0 {
			return err
		}
		err = q.AddStudent(ctx, rows.AddStudentParams{
			StudioID: studio, ID: p.ID, Name: p.Name, Called: p.Called, Born: p.Born, BornAbout: p.BornAbout, Notes: p.Notes,
			Since: nullDay(p.Since),
		})
		if err != nil {
			return err
		}
		if err := setContacts(ctx, q, studio, p); err != nil {
			return err
		}
		return addLadder(ctx, q, studio, l)
	}))
}

// AddLadder adds a ladder, with its student where there is none yet. Adding the
// same ladder again, by id, changes nothing.
func (s *Store) AddLadder(ctx context.Context, studio string, l Ladder) error {
	return explain(s.within(ctx, func(q *rows.Queries) error {
		n, err := q.StudentExists(ctx, rows.StudentExistsParams{StudioID: studio, ID: l.StudentID})
		if err != nil {
			return err
		}
		if n == 0 {
			if err := q.AddStudent(ctx, rows.AddStudentParams{StudioID: studio, ID: l.StudentID, Name: l.Name, Called: l.Called, Born: l.Born}); err != nil {
				return err
			}
		}
		return addLadder(ctx, q, studio, l)
	}))
}

func addLadder(ctx context.Context, q *rows.Queries, studio string, l Ladder) error {
	have, err := q.StudentLadders(ctx, rows.StudentLaddersParams{StudioID: studio, StudentID: l.StudentID})
	if err != nil || slices.Contains(have, l.ID) {
		return err
	}
	err = q.AddLadder(ctx, rows.AddLadderParams{
		StudioID: studio, ID: l.ID, StudentID: l.StudentID, Instrument: l.Instrument,
		PracticeDays: dayBits(l.PracticeDays), PracticeMinutes: int16(l.PracticeMinutes), HandsApart: l.HandsApart, TeacherID: text(l.Teacher),
	})
	if err != nil {
		return err
	}
	return setTimetable(ctx, q, studio, l.ID, l.Lessons)
}

// Person returns a student with contacts and pauses.
func (s *Store) Person(ctx context.Context, studio, id string) (Person, error) {
	r, err := s.q(ctx).Student(ctx, rows.StudentParams{StudioID: studio, ID: id})
	if err != nil {
		return Person{}, explain(err)
	}
	p := Person{
		ID: r.ID, Name: r.Name, Called: r.Called, Born: r.Born, BornAbout: r.BornAbout, Notes: r.Notes, Since: r.Since.Time, Left: r.LeftOn.Time,
		Version: r.Version,
	}
	contacts, err := s.q(ctx).Contacts(ctx, rows.ContactsParams{StudioID: studio, StudentID: id})
	if err != nil {
		return p, err
	}
	for _, c := range contacts {
		p.Contacts = append(
			p.Contacts,
			Contact{ID: c.ID, Name: c.Name, Relation: c.Relation, Email: c.Email, Messages: c.Messages, Named: consent.Said(c.Named)},
		)
	}
	pauses, err := s.q(ctx).Pauses(ctx, rows.PausesParams{StudioID: studio, StudentID: id})
	for _, x := range pauses {
		p.Pauses = append(p.Pauses, Pause{ID: x.ID, First: x.FirstDay, Last: x.LastDay.Time})
	}
	return p, err
}

// SetPerson changes who a student is, with the contacts; a stale version is ErrConflict.
func (s *Store) SetPerson(ctx context.Context, studio string, p Person) error {
	return explain(s.within(ctx, func(q *rows.Queries) error {
		n, err := q.SetStudent(ctx, rows.SetStudentParams{
			Name: p.Name, Called: p.Called, Born: p.Born, BornAbout: p.BornAbout, Notes: p.Notes, Since: nullDay(p.Since), StudioID: studio,
			ID: p.ID, Version: p.Version,
		})
		if err != nil {
			return err
		}
		if n == 0 {
			if there, err := q.StudentExists(ctx, rows.StudentExistsParams{StudioID: studio, ID: p.ID}); err != nil || there == 0 {
				return cmp.Or(err, ErrNotFound)
			}
			return ErrConflict
		}
		return setContacts(ctx, q, studio, p)
	}))
}

func setContacts(ctx context.Context, q *rows.Queries, studio string, p Person) error {
	if err := q.DropContacts(ctx, rows.DropContactsParams{StudioID: studio, StudentID: p.ID}); err != nil {
		return err
	}
	for i, c := range p.Contacts {
		err := q.AddContact(ctx, rows.AddContactParams{
			StudioID: studio, ID: c.ID, StudentID: p.ID, Position: int16(i), Name: c.Name, Relation: c.Relation, Email: c.Email,
			Messages: c.Messages, Named: string(c.Named),
		})
		if err != nil {
			return err
		}
	}
	return nil
}

// Recipients are the addresses of those who agreed to be written to about a ladder, in order.
func (s *Store) Recipients(ctx context.Context, studio, ladderID string) ([]string, error) {
	list, err := s.q(ctx).Recipients(ctx, rows.RecipientsParams{StudioID: studio, ID: ladderID})
	return slices.Compact(list), err
}

// SetPause adds or changes a pause.
func (s *Store) SetPause(ctx context.Context, studio, student string, p Pause) error {
	return explain(
		s.q(ctx).SetPause(ctx, rows.SetPauseParams{StudioID: studio, ID: p.ID, StudentID: student, FirstDay: p.First, LastDay: nullDay(p.Last)}),
	)
}

// RemovePause takes a pause away.
func (s *Store) RemovePause(ctx context.Context, studio, student, id string) error {
	return found(s.q(ctx).RemovePause(ctx, rows.RemovePauseParams{StudioID: studio, StudentID: student, ID: id}))
}

// SetLeft says from which day on a student is gone, or with a zero one that they are back; the time away
// stays as a pause, where one is given.
func (s *Store) SetLeft(ctx context.Context, studio, student string, from time.Time, away *Pause) error {
	return explain(s.within(ctx, func(q *rows.Queries) error {
		if err := found(q.SetLeft(ctx, rows.SetLeftParams{LeftOn: nullDay(from), StudioID: studio, ID: student})); err != nil || away == nil {
			return err
		}
		return q.SetPause(
			ctx,
			rows.SetPauseParams{StudioID: studio, ID: away.ID, StudentID: student, FirstDay: away.First, LastDay: nullDay(away.Last)},
		)
	}))
}

// SetEnded says from which day on there are no lessons on an instrument; a zero one takes them up again.
func (s *Store) SetEnded(ctx context.Context, studio, ladderID string, from time.Time) error {
	_, err := s.q(ctx).SetEnded(ctx, rows.SetEndedParams{EndedOn: nullDay(from), StudioID: studio, ID: ladderID})
	return explain(err)
}

// SetInstrument changes the instrument of a ladder.
func (s *Store) SetInstrument(ctx context.Context, studio, ladderID, instrument string) error {
	_, err := s.q(ctx).SetInstrument(ctx, rows.SetInstrumentParams{Instrument: instrument, StudioID: studio, ID: ladderID})
	return explain(err)
}

// Ladder returns one ladder of a studio.
func (s *Store) Ladder(ctx context.Context, studio, id string) (Ladder, error) {
	r, err := s.q(ctx).Ladder(ctx, rows.LadderParams{StudioID: studio, ID: id})
	if err != nil {
		return Ladder{}, explain(err)
	}
	slots, err := s.q(ctx).Slots(ctx, rows.SlotsParams{StudioID: studio, LadderID: id})
	if err != nil {
		return Ladder{}, err
	}
	changes, err := s.q(ctx).LessonChanges(ctx, rows.LessonChangesParams{StudioID: studio, LadderID: id})
	if err != nil {
		return Ladder{}, err
	}
	pauses, err := s.q(ctx).Pauses(ctx, rows.PausesParams{StudioID: studio, StudentID: r.StudentID})
	return ladderOf(r, timetableOf(slots, changes), pauses), err
}

// Ladders returns all ladders of a studio in the order of their lessons in the week: by the slot that holds
// or held last, those without one at the end.
func (s *Store) Ladders(ctx context.Context, studio string) ([]Ladder, error) {
	list, err := s.q(ctx).Ladders(ctx, studio)
	if err != nil {
		return nil, err
	}
	slots, err := s.q(ctx).AllSlots(ctx, studio)
	if err != nil {
		return nil, err
	}
	changes, err := s.q(ctx).AllLessonChanges(ctx, studio)
	if err != nil {
		return nil, err
	}
	pauses, err := s.q(ctx).AllPauses(ctx, studio)
	if err != nil {
		return nil, err
	}
	slotsOf, changesOf, pausesOf := map[string][]rows.Slot{}, map[string][]rows.LessonChange{}, map[string][]rows.Pause{}
	for _, r := range slots {
		slotsOf[r.LadderID] = append(slotsOf[r.LadderID], r)
	}
	for _, r := range changes {
		changesOf[r.LadderID] = append(changesOf[r.LadderID], r)
	}
	for _, r := range pauses {
		pausesOf[r.StudentID] = append(pausesOf[r.StudentID], r)
	}
	out := make([]Ladder, len(list))
	for i, r := range list {
		out[i] = ladderOf(rows.LadderRow(r), timetableOf(slotsOf[r.ID], changesOf[r.ID]), pausesOf[r.StudentID])
	}
	slices.SortFunc(out, func(a, b Ladder) int {
		return cmp.Or(a.place()-b.place(), strings.Compare(a.ID, b.ID))
	})
	return out, nil
}

// place is where in the week the lesson is, in minutes; the end of it without any.
func (l Ladder) place() int {
	const week = 7 * 24 * 60
	if len(l.Lessons.Slots) == 0 {
		return week
	}
	last := slices.MaxFunc(l.Lessons.Slots, func(a, b calendar.Slot) int { return a.From.Compare(b.From) })
	return int(last.Weekday)*24*60 + last.StartsAt
}

// SetPractice changes the practice settings. It returns ErrConflict when the
// version is not the one stored, so that a stale form overwrites nothing.
func (s *Store) SetPractice(ctx context.Context, studio string, l Ladder) error {
	n, err := s.q(ctx).SetPractice(ctx, rows.SetPracticeParams{
		PracticeDays: dayBits(l.PracticeDays), PracticeMinutes: int16(l.PracticeMinutes), HandsApart: l.HandsApart,
		StudioID: studio, ID: l.ID, Version: l.Version,
	})
	if err == nil && n == 0 {
		return ErrConflict
	}
	return err
}

func ladderOf(r rows.LadderRow, t calendar.Timetable, pauses []rows.Pause) Ladder {
	l := Ladder{
		ID: r.ID, StudentID: r.StudentID, Name: r.Name, Called: r.Called, Born: r.Born, Instrument: r.Instrument,
		PracticeMinutes: int(r.PracticeMinutes), HandsApart: r.HandsApart, Version: r.Version, Approach: naming.Approach(r.Approach),
		Own: []byte(r.Way), RungsVersion: r.RungsVersion, Entries: r.Entries, Since: r.Since.Time, Ended: r.EndedOn.Time, Left: r.LeftOn.Time,
		Lessons: t, Teacher: r.TeacherID.String,
		NoName: r.NoName,
	}
	for _, p := range pauses {
		b := calendar.Break{From: p.FirstDay, To: p.LastDay.Time}
		if !p.LastDay.Valid {
			b.To = calendar.NoEnd
		}
		l.Lessons.Pauses = append(l.Lessons.Pauses, b)
	}
	if end := l.until(); !end.IsZero() {
		l.Lessons.Pauses = append(l.Lessons.Pauses, calendar.Break{From: end, To: calendar.NoEnd})
	}
	for d := range l.PracticeDays {
		l.PracticeDays[d] = r.PracticeDays&(1<<d) != 0
	}
	return l
}

func dayBits(days [7]bool) uint8 {
	var bits uint8
	for d, on := range days {
		if on {
			bits |= 1 << d
		}
	}
	return bits
}

// nullDay is a day, or none.
func nullDay(d time.Time) sql.NullTime { return sql.NullTime{Time: d, Valid: !d.IsZero()} }

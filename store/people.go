package store

import (
	"context"
	"encoding/json"
	"time"

	"patientladder/core/base/calendar"
	"patientladder/core/planning/studentplan"
	"patientladder/core/reading/naming"
	"patientladder/core/way"
	"patientladder/store/rows"
)

// Studio is the tenant: one teacher's practice or a school.
type Studio struct {
	ID, Name string
	// Timezone is an IANA name; lessons are in its local time.
	Timezone string
	// LibraryVersion grows with every change of the library.
	LibraryVersion int64
	// Words are how the studio names notes, moves and values.
	Words naming.Words
	// Approach is the studio's usual way of reading.
	Approach naming.Approach
	// Way is how the studio teaches; WayVersion guards it against a stale form.
	Way        way.Way
	WayVersion int64
	// WordsVersion guards words and approach against a stale form.
	WordsVersion int64
}

// Teacher is an account.
type Teacher struct {
	ID, StudioID, Email, Name string
	// PasswordHash is an Argon2id hash with its parameters.
	PasswordHash string
}

// AddStudio adds a studio with its first teacher.
func (s *Store) AddStudio(ctx context.Context, st Studio, t Teacher) error {
	return explain(s.within(ctx, func(q *rows.Queries) error {
		if err := q.AddStudio(ctx, rows.AddStudioParams{ID: st.ID, Name: st.Name, Timezone: st.Timezone}); err != nil {
			return err
		}
		return q.AddTeacher(ctx, rows.AddTeacherParams{ID: t.ID, StudioID: st.ID, Email: t.Email, Name: t.Name, PasswordHash: t.PasswordHash})
	}))
}

// Studio returns a studio by id.
func (s *Store) Studio(ctx context.Context, id string) (Studio, error) {
	r, err := s.q.Studio(ctx, id)
	if err != nil {
		return Studio{}, explain(err)
	}
	w, err := way.Default().With([]byte(r.Way))
	w.Approach = naming.Approach(r.Approach)
	return Studio{
		Way: w, WayVersion: r.WayVersion,
		ID: r.ID, Name: r.Name, Timezone: r.Timezone, LibraryVersion: r.LibraryVersion, Approach: naming.Approach(r.Approach), WordsVersion: r.WordsVersion,
		Words: naming.Words{Notes: naming.Notes(r.NoteNames), Steps: naming.Steps(r.StepNames), Values: naming.Values(r.ValueNames)},
	}, err
}

// SetWay changes how a studio teaches; a stale version is ErrConflict.
func (s *Store) SetWay(ctx context.Context, studio string, w way.Way, version int64) error {
	body, err := json.Marshal(w)
	if err != nil {
		return err
	}
	n, err := s.q.SetWay(ctx, rows.SetWayParams{Way: string(body), Approach: string(w.Approach), ID: studio, WayVersion: version})
	if err == nil && n == 0 {
		return ErrConflict
	}
	return err
}

// SetLadderWay changes in which switches a student differs from the studio (see
// way.Own); the approach among them is kept by itself, empty for the studio's.
func (s *Store) SetLadderWay(ctx context.Context, studio, ladderID string, own []byte, approach naming.Approach) error {
	return s.q.SetLadderWay(ctx, rows.SetLadderWayParams{Way: string(own), Approach: string(approach), StudioID: studio, ID: ladderID})
}

// Holidays returns the studio's holidays by their first day.
func (s *Store) Holidays(ctx context.Context, studio string) ([]calendar.Holiday, error) {
	list, err := s.q.Holidays(ctx, studio)
	out := make([]calendar.Holiday, len(list))
	for i, r := range list {
		out[i] = calendar.Holiday{ID: r.ID, Name: r.Name, First: r.FirstDay, Last: r.LastDay}
	}
	return out, err
}

// SetHoliday adds or changes a holiday.
func (s *Store) SetHoliday(ctx context.Context, studio string, h calendar.Holiday) error {
	return s.q.SetHoliday(ctx, rows.SetHolidayParams{StudioID: studio, ID: h.ID, Name: h.Name, FirstDay: h.First, LastDay: h.Last})
}

// RemoveHoliday takes a holiday away.
func (s *Store) RemoveHoliday(ctx context.Context, studio, id string) error {
	return found(s.q.RemoveHoliday(ctx, rows.RemoveHolidayParams{StudioID: studio, ID: id}))
}

// SetWords changes the studio's words and usual approach. It returns
// ErrConflict when the version is not the one stored.
func (s *Store) SetWords(ctx context.Context, st Studio) error {
	n, err := s.q.SetWords(ctx, rows.SetWordsParams{
		NoteNames: string(st.Words.Notes), StepNames: string(st.Words.Steps), ValueNames: string(st.Words.Values), Approach: string(st.Approach), ID: st.ID, WordsVersion: st.WordsVersion,
	})
	if err == nil && n == 0 {
		return ErrConflict
	}
	return err
}

// SetApproach changes a student's way of reading; empty for the studio's.
func (s *Store) SetApproach(ctx context.Context, studio, ladderID string, a naming.Approach) error {
	return s.q.SetApproach(ctx, rows.SetApproachParams{Approach: string(a), StudioID: studio, ID: ladderID})
}

// TeacherByEmail returns the account with an e-mail address, or ErrNotFound.
func (s *Store) TeacherByEmail(ctx context.Context, email string) (Teacher, error) {
	r, err := s.q.TeacherByEmail(ctx, email)
	return Teacher(r), explain(err)
}

// Teacher returns an account by id.
func (s *Store) Teacher(ctx context.Context, id string) (Teacher, error) {
	r, err := s.q.Teacher(ctx, id)
	return Teacher(r), explain(err)
}

// StudioTeacher returns the first account of a studio.
func (s *Store) StudioTeacher(ctx context.Context, studio string) (Teacher, error) {
	r, err := s.q.StudioTeacher(ctx, studio)
	return Teacher(r), explain(err)
}

// Ladder is one student on one instrument, with the weekly lesson and the practice settings.
type Ladder struct {
	ID, StudentID string
	Name          string
	Born          time.Time
	Instrument    string
	// PracticeDays says for each weekday, Sunday first, whether there is practice.
	PracticeDays    [7]bool
	PracticeMinutes int
	HandsApart      bool
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
	// Weekday and StartsAt (minutes after midnight) place the lesson, which lasts Minutes.
	Weekday           time.Weekday
	StartsAt, Minutes int
}

// Profile is the student as planning knows them.
func (l Ladder) Profile() studentplan.Profile {
	return studentplan.Profile{
		Ladder: l.ID, Name: l.Name, Born: l.Born, Instrument: l.Instrument, Weekday: l.Weekday, Minutes: l.Minutes,
		Practises: l.PracticeDays, PracticeMinutes: l.PracticeMinutes, HandsApart: l.HandsApart,
	}
}

// Age is the student's age in whole years on a day.
func (l Ladder) Age(day time.Time) int { return l.Profile().Age(day) }

// AddLadder adds a student with a ladder and the weekly lesson. Adding the
// same student again, by id, changes nothing.
func (s *Store) AddLadder(ctx context.Context, studio string, l Ladder) error {
	return explain(s.within(ctx, func(q *rows.Queries) error {
		n, err := q.StudentExists(ctx, rows.StudentExistsParams{StudioID: studio, ID: l.StudentID})
		if err != nil || n > 0 {
			return err
		}
		if err := q.AddStudent(ctx, rows.AddStudentParams{StudioID: studio, ID: l.StudentID, Name: l.Name, Born: l.Born}); err != nil {
			return err
		}
		err = q.AddLadder(ctx, rows.AddLadderParams{
			StudioID: studio, ID: l.ID, StudentID: l.StudentID, Instrument: l.Instrument,
			PracticeDays: dayBits(l.PracticeDays), PracticeMinutes: int16(l.PracticeMinutes), HandsApart: l.HandsApart,
		})
		if err != nil {
			return err
		}
		return q.AddLessonSlot(ctx, rows.AddLessonSlotParams{
			StudioID: studio, LadderID: l.ID, Weekday: uint8(l.Weekday), StartsAt: int16(l.StartsAt), Minutes: int16(l.Minutes),
		})
	}))
}

// Ladder returns one ladder of a studio.
func (s *Store) Ladder(ctx context.Context, studio, id string) (Ladder, error) {
	r, err := s.q.Ladder(ctx, rows.LadderParams{StudioID: studio, ID: id})
	return ladderOf(r), explain(err)
}

// Ladders returns all ladders of a studio in the order of their lessons in the week.
func (s *Store) Ladders(ctx context.Context, studio string) ([]Ladder, error) {
	list, err := s.q.Ladders(ctx, studio)
	if err != nil {
		return nil, err
	}
	out := make([]Ladder, len(list))
	for i, r := range list {
		out[i] = ladderOf(rows.LadderRow(r))
	}
	return out, nil
}

// SetPractice changes the practice settings. It returns ErrConflict when the
// version is not the one stored, so that a stale form overwrites nothing.
func (s *Store) SetPractice(ctx context.Context, studio string, l Ladder) error {
	n, err := s.q.SetPractice(ctx, rows.SetPracticeParams{
		PracticeDays: dayBits(l.PracticeDays), PracticeMinutes: int16(l.PracticeMinutes), HandsApart: l.HandsApart,
		StudioID: studio, ID: l.ID, Version: l.Version,
	})
	if err == nil && n == 0 {
		return ErrConflict
	}
	return err
}

func ladderOf(r rows.LadderRow) Ladder {
	l := Ladder{
		ID: r.ID, StudentID: r.StudentID, Name: r.Name, Born: r.Born, Instrument: r.Instrument,
		PracticeMinutes: int(r.PracticeMinutes), HandsApart: r.HandsApart, Version: r.Version, Approach: naming.Approach(r.Approach),
		Own: []byte(r.Way), RungsVersion: r.RungsVersion, Entries: r.Entries,
		Weekday: time.Weekday(r.Weekday), StartsAt: int(r.StartsAt), Minutes: int(r.Minutes),
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

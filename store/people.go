package store

import (
	"cmp"
	"context"
	"database/sql"
	"encoding/json"
	"maps"
	"strings"
	"time"

	"patientladder/core/base/calendar"
	"patientladder/core/planning/withfamily"
	"patientladder/core/reading/naming"
	"patientladder/core/way"
	"patientladder/store/document"
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
	// Ways are in what the ways of teachers differ from it, as JSON, by the id of the teacher.
	Ways map[string]json.RawMessage
	// KeepYears is how many years the data of those who left stay; 0 for ever.
	KeepYears int
	// Language is that of families who have chosen none, by its short name; empty for English.
	Language string
	// FirstDay is the day on which a week begins on screen.
	FirstDay time.Weekday
	// Letterhead are the lines under the studio's name on papers and letters.
	Letterhead string
	// Quiet are the hours in which nothing is sent to families.
	Quiet withfamily.Quiet
	// Told is the number of the last change of figures that the studio was told of.
	Told int
	// WordsVersion guards words and approach against a stale form.
	WordsVersion int64
}

// Teacher is an account.
type Teacher struct {
	ID, StudioID, Email, Name string
	// PasswordHash is an Argon2id hash with its parameters.
	PasswordHash string
	// Role is owner, teacher or assistant.
	Role string
	// SecondSecret is that of the second factor, empty for none; SecondStep the last step that was used.
	SecondSecret string
	SecondStep   int64
}

// AddStudio adds a studio with its first teacher.
func (s *Store) AddStudio(ctx context.Context, st Studio, t Teacher) error {
	return explain(s.within(ctx, func(q *rows.Queries) error {
		if err := q.AddStudio(ctx, rows.AddStudioParams{ID: st.ID, Name: st.Name, Timezone: st.Timezone, Told: int32(st.Told)}); err != nil {
			return err
		}
		return q.AddTeacher(
			ctx,
			rows.AddTeacherParams{
				ID:           t.ID,
				StudioID:     st.ID,
				Email:        t.Email,
				Name:         t.Name,
				PasswordHash: t.PasswordHash,
				Role:         cmp.Or(t.Role, "owner"),
			},
		)
	}))
}

// Studio returns a studio by id.
func (s *Store) Studio(ctx context.Context, id string) (Studio, error) {
	r, err := s.q(ctx).Studio(ctx, id)
	if err != nil {
		return Studio{}, explain(err)
	}
	w, err := way.Default().With([]byte(r.Way))
	if err != nil {
		return Studio{}, err
	}
	w.Approach = naming.Approach(r.Approach)
	ways, err := document.DecodeWays([]byte(r.TeacherWays.String))
	return Studio{
		Ways: ways,
		Way:  w, WayVersion: r.WayVersion,
		ID: r.ID, Name: r.Name, Timezone: r.Timezone, Told: int(r.Told), LibraryVersion: r.LibraryVersion, KeepYears: int(r.KeepYears),
		Language: r.Language, FirstDay: time.Weekday(r.FirstDay), Letterhead: r.Letterhead,
		Quiet: withfamily.Quiet{From: int(r.QuietFrom), To: int(r.QuietTo)}, Approach: naming.Approach(r.Approach),
		WordsVersion: r.WordsVersion,
		Words: naming.Words{
			Notes:  naming.Notes(r.NoteNames),
			Steps:  naming.Steps(r.StepNames),
			Values: naming.Values(r.ValueNames),
			Rhythm: naming.Rhythm(r.RhythmWords),
		},
	}, err
}

// SetTold notes of which change of figures a studio was told; one before that changes nothing.
func (s *Store) SetTold(ctx context.Context, studio string, number int) error {
	return s.q(ctx).Told(ctx, rows.ToldParams{Told: int32(number), ID: studio, Told_2: int32(number)})
}

// Under are the lines of the letterhead.
func (t Studio) Under() []string {
	if t.Letterhead == "" {
		return nil
	}
	return strings.Split(t.Letterhead, "\n")
}

// WayOf is how a teacher of the studio teaches: the studio's way with the teacher's own over it.
func (t Studio) WayOf(teacher string) (way.Way, error) { return t.Way.With(t.Ways[teacher]) }

// WithWay is the studio with the way of a teacher changed; own holds in what it differs, empty for nothing.
func (t Studio) WithWay(teacher string, own []byte) Studio {
	ways := map[string]json.RawMessage{}
	maps.Copy(ways, t.Ways)
	if delete(ways, teacher); len(own) > 0 {
		ways[teacher] = own
	}
	t.Ways = ways
	return t
}

// SetTeacherWays keeps the ways of teachers as a studio has them; a stale version is ErrConflict.
func (s *Store) SetTeacherWays(ctx context.Context, t Studio, version int64) error {
	body, err := document.EncodeWays(t.Ways)
	if err != nil {
		return err
	}
	n, err := s.q(ctx).
		SetTeacherWays(ctx, rows.SetTeacherWaysParams{TeacherWays: sql.NullString{String: string(body), Valid: len(t.Ways) > 0}, ID: t.ID, WayVersion: version})
	if err == nil && n == 0 {
		return ErrConflict
	}
	return err
}

// SetWay changes how a studio teaches; a stale version is ErrConflict.
func (s *Store) SetWay(ctx context.Context, studio string, w way.Way, version int64) error {
	body, err := json.Marshal(w)
	if err != nil {
		return err
	}
	n, err := s.q(ctx).SetWay(ctx, rows.SetWayParams{Way: string(body), Approach: string(w.Approach), ID: studio, WayVersion: version})
	if err == nil && n == 0 {
		return ErrConflict
	}
	return err
}

// SetLadderWay changes in which switches a student differs from the studio (see
// way.Own); the approach among them is kept by itself, empty for the studio's.
func (s *Store) SetLadderWay(ctx context.Context, studio, ladderID string, own []byte, approach naming.Approach) error {
	return s.q(ctx).SetLadderWay(ctx, rows.SetLadderWayParams{Way: string(own), Approach: string(approach), StudioID: studio, ID: ladderID})
}

// Holidays returns the holidays of the studio and of its students by their first day.
func (s *Store) Holidays(ctx context.Context, studio string) ([]calendar.Holiday, error) {
	list, err := s.q(ctx).Holidays(ctx, studio)
	out := make([]calendar.Holiday, len(list))
	for i, r := range list {
		out[i] = calendar.Holiday{ID: r.ID, Name: r.Name, First: r.FirstDay, Last: r.LastDay, Student: r.StudentID}
	}
	return out, err
}

// SetHoliday adds or changes a holiday.
func (s *Store) SetHoliday(ctx context.Context, studio string, h calendar.Holiday) error {
	return s.q(ctx).
		SetHoliday(ctx, rows.SetHolidayParams{StudioID: studio, ID: h.ID, Name: h.Name, FirstDay: h.First, LastDay: h.Last, StudentID: h.Student})
}

// SetHolidays adds or changes some holidays, all or none.
func (s *Store) SetHolidays(ctx context.Context, studio string, list []calendar.Holiday) error {
	return s.Together(ctx, func(ctx context.Context) error {
		for _, h := range list {
			if err := s.SetHoliday(ctx, studio, h); err != nil {
				return err
			}
		}
		return nil
	})
}

// RemoveHoliday takes a holiday away.
func (s *Store) RemoveHoliday(ctx context.Context, studio, id string) error {
	return found(s.q(ctx).RemoveHoliday(ctx, rows.RemoveHolidayParams{StudioID: studio, ID: id}))
}

// SetWords changes the studio's words and usual approach. It returns
// ErrConflict when the version is not the one stored.
func (s *Store) SetWords(ctx context.Context, st Studio) error {
	n, err := s.q(ctx).SetWords(ctx, rows.SetWordsParams{
		NoteNames: string(st.Words.Notes), StepNames: string(st.Words.Steps), ValueNames: string(st.Words.Values),
		RhythmWords: rhythm(st.Words.Rhythm), Approach: string(st.Approach), ID: st.ID, WordsVersion: st.WordsVersion,
	})
	if err == nil && n == 0 {
		return ErrConflict
	}
	return err
}

// SetApproach changes a student's way of reading; empty for the studio's.
func (s *Store) SetApproach(ctx context.Context, studio, ladderID string, a naming.Approach) error {
	return s.q(ctx).SetApproach(ctx, rows.SetApproachParams{Approach: string(a), StudioID: studio, ID: ladderID})
}

// TeacherByEmail returns the account with an e-mail address, or ErrNotFound.
func (s *Store) TeacherByEmail(ctx context.Context, email string) (Teacher, error) {
	r, err := s.q(ctx).TeacherByEmail(ctx, email)
	return s.teacherOf(r, err)
}

// Teacher returns an account by id.
func (s *Store) Teacher(ctx context.Context, id string) (Teacher, error) {
	r, err := s.q(ctx).Teacher(ctx, id)
	return s.teacherOf(r, err)
}

// StudioTeacher returns the first account of a studio.
func (s *Store) StudioTeacher(ctx context.Context, studio string) (Teacher, error) {
	r, err := s.q(ctx).StudioTeacher(ctx, studio)
	return s.teacherOf(r, err)
}

// rhythm is how rhythm words are kept: the default by its name.
func rhythm(r naming.Rhythm) string {
	if r == "" {
		r = naming.Walking
	}
	return string(r)
}

package lookback

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/calendar"
	"patientladder/core/library/material"
	"patientladder/core/planning/plantest"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/studentlog"
)

// Around a day lie the lesson before it and the one after it, whether or not there was one on it.
func TestTheLessonsAroundADay(t *testing.T) {
	past := []PastLesson{{Day: plantest.On(7)}, {Day: plantest.On(14)}, {Day: plantest.On(28)}}
	for day, want := range map[int][2]int{7: {14, 0}, 14: {28, 7}, 28: {0, 14}, 20: {28, 14}, 1: {7, 0}, 40: {0, 28}} {
		before, after := Around(past, plantest.On(day))
		for i, d := range []time.Time{before, after} {
			if want[i] == 0 {
				require.True(t, d.IsZero(), day)
			} else {
				require.Equal(t, plantest.On(want[i]), d, day)
			}
		}
	}
}

func TestTheLessonsThatWere(t *testing.T) {
	s := plantest.Pupil(t, plantest.Piece("a", material.Method), plantest.Piece("b", material.Method))
	s.Profile.Lessons.Slots[0].ID = "s"
	s.Profile.Lessons.Slots[0].From = plantest.Monday.AddDate(0, 0, -35)
	var err error
	s.Profile.Lessons, err = s.Profile.Lessons.CancelLesson("2026-04-20-s", calendar.ByStudent, true)
	require.NoError(t, err)
	log := []studentlog.Entry{
		plantest.Entry("1", 28, studentlog.Assigned, studentlog.Entry{Material: "a"}),
		plantest.Entry("2", 28, studentlog.Note, studentlog.Entry{Text: "Heavy elbows"}),
		plantest.Entry("3", 7, studentlog.Cleared, studentlog.Entry{Material: "a"}), plantest.Entry("4", 7, studentlog.Assigned, studentlog.Entry{Material: "b"}),
		plantest.Entry("5", 7, studentlog.Bring, studentlog.Entry{Text: "the blue book"}),
		plantest.Entry("6", 7, studentlog.WentWell, studentlog.Entry{Text: "the ending"}),
		plantest.Entry("k", 400, studentlog.KnownBefore, studentlog.Entry{Material: "b"}),
	}
	home := plantest.Entry("h", 3, studentlog.Practised, studentlog.Entry{Material: "b"})
	home.Actor = studentlog.Family
	*s = plantest.Folded(*s, append(log, home))
	live := studentlog.Live(append(log, home))
	past := Past(*s, live)
	var told []string
	for _, p := range past {
		told = append(told, fmt.Sprintf("%s %s %v %v %v", p.Day.Format("01-02"), p.State, p.Pieces, p.Cleared, p.Notes))
	}
	require.Equal(t, []string{
		"04-27 taught [a b] [a] []", "04-20 cancelled [] [] []", "04-13 notEntered [] [] []", "04-06 taught [a] [] [Heavy elbows]",
		"03-30 notEntered [] [] []",
	}, told, "practice at home and what was known before are no lessons")
	said := func(e *studentlog.Entry) string { return e.Text }
	require.Len(t, Matching(*s, past, "", said), 5)
	require.Len(t, Matching(*s, past, "ELBOWS", said), 1)
	require.Len(t, Matching(*s, past, "the a", said), 2, "a title counts")
	require.Empty(t, Matching(*s, past, "elbows ending", said), "all words in one lesson")

	last, ok := LastTimeOf(*s, live, plantest.Monday)
	require.True(t, ok)
	require.Equal(t, plantest.Monday.AddDate(0, 0, -7), last.Day)
	require.Equal(t, []string{"the blue book"}, last.Bring)
	_, ok = LastTimeOf(*s, live, plantest.Monday.AddDate(0, 0, -28))
	require.False(t, ok)

	require.Equal(t, plantest.On(7).Add(time.Second), EntryTime(*s, live, plantest.Monday.AddDate(0, 0, -7)), "after the last entry of the day")
	require.Equal(
		t,
		plantest.Monday.AddDate(0, 0, -21).Add(15*time.Hour),
		EntryTime(*s, live, plantest.Monday.AddDate(0, 0, -21)),
		"at the lesson of the calendar",
	)
	require.Equal(t, plantest.Monday.AddDate(0, 0, -20).Add(12*time.Hour), EntryTime(*s, live, plantest.Monday.AddDate(0, 0, -20)), "at noon where there was none")
}

// What became of each lesson of the calendar: what was entered on its day, that it did not take place, that it was cancelled,
// or nothing, of which the teacher is told for eight weeks from the day on which the student was entered here.
func TestWhatBecameOfALesson(t *testing.T) {
	s := plantest.Pupil(t, plantest.Piece("a", material.Method))
	s.Profile.Lessons.Slots[0].ID = "s"
	var err error
	for _, day := range []string{"2026-04-20", "2026-01-05"} {
		s.Profile.Lessons, err = s.Profile.Lessons.CancelLesson(day+"-s", calendar.ByTeacher, false)
		require.NoError(t, err)
	}
	s.Holidays = []calendar.Holiday{plantest.Holiday("half", -7, 1)}
	log := []studentlog.Entry{
		plantest.Entry("1", 21, studentlog.Note, studentlog.Entry{Text: "Heavy elbows"}),
		plantest.Entry("2", 27, studentlog.LessonMissed, studentlog.Entry{Day: "2026-04-06"}),
	}
	*s = plantest.Folded(*s, log)
	became := func() (out []string) {
		for _, l := range s.Timetable().Between(plantest.Monday.AddDate(0, 0, -63), plantest.Monday.AddDate(0, 0, 7)) {
			out = append(out, l.Day.Format("01-02")+" "+string(BecameOf(*s, l)))
		}
		return out
	}
	require.Equal(t, []string{
		"03-02 ", "03-09 notEntered", "03-16 notEntered", "03-23 notEntered", "03-30 notEntered", "04-06 missed", "04-13 taught",
		"04-20 cancelled", "04-27 ", "05-04 ahead", "05-11 ahead",
	}, became(), "nobody asks for one of a holiday, nor after eight weeks")
	s.Profile.Added = plantest.Monday.AddDate(0, 0, -42).Add(15*time.Hour + 29*time.Minute)
	require.Equal(t, []string{"03-16 ", "03-23 notEntered"}, became()[2:4], "nor for one before the student was entered here")
	s.Profile.Added = plantest.Monday.AddDate(0, 0, -42).Add(15*time.Hour + 30*time.Minute)
	require.Equal(t, "03-23 ", became()[3], "that day, but after the lesson")
	s.Profile.Added = plantest.Monday.AddDate(0, 0, -42)
	waits := func() (out []string) {
		for _, u := range AllUnentered([]studentplan.Student{*s}) {
			out = append(out, u.Student.Name+" "+u.Lesson.Day.Format("01-02"))
		}
		return out
	}
	require.Equal(t, []string{"Nell Farrow 03-23", "Nell Farrow 03-30"}, waits())
	s.Now = plantest.Monday.Add(15*time.Hour + 30*time.Minute)
	require.Equal(t, "05-04 notEntered", became()[9], "today's is over")
	require.Equal(t, []string{"Nell Farrow 03-23", "Nell Farrow 03-30"}, waits(), "and is open on the page of the day")
	*s = plantest.Folded(*s, append(log, plantest.Entry("3", 0, studentlog.Assigned, studentlog.Entry{Material: "a"})))
	require.Equal(t, "05-04 taught", became()[9])
	s.Now = plantest.Monday.Add(15 * time.Hour)
	require.Equal(t, "05-04 ahead", became()[9], "to assign a piece before the lesson is not to give it")
	// A piece was assigned in the morning and nothing of the lesson entered: it waits, its entries go under its own time, and
	// what is arranged once it has begun is of it.
	s.Now = plantest.Monday.Add(20 * time.Hour)
	planned := plantest.Entry("4", 0, studentlog.Assigned, studentlog.Entry{Material: "a"})
	states := func() []any {
		*s = plantest.Folded(*s, []studentlog.Entry{planned})
		live := studentlog.Live([]studentlog.Entry{planned})
		return []any{became()[9], Past(*s, live)[0].State, len(LessonDays(*s, live)), EntryTime(*s, live, plantest.Monday).Format("15:04:05")}
	}
	planned.At = plantest.Monday.Add(9 * time.Hour)
	require.Equal(t, []any{"05-04 notEntered", NotEntered, 0, "15:00:00"}, states())
	planned.At = plantest.Monday.Add(15*time.Hour + time.Minute)
	require.Equal(t, []any{"05-04 taught", Taught, 1, "15:01:01"}, states())
	planned.At = plantest.Monday.AddDate(0, 0, -1).Add(16 * time.Hour)
	require.Equal(t, OnlyPlanned, func() Became {
		*s = plantest.Folded(*s, []studentlog.Entry{planned})
		return Past(*s, studentlog.Live([]studentlog.Entry{planned}))[1].State
	}(), "on a day without a lesson")
	// Before the first lesson time, and before the student was entered here, nobody knows of which days there were lessons.
	begin := s.Timetable().Begin()
	planned.At = begin.AddDate(0, 0, -3).Add(16 * time.Hour)
	for _, x := range []struct {
		added time.Time
		days  int
	}{{begin, 1}, {begin.AddDate(0, 0, -2), 1}, {begin.AddDate(0, 0, -3), 0}, {time.Time{}, 0}} {
		s.Profile.Added = x.added
		require.Len(t, LessonDays(*s, studentlog.Live([]studentlog.Entry{planned})), x.days, x.added)
	}
	s.Profile.Added = plantest.Monday.AddDate(0, 0, -42)
	// Of a student of whom nothing was ever entered nobody asks, but for a new one, whose first lesson may have been forgotten.
	none := plantest.Folded(*s, nil)
	require.Empty(t, AllUnentered([]studentplan.Student{none}))
	none.Profile.Added = plantest.Monday.AddDate(0, 0, -28)
	require.Len(t, AllUnentered([]studentplan.Student{none}), 2)
	none.Profile.Added = plantest.Monday.AddDate(0, 0, -29)
	require.Empty(t, AllUnentered([]studentplan.Student{none}))
	s.Now = plantest.Monday.Add(15 * time.Hour)
	*s = plantest.Folded(*s, log)
	var past []string
	for _, p := range Past(*s, studentlog.Live(log)) {
		past = append(past, p.Day.Format("2006-01-02")+" "+string(p.State))
	}
	require.Equal(t, []string{
		"2026-04-20 cancelled", "2026-04-13 taught", "2026-04-06 missed", "2026-03-30 notEntered", "2026-03-23 notEntered",
		"2026-01-05 cancelled",
	}, past, "one that was cancelled stays in the list")
}

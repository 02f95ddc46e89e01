package agenda

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/calendar"
)

// monday 4 May 2026.
var monday = time.Date(2026, 5, 4, 0, 0, 0, 0, time.UTC)

func day(n int) time.Time { return monday.AddDate(0, 0, n) }

// pupil has a weekly lesson of half an hour.
func pupil(name string, weekday time.Weekday, startsAt int) Pupil {
	t := calendar.Weekly(weekday, startsAt, 30, monday.AddDate(-1, 0, 0))
	t.Slots[0].ID = name
	return Pupil{Ladder: name, Student: name, Name: name, Instrument: "piano", Lessons: t}
}

func told(d Day) (out []string) {
	for _, l := range d.Lessons {
		out = append(out, fmt.Sprintf("%s %d %s %v", l.Name, l.StartsAt, l.State, l.Clashes))
	}
	for _, l := range d.Away {
		out = append(out, fmt.Sprintf("%s away to %s", l.Name, l.Day.Format("01-02")))
	}
	return out
}

func TestTheLessonsOfAStudio(t *testing.T) {
	nell, ivo, rosa := pupil("Nell", time.Monday, 930), pupil("Ivo", time.Monday, 900), pupil("Rosa", time.Tuesday, 900)
	var err error
	nell.Lessons, err = nell.Lessons.Move("2026-05-04-Nell", calendar.Time{Day: day(1), StartsAt: 915, Minutes: 30}, monday)
	require.NoError(t, err)
	ivo.Lessons, err = ivo.Lessons.CancelLesson("2026-05-11-Ivo", calendar.ByTeacher, false)
	require.NoError(t, err)
	holidays := []calendar.Holiday{
		{ID: "h", Name: "Harbour day", First: day(8), Last: day(9)}, {ID: "own", Name: "Class trip", First: day(1), Last: day(1), Student: "Ivo"},
	}
	for _, p := range []*Pupil{&nell, &ivo, &rosa} {
		p.Lessons.Holidays = calendar.Breaks(holidays, p.Student, nil)
	}
	pupils := []Pupil{nell, ivo, rosa}
	days := Build(pupils, holidays, monday, day(8))
	require.Len(t, days, 9)
	require.Equal(t, []string{"Ivo 900 planned []", "Nell away to 05-05"}, told(days[0]))
	require.Equal(t, []string{"Rosa 900 planned [Nell]", "Nell 915 moved [Rosa]"}, told(days[1]))
	require.Equal(t, []string{"Ivo 900 cancelled []", "Nell 930 planned []"}, told(days[7]))
	require.Equal(t, 1, days[7].Held())
	require.Equal(t, []string{"Rosa 900 break []"}, told(days[8]))
	require.Equal(t, []string{"Harbour day"}, days[8].Holidays)
	require.Empty(t, days[1].Holidays, "that of one student is not the studio's")
	open := ToMakeUp(pupils, monday)
	require.Len(t, open, 1)
	require.Equal(t, "2026-05-11-Ivo", open[0].ID)
	require.True(t, days[7].Lessons[0].ToMakeUp)

	free := Free(pupils, holidays, "Ivo", 30, day(7), monday)
	require.Equal(
		t,
		[]calendar.Time{{Day: day(7), StartsAt: 870, Minutes: 30}, {Day: day(4), StartsAt: 900, Minutes: 30}},
		free[:2],
		"the time that was cancelled is not offered to whoever could not come",
	)
	others := Free(pupils, holidays, "Rosa", 30, day(7), monday)
	require.Equal(
		t,
		[]calendar.Time{{Day: day(7), StartsAt: 870, Minutes: 30}, {Day: day(7), StartsAt: 900, Minutes: 30}},
		others[:2],
		"for others that of the cancelled lesson is free",
	)
	for _, f := range free {
		require.True(t, f.Day.After(monday))
		require.False(t, calendar.InBreak(f.Day, calendar.Breaks(holidays, "Ivo", nil)), f.Day)
	}
	require.Len(t, free, mostFree)
}

// Whoever left is not in the calendar any more, is owed nothing, and takes no one's time.
func TestWhoLeftHasNoLessons(t *testing.T) {
	nell := pupil("Nell", time.Monday, 930)
	var err error
	nell.Lessons, err = nell.Lessons.CancelLesson("2026-05-04-Nell", calendar.ByTeacher, false)
	require.NoError(t, err)
	nell.Lessons = nell.Lessons.Ended(day(7))
	days := Build([]Pupil{nell}, nil, monday, day(7))
	require.Equal(t, []string{"Nell 930 cancelled []"}, told(days[0]))
	require.Len(t, days[0].Cancelled(), 1)
	require.Empty(t, told(days[7]))
	require.Len(t, ToMakeUp([]Pupil{nell}, day(6)), 1)
	free := Free([]Pupil{nell}, nil, "Ivo", 30, day(7), day(6))
	require.Equal(t, calendar.Time{Day: day(7), StartsAt: 900, Minutes: 30}, free[0])
	require.Equal(t, calendar.Time{Day: day(7), StartsAt: 930, Minutes: 30}, free[1], "the time that was Nell's")
	nell.Gone = true
	require.Empty(t, ToMakeUp([]Pupil{nell}, day(7)))
}

func TestAnEmptyStudioHasDays(t *testing.T) {
	days := Build(nil, nil, monday, day(1))
	require.Equal(t, []Day{{Day: monday}, {Day: day(1)}}, days)
	require.Empty(t, ToMakeUp(nil, monday))
}

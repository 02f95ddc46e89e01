package withfamily

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/calendar"
	"patientladder/core/library/material"
	"patientladder/core/planning/plantest"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
	"patientladder/core/student/enjoyment"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
)

// set is a published week with practice on so many days from its first on.
func set(daysAgo, days int) week.SetDays {
	w := week.SetDays{Start: plantest.Monday.AddDate(0, 0, -daysAgo)}
	for i := range days {
		w.Days = append(w.Days, w.Start.AddDate(0, 0, i))
	}
	return w
}

func practised(daysAgo int, felt studentlog.Feeling) standing.Report {
	return standing.Report{ID: "r", At: plantest.On(daysAgo), Day: plantest.Monday.AddDate(0, 0, -daysAgo).Format(time.DateOnly), Felt: felt, FromHome: true}
}

// Only days that were set and have passed count, once each; signs of liking count wherever they come from.
func TestEvidenceFromHome(t *testing.T) {
	s := plantest.Pupil(t)
	s.Standing.Home = []standing.Report{
		practised(6, studentlog.Joyful), practised(6, studentlog.Fine), practised(5, studentlog.Hard), practised(20, studentlog.Hard),
		{Sign: studentlog.PlayedFirst, At: plantest.On(4), FromHome: true}, {Sign: studentlog.AskedFor}, {Sign: studentlog.Unasked},
		{Sign: studentlog.Liked}, {Sign: studentlog.Disliked},
	}
	weeks := []week.SetDays{set(60, 6), set(13, 7), set(6, 7)}
	require.Equal(
		t,
		enjoyment.Evidence{Set: 2 + 7 + 6, Practised: 3, Joyful: 1, Fine: 1, Hard: 2, Liked: 4, Disliked: 1},
		Evidence(*s, weeks),
		"eight weeks back, up to yesterday",
	)
}

func TestTheQuietOneComesFirst(t *testing.T) {
	of := func(name string, practisedDays int, felt studentlog.Feeling) studentplan.Student {
		s := plantest.Pupil(t)
		s.Ladder, s.Name = name, name
		for i := range practisedDays {
			s.Standing.Home = append(s.Standing.Home, practised(40-i, felt))
		}
		return *s
	}
	weeks := map[string][]week.SetDays{}
	for _, name := range []string{"glowing", "away", "quiet", "set only"} {
		weeks[name] = []week.SetDays{set(40, 40)}
	}
	away := of("away", 0, "")
	away.Standing.Home = append(
		away.Standing.Home,
		standing.Report{Felt: studentlog.Hard},
		standing.Report{Felt: studentlog.Hard},
		standing.Report{Felt: studentlog.Hard},
		standing.Report{Felt: studentlog.Hard},
	)
	var got []string
	for _, b := range Balance([]studentplan.Student{of("glowing", 38, studentlog.Joyful), of("nothing", 0, ""), away, of("set only", 0, ""), of("quiet", 38, studentlog.Hard)}, weeks) {
		got = append(got, b.Name+": "+string(b.Kind))
	}
	require.Equal(
		t,
		[]string{"quiet: quiet", "away: away", "glowing: glowing", "set only: between"},
		got,
		"of whom nothing is known is left out",
	)
}

func TestWhatCameFromHome(t *testing.T) {
	s := plantest.Pupil(t, plantest.Piece("a", material.Method), plantest.Piece("b", material.Method))
	s.Standing.Home = []standing.Report{
		practised(9, studentlog.Hard), practised(6, studentlog.Joyful), practised(6, studentlog.Fine), practised(4, studentlog.Hard),
		{At: plantest.On(5), Sign: studentlog.PlayedFirst, Material: "b", FromHome: true},
		{At: plantest.On(4), Sign: studentlog.PlayedFirst, Material: "a", FromHome: true},
		{At: plantest.On(3), Sign: studentlog.PlayedFirst, Material: "b", FromHome: true}, {At: plantest.On(3), Sign: studentlog.Liked, Material: "a"},
	}
	weeks := []week.SetDays{set(13, 6), set(6, 6), set(0, 6)}
	got, ok := HomeOf(*s, s.Standing.Home, weeks, nil, plantest.Monday)
	require.True(t, ok)
	require.Equal(t, Home{Days: 6, Practised: 4, Joyful: 1, Fine: 1, Hard: 1, First: []string{"b", "a"}}, got)
	// Seen ahead of its day a lesson knows what has come so far.
	got, _ = HomeOf(*s, s.Standing.Home, []week.SetDays{set(6, 7), set(-7, 7)}, nil, plantest.Monday.AddDate(0, 0, 7))
	require.Equal(t, 7, got.Days)
	_, ok = HomeOf(*s, s.Standing.Home, []week.SetDays{set(15, 6)}, nil, plantest.Monday)
	require.False(t, ok, "longer ago than two weeks")
	_, ok = HomeOf(*s, s.Standing.Home, []week.SetDays{set(14, 6)}, nil, plantest.Monday)
	require.True(t, ok)
	_, ok = HomeOf(*s, s.Standing.Home, []week.SetDays{set(0, 6)}, nil, plantest.Monday)
	require.False(t, ok, "the week that begins today is not behind")
}

// Two lessons fall out: the week before them goes on for three. Its further days are set, what is done on them counts, and
// the lesson that comes at last knows of it.
func TestAWeekThatACancellationStretchedCounts(t *testing.T) {
	s := plantest.Pupil(t, plantest.Piece("a", material.Method))
	s.Holidays = []calendar.Holiday{plantest.Holiday("half", -14, 14)}
	weeks := []week.SetDays{set(27, 6), set(20, 6)}
	s.Standing.Home = []standing.Report{
		practised(15, studentlog.Fine),
		practised(14, studentlog.Fine),
		practised(13, studentlog.Hard),
		practised(2, studentlog.Fine),
		{Sign: studentlog.Liked, FromHome: true, At: plantest.On(2), Material: "a"},
	}
	got, ok := HomeOf(*s, s.Standing.Home, weeks, nil, plantest.Monday)
	require.True(t, ok)
	require.Equal(
		t,
		Home{Days: 18, Practised: 3, More: 1, Fine: 3, Hard: 1},
		got,
		"the rest day of the lesson that fell out was practised on, and not set",
	)
	require.Equal(t, enjoyment.Evidence{Set: 6 + 18, Practised: 3, Fine: 3, Hard: 1, Liked: 1}, Evidence(*s, weeks))
	_, ok = HomeOf(*s, s.Standing.Home, weeks, nil, plantest.Monday.AddDate(0, 0, 8))
	require.True(t, ok, "the week was over eight days ago")
	_, ok = HomeOf(*s, s.Standing.Home, weeks, nil, plantest.Monday.AddDate(0, 0, 9))
	require.False(t, ok)
}

func TestTheWaySoFar(t *testing.T) {
	s := plantest.Pupil(
		t,
		plantest.Piece("late", material.Method),
		plantest.Piece("early", material.Technique),
		plantest.Piece("work", material.Reading),
		plantest.Piece("begun", material.Method),
	)
	plantest.Learned(s, "late", 3, 9)
	plantest.Learned(s, "early", 30, 9)
	w := plantest.Working(s, "work", 8)
	w.Full, w.Points = 1, 4
	plantest.Working(s, "begun", 1)
	require.Equal(t, []PathStep{
		{Material: "early", Learned: plantest.Monday.AddDate(0, 0, -30)}, {Material: "late", Learned: plantest.Monday.AddDate(0, 0, -3)},
		{Material: "begun", Points: 3}, {Material: "work", Full: 1, Points: 4},
	}, Path(*s))
}

func TestTheDayOfAFamily(t *testing.T) {
	s := plantest.Pupil(t)
	plan := &week.Plan{}
	for i := range 7 {
		d := week.Day{Date: plantest.Monday.AddDate(0, 0, i), Minutes: 12}
		if i > 0 && i < 6 {
			d.Items = []week.Item{{Key: "a", Minutes: 4}, {Key: "b", Minutes: 8}}
		}
		d.Rest = i == 6
		plan.Days = append(plan.Days, d)
	}
	at := func(day int) AtHome {
		s.Today = plantest.Monday.AddDate(0, 0, day)
		return AtHomeOf(*s, plantest.Monday, plan)
	}
	next := plantest.Monday.AddDate(0, 0, 7)
	require.Equal(t, AtHome{Kind: LessonDay, Begins: plantest.Monday, NextLesson: plantest.Monday}, at(0), "nothing is set on it, for it is the lesson's")
	require.Equal(t, AtHome{Kind: Practice, Things: 2, Minutes: 12, Left: 2, LeftMinutes: 12, Begins: plantest.Monday, NextLesson: next}, at(1))
	s.Standing.Home = []standing.Report{{FromHome: true, Day: "2026-05-05", Item: "b"}, {FromHome: true, Day: "2026-05-06", Item: "a"}, {Day: "2026-05-05", Item: "a"}}
	require.Equal(t, AtHome{Kind: Practice, Things: 2, Minutes: 12, Left: 1, LeftMinutes: 4, Begins: plantest.Monday, NextLesson: next}, at(1), "what is left of the day")
	require.Equal(t, AtHome{Kind: Rest, Begins: plantest.Monday, NextLesson: next}, at(6))
	require.Equal(t, AtHome{Kind: Over, Begins: plantest.Monday, NextLesson: next}, at(7))
	require.Equal(t, AtHome{Kind: LiesAhead, Begins: plantest.Monday, NextLesson: plantest.Monday}, at(-1))
	require.Equal(t, NothingSet, AtHomeOf(*s, plantest.Monday, nil).Kind)
	starts := []time.Time{plantest.Monday.AddDate(0, 0, -7), plantest.Monday, next}
	for day, want := range map[int]int{-20: 0, -1: 0, 0: 1, 6: 1, 7: 2, 30: 2} {
		require.Equal(t, want, Current(starts, plantest.Monday.AddDate(0, 0, day)), "%d days after", day)
		require.Equal(t, starts[want:], Readable(starts, plantest.Monday.AddDate(0, 0, day)), "%d days after", day)
	}
	require.Empty(t, Readable(nil, plantest.Monday))
}

// The family's own ticks: what was done on which day, and what was played first.
func TestWhatAFamilyTicked(t *testing.T) {
	s := plantest.Pupil(t)
	done := standing.Report{ID: "a", At: plantest.On(2), Day: "2026-05-01", Item: "fog/1", Times: 3, Felt: studentlog.Hard, FromHome: true}
	unsaid := standing.Report{ID: "b", At: plantest.On(2), Item: "fog/2", FromHome: true}
	first := standing.Report{ID: "c", At: plantest.On(1), Material: "fog", Sign: studentlog.PlayedFirst, FromHome: true}
	seen, asked := first, first
	seen.FromHome, asked.Sign = false, studentlog.AskedFor
	s.Standing.Home = []standing.Report{done, unsaid, seen, first, asked}
	require.Equal(t, []HomeTick{
		{ID: "a", At: plantest.On(2), Day: time.Date(2026, 5, 1, 0, 0, 0, 0, time.UTC), Item: "fog/1", Times: 3, Felt: studentlog.Hard},
		{ID: "b", At: plantest.On(2), Item: "fog/2"},
		{ID: "c", At: plantest.On(1), Day: plantest.Monday.AddDate(0, 0, -1), Item: "fog", First: true},
	}, Ticks(*s))
}

package studioyear_test

import (
	"fmt"
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/calendar"
	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/planning/forecast"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/studioyear"
	"patientladder/core/planning/week"
	"patientladder/core/student/leap"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
)

var monday = time.Date(2026, 5, 4, 0, 0, 0, 0, time.UTC)

func weeksAgo(n float64) time.Time {
	return monday.Add(-time.Duration(n*7*24) * time.Hour).Add(15 * time.Hour)
}

// library has ten pieces of one leap and length that ask for "pulse", and one that alone asks for "ties" as well.
func library() material.Library {
	lib := material.Library{}
	for i := range 10 {
		id := fmt.Sprint("p", i)
		lib[id] = material.Material{
			ID:           id,
			Title:        id,
			Strand:       material.Method,
			Instrument:   "piano",
			DistinctBars: 8,
			HasScore:     true,
			Demands:      []material.Demand{{Skill: "pulse", Weight: 1}},
		}
	}
	odd := lib["p9"]
	odd.Demands = append(odd.Demands, material.Demand{Skill: "ties", Weight: 0.6})
	lib["p9"] = odd
	lib["scale"] = material.Material{
		ID:         "scale",
		Strand:     material.Technique,
		Instrument: "piano",
		Exercise:   "x",
		Demands:    []material.Demand{{Skill: "thumb", Weight: 1}},
	}
	lib["scale2"] = material.Material{
		ID:           "scale2",
		Strand:       material.Method,
		Instrument:   "piano",
		DistinctBars: 8,
		HasScore:     true,
		Demands:      []material.Demand{{Skill: "thumb", Weight: 1}},
		PartOf:       "x",
	}
	lib["bow"] = material.Material{
		ID:         "bow",
		Strand:     material.Method,
		Instrument: "cello",
		Demands:    []material.Demand{{Skill: "legato", Weight: 1}},
	}
	return lib
}

// pupil has lessons on Mondays, and the standing is empty.
func pupil(t *testing.T, name string) *studentplan.Student {
	skills, err := skill.Parse(
		[]byte(
			`[{"id":"pulse","name":"pulse","steps":["walk"]},{"id":"ties","name":"ties","steps":["a","b"]},{"id":"thumb","name":"thumb"},{"id":"legato","name":"legato"}]`,
		),
	)
	require.NoError(t, err)
	return &studentplan.Student{
		Studio: studentplan.Studio{Library: library(), Skills: skills, Zone: time.UTC, Today: monday, Now: monday.Add(16 * time.Hour)},
		Profile: studentplan.Profile{
			Ladder:     name,
			Student:    name,
			Name:       name,
			Instrument: "piano",
			Lessons:    calendar.Weekly(time.Monday, 900, 30, monday.AddDate(-3, 0, 0)),
		},
		Policy: studentplan.Policy{Standing: standing.DefaultPolicy()},
		Standing: &standing.Standing{Materials: map[string]*standing.MaterialStanding{}, FirstLesson: weeksAgo(120), LastLesson: weeksAgo(1),
			Ability: leap.Ability{Skills: map[string]leap.Evidence{}, Tempo: map[material.Texture]float64{}}},
	}
}

// had gives a piece: begun so many weeks ago, and cleared after some, or not for 0.
func had(s *studentplan.Student, id string, from, took float64, brought ...leap.Evidence) {
	m := &standing.MaterialStanding{
		State:    standing.Working,
		Assigned: weeksAgo(from),
		Before:   &standing.Before{Size: 1, Brought: leap.Brought{Skills: brought}},
	}
	if took > 0 {
		m.State, m.ClearedAt = standing.Cleared, weeksAgo(from-took)
	}
	s.Standing.Materials[id] = m
}

// model has learned that such pieces take about two weeks.
func model() *forecast.Model {
	var seen []forecast.Observation
	for range 40 {
		seen = append(seen, forecast.Observation{Student: "others", Leap: 1, DistinctBars: 8, Weeks: 2})
	}
	return forecast.Fit(seen, forecast.DefaultPrior())
}

func look(in studioyear.Input, students ...*studentplan.Student) studioyear.Year {
	for _, s := range students {
		in.Students = append(in.Students, *s)
	}
	in.Model, in.Today = model(), monday
	return studioyear.Of(in)
}

func TestPiecesThatStall(t *testing.T) {
	a, b, c := pupil(t, "Ada"), pupil(t, "Ben"), pupil(t, "Cleo")
	had(a, "p0", 30, 8)
	had(b, "p0", 20, 0) // in work for twenty weeks
	had(c, "p0", 1, 0)  // just begun: nobody knows yet
	had(a, "p1", 20, 2)
	had(b, "p1", 40, 2)
	had(a, "p2", 60, 9) // one student alone tells nothing of a piece
	had(c, "scale", 50, 30)
	had(b, "scale", 50, 30)
	y := look(studioyear.Input{}, a, b, c)
	require.Len(t, y.Stalls, 1)
	middle := model().Weeks("Ada", 1, 8).Median
	require.Equal(t, "p0", y.Stalls[0].Material)
	require.InDelta(t, math.Sqrt(8/middle*20/middle), y.Stalls[0].Ratio, 0.02)
	require.Equal(
		t,
		[]studioyear.Had{{Ladder: "Ada", Name: "Ada", Weeks: 8}, {Ladder: "Ben", Name: "Ben", Weeks: y.Stalls[0].Had[1].Weeks, Open: true}},
		y.Stalls[0].Had,
	)
	require.InDelta(t, 20, y.Stalls[0].Had[1].Weeks, 0.2)
	// Leaving Ben out takes the stall away and changes nothing of the others.
	require.Empty(t, look(studioyear.Input{}, a, c).Stalls)
}

func TestSkillsThatComeButOnce(t *testing.T) {
	require.Equal(
		t,
		[]studioyear.Once{{Skill: "ties", Instrument: "piano", Material: "p9", Weight: 0.6}},
		look(studioyear.Input{}, pupil(t, "Ada")).Once,
		"neither technique nor what nobody plays",
	)
	require.Empty(t, look(studioyear.Input{}).Once)
	cellist := pupil(t, "Hal")
	cellist.Instrument = "cello"
	both := []studioyear.Once{
		{Skill: "ties", Instrument: "piano", Material: "p9", Weight: 0.6},
		{Skill: "legato", Instrument: "cello", Material: "bow"},
	}
	both[1].Weight = 1
	require.Equal(t, []studioyear.Once{both[1], both[0]}, look(studioyear.Input{}, pupil(t, "Ada"), cellist).Once)
	cellist.Lessons, cellist.Standing.LastLesson = calendar.Timetable{}, weeksAgo(9)
	require.Equal(t, both[:1], look(studioyear.Input{}, pupil(t, "Ada"), cellist).Once, "nobody plays the cello any more")
}

func TestPreviewsThatPaid(t *testing.T) {
	a := pupil(t, "Ada")
	planted, bare, half, secure := leap.Evidence{
		StepsDone: 1,
		Steps:     1,
	}, leap.Evidence{}, leap.Evidence{
		StepsDone: 1,
		Steps:     2,
	}, leap.Evidence{
		Cleared: 2,
	}
	for i := range 5 {
		had(a, fmt.Sprint("p", i), 50-float64(i), 1, planted)
	}
	for i := 5; i < 9; i++ {
		had(a, fmt.Sprint("p", i), 50-float64(i), 4, bare)
	}
	y := look(studioyear.Input{}, a)
	require.Equal(t, []int{5, 4}, []int{y.Planted.N, y.Unplanted.N})
	require.Equal(t, []float64{1, 4}, []float64{math.Round(y.Planted.Took), math.Round(y.Unplanted.Took)})
	require.InDelta(t, model().Weeks("Ada", 1, 8).Median, y.Planted.Expected, 0.01)
	require.False(t, y.Says(), "four are too few")
	had(a, "p9", 30, 4, secure, half)
	y = look(studioyear.Input{}, a)
	require.Equal(t, 5, y.Unplanted.N, "half planted is not planted")
	require.True(t, y.Says())
	b := pupil(t, "Ben")
	require.Equal(t, studioyear.Against{}, look(studioyear.Input{}, b).Planted, "of nothing there is no mean")
	had(b, "scale2", 30, 4, bare) // a new skill for which there is nothing to plant
	had(b, "p0", 30, 4, secure)
	had(b, "p9", 30, 4, planted, bare)
	require.Equal(
		t,
		[]int{5, 5},
		[]int{look(studioyear.Input{}, a, b).Planted.N, look(studioyear.Input{}, a, b).Unplanted.N},
		"neither all nor none",
	)
}

func TestLoadPaceAndWhoCame(t *testing.T) {
	a, b := pupil(t, "Ada"), pupil(t, "Ben")
	b.Lessons = calendar.Timetable{
		Slots: []calendar.Slot{{ID: "S", Weekday: time.Friday, StartsAt: 900, Minutes: 45, Every: 2, From: monday.AddDate(0, -6, 0)}},
	}
	b.Standing.FirstLesson = weeksAgo(20)
	had(a, "p0", 80, 6)
	had(a, "p1", 40, 2)
	had(a, "p2", 30, 3)
	had(a, "p3", 20, 5)
	gone := func(student string, until time.Time) studentplan.Profile {
		return studentplan.Profile{Student: student, Until: until}
	}
	// Ada stopped the cello and came back for the piano: she did not leave.
	left := []studentplan.Profile{
		gone("Cleo", monday.AddDate(0, -3, 0)), gone("Cleo", monday.AddDate(0, -2, 0)), gone("Dov", monday.AddDate(-2, 0, 0)),
		gone("Eve", monday.AddDate(0, 1, 0)), gone("Ada", monday.AddDate(0, -3, 0)),
	}
	paused, idle, second := pupil(t, "Finn"), pupil(t, "Gus"), pupil(t, "Ben")
	paused.Lessons.Pauses = []calendar.Break{{From: monday.AddDate(0, -1, 0), To: calendar.NoEnd}}
	idle.Lessons, idle.Standing.LastLesson = calendar.Timetable{}, weeksAgo(9)
	second.Lessons = calendar.Timetable{}
	y := look(studioyear.Input{Gone: left}, a, b, second, paused, idle)
	require.Equal(t, [7]studioyear.Load{1: {Lessons: 1, Minutes: 30}, 5: {Lessons: 0.5, Minutes: 22.5}}, y.Days)
	require.Equal(t, []int{2, 1, 1}, []int{y.Now, y.Joined, y.Went})
	require.Equal(
		t,
		studioyear.Pace{Pieces: 3, Weeks: math.Round(y.Pace.Weeks*100) / 100},
		studioyear.Pace{Pieces: y.Pace.Pieces, Weeks: math.Round(y.Pace.Weeks*100) / 100},
	)
	require.InDelta(t, 3, y.Pace.Weeks, 0.15)
	require.Equal(t, 1, y.Before.Pieces)
	require.InDelta(t, 6, y.Before.Weeks, 0.15)
}

// The first to talk to is who has most reasons, then who is longest away.
func TestWhomToTalkToFirst(t *testing.T) {
	away := func(name string, weeks float64) *studentplan.Student {
		s := pupil(t, name)
		s.Standing.LastLesson = weeksAgo(weeks)
		return s
	}
	stuck := away("Cleo", 3)
	had(stuck, "p0", 30, 0)
	var names []string
	for _, r := range look(studioyear.Input{}, away("Ada", 6), away("Ben", 9), stuck, away("Dora", 7)).Talk {
		names = append(names, r.Name)
	}
	require.Equal(t, []string{"Cleo", "Ben", "Dora", "Ada"}, names)
	require.Equal(
		t,
		[]studioyear.Reason{{Why: studioyear.Gone, N: 3}, {Why: studioyear.Stuck, N: 30, Material: "p0"}},
		look(studioyear.Input{}, stuck).Talk[0].Reasons,
		"three weeks are a reason beside another",
	)

	// Two of four lessons fell out of the first month; of three nobody counts.
	begun := func(lessons int) *studentplan.Student {
		s := pupil(t, "Eve")
		s.Lessons = calendar.Weekly(time.Monday, 900, 30, monday.AddDate(0, 0, -7*lessons))
		s.Standing.Missed = []string{monday.AddDate(0, 0, -7).Format(time.DateOnly), monday.AddDate(0, 0, -14).Format(time.DateOnly)}
		had(s, "p0", 30, 0)
		return s
	}
	require.Equal(t, studioyear.Reason{Why: studioyear.Missed, N: 2, Of: 4}, look(studioyear.Input{}, begun(4)).Talk[0].Reasons[0])
	require.Empty(t, look(studioyear.Input{}, begun(3)).Talk)
}

// Whom to talk to: two reasons, or six weeks without a lesson; holidays are none, and one thing alone happens to everyone.
func TestWhomToTalkTo(t *testing.T) {
	away := func(weeks float64) *studentplan.Student {
		s := pupil(t, "Ada")
		s.Standing.LastLesson = weeksAgo(weeks)
		return s
	}
	require.Empty(t, look(studioyear.Input{}, away(5)).Talk)
	require.Equal(
		t,
		[]studioyear.Risk{{Ladder: "Ada", Name: "Ada", Weeks: 6, Reasons: []studioyear.Reason{{Why: studioyear.Gone, N: 6}}, Thin: true}},
		look(studioyear.Input{}, away(6)).Talk,
	)
	holidays := away(7)
	holidays.Holidays = []calendar.Holiday{{ID: "h", Name: "Spring", First: monday.AddDate(0, 0, -28), Last: monday.AddDate(0, 0, -14)}}
	require.Empty(t, look(studioyear.Input{}, holidays).Talk, "seven weeks with three of holidays")
	paused := away(20)
	paused.Lessons.Pauses = []calendar.Break{{From: monday.AddDate(0, 0, -100), To: monday.AddDate(0, 0, 100)}}
	require.Empty(t, look(studioyear.Input{}, paused).Talk)
	begun := away(20)
	begun.Standing.FirstLesson = time.Time{}
	require.Empty(t, look(studioyear.Input{}, begun).Talk)

	// Three of eight lessons fell out, and a piece is stuck.
	s := pupil(t, "Ben")
	for _, n := range []int{1, 2, 3} {
		s.Standing.Missed = append(s.Standing.Missed, monday.AddDate(0, 0, -7*n).Format(time.DateOnly))
	}
	require.Empty(t, look(studioyear.Input{}, s).Talk, "one reason")
	had(s, "p0", 30, 0)
	require.Equal(
		t,
		[]studioyear.Reason{{Why: studioyear.Missed, N: 3, Of: 8}, {Why: studioyear.Stuck, N: 30, Material: "p0"}},
		look(studioyear.Input{}, s).Talk[0].Reasons,
	)
	s.Standing.Missed = s.Standing.Missed[:2]
	require.Empty(t, look(studioyear.Input{}, s).Talk, "two of eight is a quarter")

	// Little practice and little joy, from enough days to say so.
	q := pupil(t, "Cleo")
	var set week.SetDays
	for d := 1; d <= 20; d++ {
		set.Days = append(set.Days, monday.AddDate(0, 0, -d))
	}
	for d := 1; d <= 5; d++ {
		day := monday.AddDate(0, 0, -d)
		q.Standing.Home = append(q.Standing.Home, standing.Report{At: day, Day: day.Format(time.DateOnly), Felt: studentlog.Hard})
	}
	weeks := map[string][]week.SetDays{"Cleo": {set}}
	talk := look(studioyear.Input{Weeks: weeks}, q, away(6)).Talk
	require.Equal(t, []string{"Cleo", "Ada"}, []string{talk[0].Name, talk[1].Name}, "most reasons first")
	require.Equal(t, []studioyear.Reason{{Why: studioyear.Unplayed, N: 5, Of: 20}, {Why: studioyear.Joyless, N: 5, Of: 5}}, talk[0].Reasons)
	require.False(t, talk[0].Thin)

	// All that was shown counts, and what was liked speaks against it.
	q.Standing.Home = append(
		q.Standing.Home,
		standing.Report{At: monday, Sign: studentlog.Disliked, Material: "p0"},
		standing.Report{At: monday, Sign: studentlog.Liked, Material: "p1"},
		standing.Report{At: monday, Felt: studentlog.Fine},
	)
	require.Equal(t, studioyear.Reason{Why: studioyear.Joyless, N: 6, Of: 8}, look(studioyear.Input{Weeks: weeks}, q).Talk[0].Reasons[1])
	for range 6 {
		q.Standing.Home = append(q.Standing.Home, standing.Report{At: monday, Felt: studentlog.Joyful})
	}
	require.Empty(t, look(studioyear.Input{Weeks: weeks}, q).Talk, "little practice alone")
	ten := week.SetDays{Days: set.Days[:10]}
	q.Standing.LastLesson = weeksAgo(6)
	require.False(t, look(studioyear.Input{Weeks: map[string][]week.SetDays{"Cleo": {ten}}}, q).Talk[0].Thin, "ten days are enough to go by")
	few := week.SetDays{Days: set.Days[:9]}
	q.Standing.Home = nil
	require.True(
		t,
		look(studioyear.Input{Weeks: map[string][]week.SetDays{"Cleo": {few}}}, func() *studentplan.Student { q.Standing.LastLesson = weeksAgo(4); return q }()).Talk[0].Thin,
		"nine days are little to go by",
	)
}

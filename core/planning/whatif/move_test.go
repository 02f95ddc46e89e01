package whatif

import (
	"fmt"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/calendar"
	"patientladder/core/library/material"
	"patientladder/core/planning/forecast"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/outlook"
	"patientladder/core/planning/plantest"
	"patientladder/core/planning/preview"
	"patientladder/core/planning/studentplan"
)

func TestANewOrderKeepsWhatWasBegun(t *testing.T) {
	s := plantest.Pupil(t, plantest.Piece("begun", material.Method), plantest.Piece("a", material.Method), plantest.Piece("b", material.Method))
	s.Library["viola"] = material.Material{ID: "viola", Instrument: "viola"}
	plantest.Working(s, "begun", 8)
	a := plantest.Ahead(s, "a", "begun", "b")
	placed, err := Arranged(*a, plantest.Place(s, "b", "a"))
	require.NoError(t, err)
	require.Equal(t, plantest.Place(s, "begun", "b", "a"), placed)
	for kind, wanted := range map[Refused][]string{Unknown: {"a", "gone"}, Twice: {"a", "b", "a"}, OtherPlayer: {"viola"}, BegunAlready: {"a", "begun"}} {
		_, err := Arranged(*a, plantest.Place(s, wanted...))
		require.Equal(t, OrderError{Kind: kind, Material: wanted[len(wanted)-1], Place: len(wanted)}, err)
	}
}

// said writes consequences down as they are.
func said(list []Consequence) (out []string) {
	for _, c := range list {
		s := fmt.Sprintf("%s %s", c.Kind, c.Material)
		if c.Worse {
			s += " worse"
		}
		if c.Kind == LeapChanged {
			s += fmt.Sprintf(" %.1f→%.1f", c.Before, c.After)
		}
		if c.Kind == PreviewChanged {
			s += fmt.Sprintf(" %s late by %d", c.Skill, c.Late)
		}
		out = append(out, s)
	}
	return out
}

// What becomes worse comes first, dates come last, and no more than eight are said.
func TestWhatAnotherOrderChanges(t *testing.T) {
	s := plantest.Pupil(
		t,
		plantest.Piece("work", material.Method, "plain"),
		plantest.Piece("first", material.Method, "a", "b"),
		plantest.Piece("second", material.Method, "b", "c"),
		plantest.Piece("third", material.Method, "c", "thumb"),
	)
	plantest.Working(s, "work", 8)
	now := plantest.Ahead(s, "work", "first", "second", "third")
	then := plantest.Ahead(s, "work", "second", "first", "third")
	require.Empty(t, Consequences(now, now, nil))
	// “second” was 1.3 after “first”, and asks for two new things before it; the other way round for “first”.
	require.Equal(
		t,
		[]string{"leap second worse 1.3→2.0", "leap first 2.0→1.3", "date second", "date first"},
		said(Consequences(now, then, nil)),
	)
	c := Consequences(now, then, nil)
	require.Equal(t, 1.5, c[0].Reach)
	require.True(t, c[2].To.Before(c[2].From))
	require.Equal(t, then.Lessons.Day(then.When["second"].Begin.Median), c[2].To)
	require.Equal(t, now.Lessons.Day(now.When["second"].Begin.Median), c[2].From)
	// A rung that is set aside is no cliff any more, but nobody climbs it either.
	placed := plantest.Place(s, "work", "first", "second", "third")
	placed[1].Aside = ladder.Skipped
	skipped := s.Ahead(now.Horizon, placed, studentplan.Options{})
	for _, line := range said(Consequences(now, &skipped, nil)) {
		require.NotContains(t, line, "leap first")
	}
}

// A piece that moves nearer needs its skills sooner: the preview turns late; and comes in time again.
func TestPreviewsTurnLate(t *testing.T) {
	var lib []material.Material
	ids := []string{"work"}
	lib = append(lib, plantest.Piece("work", material.Method, "plain"), plantest.Piece("needs", material.Method, "ties"))
	for i := range 6 {
		lib = append(lib, plantest.Piece(fmt.Sprint("p", i), material.Method, "plain"))
		ids = append(ids, fmt.Sprint("p", i))
	}
	s := plantest.Pupil(t, lib...)
	plantest.Working(s, "work", 1)
	far := plantest.Ahead(s, append(ids, "needs")...)
	near := plantest.Ahead(s, append([]string{"work", "needs"}, ids[1:]...)...)
	ties := func(a *studentplan.StudentOutlook) int {
		return a.Plan.Outcomes[slices.IndexFunc(a.Plan.Outcomes, func(o preview.Outcome) bool { return o.Skill == "ties" })].Late()
	}
	require.Zero(t, ties(far))
	late := ties(near)
	require.Positive(t, late)
	require.Contains(t, said(Consequences(far, near, nil)), fmt.Sprintf("preview needs worse ties late by %d", late))
	require.Contains(t, said(Consequences(near, far, nil)), "preview needs ties late by 0")
	require.LessOrEqual(t, len(Consequences(far, near, nil)), 8)
	require.Equal(t, 8, len(Consequences(far, near, nil)), "seven rungs begin at another time")
}

func TestTargetsMoveWithTheOrder(t *testing.T) {
	s := plantest.Pupil(
		t,
		plantest.Piece("work", material.Method, "plain"),
		plantest.Piece("first", material.Method, "a", "b", "c", "d"),
		plantest.Piece("goal", material.Method, "plain"),
	)
	plantest.Working(s, "work", 8)
	now, then := plantest.Ahead(s, "work", "first", "goal"), plantest.Ahead(s, "work", "goal", "first")
	target := Target{Name: "Recital", Material: "goal", Day: plantest.Monday.AddDate(0, 0, 63)}
	a, err := Work(now, target)
	require.NoError(t, err)
	b, err := Work(then, target)
	require.NoError(t, err)
	require.Greater(t, b.Chance, a.Chance+0.01)
	find := func(list []Consequence) Consequence {
		for _, c := range list {
			if c.Kind == TargetChanged {
				return c
			}
		}
		return Consequence{}
	}
	require.Equal(
		t,
		Consequence{Kind: TargetChanged, Material: "goal", Before: a.Chance, After: b.Chance, Target: "Recital"},
		find(Consequences(now, then, []Target{target})),
	)
	require.True(t, find(Consequences(then, now, []Target{target})).Worse)
	require.Equal(t, Consequence{}, find(Consequences(now, now, []Target{target})), "the same chance is no change")
	_, err = Work(now, Target{Material: "goal", Day: plantest.Monday.AddDate(0, 0, -1)})
	require.Error(t, err)
	// The way of teaching decides how long it is polished.
	s.Policy.PolishWeeks = 6
	c, err := Work(plantest.Ahead(s, "work", "goal", "first"), target)
	require.NoError(t, err)
	require.Less(t, c.Chance, b.Chance)
}

func TestWhatHelpsATarget(t *testing.T) {
	v := outlook.Verdict{
		Chance: 0.5,
		Drops: []outlook.Drop{
			{Material: "a", Chance: 0.9},
			{Material: "b", Chance: 0.51},
			{Material: "c", Chance: 0.505},
			{Material: "d", Chance: 0.6},
			{Material: "e", Chance: 0.8},
		},
	}
	require.Equal(
		t,
		[]outlook.Drop{{Material: "a", Chance: 0.9}, {Material: "b", Chance: 0.51}, {Material: "d", Chance: 0.6}},
		Helpful(v),
		"half a hundredth is none, and four are looked at",
	)
}

// Holidays take lessons up to a day; one without a lesson in it takes none.
func TestLostLessons(t *testing.T) {
	s := plantest.Pupil(t, plantest.Piece("work", material.Method))
	half, far := plantest.Holiday("half", 14, 14), plantest.Holiday("far", 70, 7)
	none := plantest.Holiday("none", 1, 5)
	s.Holidays = []calendar.Holiday{half, none, far}
	a := s.Ahead(studentplan.Horizon{Model: forecast.Fit(nil, forecast.DefaultPrior())}, nil, studentplan.Options{})
	require.Equal(t, []HolidayLoss{{half, 2}}, HolidayLosses(&a, plantest.Monday.AddDate(0, 0, 69)))
	require.Equal(t, []HolidayLoss{{half, 2}, {far, 1}}, HolidayLosses(&a, plantest.Monday.AddDate(0, 0, 70)))
	low, median, high := a.Days(forecast.Span{Low: 0, Median: 2, High: 3})
	require.Equal(t, []time.Time{plantest.Monday, plantest.Monday.AddDate(0, 0, 28), plantest.Monday.AddDate(0, 0, 35)}, []time.Time{low, median, high})
	given := s.Ahead(a.Horizon, nil, studentplan.Options{Given: []string{"half"}})
	require.Equal(t, plantest.Monday.AddDate(0, 0, 14), given.Lessons.Day(2), "a lesson all the same")
	require.Equal(t, 7, a.Gap(plantest.Monday))
	require.Equal(t, 21, a.Gap(plantest.Monday.AddDate(0, 0, 7)))
}

// From outside a lesson that was given today the next one is a week away; from within it is today's.
func TestTheNextLesson(t *testing.T) {
	s := plantest.Pupil(t, plantest.Piece("work", material.Method))
	require.Equal(t, plantest.Monday, plantest.Ahead(s).Lessons.Day(0))
	s.Standing.LastLesson = plantest.On(0)
	require.True(t, s.GivenToday())
	require.Equal(t, plantest.Monday.AddDate(0, 0, 7), plantest.Ahead(s).Lessons.Day(0))
	require.Equal(t, plantest.Monday, plantest.AheadIn(s, studentplan.Options{InLesson: true}).Lessons.Day(0))
	s.Standing.LastLesson = plantest.On(7)
	require.False(t, s.GivenToday())
	require.Equal(t, plantest.Monday, plantest.Ahead(s).Lessons.Day(0))
}

package outlook

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/base/calendar"
	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/planning/forecast"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/preview"
	"patientladder/core/student/leap"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
)

var day = time.Date(2026, 11, 24, 0, 0, 0, 0, time.UTC) // a Tuesday

func skills(t require.TestingT) skill.Catalogue {
	c, err := skill.Parse(
		[]byte(`[{"id":"a","name":"A","steps":["1","2"]},{"id":"b","name":"B","steps":["1","2","3"]},{"id":"c","name":"C"}]`),
	)
	require.NoError(t, err)
	return c
}

// student has worked at the first of some pieces for three weeks; the third and the fifth ask for something new.
func student(t require.TestingT, breaks ...calendar.Break) Input {
	lib, placed := material.Library{}, []ladder.Placed{}
	for i, asks := range []string{"c", "c", "a", "c", "b", "b"} {
		id := fmt.Sprint("m", i)
		lib[id] = material.Material{
			ID:           id,
			Title:        "Piece " + id,
			Strand:       material.Method,
			DistinctBars: 8,
			Demands:      []material.Demand{{Skill: asks, Weight: 1}},
		}
		placed = append(placed, ladder.Placed{Material: id, Strand: material.Method})
	}
	log := []studentlog.Entry{{ID: "1", At: day.AddDate(0, 0, -21), Kind: studentlog.Assigned, Material: "m0"},
		{ID: "1m", At: day.AddDate(0, 0, -21).Add(time.Minute), Kind: studentlog.MarkGiven, Material: "m0", Focus: "x", Mark: studentlog.None}}
	in := Input{
		Student: "s", Library: lib, Placed: placed, Skills: skills(t), Leap: leap.DefaultPolicy(), Preview: preview.DefaultPolicy(),
		Model: forecast.Fit(nil, forecast.DefaultPrior()), Lessons: calendar.New(day, time.Tuesday, breaks), Breaks: breaks, Day: day,
	}
	in.Standing = standing.Fold(
		log,
		standing.Context{Library: lib, Skills: in.Skills, Family: instrument.Keyboard, Policy: standing.DefaultPolicy(), Day: day},
	)
	return in
}

func TestDatesAndBites(t *testing.T) {
	in := student(t)
	o := Of(in)
	require.Len(t, o.When, 6)
	require.Equal(t, 3.0, o.When["m0"].Elapsed)
	for i := 1; i < 6; i++ {
		before, here := o.When[fmt.Sprint("m", i-1)], o.When[fmt.Sprint("m", i)]
		require.Equal(t, before.Clear, here.Begin, "one after the other")
	}
	require.Len(t, o.Needs, 2)
	require.Equal(t, o.When["m2"].Begin.Median, o.Needs[0].By)
	require.Equal(t, "m4", o.Needs[1].For)
	require.Len(t, o.Plan.Steps, 5)
	require.Len(t, o.NextBites(), 2)

	in.Standing.Planted = map[string]time.Time{"a": day.AddDate(0, 0, -3).Add(15 * time.Hour)}
	o = Of(in)
	require.Len(t, o.NextBites(), 1, "a had a step within the week")

	in.Preview.PerLesson = 0
	require.Empty(t, Of(in).Plan.Steps, "no bites are wanted")
}

// Brought two rungs forward, the piece comes sooner, its leap grows, and the
// bites for it are late; the program says what would mend it.
func TestMovingARungMovesWhatHangsOnIt(t *testing.T) {
	in := student(t)
	in.Placed[4], in.Placed[1] = in.Placed[1], in.Placed[4]
	o := Of(in)
	late := 0
	for i, out := range o.Plan.Outcomes {
		if out.Skill == "b" {
			late = out.Late()
			mends := o.Mends(i)
			require.Equal(t, preview.Mend{Kind: "move", Lessons: late}, mends[0])
			require.Equal(
				t,
				preview.Mend{Kind: "substitute", Material: "m2"},
				mends[len(mends)-1],
				"the next above it asks only for what is in time",
			)
		}
	}
	require.Positive(t, late)
	require.Less(t, o.When["m4"].Begin.Median, Of(student(t)).When["m4"].Begin.Median)
}

// The first rung of a strand is met without a preview; the second has one.
func TestABeginningNeedsNoPreview(t *testing.T) {
	in := student(t)
	in.Standing = &standing.Standing{}
	in.Placed[0], in.Placed[2] = in.Placed[2], in.Placed[0] // a first, then c, c, c, b, b
	o := Of(in)
	require.Len(t, o.Needs, 1)
	require.Equal(t, "b", o.Needs[0].Skill)
}

// A strand on which nothing is in work begins when its first rung is planted for.
func TestAnIdleStrandWaits(t *testing.T) {
	in := student(t)
	m := in.Library["m4"]
	m.Strand = material.Repertoire
	in.Library["m4"] = m
	in.Placed[4].Strand = material.Repertoire
	o := Of(in)
	require.Equal(t, 3, o.When["m4"].Begin.Median, "three steps of b, one a lesson, the first today")
	for _, out := range o.Plan.Outcomes {
		require.Zero(t, out.Late(), out.Skill)
	}
	v, err := o.Target(Target{Material: "m4", Date: day.AddDate(0, 0, 120), Sure: 0.8})
	require.NoError(t, err)
	require.GreaterOrEqual(t, v.Straight, v.Chance)
}

func TestStandingAside(t *testing.T) {
	in := student(t)
	in.Placed[2].Aside = ladder.Skipped
	o := Of(in)
	require.NotContains(t, o.When, "m2")
	require.Equal(t, o.When["m1"].Clear, o.When["m3"].Begin, "the student goes on without it")
	require.Len(t, o.Needs, 1)
	in.ReadingFrom = 9
	for id, m := range in.Library {
		m.Strand = material.Reading
		in.Library[id] = m
	}
	for i := range in.Placed {
		in.Placed[i].Strand = material.Reading
	}
	in.Standing = &standing.Standing{}
	require.GreaterOrEqual(t, Of(in).When["m0"].Begin.Low, 9, "reading begins later")
}

func TestAPieceThatTakesTooLong(t *testing.T) {
	in := student(t)
	require.False(t, Of(in).When["m0"].Long)
	in.Standing.Materials["m0"].Assigned = day.AddDate(-1, 0, 0)
	w := Of(in).When["m0"]
	require.True(t, w.Long, "%v weeks against %v", w.Elapsed, w.Usual)
	in.Standing.Materials["m0"].Rested = 350
	require.False(t, Of(in).When["m0"].Long, "it rested for most of the year")
	in.Standing.Materials["m0"].Rested = 0
	in.Breaks = []calendar.Break{{From: day.AddDate(0, 0, -350), To: day.AddDate(0, 0, -7)}}
	require.False(t, Of(in).When["m0"].Long, "there were no lessons")
}

func TestTarget(t *testing.T) {
	in := student(t)
	o := Of(in)
	recital := Target{Material: "m4", Date: day.AddDate(0, 0, 9*7), Polish: 2, Sure: 0.8}
	v, err := o.Target(recital)
	require.NoError(t, err)
	require.Equal(t, 10, v.Lessons, "today's lesson and nine more")
	require.Greater(t, v.Straight, v.Chance, "begun at once it is surer")
	require.Less(t, v.WithoutTwo, v.Chance)
	require.Len(t, v.Drops, 3, "m1, m2 and m3")
	require.GreaterOrEqual(t, v.Drops[0].Chance, v.Drops[2].Chance)
	require.Greater(t, v.Drops[0].Chance, v.Chance)

	holiday := Of(student(t, calendar.Break{From: day.AddDate(0, 0, 20), To: day.AddDate(0, 0, 34)}))
	less, err := holiday.Target(recital)
	require.NoError(t, err)
	require.Equal(t, 8, less.Lessons)
	require.InDelta(t, v.WithoutTwo, less.Chance, 1e-12, "the lessons of two weeks fall out, whichever they are")

	begun, err := o.Target(Target{Material: "m0", Date: day.AddDate(0, 0, 70), Sure: 0.8})
	require.NoError(t, err)
	require.True(t, begun.Begun)

	_, err = o.Target(Target{Material: "m4", Date: day.AddDate(0, 0, -1)})
	require.EqualError(t, err, "23 November 2026 is in the past")
	_, err = o.Target(Target{Material: "elsewhere", Date: day})
	require.ErrorContains(t, err, "not ahead")
}

// More time never makes a target less likely, nor its latest start earlier.
func TestMoreTimeNeverHurts(t *testing.T) {
	o := Of(student(t))
	rapid.Check(t, func(t *rapid.T) {
		id := fmt.Sprint("m", rapid.IntRange(1, 5).Draw(t, "piece"))
		early := Target{
			Material: id,
			Date:     day.AddDate(0, 0, rapid.IntRange(0, 200).Draw(t, "days")),
			Polish:   rapid.IntRange(0, 4).Draw(t, "polish"),
			Sure:     0.8,
		}
		late := early
		late.Date = early.Date.AddDate(0, 0, rapid.IntRange(0, 60).Draw(t, "more"))
		a, err := o.Target(early)
		require.NoError(t, err)
		b, err := o.Target(late)
		require.NoError(t, err)
		require.LessOrEqual(t, a.Chance, b.Chance)
		require.LessOrEqual(t, a.Straight, b.Straight)
		require.LessOrEqual(t, a.LatestStart, b.LatestStart)
		require.True(t, b.Possible || !a.Possible)
	})
}

func TestAPieceInWorkCountsItsWeeksOfLessons(t *testing.T) {
	in := student(t, calendar.Break{From: day.AddDate(0, 0, -14), To: day.AddDate(0, 0, -8)})
	o := &Outlook{in: in}
	weeks := func(assigned time.Time, rested int) float64 {
		return o.elapsed(ladder.Rung{Standing: &standing.MaterialStanding{Assigned: assigned, Rested: rested}})
	}
	require.Equal(t, 0.0, weeks(time.Time{}, 0), "it was never assigned here")
	require.Equal(t, 1.0, weeks(day.AddDate(0, 0, -7).Add(15*time.Hour), 0))
	require.Equal(t, 2.0, weeks(day.AddDate(0, 0, -21), 0), "a week of holidays is none")
	require.Equal(t, 1.0, weeks(day.AddDate(0, 0, -21), 7), "nor is one of rest")
	require.Equal(t, 0.0, weeks(day, 70))
}

func TestTheNextRungOfAnIdleStrand(t *testing.T) {
	rung := func(id string, layer ladder.Layer, aside ladder.Aside) ladder.Rung {
		return ladder.Rung{Material: material.Material{ID: id}, Layer: layer, Aside: aside}
	}
	first := func(r ...ladder.Rung) string { return firstAhead(ladder.Rail{Rungs: r}) }
	require.Equal(
		t,
		"c",
		first(rung("a", ladder.Review, ""), rung("b", ladder.Ahead, "skipped"), rung("c", ladder.Preview, ""), rung("d", ladder.Ahead, "")),
	)
	require.Empty(t, first(rung("a", ladder.Now, ""), rung("b", ladder.Ahead, "")), "something is in work")
	require.Equal(t, "b", first(rung("a", ladder.Now, "paused"), rung("b", ladder.Ahead, "")), "what rests is not in work")
	require.Empty(t, first(rung("a", ladder.Review, "")))
}

func TestASkillRestsForAWeek(t *testing.T) {
	in := student(t)
	in.Standing.Planted = map[string]time.Time{
		"a": day.AddDate(0, 0, -6),
		"b": day.AddDate(0, 0, -7).Add(20 * time.Hour),
		"c": day.AddDate(0, 0, -8),
	}
	require.Equal(t, map[string]bool{"a": true}, (&Outlook{in: in}).recent())
}

func TestWhatForecastsLearnFrom(t *testing.T) {
	from := day.AddDate(0, 0, -35)
	breaks := []calendar.Break{{From: day.AddDate(0, 0, -28), To: day.AddDate(0, 0, -22)}}
	lib := material.Library{"m": {DistinctBars: 12}}
	cleared := []standing.Clearing{{Material: "m", From: from, To: day, Leap: 1.5, Rested: 7}}
	local := func(t time.Time) time.Time { return t }
	require.Equal(
		t,
		[]forecast.Observation{{Student: "s", Leap: 1.5, DistinctBars: 12, Weeks: 3}},
		Observed("s", cleared, lib, breaks, local),
		"five weeks, one of rest and one of holidays",
	)
	require.Equal(t, 4.0, Observed("s", cleared, lib, nil, local)[0].Weeks)
}

func TestWhatMendsALatePreview(t *testing.T) {
	in := student(t)
	in.Preview.PerLesson = 1
	o := Of(in)
	o.Needs[0].By = 1 // two steps in one lesson cannot be
	o.Plan = preview.Schedule(o.Needs, in.Preview.PerLesson)
	require.Equal(
		t,
		[]preview.Mend{{Kind: preview.Move, Lessons: 1}, {Kind: preview.Substitute, Material: "m3"}},
		o.Mends(0),
		"the first rung after it that needs nothing late",
	)
	require.Nil(t, o.Mends(1))
	require.Equal(t, []preview.Step{{Skill: "a", Step: 1, Lesson: 0, Due: -1}}, o.NextBites())
}

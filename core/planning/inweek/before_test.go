package inweek

import (
	"fmt"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/notation/abc"
	"patientladder/core/planning/fromhome"
	"patientladder/core/planning/plantest"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
	"patientladder/core/reading/analysis"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
)

// eightBars reads a tune in which no bar comes twice.
func eightBars(t *testing.T) Read {
	tunes, err := abc.Read([]byte("X:1\nT:Tune\nM:4/4\nL:1/4\nQ:80\nK:C\n" +
		"C D E F | G2 E2 | A G F E | D4 | E E F G | c2 G2 | F D B, D | C4 |]\n"))
	require.NoError(t, err)
	read := &Reading{Piece: analysis.Of(tunes[0], "piano")}
	return func(material.Material) (*Reading, error) { return read, nil }
}

// ticked is what a family reported of a week: each thing of a kind on all of its days.
func ticked(p week.Plan, felt map[string]studentlog.Feeling) (out []standing.Report) {
	for _, d := range p.Days {
		for _, it := range d.Items {
			if f, done := felt[it.Key]; done {
				out = append(out, standing.Report{FromHome: true, Day: d.Date.Format(time.DateOnly), Item: it.Key, Times: it.Times, Felt: f})
			}
		}
	}
	return out
}

// keys are the steps of a plan in the order in which they first come.
func keys(p week.Plan) (out []string) {
	seen := map[string]bool{}
	for _, d := range p.Days {
		for _, it := range d.Items {
			if step := it.Kind == week.Chunk || it.Kind == week.Join; step && !seen[it.Key] {
				seen[it.Key] = true
				out = append(out, it.Key)
			}
		}
	}
	return out
}

// Three weeks of one piece, in which the marks of the lesson stay as they are: what was easy does not come back, not in the week
// after the next either; what was hard comes first, in halves and slower, and each can be taken back.
func TestAWeekGoesOnWhereTheOneBeforeEnded(t *testing.T) {
	s := plantest.Pupil(t, plantest.Piece("work", material.Method))
	plantest.Working(s, "work", 3)
	s.Policy.HomeCounts, s.Policy.FirstChunk = true, 2
	s.Today = plantest.Monday.AddDate(0, 0, 22)
	a, read := plantest.Ahead(s, "work"), eightBars(t)
	start := func(n int) time.Time { return plantest.Monday.AddDate(0, 0, 1+7*n) }
	lay := func(n int, h week.Hand, before Before) Week {
		w, err := Lay(a, start(n), h, before, read)
		require.NoError(t, err)
		return w
	}
	first := lay(0, week.Hand{}, Before{})
	steps := keys(first.Plan)
	require.GreaterOrEqual(t, len(steps), 4, "%v", steps)
	easy, hard := steps[3], steps[1]
	// The day after begins with them once more: the one is hard again, the other is not.
	reports := ticked(first.Plan, map[string]studentlog.Feeling{
		hard: studentlog.Hard, "again work 1-6": studentlog.Hard, easy: studentlog.Fine, "again work 7-8": studentlog.Joyful,
	})

	weeks := []studentplan.SetWeek{{Start: start(0), Plan: first.Plan}}
	second := lay(1, week.Hand{}, BeforeOf(*s, weeks, reports, start(1)))
	var from, to int
	_, err := fmt.Sscanf(hard, "chunk work %d-%d", &from, &to)
	require.NoError(t, err)
	now := keys(second.Plan)
	require.NotContains(t, now, easy)
	require.Equal(t, []string{fmt.Sprintf("chunk work %d-%d", from, from), fmt.Sprintf("chunk work %d-%d", to, to)}, now[:2])
	for _, it := range second.Plan.Days[0].Items[:1] {
		require.Equal(t, 1, it.Slower)
	}
	require.Equal(t, []string{hard + " hard halves false", easy + " easy left-out false"}, told(second.Home))
	require.Len(t, second.Plan.There, 1)

	weeks = append(weeks, studentplan.SetWeek{Start: start(1), Plan: second.Plan})
	third := lay(2, week.Hand{}, BeforeOf(*s, weeks, ticked(second.Plan, map[string]studentlog.Feeling{now[1]: studentlog.Fine}), start(2)))
	require.NotContains(t, keys(third.Plan), easy, "it stays where it is")

	aside := lay(1, week.Hand{Aside: []string{easy, hard}}, BeforeOf(*s, weeks[:1], reports, start(1)))
	plain := lay(1, week.Hand{}, Before{})
	require.Equal(t, plain.Plan, aside.Plan, "taken back, the plan is as it was")
	require.Equal(t, []string{hard + " hard halves true", easy + " easy left-out true"}, told(aside.Home))

	// What was hard for a hand that does not play this week has no consequence in it, and none is claimed.
	other := BeforeOf(*s, weeks[:1], reports, start(1))
	for i := range other.Shown {
		other.Shown[i].Item.Hand = "left hand"
	}
	elsewhere := lay(1, week.Hand{}, other)
	require.Empty(t, elsewhere.Home)
	require.Equal(t, plain.Plan.Days, elsewhere.Plan.Days)

	a.Policy.HomeCounts = false
	off := lay(1, week.Hand{}, BeforeOf(*s, weeks[:1], reports, start(1)))
	require.Equal(t, plain.Plan, off.Plan, "a studio that does not count it")
	require.Empty(t, off.Home)
	require.Equal(t, Before{}, BeforeOf(*s, weeks[:1], reports, start(3)), "it is too long ago")
}

func told(list []AfterHome) (out []string) {
	for _, x := range list {
		if x.Outcome != fromhome.Going {
			out = append(out, fmt.Sprint(x.Item.Key, " ", x.Outcome, " ", x.Effect, " ", x.Aside))
		}
	}
	return out
}

// What rests because it may hurt is neither worked at nor reviewed, whatever the way says about home; it is told among what is left
// for later.
func TestWhatMayHurtIsNotSet(t *testing.T) {
	s := plantest.Pupil(
		t,
		plantest.Piece("work", material.Method),
		plantest.Piece("other", material.Technique),
		plantest.Piece("new", material.Method),
		plantest.Piece("old", material.Method),
	)
	plantest.Working(s, "work", 3)
	plantest.Working(s, "other", 3)
	plantest.Learned(s, "new", 3, 9)
	plantest.Learned(s, "old", 40, 9)
	of := func(b Before) (set []string, held []week.Held) {
		w, err := Lay(plantest.Ahead(s), plantest.Monday, week.Hand{Adds: []string{"old"}}, b, nil)
		require.NoError(t, err)
		for _, d := range w.Plan.Days {
			for _, it := range d.Items {
				if !slices.Contains(set, it.Material) {
					set = append(set, it.Material)
				}
			}
		}
		slices.Sort(set)
		return set, w.Plan.NotYet
	}
	set, held := of(Before{})
	require.Equal(t, []string{"new", "old", "other", "work"}, set)
	require.Empty(t, held)
	set, held = of(Before{Resting: map[string]time.Time{"work": plantest.Monday, "new": plantest.Monday, "old": plantest.Monday}})
	require.Equal(t, []string{"other"}, set)
	require.Equal(t, []week.Held{{Kind: week.MayHurt, Title: "The work"}}, held)
}

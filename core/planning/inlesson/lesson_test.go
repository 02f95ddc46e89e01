package inlesson

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/calendar"
	"patientladder/core/library/material"
	"patientladder/core/planning/fromhome"
	"patientladder/core/planning/intechnique"
	"patientladder/core/planning/lessonplan"
	"patientladder/core/planning/plantest"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
	"patientladder/core/student/standing"
	"patientladder/core/technique/exercise"
)

func TestWhatALessonIsMadeFrom(t *testing.T) {
	s := plantest.Pupil(
		t,
		plantest.Piece("work", material.Method, "plain"),
		plantest.Piece("soon", material.Method, "thumb"),
		plantest.Piece("scale", material.Technique, "plain"),
		plantest.Piece("old", material.Method),
	)
	w := plantest.Working(s, "work", 8)
	w.SinceMark, w.Full, w.Points = 3, 1, 4
	w.Spots = []standing.Spot{{}}
	s.Standing.Focus = []standing.FocusStanding{{ID: "own", Text: "elbows"}}
	plantest.Learned(s, "old", 30, 9)
	a := plantest.AheadIn(s, studentplan.Options{InLesson: true}, "work", "soon", "scale")
	l := Of(a, plantest.Monday, []string{"posture"}, nil)
	require.Equal(t, lessonplan.Limits{Minutes: 30, ReviewShare: 0.45, Longest: 10}, l.Limits)
	byID := map[string]lessonplan.Segment{}
	for _, c := range l.Candidates {
		byID[c.ID] = c
	}
	require.Equal(t, []lessonplan.Reason{{Kind: lessonplan.InWork, Count: 1, Of: 4}, {Kind: lessonplan.StuckPiece}}, byID["working work"].Why)
	require.Equal(t, []string{"elbows"}, byID["working work"].Focus)
	require.Equal(t, []lessonplan.Reason{{Kind: lessonplan.SetupDue}, {Kind: lessonplan.WaitedBefore}}, byID["posture"].Why)
	require.Contains(t, byID, "spots work")
	require.Equal(t, "soon", byID["bite thumb"].Why[0].Material)
	require.Contains(t, byID, "begin scale")
	require.Contains(t, byID, "hear old")
	// Twelve cleared pieces on, posture is looked at only now and then.
	s.Instrument = "cello"
	beginner := func() lessonplan.Why {
		for _, c := range Of(plantest.Ahead(s), plantest.Monday, nil, nil).Candidates {
			if c.ID == "posture" {
				return c.Why[0].Kind
			}
		}
		return ""
	}
	require.Equal(t, lessonplan.Beginner, beginner())
	for i := range 11 {
		id := string(rune('a' + i))
		s.Library[id] = plantest.Piece(id, material.Method)
		plantest.Learned(s, id, 30, 90)
	}
	require.Equal(t, lessonplan.Regularly, beginner())
	_, err := l.Plan(lessonplan.Hand{Pins: map[string]int{"nothing": 1}})
	require.Error(t, err)
}

// The lesson hears first what was hard at home, asks about what nobody touched, and a studio can switch that off.
func TestALessonBeginsWithWhatHomeShowed(t *testing.T) {
	s := plantest.Pupil(t, plantest.Piece("one", material.Method), plantest.Piece("two", material.Method), plantest.Piece("old", material.Method))
	plantest.Working(s, "one", 3)
	plantest.Working(s, "two", 2)
	plantest.Learned(s, "old", 9, 9)
	s.Policy.HomeCounts = true
	thing := func(id string, from, to int, o fromhome.Outcome, done int) fromhome.Thing {
		return fromhome.Thing{Item: week.Item{Material: id, Bars: week.Bars{From: from, To: to}}, Outcome: o, Done: done}
	}
	things := []fromhome.Thing{
		thing("two", 3, 4, fromhome.Hard, 2), thing("old", 0, 0, fromhome.Short, 2), thing("one", 1, 2, fromhome.Left, 0),
		thing("two", 7, 8, fromhome.Left, 0),
	}
	reasons := func(things []fromhome.Thing) map[string][]lessonplan.Reason {
		out := map[string][]lessonplan.Reason{}
		for _, c := range Of(plantest.Ahead(s), plantest.Monday, nil, things).Candidates {
			for _, r := range c.Why {
				if r.Kind == lessonplan.HardAtHome || r.Kind == lessonplan.LeftAtHome {
					out[c.ID] = append(out[c.ID], r)
				}
			}
		}
		return out
	}
	require.Equal(t, map[string][]lessonplan.Reason{
		"working two": {{Kind: lessonplan.HardAtHome, Material: "two", Count: 3, Of: 4}},
		"hear old":    {{Kind: lessonplan.HardAtHome, Material: "old"}},
		"working one": {{Kind: lessonplan.LeftAtHome}},
	}, reasons(things))
	plan, err := Of(plantest.Ahead(s), plantest.Monday, nil, things).Plan(lessonplan.Hand{})
	require.NoError(t, err)
	var order []string
	for _, c := range plan.Segments {
		if c.Kind == lessonplan.Working {
			order = append(order, c.Material)
		}
	}
	require.Equal(t, []string{"two", "one"}, order)
	s.Policy.HomeCounts = false
	require.Empty(t, reasons(things))
}

// Who comes every second week begins exercises as everybody does: the next lesson is a fortnight away, and no break.
func TestAnExerciseOfWhoComesEverySecondWeek(t *testing.T) {
	s := plantest.Pupil(t, plantest.ExerciseOf("c", "scale/apart/C/major/-"))
	plantest.Learned(s, "c", 9, 9)
	s.Profile.Lessons.Slots[0].Every = 2
	next := func() (out []lessonplan.Segment) {
		for _, c := range Of(plantest.Ahead(s), plantest.Monday, nil, nil).Candidates {
			if c.Kind == lessonplan.Begin && c.Exercise != "" {
				out = append(out, c)
			}
		}
		return out
	}
	require.Equal(t, "scale/apart/G/major/-", next()[0].Exercise)
	require.Nil(t, next()[0].Blocked)
	stairs, _, _ := intechnique.Stairs(plantest.Ahead(s))
	require.NotContains(
		t,
		intechnique.ProposedExercises(plantest.Ahead(s), stairs)[0].Reasons,
		exercise.Reason{Kind: exercise.HeardLater, Day: plantest.Monday.AddDate(0, 0, 14)},
	)
	s.Holidays = []calendar.Holiday{plantest.Holiday("half", 14, 7)}
	require.Equal(t, &lessonplan.Waiting{Kind: lessonplan.FarLesson, Count: 28}, next()[0].Blocked)
}

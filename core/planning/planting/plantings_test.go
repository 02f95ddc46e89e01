package planting

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/planning/plantest"
	"patientladder/core/planning/preview"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/leap"
)

// Skills are planted for what lies ahead, the one with the fewest lessons in hand first.
func TestPlantings(t *testing.T) {
	s := plantest.Pupil(t, plantest.Piece("work", material.Method, "plain"), plantest.Piece("soon", material.Method, "thumb"), plantest.Piece("later", material.Method, "ties"))
	plantest.Working(s, "work", 1)
	a := plantest.Ahead(s, "work", "later", "soon")
	list := Of(a)
	var got []string
	for i, p := range list {
		got = append(got, fmt.Sprintf("%s for %s: %d steps, slack %d", p.Skill, p.For, len(p.Steps), p.Slack))
		require.Equal(t, 2, p.PerLesson)
		require.Equal(t, a.Lessons.Day(p.By), p.Needed)
		require.Equal(t, a.Lessons.Day(p.Outcome.Ready), p.Ready)
		require.Equal(t, p.Slack < 0, len(p.Mends) > 0)
		require.True(t, i == 0 || list[i-1].Slack <= p.Slack)
	}
	require.Equal(
		t,
		[]string{"ties for later: 2 steps, slack -2", "pulse for later: 2 steps, slack 0", "thumb for soon: 1 steps, slack 3"},
		got,
	)
	require.Equal(t, preview.Move, list[0].Mends[0].Kind)
	// Its steps come two lessons after the ones that would be in time.
	var steps []string
	for _, x := range list[0].Steps {
		steps = append(steps, x.Day.Format("01-02")+" "+x.Due.Format("01-02"))
	}
	require.Equal(t, []string{"05-18 05-04", "05-25 05-11"}, steps)
	// One that comes late although a lesson in time is still ahead says which; one in time says nothing.
	for _, x := range []struct {
		lesson, due int
		want        time.Time
	}{{3, 2, plantest.Monday.AddDate(0, 0, 14)}, {1, 0, plantest.Monday}, {2, 2, time.Time{}}, {3, -1, time.Time{}}} {
		require.Equal(t, x.want, DueOn(a, preview.Step{Lesson: x.lesson, Due: x.due}), x)
	}
}

// A lesson has at most two bites; in the lesson itself those done today count among them.
func TestBitesOfALesson(t *testing.T) {
	s := plantest.Pupil(
		t,
		plantest.Piece("work", material.Method, "plain"),
		plantest.Piece("soon", material.Method, "thumb", "pulse"),
		plantest.Piece("later", material.Method, "ties"),
	)
	plantest.Working(s, "work", 8)
	placed := []string{"work", "soon", "later"}
	skills := func(a *studentplan.StudentOutlook) (out []string) {
		for _, b := range Bites(a) {
			out = append(out, fmt.Sprintf("%s %d for %s", b.Skill, b.Step, b.For))
		}
		return out
	}
	require.Equal(t, []string{"pulse 1 for soon", "thumb 1 for soon"}, skills(plantest.Ahead(s, placed...)))
	s.Standing.Ability.Skills["thumb"] = leap.Evidence{StepsDone: 1, Steps: 1}
	s.Standing.Planted["thumb"] = plantest.On(0)
	require.Equal(t, []string{"pulse 1 for soon"}, skills(plantest.AheadIn(s, studentplan.Options{InLesson: true}, placed...)))
	s.Standing.Planted["thumb"] = plantest.On(1)
	require.Equal(t, []string{"pulse 1 for soon"}, skills(plantest.Ahead(s, placed...)), "yesterday's does not count, but one skill has its step only")
	s.Standing.Planted["thumb"], s.Standing.Planted["other"] = plantest.On(0), plantest.On(0)
	require.Empty(t, skills(plantest.AheadIn(s, studentplan.Options{InLesson: true}, placed...)))
	s.Standing.LastLesson = plantest.On(0)
	require.Equal(t, []string{"pulse 1 for soon"}, skills(plantest.Ahead(s, placed...)), "from outside it is the next lesson's")
	s.Policy.Preview.PerLesson = 0
	require.Empty(t, skills(plantest.Ahead(s, placed...)))
	b := plantest.Ahead(s, placed...)
	require.Equal(t, "later", Needing(b, "ties"))
	require.Equal(t, "", Needing(b, "plain"), "what is begun needs nothing any more")
}

// What was planted in the last lesson is done again at home, by skill.
func TestBitesAtHome(t *testing.T) {
	s := plantest.Pupil(t, plantest.Piece("soon", material.Method, "thumb"))
	s.Standing.LastLesson = plantest.On(0)
	for skill, e := range map[string]leap.Evidence{"thumb": {StepsDone: 1}, "pulse": {StepsDone: 2}, "ties": {StepsDone: 1}, "gone": {StepsDone: 1}, "plain": {StepsDone: 1}} {
		s.Standing.Ability.Skills[skill] = e
		s.Standing.Planted[skill] = plantest.On(0)
	}
	s.Standing.Planted["ties"] = plantest.On(7)
	var got []string
	for _, b := range PlantedBites(plantest.Ahead(s, "soon")) {
		got = append(got, b.Skill+": "+b.Words)
	}
	require.Equal(t, []string{"pulse: clap", "thumb: tap"}, got)
}

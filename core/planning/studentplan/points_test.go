package studentplan_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/planning/plantest"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/leap"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
)

func TestWhatALessonShows(t *testing.T) {
	s := plantest.Pupil(
		t,
		plantest.Piece("work", material.Method, "ties", "plain"),
		plantest.Piece("today", material.Method),
		plantest.Piece("old", material.Method),
		plantest.ExerciseOf("scale", "scale/apart/C/major/-"),
	)
	plantest.Working(s, "work", 8)
	plantest.Learned(s, "today", 0, 2)
	plantest.Learned(s, "old", 1, 2)
	require.Equal(t, []string{"today", "work"}, s.LessonPieces(), "in the order in which they were begun")
	s.Standing.Ability.Skills["plain"] = leap.Evidence{Cleared: 1}
	require.Equal(t, []string{"ties"}, s.NewSkills("work"))
	m := s.Library["work"]
	m.FocusPoints = []material.FocusPoint{{ID: "a", Text: "pulse"}}
	s.Library["work"] = m
	s.Standing.Focus = []standing.FocusStanding{{ID: "own", Text: "elbows", Streak: 2}, {ID: "habit", Text: "breath", Habit: true, Streak: 3}}
	require.Equal(t, []studentplan.Point{{ID: "a", Text: "pulse"}, {ID: "own", Text: "elbows", Own: true, Streak: 2}}, s.PointsOf("work"))
	s.Standing.Materials["work"].Marks = map[string]studentlog.Mark{"habit": studentlog.Part}
	require.Equal(t, studentplan.Point{ID: "habit", Text: "breath", Own: true, Streak: 3}, s.PointsOf("work")[2], "a mark given stays to be seen")
	for focus, has := range map[string]bool{"a": true, "own": true, "habit": true, "b": false, "fault.bump": false} {
		require.Equal(t, has, s.HasPoint("work", focus), focus)
	}
	require.True(t, s.HasPoint("scale", "fault.bump") || s.HasPoint("scale", "own"))
}

package studentplan

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/student/leap"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
)

func TestWhatALessonShows(t *testing.T) {
	s := pupil(
		t,
		piece("work", material.Method, "ties", "plain"),
		piece("today", material.Method),
		piece("old", material.Method),
		exerciseOf("scale", "scale/apart/C/major/-"),
	)
	s.working("work", 8)
	s.learned("today", 0, 2)
	s.learned("old", 1, 2)
	require.Equal(t, []string{"today", "work"}, s.LessonPieces(), "in the order in which they were begun")
	s.Standing.Ability.Skills["plain"] = leap.Evidence{Cleared: 1}
	require.Equal(t, []string{"ties"}, s.NewSkills("work"))
	m := s.Library["work"]
	m.FocusPoints = []material.FocusPoint{{ID: "a", Text: "pulse"}}
	s.Library["work"] = m
	s.Standing.Focus = []standing.FocusStanding{{ID: "own", Text: "elbows", Streak: 2}, {ID: "habit", Text: "breath", Habit: true, Streak: 3}}
	require.Equal(t, []Point{{ID: "a", Text: "pulse"}, {ID: "own", Text: "elbows", Own: true, Streak: 2}}, s.PointsOf("work"))
	s.Standing.Materials["work"].Marks = map[string]studentlog.Mark{"habit": studentlog.Part}
	require.Equal(t, Point{ID: "habit", Text: "breath", Own: true, Streak: 3}, s.PointsOf("work")[2], "a mark given stays to be seen")
	for focus, has := range map[string]bool{"a": true, "own": true, "habit": true, "b": false, "fault.bump": false} {
		require.Equal(t, has, s.HasPoint("work", focus), focus)
	}
	require.True(t, s.HasPoint("scale", "fault.bump") || s.HasPoint("scale", "own"))
}

package studentplan_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/planning/plantest"
	"patientladder/core/student/leap"
	"patientladder/core/student/standing"
)

func TestProgressIsWhatStandsOnTheLadder(t *testing.T) {
	s := plantest.Pupil(
		t,
		plantest.ExerciseOf("c", "scale/apart/C/major/-"),
		plantest.ExerciseOf("g", "scale/apart/G/major/-"),
		plantest.ExerciseOf("d", "scale/apart/D/major/-"),
		plantest.Piece("song", material.Method),
	)
	plantest.Learned(s, "c", 9, 9)
	plantest.Working(s, "g", 9)
	plantest.Working(s, "d", 8).State = standing.Resting
	plantest.Learned(s, "song", 9, 9)
	s.Standing.Ability.Skills["thumb"] = leap.Evidence{Shown: true}
	p := s.Progress()
	require.Equal(t, []string{"scale/apart/C/major/-"}, p.Cleared)
	require.Equal(t, []string{"scale/apart/G/major/-", "scale/apart/D/major/-"}, p.Working)
	require.True(t, p.Secure("thumb"))
	require.False(t, p.Secure("ties"))
}

package studentplan

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/planning/week"
)

func TestReviewState(t *testing.T) {
	s := pupil(t, piece("a", material.Method), piece("b", material.Method), piece("c", material.Method))
	require.Equal(t, ReviewState{Weeks: 6, Aim: 0.45}, s.ReviewState(Week{}))
	s.learned("a", 50, 5)
	s.learned("b", 2, 60)
	s.learned("c", 20, 5)
	w := Week{
		Plan: week.Plan{Days: []week.Day{{Minutes: 20, Items: []week.Item{{Kind: week.Review, Minutes: 6}, {Kind: week.Chunk, Minutes: 14}}}}},
	}
	got := s.ReviewState(w)
	require.Equal(t, ReviewState{Pieces: 3, Fading: 2, Starved: 1, Weeks: 6, Share: 0.3, Aim: 0.45, Planned: true}, got)
	w.Plan.Days[0].Items[0].Material = "a"
	require.Equal(t, 1, s.ReviewState(w).Held, "the one that was not played for too long is in the week")
	require.True(t, got.Short())
	got.Share = 0.36
	require.False(t, got.Short(), "near enough")
	got.Share, got.Planned = 0, false
	require.False(t, got.Short(), "nothing is planned at all")
	// Eighty per cent are not fading yet.
	days := 1
	for s.Recall("b") > Fading {
		s.Today = monday.AddDate(0, 0, days)
		days++
	}
	require.Equal(t, 3, s.ReviewState(w).Fading)
}

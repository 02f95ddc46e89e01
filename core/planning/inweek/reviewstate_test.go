package inweek

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/planning/plantest"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
)

func TestReviewState(t *testing.T) {
	s := plantest.Pupil(t, plantest.Piece("a", material.Method), plantest.Piece("b", material.Method), plantest.Piece("c", material.Method))
	require.Equal(t, ReviewState{Weeks: 6, Aim: 0.45}, ReviewOf(*s, Week{}))
	plantest.Learned(s, "a", 50, 5)
	plantest.Learned(s, "b", 2, 60)
	plantest.Learned(s, "c", 20, 5)
	w := Week{
		Plan: week.Plan{Days: []week.Day{{Minutes: 20, Items: []week.Item{{Kind: week.Review, Minutes: 6}, {Kind: week.Chunk, Minutes: 14}}}}},
	}
	got := ReviewOf(*s, w)
	require.Equal(t, ReviewState{Pieces: 3, Fading: 2, Starved: 1, Weeks: 6, Share: 0.3, Aim: 0.45, Planned: true}, got)
	w.Plan.Days[0].Items[0].Material = "a"
	require.Equal(t, 1, ReviewOf(*s, w).Held, "the one that was not played for too long is in the week")
	require.True(t, got.Short())
	got.Share = 0.36
	require.False(t, got.Short(), "near enough")
	got.Share, got.Planned = 0, false
	require.False(t, got.Short(), "nothing is planned at all")
	all := Week{Plan: week.Plan{Days: []week.Day{{Minutes: 20, Items: []week.Item{
		{Kind: week.Review, Material: "a", Minutes: 1}, {Kind: week.Review, Material: "b", Minutes: 1}, {Kind: week.Review, Material: "c", Minutes: 1},
		{Kind: week.Chunk, Minutes: 17},
	}}, {Rest: true}}}}
	state := ReviewOf(*s, all)
	require.Equal(t, []any{true, false}, []any{state.All, state.Short()}, "whoever plays all that is learned every day can play no more")
	all.Plan.Days[1].Rest = false
	require.True(t, ReviewOf(*s, all).Short())
	// Eighty per cent are not fading yet.
	days := 1
	for s.Recall("b") > studentplan.Fading {
		s.Today = plantest.Monday.AddDate(0, 0, days)
		days++
	}
	require.Equal(t, 3, ReviewOf(*s, w).Fading)
}

package proposing

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/planning/next"
	"patientladder/core/planning/plantest"
)

// A rung is proposed on each strand where nothing is in work; repertoire is taken up by choice.
func TestFreshRungs(t *testing.T) {
	s := plantest.Pupil(
		t,
		plantest.Piece("work", material.Method, "plain"),
		plantest.Piece("method", material.Method, "ties"),
		plantest.Piece("scale", material.Technique, "thumb"),
		plantest.Piece("song", material.Repertoire, "pulse"),
		plantest.Piece("card", material.Reading, "pulse"),
	)
	plantest.Working(s, "work", 8)
	fresh := Fresh(*plantest.Ahead(s, "work", "method", "scale", "song", "card"))
	require.Len(t, fresh, 2)
	require.Equal(t, []string{"scale", "card"}, []string{fresh[0].Material.ID, fresh[1].Material.ID})
	require.Equal(t, next.Reason{Kind: next.Beginning, Leap: 1, Reach: 1.5}, fresh[0].Why)
	s.Standing.Materials["work"].State = "resting"
	fresh = Fresh(*plantest.Ahead(s, "work", "method", "scale"))
	require.Equal(t, "method", fresh[0].Material.ID, "a piece that rests leaves its strand idle")
}

func TestWhatFits(t *testing.T) {
	s := plantest.Pupil(
		t,
		plantest.Piece("work", material.Method, "plain"),
		plantest.Piece("a", material.Method, "pulse"),
		plantest.Piece("b", material.Ear, "pulse"),
		plantest.Piece("big", material.Method, "u", "v", "w", "x"),
	)
	s.Library["cello"] = material.Material{ID: "cello", Instrument: "cello", Strand: material.Method}
	plantest.Working(s, "work", 8)
	ranked, in := Fit(*s, "", plantest.Place(s, "work", "a"))
	var ids []string
	for _, c := range ranked {
		ids = append(ids, c.Material.ID)
	}
	require.Equal(t, []string{"b", "a", "big"}, ids, "b is on an idle strand")
	require.Equal(
		t,
		map[material.Strand]bool{
			material.Method:     false,
			material.Technique:  true,
			material.Reading:    true,
			material.Repertoire: true,
			material.Ear:        true,
		},
		in.Idle,
	)
	require.Len(t, in.Library, 4, "of this instrument")
	require.Equal(t, 2, in.PerLesson)
	ranked, in = Fit(*s, material.Method, plantest.Place(s, "work", "a"))
	require.Len(t, ranked, 2)
	require.False(t, in.Ease)
	s.Standing.Materials["work"].Before.Size = 1.6
	_, in = Fit(*s, material.Method, plantest.Place(s, "work"))
	require.True(t, in.Ease, "the last was beyond the comfortable leap")
	s.Standing.Materials["work"].Before.Size = 1.5
	_, in = Fit(*s, material.Method, plantest.Place(s, "work"))
	require.False(t, in.Ease, "as large as the reach is no stretch")
	s.Standing.Materials["work"].Before.Size, s.Policy.EaseAfterLeap = 1.6, false
	_, in = Fit(*s, material.Method, plantest.Place(s, "work"))
	require.False(t, in.Ease)
}

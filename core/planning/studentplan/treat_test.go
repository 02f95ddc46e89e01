package studentplan

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
)

func TestWhatCanBePromised(t *testing.T) {
	s := Student{Studio: Studio{Library: material.Library{"m": {ID: "m"}}}}
	for _, x := range []struct {
		treat Treat
		err   error
	}{
		{Treat{Words: "an ice cream", Material: "m"}, nil}, {Treat{Words: "an ice cream", Pieces: 1}, nil},
		{Treat{Material: "m"}, ErrTreatWords}, {Treat{Words: "an ice cream"}, ErrTreatFor},
		{Treat{Words: "an ice cream", Pieces: -1}, ErrTreatFor},
		{Treat{Words: "an ice cream", Material: "gone"}, ErrTreatMaterial},
	} {
		require.Equal(t, x.err, s.Promise(x.treat), "%v", x.treat)
	}
}

func TestTreatsAreEarned(t *testing.T) {
	known := piece("known", material.Method)
	s := pupil(t, piece("a", material.Method), piece("b", material.Method), known)
	s.learned("a", 9, 9)
	s.learned("known", 30, 9).LastPlayed = time.Time{}
	require.Equal(t, 1, s.ClearedPieces(), "what was known before earns nothing")
	earned, left := s.Earned(Treat{Pieces: 2, Base: 1})
	require.False(t, earned)
	require.Equal(t, 2, left)
	s.learned("b", 1, 9)
	earned, left = s.Earned(Treat{Pieces: 1, Base: 1})
	require.True(t, earned)
	require.Zero(t, left)
	earned, _ = s.Earned(Treat{Material: "b"})
	require.True(t, earned)
	earned, _ = s.Earned(Treat{Material: "never"})
	require.False(t, earned)
}

package withfamily

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/planning/plantest"
	"patientladder/core/planning/studentplan"
)

func TestWhatCanBePromised(t *testing.T) {
	s := studentplan.Student{Studio: studentplan.Studio{Library: material.Library{"m": {ID: "m"}}}}
	for _, x := range []struct {
		treat Treat
		err   error
	}{
		{Treat{Words: "an ice cream", Material: "m"}, nil}, {Treat{Words: "an ice cream", Pieces: 1}, nil},
		{Treat{Material: "m"}, ErrTreatWords}, {Treat{Words: "an ice cream"}, ErrTreatFor},
		{Treat{Words: "an ice cream", Pieces: -1}, ErrTreatFor},
		{Treat{Words: "an ice cream", Material: "gone"}, ErrTreatMaterial},
	} {
		require.Equal(t, x.err, Promise(s, x.treat), "%v", x.treat)
	}
}

func TestTreatsAreEarned(t *testing.T) {
	known := plantest.Piece("known", material.Method)
	s := plantest.Pupil(t, plantest.Piece("a", material.Method), plantest.Piece("b", material.Method), known)
	plantest.Learned(s, "a", 9, 9)
	plantest.Learned(s, "known", 30, 9).LastPlayed = time.Time{}
	require.Equal(t, 1, ClearedPieces(*s), "what was known before earns nothing")
	earned, left := Earned(*s, Treat{Pieces: 2, Base: 1})
	require.False(t, earned)
	require.Equal(t, 2, left)
	plantest.Learned(s, "b", 1, 9)
	earned, left = Earned(*s, Treat{Pieces: 1, Base: 1})
	require.True(t, earned)
	require.Zero(t, left)
	earned, _ = Earned(*s, Treat{Material: "b"})
	require.True(t, earned)
	earned, _ = Earned(*s, Treat{Material: "never"})
	require.False(t, earned)
}

package studentplan

import (
	"testing"

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

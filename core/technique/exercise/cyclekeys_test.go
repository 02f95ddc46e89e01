package exercise

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/instrument"
	"patientladder/core/technique/keycycle"
	"patientladder/core/technique/scale"
)

// The circle of fifths with its usual names; a minor key is written as the one that has the signs of
// its major (standard theory).
func TestTheKeysOfACycleAreWrittenAsTheirKindWritesThem(t *testing.T) {
	x, ok := instrument.Of("piano")
	require.True(t, ok)
	kind, ok := CycleType(x)
	require.True(t, ok)
	names := func(k scale.Kind) (out []string) {
		for _, key := range CycleKeys(Exercise{Type: kind, Step: kind.Steps[0], Kind: k, Instrument: x}) {
			out = append(out, key.String())
		}
		return out
	}
	require.Equal(t, []string{"C", "G", "D", "A", "E", "B", "Gb", "Db", "Ab", "Eb", "Bb", "F"}, names(scale.Major))
	require.Equal(t, []string{"C", "G", "D", "A", "E", "B", "F#", "C#", "G#", "Eb", "Bb", "F"}, names(scale.HarmonicMinor))

	// A key that is asked for by its name in another kind is the same key on the instrument.
	round, err := Round(
		Exercise{Type: kind, Step: kind.Steps[0], Kind: scale.HarmonicMinor, Instrument: x},
		scale.Tonic{Step: 'D', Alter: -1},
		keycycle.Fifths,
	)
	require.NoError(t, err)
	require.Equal(t, "C#", round[0].Key.String())
	require.Equal(t, "G#", round[1].Key.String())
}

package instrument

import (
	"testing"

	"github.com/stretchr/testify/require"
)

// The open strings in sounding pitches (common practice; the ukulele with its
// high G, the banjo in open G with the short fifth string).
func TestTunings(t *testing.T) {
	for id, midi := range map[string][]int{
		"cello": {57, 50, 43, 36}, "viola": {69, 62, 55, 48}, "violin": {76, 69, 62, 55},
		"ukulele": {69, 64, 60, 67}, "guitar": {64, 59, 55, 50, 45, 40}, "banjo": {62, 59, 55, 50, 67},
	} {
		require.Equal(t, midi, Tuning(id), id)
	}
	require.Nil(t, Tuning("piano"))
	// Bowed strings are tuned in fifths.
	for _, x := range All() {
		for i := 1; x.Family == Bowed && i < len(x.Open); i++ {
			require.Equal(t, 7, x.Open[i-1].Semitone()-x.Open[i].Semitone(), x.ID)
		}
	}
	_, known := FamilyOf("serpent")
	require.False(t, known)
}

func TestFaultyInstrumentsAreRefused(t *testing.T) {
	for says, data := range map[string]string{
		"unexpected":     `[`,
		"no name":        `[{"family":"keyboard"}]`,
		"no family":      `[{"id":"x","family":"wind"}]`,
		"no pitch":       `[{"id":"x","family":"bowed","strings":["H3"]}]`,
		"do not fit":     `[{"id":"x","family":"keyboard","strings":["A3"]}]`,
		"plucking":       `[{"id":"x","family":"plucked","strings":["A3"],"hand":{"by":"semitones","first":1},"pluck":{"1":"z"}}]`,
		"not there":      `[{"id":"x","family":"plucked","strings":["A3"],"hand":{"by":"semitones","first":1},"pluck":{"1":"p"},"rolls":[{"id":"r","name":"R","strings":[1,2]}]}]`,
		"its hand do no": `[{"id":"x","family":"bowed","strings":["A3"],"hand":{"by":"toes","first":1}}]`,
	} {
		_, err := Parse([]byte(data))
		require.ErrorContains(t, err, says)
	}
}

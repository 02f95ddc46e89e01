package exercise

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/instrument"
	"patientladder/core/notation/musicxml"
	"patientladder/core/reading/naming"
	"patientladder/core/technique/bowed"
	"patientladder/core/technique/plucked"
	"patientladder/core/technique/scale"
)

// Two instruments that the program does not know: a mandolin, plucked and tuned in fifths like a
// violin, and a violoncello piccolo with a fifth string above the A (both from common practice).
const strange = `[
 {"id": "mandolin", "family": "plucked", "strings": ["E5", "A4", "D4", "G3"], "clef": "G",
  "hand": {"by": "semitones", "first": 1, "span": 4, "reach": 5},
  "pluck": {"4": "p", "3": "p", "2": "i", "1": "m"},
  "rolls": [{"id": "up", "name": "Up the strings", "strings": [4, 3, 2, 1]}]},
 {"id": "cello piccolo", "family": "bowed", "strings": ["E4", "A3", "D3", "G2", "C2"], "clef": "F",
  "hand": {"by": "semitones", "first": 2, "span": 3, "reach": 4}}
]`

// An instrument needs only its data: every type of exercise of its family is made, written and read
// back, and has a staircase.
func TestANewInstrumentNeedsOnlyItsData(t *testing.T) {
	list, err := instrument.Parse([]byte(strange))
	require.NoError(t, err)
	for _, x := range list {
		for _, kind := range For(x) {
			for _, step := range kind.Steps {
				places := Places(Exercise{Type: kind, Step: step, Instrument: x})
				require.NotEmpty(t, places, "%s on the %s", kind.ID, x.ID)
				for _, e := range places {
					sc, err := e.Score(naming.Words{})
					require.NoError(t, err, e.ID())
					again, err := musicxml.Read(musicxml.Write(sc, musicxml.Options{}))
					require.NoError(t, err, e.ID())
					b, err := e.Build()
					require.NoError(t, err)
					require.Len(t, again.Sounding(), len(b.Notes), e.ID())
				}
			}
		}
		stairs := Climb(x, Progress{}, Wish{})
		require.NotNil(t, stairs[0].Next, x.ID)
		require.Equal(t, FirstStep, stairs[0].Next.Reasons[0].Kind)
	}
}

// D major lies on the four lower strings of the piccolo as on the cello, whatever stands above them; the
// fifth string has F sharp a tone above its open E, and then G (spelling: theory).
func TestAFifthStringHasItsPattern(t *testing.T) {
	list, err := instrument.Parse([]byte(strange))
	require.NoError(t, err)
	piccolo := list[1]
	cello, _ := instrument.Of("cello")
	d := scale.Tonic{Step: 'D'}
	five, err := bowed.Patterns(piccolo, d, scale.Major)
	require.NoError(t, err)
	four, err := bowed.Patterns(cello, d, scale.Major)
	require.NoError(t, err)
	require.Len(t, five, 5)
	// The string that is the highest on the cello may go on further, because nothing stands above it.
	for i := 1; i < 4; i++ {
		require.Equal(t, four[i].ID, five[i+1].ID, "the %s string", four[i].Open)
		require.Equal(t, four[i].Stops, five[i+1].Stops)
	}
	var names []string
	for _, s := range five[0].Stops[:3] {
		names = append(names, s.Pitch.Name())
	}
	require.Equal(t, "E F# G", strings.Join(names, " "))
	octaves, err := bowed.Scale(piccolo, scale.Tonic{Step: 'A'}, scale.Major, 1)
	require.NoError(t, err)
	require.Equal(t, 2, octaves[0].String, "A begins on its open string")
	require.Equal(t, 1, octaves[len(octaves)-1].String, "and ends on the fifth string above it")
}

// Chords of the mandolin as charts print them, from memory (common practice), strings from the lowest on.
func TestChordsOfAMandolin(t *testing.T) {
	list, err := instrument.Parse([]byte(strange))
	require.NoError(t, err)
	for name, want := range map[string][]int{"G": {0, 0, 2, 3}, "C": {0, 2, 3, 0}, "D": {2, 0, 0, 2}} {
		shape, err := plucked.Chord(list[0], name)
		require.NoError(t, err)
		var got []int
		for i := len(shape.Frets) - 1; i >= 0; i-- {
			got = append(got, shape.Frets[i])
		}
		require.Equal(t, want, got, name)
	}
}

package exercise

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/instrument"
	"patientladder/core/reading/naming"
)

// One finger after another on a spoken pattern, thumb first, a bar each (common practice, no source): the right hand goes up
// from middle C, the left down from it, and together they are in a mirror. The words are the studio's.
func TestTheFirstRhythmStudies(t *testing.T) {
	piano, _ := instrument.Of("piano")
	read := func(id string) string {
		e, err := Parse(id, piano)
		require.NoError(t, err)
		b, err := e.Build()
		require.NoError(t, err)
		require.EqualValues(t, 20, b.Length.Num(), "five bars")
		var out []string
		for _, n := range b.Notes {
			out = append(out, fmt.Sprintf("%s%d %s %s", n.Hand[:1], n.Finger, n.Pitch, n.Length))
		}
		return strings.Join(out, ", ")
	}
	require.True(
		t,
		strings.HasPrefix(read("rhythm-study/right/-/-/run"), "r1 C4 1/2, r1 C4 1/2, r1 C4 1, r1 C4 1/2, r1 C4 1/2, r1 C4 1, r2 D4 1/2"),
	)
	require.True(t, strings.HasSuffix(read("rhythm-study/left/-/-/slow"), "l4 G3 1, l5 F3 2, l5 F3 1, l5 F3 1"))
	together := read("rhythm-study/together/-/-/dotted")
	require.Contains(t, together, "r3 E4 3/2, r3 E4 1/2")
	require.Contains(t, together, "l3 A3 3/2, l3 A3 1/2")
	e, err := Parse("rhythm-study/right/-/-/mixed", piano)
	require.NoError(t, err)
	require.Equal(t, "Rhythm study, “walk run-ning slow”", e.Title(naming.Words{}))
	require.Equal(t, "Rhythm study, “ta ti-ti too”", e.Title(naming.Words{Rhythm: naming.Syllables}))
	s, err := e.Score(naming.Words{Rhythm: naming.Sea})
	require.NoError(t, err)
	var words []string
	for _, n := range s.Notes[:4] {
		words = append(words, n.Lyric)
	}
	require.Equal(t, []string{"tide", "rip", "ple", "swell"}, words)
	_, err = Parse("rhythm-study/right/-/-/waltz", piano)
	require.EqualError(t, err, `there is no rhythm "waltz"`)
	var places []string
	for _, p := range Places(Exercise{Type: e.Type, Step: e.Step, Instrument: piano}) {
		places = append(places, p.What)
	}
	require.Equal(t, []string{"walk", "slow", "run", "mixed", "dotted"}, places)
}

package scale

import (
	"testing"

	"github.com/stretchr/testify/require"
)

// Five keys lie under five fingers in every key, with the third of the key in the
// middle (common practice).
func TestFiveFingerPatterns(t *testing.T) {
	require.Equal(t, "Db Eb F Gb Ab", names(of(t, "Db", MajorFive, 1).Up.Notes))
	require.Equal(t, "F# G# A B C#", names(of(t, "F#", MinorFive, 1).Up.Notes))
	for _, k := range []Kind{MajorFive, MinorFive} {
		for _, tonic := range Keys(k) {
			s, err := Of(tonic, k, 1)
			require.NoError(t, err)
			require.Equal(t, "12345", digits(s.Up.Right))
			require.Equal(t, "54321", digits(s.Up.Left))
			require.Equal(t, 7, s.Up.Notes[4].Semitone()-s.Up.Notes[0].Semitone(), "a fifth")
			require.Len(t, s.Mirror, 5, "in contrary motion every finger meets its own")
			require.Equal(
				t,
				[]Meet{{2, 2, 4, "group"}, {3, 3, 3, "group"}, {4, 4, 2, "group"}},
				s.Meets,
				"in parallel the long fingers on the same three keys",
			)
		}
	}
	_, err := Of(Tonic{Step: 'C'}, MajorFive, 2)
	require.EqualError(t, err, "major five finger lie within one octave, not 2")
}

func TestTetrachordsShareTheScale(t *testing.T) {
	s := of(t, "D", Tetrachords, 1)
	require.Equal(t, "D E F# G A B C# D", names(s.Up.Notes))
	require.Equal(t, "00002345", digits(s.Up.Right))
	require.Equal(t, "54320000", digits(s.Up.Left))
	require.Empty(t, s.Meets)
	require.Empty(t, s.Mirror)
}

// The inversions of a triad as books finger them: 1 3 5, 1 2 5, 1 3 5 for the right
// hand and 5 3 1, 5 3 1, 5 2 1 for the left (common practice, from memory).
func TestBrokenChords(t *testing.T) {
	s := of(t, "C", MajorBroken, 1)
	require.Equal(t, "C E G E G C G C E C E G", names(s.Up.Notes))
	require.Equal(t, "135125135135", digits(s.Up.Right))
	require.Equal(t, "531531521531", digits(s.Up.Left))
	require.Equal(t, "A C E C E A E A C A C E", names(of(t, "A", MinorBroken, 1).Up.Notes))
	require.Len(t, of(t, "G", MajorBroken, 2).Up.Notes, 21)
}

// Moving apart, the same fingers play together throughout in C, G, D, A and E, which
// is why contrary motion comes early; in B flat they do not (common practice).
func TestContraryMotionMirrorsTheFingers(t *testing.T) {
	for _, key := range []string{"C", "G", "D", "A", "E"} {
		require.Len(t, of(t, key, Major, 2).Mirror, 7, key)
	}
	require.Less(t, len(of(t, "Bb", Major, 2).Mirror), 7)
}

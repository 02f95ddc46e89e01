package pattern

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/rational"
	"patientladder/core/score"
)

// piece writes one whole note a bar, with the pitch that the letter names; a space is a bar of rest.
func piece(letters string) *score.Score {
	s := &score.Score{Parts: []score.Part{{Staves: 1}}}
	for i, c := range letters {
		start := rational.Int(int64(4 * i))
		s.Bars = append(s.Bars, score.Bar{Start: start, Length: rational.Int(4)})
		note := score.Note{Onset: start, Duration: rational.Int(4), Bar: i + 1, Staff: 1, Rest: c == ' '}
		if !note.Rest {
			note.Pitch = score.Pitch{Step: byte(c), Octave: 4}
		}
		s.Notes = append(s.Notes, note)
	}
	return s
}

// A piece of eighteen bars that is made of six patterns asks for six things to
// learn (common practice, no source; counted by hand).
func TestEighteenBarsOfSixPatterns(t *testing.T) {
	load := Of(piece("ABABCDABABCDEFEFCD"))
	require.Equal(t, 18, load.Bars)
	require.Equal(t, 6, load.Distinct)
	require.InDelta(t, 1.0/3, load.Share(), 1e-9)
	require.Equal(t, Pattern{"A", []int{1, 3, 7, 9}}, load.Patterns[0])
}

func TestRestsNeedNoLearning(t *testing.T) {
	load := Of(piece("A A"))
	require.Equal(t, 3, load.Bars)
	require.Equal(t, 1, load.Distinct)
}

func TestRhythmAndTiesTellBarsApart(t *testing.T) {
	s := piece("AAA")
	s.Notes[1].Duration = rational.Int(2)
	s.Notes[2].TieStart = true
	require.Equal(t, 3, Of(s).Distinct)
}

func TestLetters(t *testing.T) {
	require.Equal(t, []string{"A", "Z", "AA", "AB", "BA"}, []string{letter(0), letter(25), letter(26), letter(27), letter(52)})
}

// Transposing a piece changes none of its patterns.
func TestTranspositionKeepsPatterns(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		letters := rapid.StringOfN(rapid.SampledFrom([]rune("ABCDEFG")), 1, 24, -1).Draw(t, "letters")
		low, high := piece(letters), piece(letters)
		for i := range high.Notes {
			high.Notes[i].Pitch.Octave++
		}
		require.Equal(t, Of(low), Of(high))
		require.LessOrEqual(t, Of(low).Distinct, 7)
	})
}

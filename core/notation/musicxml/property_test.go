package musicxml

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// melody draws bars of 4/4 in quavers, cut into notes of one to eight.
func melody(t *rapid.T) [][]struct {
	pitch  string
	length int
} {
	bars := make([][]struct {
		pitch  string
		length int
	}, rapid.IntRange(1, 6).Draw(t, "bars"))
	for b := range bars {
		for left := 8; left > 0; {
			length := rapid.IntRange(1, left).Draw(t, "length")
			pitch := rapid.SampledFrom([]string{"C4", "D4", "F#4", "Bb3", "G5"}).Draw(t, "pitch")
			bars[b] = append(bars[b], struct {
				pitch  string
				length int
			}{pitch, length})
			left -= length
		}
	}
	return bars
}

// The unit in which a file counts time is of no account: all durations and
// divisions times a number give the same sounds.
func TestDivisionsAreOnlyAUnit(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		bars := melody(t)
		write := func(times int) string {
			var out []string
			for i, bar := range bars {
				text := ""
				if i == 0 {
					text = strings.Replace(fourFour, "<divisions>2", "<divisions>2"+zeros(times), 1)
				}
				for _, note := range bar {
					text += n(note.pitch, note.length*times)
				}
				out = append(out, text)
			}
			return part(out...)
		}
		small, err := Read([]byte(write(1)))
		require.NoError(t, err)
		large, err := Read([]byte(write(1000)))
		require.NoError(t, err)
		require.Equal(t, small.Sounding(), large.Sounding())
		require.Equal(t, small.Bars, large.Bars)
	})
}

// zeros writes what turns "2" into 2 × times for the powers of ten used here.
func zeros(times int) string {
	if times == 1000 {
		return "000"
	}
	return ""
}

// However a voice is cut into notes, the piece lasts as long as its bars.
func TestThePieceLastsAsLongAsItsBars(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		bars := melody(t)
		var out []string
		for i, bar := range bars {
			text := ""
			if i == 0 {
				text = fourFour
			}
			for _, note := range bar {
				text += n(note.pitch, note.length)
			}
			out = append(out, text)
		}
		s, err := Read([]byte(part(out...)))
		require.NoError(t, err)
		require.EqualValues(t, 4*len(bars), s.Length().Num())
		last := s.Notes[len(s.Notes)-1]
		require.Zero(t, last.End().Cmp(s.Length()))
	})
}

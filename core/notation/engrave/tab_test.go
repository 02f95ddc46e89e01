package engrave

import (
	"math"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/notation/score"
)

// In tablature string 1 is the uppermost line, a number names the fret, and it stands under its note (common practice).
func TestTablatureNamesStringsAndFrets(t *testing.T) {
	s := tune(t, "X:1\nL:1/4\nM:4/4\nK:C\nC D E F|G A- A2|")
	for i, at := range [][2]int{{3, 0}, {3, 2}, {2, 0}, {2, 1}, {2, 3}, {1, 0}, {1, 0}} {
		s.Notes[i].String, s.Notes[i].Fret = at[0], at[1]
	}
	s.Notes[0].Pluck, s.Notes[4].Join = "p", score.Hammer
	plain := Stretch(s, 0, math.Inf(1), Look{})
	d := Stretch(s, 0, math.Inf(1), Look{Strings: 4, Pluck: map[string]string{"p": "T"}})
	require.Empty(t, plain.Texts)
	require.Equal(t, plain.Width, d.Width)
	var got []string
	below := map[string]float64{}
	for _, x := range d.Texts {
		got = append(got, x.Text)
		below[x.Text] = x.Y
	}
	require.Equal(t, []string{"0", "2", "0", "1", "3", "H", "0", "T"}, got, "a note that is held over is not struck again")
	for i, text := range []int{0, 1, 2, 3, 4, 6} {
		require.InDelta(t, d.Heads[i].X, d.Texts[text].X, 1e-9, "note %d", i+1)
	}
	require.InDelta(t, tabGap, d.Texts[0].Y-d.Texts[2].Y, 1e-9, "string 3 lies under string 2")
	require.InDelta(t, 2*tabGap, d.Texts[0].Y-d.Texts[6].Y, 1e-9)
	require.Greater(t, below["T"], d.Texts[0].Y)
	require.Less(t, below["H"], d.Texts[6].Y)
	require.Greater(t, d.Height, plain.Height+3*tabGap)
}

// A line of the tablature stops before its numbers and goes on behind them.
func TestLinesStopAtNumbers(t *testing.T) {
	s := tune(t, "X:1\nL:1/4\nM:4/4\nK:C\nC D E F|")
	for i := range s.Notes {
		s.Notes[i].String, s.Notes[i].Fret = 1, 10+i
	}
	d := Stretch(s, 0, 4, Look{Strings: 2})
	y := d.Texts[0].Y - 0.36*digit
	for _, shape := range d.Shapes {
		if low, high := shape.vertical(); low > y-thin && high < y+thin {
			left, right := shape[0].P[0], shape[0].P[0]
			for _, c := range shape {
				if c.Op != 'Z' {
					left, right = min(left, c.P[0]), max(right, c.P[0])
				}
			}
			for _, x := range d.Texts {
				require.False(t, left < x.X && x.X < right, "a line through %s", x.Text)
			}
		}
	}
}

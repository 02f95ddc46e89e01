package engrave

import (
	"math"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/notation/abc"
	"patientladder/core/notation/score"
	"patientladder/core/notation/scorefile"
)

func tune(t require.TestingT, text string) *score.Score {
	pieces, err := abc.Read([]byte(text))
	require.NoError(t, err)
	return pieces[0]
}

func drawn(t require.TestingT, text string) Drawing {
	return Stretch(tune(t, text), 0, math.Inf(1), Look{})
}

// Where notes stand is notation: E4 on the lowest line under the G clef, F5 on
// the highest, middle C one line below; G2 on the lowest line under the F clef
// and middle C one line above (common practice).
func TestNotesStandWhereTheClefSays(t *testing.T) {
	for text, below := range map[string][]float64{
		"X:1\nL:1/4\nM:4/4\nK:C\nE f C B|":               {4, 0, 5, 2},
		"X:1\nL:1/4\nM:4/4\nK:C clef=bass\nG,, A, C D,|": {4, 0, -1, 2},
	} {
		d := drawn(t, text)
		require.Len(t, d.Heads, 4)
		for i, h := range d.Heads {
			require.Equal(t, below[i], h.Below, "note %d of %q", i+1, text)
		}
	}
}

// Stems point away from the middle line: below it up, above it down; and they
// are at least three spaces long or reach the middle (engraving practice).
func TestStemsPointAwayFromTheMiddle(t *testing.T) {
	d := drawn(t, "X:1\nL:1/4\nM:4/4\nK:C\nC A c g|")
	var up []bool
	for _, h := range d.Heads {
		require.True(t, h.Stem)
		up = append(up, h.Up)
	}
	require.Equal(t, []bool{true, true, false, false}, up)
	require.False(t, drawn(t, "X:1\nL:1\nM:4/4\nK:C\nC|").Heads[0].Stem, "a whole note has no stem")
}

// Accidentals stand where a note differs from the key and from what came before
// in the bar.
func TestAccidentals(t *testing.T) {
	s := tune(t, "X:1\nL:1/4\nM:4/4\nK:G\nF =F F ^F|F ^C C _B|")
	sys := &system{engraver: &engraver{score: s, to: 100}}
	var got []string
	for bar := 1; bar <= 2; bar++ {
		signs := sys.alterations(bar)
		for i := range s.Notes {
			if n := &s.Notes[i]; n.Bar == bar {
				got = append(got, signs[n])
			}
		}
	}
	require.Equal(t, []string{"", "natural", "", "sharp", "", "sharp", "", "flat"}, got)
}

func TestAStretchHoldsWhatBeginsInIt(t *testing.T) {
	s := tune(t, "X:1\nL:1/4\nM:4/4\nK:C\nCDEF|GABc|cBAG|FEDC|")
	d := Stretch(s, 4, 8, Look{})
	var at []float64
	for _, h := range d.Heads {
		at = append(at, h.At)
	}
	require.Equal(t, []float64{4, 5, 6, 7}, at)
	whole := Stretch(s, 0, 16, Look{})
	broken := Stretch(s, 0, 16, Look{Width: whole.Width / 2})
	require.Len(t, broken.Heads, 16)
	require.Greater(t, broken.Height, 2*whole.Height)
	require.Less(t, broken.Width, whole.Width)
}

func TestTabAndNothingGiveAnEmptyDrawing(t *testing.T) {
	s := tune(t, "X:1\nL:1/4\nM:4/4\nK:C\nCDEF|")
	require.Equal(t, Drawing{}, Stretch(s, 8, 8, Look{}))
	s.Parts[0].Clefs = []score.Clef{{Sign: "TAB"}}
	require.Equal(t, Drawing{}, Stretch(s, 0, 4, Look{}))
	require.Equal(t, Drawing{}, Stretch(&score.Score{}, 0, 4, Look{}))
}

// One hand of a piece for two.
func TestOnlyTheHandThatPlays(t *testing.T) {
	files, err := filepath.Glob("../../../demo/scores/*.musicxml")
	require.NoError(t, err)
	both := 0
	for _, f := range files {
		data, err := os.ReadFile(f)
		require.NoError(t, err)
		_, pieces, err := scorefile.Pieces(data, true)
		require.NoError(t, err)
		all := Staves(pieces[0])
		if len(all) != 2 {
			continue
		}
		both++
		right, left := Stretch(pieces[0], 0, 1e6, Look{Staves: all[:1]}), Stretch(pieces[0], 0, 1e6, Look{Staves: all[1:]})
		together := Stretch(pieces[0], 0, 1e6, Look{})
		require.Equal(t, len(together.Heads), len(right.Heads)+len(left.Heads), f)
		require.Greater(t, together.Height, right.Height, f)
	}
	require.GreaterOrEqual(t, both, 8)
}

// Whatever the notes are: everything lies within the drawing, heads go from
// left to right in time, and the path has only what it says.
func TestDrawingsHoldTogether(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var b strings.Builder
		b.WriteString(
			"X:1\nL:1/8\nM:4/4\nK:" + rapid.SampledFrom([]string{"C", "G", "F", "D", "Eb", "Am clef=bass", "A", "Db"}).Draw(t, "key") + "\n",
		)
		for range rapid.IntRange(1, 5).Draw(t, "bars") {
			for left := 8; left > 0; {
				n := min(left, rapid.SampledFrom([]int{1, 1, 2, 3, 4, 8}).Draw(t, "length"))
				note := rapid.SampledFrom([]string{"C", "^F", "_B", "g", "=e", "z", "[CEG]", "[Bc]", "C,,", "a''", "(c", "!3!d"}).Draw(t, "note")
				b.WriteString(note)
				if n > 1 {
					b.WriteString(string(rune('0' + n)))
				}
				left -= n
			}
			b.WriteString("|")
		}
		pieces, err := abc.Read([]byte(b.String()))
		if err != nil || len(pieces) == 0 {
			t.Skip("not a tune")
		}
		width := rapid.Float64Range(0, 80).Draw(t, "width")
		d := Stretch(pieces[0], 0, 1e6, Look{Width: width})
		require.Greater(t, d.Height, 4.0)
		for _, s := range d.Shapes {
			low, high := s.vertical()
			require.GreaterOrEqual(t, low, -1e-6)
			require.LessOrEqual(t, high, d.Height+1e-6)
		}
		for i := 1; i < len(d.Heads); i++ {
			a, b := d.Heads[i-1], d.Heads[i]
			if a.At < b.At && math.Abs(a.Y-b.Y) < 5 && b.X > a.X == false {
				require.Greater(t, b.Y-a.Y+staffDrop, 0.0, "only a new system goes back to the left")
			}
		}
		back, err := parse(strings.NewReplacer("-", " -").Replace(d.SVG()))
		require.NoError(t, err)
		require.NotEmpty(t, back)
	})
}

func TestEveryGlyphThatIsUsedIsThere(t *testing.T) {
	g := glyphs()
	for _, name := range []string{"clef G", "clef F", "clef C", "head black", "head half", "head whole", "flag eighth up", "flag 32nd down", "rest whole", "rest 32nd", "dot", "staccato", "time 0", "time 9", "finger 0", "finger 5", "tuplet 3"} {
		require.NotEmpty(t, g[name].shape, name)
	}
	for _, name := range signOf {
		require.NotEmpty(t, g[name].shape, name)
	}
	// A black head is one space high and a little wider (SMuFL's reference font).
	low, high := g["head black"].shape.vertical()
	require.InDelta(t, 1, high-low, 0.01)
	require.InDelta(t, headWidth, g["head black"].advance, 0.001)
}

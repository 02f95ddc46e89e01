package engrave

import (
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/notation/score"
)

// fills says whether a shape covers a point, by the rule that SVG fills with
// when nothing else is said (non-zero winding), curves taken as their chords.
func winding(s Shape, x, y float64) int {
	n := 0
	var start, at [2]float64
	edge := func(a, b [2]float64) {
		if (a[1] <= y) == (b[1] <= y) {
			return
		}
		if cut := a[0] + (y-a[1])/(b[1]-a[1])*(b[0]-a[0]); cut > x {
			if b[1] > a[1] {
				n++
			} else {
				n--
			}
		}
	}
	for _, c := range s {
		switch c.Op {
		case 'M':
			start = [2]float64{c.P[0], c.P[1]}
			at = start
		case 'Z':
			edge(at, start)
			at = start
		default:
			k := c.points() - 1
			to := [2]float64{c.P[2*k], c.P[2*k+1]}
			edge(at, to)
			at = to
		}
	}
	return n
}

// All shapes of a drawing are one path: where a head lies over a line of its
// staff, the two must not take each other away.
func TestOverlapsStayFilled(t *testing.T) {
	for _, text := range []string{
		"X:1\nL:1/4\nM:4/4\nK:C\nE G B d|", "X:1\nL:1/8\nM:4/4\nK:C\nEGBd EGBd|", "X:1\nL:1/4\nM:4/4\nK:C\n(EGBd)|",
		"X:1\nL:1/4\nM:4/4\nK:C\n(dBGE)|",
	} {
		d := drawn(t, text)
		for _, h := range d.Heads {
			sum := 0
			for _, s := range d.Shapes {
				sum += winding(s, h.X-0.05, h.Y+0.02)
			}
			require.NotZero(t, sum, "the middle of a head of %q", text)
			require.Negative(t, sum, "everything turns the same way")
		}
	}
}

// A crotchet's stem is at least two and a half spaces beyond its head, and a
// ledger note's reaches the middle line (engraving practice).
func TestStemsAreLongEnough(t *testing.T) {
	s := tune(t, "X:1\nL:1/4\nM:4/4\nK:C\nA, C f d'|")
	sys := newSystem(&engraver{score: s, to: 100, staves: []stave{{Staff{0, 1}, score.Clef{Sign: "G"}}}}, 1, true)
	for _, c := range sys.chords(1) {
		c.up = sys.stemUp(c, 0)
		c.x = 10
		sys.stem(c, 0)
		head := sys.y(c.first(), 0)
		require.GreaterOrEqual(t, math.Abs(c.tip-head), 2.5)
		if head > 4 || head < 0 {
			if c.up {
				require.LessOrEqual(t, c.tip, 2.0)
			} else {
				require.GreaterOrEqual(t, c.tip, 2.0)
			}
		}
	}
}

// Beats are beamed: quavers of a bar of four four in twos by the beat, of six
// eight in threes (standard notation).
func TestBeamsFollowTheBeat(t *testing.T) {
	count := func(text string) int {
		s := tune(t, text)
		sys := newSystem(&engraver{score: s, to: 100, staves: []stave{{Staff{0, 1}, score.Clef{Sign: "G"}}}}, 1, true)
		before := len(sys.shapes)
		sys.bar(1)
		beams := 0
		for _, shape := range sys.shapes[before:] {
			low, high := shape.vertical()
			wide := shape[2].P[0] - shape[0].P[0]
			if len(shape) == 5 && math.Abs(wide) > 1.4 && high-low < 2 && high-low > thin+0.2 {
				beams++
			}
		}
		return beams
	}
	require.Equal(t, 4, count("X:1\nL:1/8\nM:4/4\nK:C\ncccccccc|"))
	require.Equal(t, 2, count("X:1\nL:1/8\nM:6/8\nK:C\ncccccc|"))
	require.Equal(t, 0, count("X:1\nL:1/4\nM:4/4\nK:C\ncccc|"))
	require.Equal(t, 2, count("X:1\nL:1/16\nM:1/4\nK:C\ncccc|"), "two beams for semiquavers")
	require.Equal(t, 2, count("X:1\nL:1/8\nM:4/4\nK:C\ncczccczc|"), "a rest breaks a beam")
}

func TestPathsAreReadAndWritten(t *testing.T) {
	s, err := parse("M0 1L2 3C1 2 3 4 5 6Z")
	require.NoError(t, err)
	require.Equal(t, Shape{{'M', [6]float64{0, 1}}, {'L', [6]float64{2, 3}}, {'C', [6]float64{1, 2, 3, 4, 5, 6}}, {Op: 'Z'}}, s)
	require.Equal(t, "M0 1L2 3C1 2 3 4 5 6Z", Drawing{Shapes: []Shape{s}}.SVG())
	for _, wrong := range []string{"M0", "L1 2 3", "C1 2", "Mx y"} {
		_, err := parse(wrong)
		require.Error(t, err, wrong)
	}
	require.Equal(
		t,
		"M-1.25-0.5L1 0.33Z",
		Drawing{Shapes: []Shape{{{'M', [6]float64{-1.25, -0.5}}, {'L', [6]float64{1, 1.0 / 3}}, {Op: 'Z'}}}}.SVG(),
	)
}

// Signs of a key stand where they always do: F sharp on the top line under the G
// clef, B flat on the middle line; under the F clef a third lower (standard notation).
func TestKeySignatures(t *testing.T) {
	first := func(clef string, fifths int) float64 {
		sys := &system{engraver: &engraver{staves: []stave{{clef: score.Clef{Sign: clef}}}}}
		sys.key(0, 0, fifths)
		require.Len(t, sys.shapes, int(math.Abs(float64(fifths))))
		g := glyphs()[map[bool]string{true: "sharp", false: "flat"}[fifths > 0]]
		low, _ := g.shape.vertical()
		at, _ := sys.shapes[0].vertical()
		return at - low
	}
	require.InDelta(t, 0, first("G", 1), 1e-9)
	require.InDelta(t, 2, first("G", -1), 1e-9)
	require.InDelta(t, 1, first("F", 1), 1e-9)
	require.InDelta(t, 3, first("F", -2), 1e-9)
	require.InDelta(t, 0, first("G", 7), 1e-9)
}

func TestDigits(t *testing.T) {
	require.Equal(t, "12", strings.Join(digits(12), ""))
	require.Empty(t, digits(0))
}

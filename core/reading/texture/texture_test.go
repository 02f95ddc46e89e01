package texture

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/base/finding"
	"patientladder/core/notation/abc"
	"patientladder/core/reading/reading"
)

// find reads two hands typed in ABC, crotchets in 4/4.
func find(t require.TestingT, right, left string) finding.Set {
	tunes, err := abc.Read([]byte("X:1\nL:1/4\nM:4/4\nK:C\nV:1\n" + right + "\nV:2 clef=bass\n" + left + "\n"))
	require.NoError(t, err)
	return Find(tunes[0], reading.Lines(tunes[0], true))
}

// Each pair of bars, told by hand as a teacher would.
func TestHowTheHandsShareTheTime(t *testing.T) {
	for name, c := range map[string]struct {
		right, left string
		found       []string
		not         []string
	}{
		"in turn":         {"CDEF|z4|", "z4|C,D,E,F,|", []string{"hands.in-turn", "hands.switch"}, []string{"hands.together"}},
		"parallel":        {"CDEF|", "C,D,E,F,|", []string{"hands.parallel", "hands.together"}, []string{"hands.contrary", "hands.oblique", "hands.in-turn"}},
		"mirrored":        {"CDEF|", "C,B,,A,,G,,|", []string{"hands.contrary"}, []string{"hands.parallel"}},
		"one mirrored":    {"CDDD|", "C,B,,B,,B,,|", nil, []string{"hands.contrary"}},
		"apart, together": {"CDCD|", "C,B,,A,,B,,|", nil, []string{"hands.contrary"}},
		"oblique":         {"CDEF|", "C,C,C,C,|", []string{"hands.oblique"}, []string{"hands.parallel", "hands.contrary"}},
		"held below":      {"CDEF|", "C,4|", []string{"hands.held-against-moving"}, []string{"hands.moving-against-held"}},
		"held above":      {"C4|", "C,D,E,F,|", []string{"hands.moving-against-held"}, []string{"hands.held-against-moving"}},
		"answer":          {"CD z2|", "z2 C,D,|", []string{"hands.in-turn", "hands.switch"}, nil},
		"chords below":    {"CDEF|", "[C,E,]2[C,E,]2|", []string{"hands.accompaniment-left"}, []string{"hands.accompaniment-right"}},
		"broken below":    {"CDEF|", "C,G,E,G,|", []string{"hands.accompaniment-left"}, nil},
		"chords above":    {"[ce]2[ce]2|", "C,D,E,F,|", []string{"hands.accompaniment-right"}, []string{"hands.accompaniment-left"}},
		"a bass below":    {"[ce]2[ce]2|", "C,4|", nil, []string{"hands.accompaniment-right"}},
		"a bass of leaps": {"[ce][ce][ce][ce]|", "C,2G,,2|", nil, []string{"hands.accompaniment-right"}},
		"one note twice":  {"[ce]2[ce]2|", "C,2C,2|", nil, []string{"hands.accompaniment-right"}},
		"broken above":    {"cgeg|", "C,4|", nil, []string{"hands.accompaniment-right"}},
		"a tune below":    {"cgeg|", "C,D,E,G,|", []string{"hands.accompaniment-right"}, nil},
		"touches differ":  {".C.D.E.F|", "(C,D,E,F,)|", []string{"hands.different-touch"}, nil},
		"touches agree":   {".C.D.E.F|", ".C,.D,.E,.F,|", nil, []string{"hands.different-touch"}},
		"both plain":      {"CDEF|", "C,D,E,F,|", nil, []string{"hands.different-touch", "hands.accompaniment-left", "hands.accompaniment-right"}},
		"tie counts held": {"C2-|C2 D2|", "C,2|z2 C,2|", nil, []string{"hands.held-against-moving"}},
	} {
		t.Run(name, func(t *testing.T) {
			f := find(t, c.right, c.left)
			for _, x := range c.found {
				require.Contains(t, f, x)
			}
			for _, x := range c.not {
				require.NotContains(t, f, x)
			}
			require.Contains(t, f, "staff.grand")
		})
	}
}

func TestOneHandHasNoTexture(t *testing.T) {
	tunes, err := abc.Read([]byte("X:1\nL:1/4\nK:C\nCDEF|"))
	require.NoError(t, err)
	require.Empty(t, Find(tunes[0], reading.Lines(tunes[0], true)))
}

// m even notes against n even notes in one bar are m against n, whichever hand
// has which, exactly when neither number divides the other and they share no factor.
func TestPolyrhythmIsNamedByItsNumbers(t *testing.T) {
	even := func(name string, n int) string {
		// n notes in four crotchets: a tuplet of n in the time of 4 crotchets.
		return fmt.Sprintf("(%d:4:%d%s|", n, n, strings.Repeat(name, n))
	}
	for m := 2; m <= 9; m++ {
		for n := 2; n <= 9; n++ {
			f := find(t, even("c", m), even("C,", n))
			got := ""
			for _, name := range f.Names() {
				if strings.HasPrefix(name, "polyrhythm.") {
					got += name
				}
			}
			big, small := max(m, n), min(m, n)
			if gcd(big, small) == 1 {
				require.Contains(t, got, fmt.Sprintf("polyrhythm.%d:%d", big, small))
				continue
			}
			require.NotContains(t, got, fmt.Sprintf("polyrhythm.%d:%d", big, small), "%d against %d", m, n)
		}
	}
}

// Giving the hands each other's notes swaps what is told of right and left and nothing else.
func TestTheHandsMirror(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		draw := func(names []string) string {
			text := ""
			for range 4 {
				text += rapid.SampledFrom(names).Draw(t, "note")
			}
			return text + "|"
		}
		r, l := draw([]string{"c", "d", "e", "z"}), draw([]string{"C,", "D,", "E,", "z"})
		if !strings.ContainsAny(r, "cde") || !strings.ContainsAny(l, "CDE") {
			return
		}
		lower := strings.NewReplacer("c", "C,", "d", "D,", "e", "E,")
		higher := strings.NewReplacer("C,", "c", "D,", "d", "E,", "e")
		a, b := find(t, r, l), find(t, higher.Replace(l), lower.Replace(r))
		for _, name := range []string{"hands.together", "hands.parallel", "hands.contrary", "hands.oblique", "hands.in-turn"} {
			require.Equal(t, a[name], b[name], name)
		}
		require.Equal(t, a["hands.held-against-moving"], b["hands.moving-against-held"])
	})
}

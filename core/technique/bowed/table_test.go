package bowed

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/instrument"
	"patientladder/core/technique/scale"
)

// fingers writes a scale as string names with their fingers: "G0 2 D0 3"; a new place of the hand begins with /.
func fingers(t *testing.T, player string, key scale.Tonic, kind scale.Kind, octaves int) string {
	x, ok := instrument.Of(player)
	require.True(t, ok)
	played, err := Scale(x, key, kind, octaves)
	require.NoError(t, err)
	var out []string
	last, place := 0, x.Hand.First
	for _, p := range played {
		word := fmt.Sprint(p.Finger)
		if p.String != last {
			word = x.Open[p.String-1].Name() + word
			last = p.String
		}
		if p.Place != 0 && p.Place != place && p.Where != "" && p.Where != "first position" {
			word = "/" + word
		}
		if p.Place != 0 {
			place = p.Place
		}
		out = append(out, word)
	}
	return strings.Join(out, " ")
}

func tonic(t *testing.T, name string, kind scale.Kind) scale.Tonic {
	out, err := scale.Parse(name, kind)
	require.NoError(t, err)
	return out
}

// Arpeggios lie in the hand of their key: the fingers between their notes keep their places. The tables are those of common
// handbooks, from memory.
func TestArpeggiosAgainstTheHandbooks(t *testing.T) {
	for _, c := range [][5]string{
		{"violin", "G", "major-arpeggio", "2", "G0 2 D0 3 A1 3 E2"},
		{"violin", "A", "major-arpeggio", "2", "G1 3 D1 A0 2 E0 3"},
		{"violin", "Bb", "major-arpeggio", "2", "G2 D0 2 A1 3 E1 4"},
		{"violin", "D", "major-arpeggio", "1", "D0 2 A0 3"},
		{"violin", "G", "minor-arpeggio", "2", "G0 2 D0 3 A1 3 E2"},
		{"viola", "C", "major-arpeggio", "2", "C0 2 G0 3 D1 3 A2"},
		{"viola", "D", "major-arpeggio", "2", "C1 3 G1 D0 2 A0 3"},
		{"cello", "C", "major-arpeggio", "2", "C0 3 G0 4 D1 4 A2"},
		{"cello", "G", "major-arpeggio", "1", "G0 3 D0 4"},
		{"cello", "D", "major-arpeggio", "1", "D0 3 A0 4"},
		// Scales that leave first position: on the way up after a half-step, to the first finger.
		{"violin", "G", "major", "2", "G0 1 2 3 D0 1 2 3 A0 1 2 3 E0 1 2"},
		{"violin", "D", "major", "2", "D0 1 2 3 A0 1 2 3 E0 1 2 /1 2 3 4"},
		{"violin", "E", "major", "2", "D1 2 3 A0 1 2 3 E0 1 2 3 /1 2 3 4"},
		{"violin", "Eb", "major", "2", "D1 2 3 4 A1 2 3 4 E1 2 3 /1 2 3 4"},
		{"viola", "C", "major", "2", "C0 1 2 3 G0 1 2 3 D0 1 2 3 A0 1 2"},
		{"cello", "C", "major", "2", "C0 1 3 4 G0 1 3 4 D0 1 2 4 A0 1 2"},
		{"cello", "G", "major", "2", "G0 1 3 4 D0 1 3 4 A0 1 2 4 /1 3 4"},
		// Three octaves: on the first string groups of three, each begun by the first finger; handbooks differ in where they
		// shift on lower strings.
		{"violin", "G", "major", "3", "G0 1 2 3 D0 1 2 3 A0 1 2 3 E0 1 2 /1 2 3 /1 2 3 4"},
		{"violin", "A", "major", "3", "G1 2 3 D0 1 2 3 A0 1 2 3 E0 1 2 3 /1 2 3 /1 2 3 4"},
		{"violin", "Bb", "major", "3", "G2 3 D0 1 2 3 A0 1 2 3 4 E1 2 3 4 /1 2 3 /1 2 3 4"},
		{"viola", "C", "major", "3", "C0 1 2 3 G0 1 2 3 D0 1 2 3 A0 1 2 /1 2 3 /1 2 3 4"},
	} {
		octaves := int(c[3][0] - '0')
		require.Equal(t, c[4], fingers(t, c[0], tonic(t, c[1], scale.Kind(c[2])), scale.Kind(c[2]), octaves), "%s %s %s", c[0], c[1], c[2])
	}
}

// In no key and on no string does a hand move in first position where the four fingers reach, and nobody shifts to the fourth
// finger where a lower one would do.
func TestShiftsAreToALowFinger(t *testing.T) {
	for _, player := range []string{"violin", "viola", "cello"} {
		x, _ := instrument.Of(player)
		for _, kind := range []scale.Kind{scale.Major, scale.NaturalMinor, scale.MajorArpeggio, scale.MinorArpeggio} {
			for _, key := range scale.Keys(kind) {
				for octaves := 1; octaves <= 2; octaves++ {
					played, err := Scale(x, key, kind, octaves)
					if err != nil {
						continue
					}
					for i := 1; i < len(played); i++ {
						a, b := played[i-1], played[i]
						if a.String != b.String || a.Place == 0 || b.Place == a.Place {
							continue
						}
						require.Less(t, b.Finger, 4, "%s %s %s: %v", player, key, kind, played)
						require.False(t, b.Above-a.Place <= x.Hand.Span && b.Finger > a.Finger, "%s %s %s: the hand would have reached", player, key, kind)
					}
				}
			}
		}
	}
}

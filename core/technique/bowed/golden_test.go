package bowed

import (
	"fmt"
	"strings"
	"testing"

	"patientladder/core/library/instrument"
	"patientladder/core/technique/scale"
	"patientladder/golden"
)

// Every key on every bowed instrument: the finger pattern of each string in first position, and scales and
// arpeggios of one to three octaves note by note (string+semitones=finger).
func TestEveryKeyOverTheStrings(t *testing.T) {
	kinds := []scale.Kind{scale.Major, scale.NaturalMinor, scale.HarmonicMinor, scale.MelodicMinor, scale.MajorArpeggio, scale.MinorArpeggio}
	for _, x := range instrument.All() {
		if x.Family != instrument.Bowed {
			continue
		}
		var out strings.Builder
		for _, kind := range kinds {
			for _, key := range scale.Keys(kind) {
				fmt.Fprintf(&out, "### %s %s\n", key, kind)
				patterns, err := Patterns(x, key, kind)
				for _, p := range patterns {
					fmt.Fprintf(&out, "%d %s (%s) moves %d:", p.String, p.ID, p.Words, p.Moves)
					for _, s := range p.Stops {
						out.WriteString(" " + stop(s))
					}
					out.WriteByte('\n')
				}
				if err != nil {
					fmt.Fprintln(&out, err)
				}
				for octaves := 1; octaves <= 3; octaves++ {
					notes, err := Scale(x, key, kind, octaves)
					fmt.Fprintf(&out, "%d:", octaves)
					for _, n := range notes {
						fmt.Fprintf(&out, " %d%s", n.String, stop(n.Stop))
						if n.Where != "" {
							fmt.Fprintf(&out, "<%s>", n.Where)
						}
					}
					if err != nil {
						fmt.Fprint(&out, " ", err)
					}
					out.WriteByte('\n')
				}
			}
		}
		golden.Equal(t, x.ID+".txt", out.String())
	}
}

func stop(s Stop) string {
	sign := ""
	if s.Extended {
		sign = "x"
	}
	return fmt.Sprintf("+%d=%d%s@%d", s.Above, s.Finger, sign, s.Place)
}

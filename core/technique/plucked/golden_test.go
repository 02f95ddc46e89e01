package plucked

import (
	"fmt"
	"strings"
	"testing"

	"patientladder/core/library/instrument"
	"patientladder/golden"
)

// Every chord of every root on every plucked instrument, how each changes to its usual neighbours, and how the
// fingers go through every roll of three and four strokes.
func TestEveryChordChangeAndRoll(t *testing.T) {
	var out strings.Builder
	for _, x := range instrument.All() {
		if x.Family != instrument.Plucked {
			continue
		}
		fmt.Fprintf(&out, "### %s\n", x.ID)
		roots := []string{"C", "G", "D", "A", "E", "B", "F#", "Db", "Ab", "Eb", "Bb", "F"}
		for i, root := range roots {
			for _, quality := range []string{"", "m", "7", "m7", "maj7", "dim"} {
				s, err := Chord(x, root+quality)
				fmt.Fprintln(&out, root+quality, s.Frets, s.Fingers, err)
				if quality != "" || err != nil {
					continue
				}
				for _, next := range []string{roots[(i+1)%12], roots[(i+11)%12], roots[(i+3)%12] + "m"} {
					if to, err := Chord(x, next); err == nil {
						c := ChangeOf(s, to)
						fmt.Fprintf(&out, "  to %s: %s", next, c.Words)
						for _, m := range c.Moves {
							fmt.Fprintf(&out, " %d %s %d+%d>%d+%d", m.Finger, m.How, m.FromString, m.FromFret, m.ToString, m.ToFret)
						}
						out.WriteByte('\n')
					}
				}
			}
		}
		n := len(x.Open)
		for code := range n * n * n {
			strokes := []int{code%n + 1, code/n%n + 1, code/n/n + 1}
			for _, roll := range [][]int{strokes, append(strokes, 1)} {
				way, err := Fingers(x, roll)
				fmt.Fprint(&out, roll, " ")
				for _, w := range way {
					out.WriteString(w.Finger)
				}
				if err != nil {
					fmt.Fprint(&out, err)
				}
				out.WriteByte('\n')
			}
		}
	}
	golden.Equal(t, "plucked.txt", out.String())
}

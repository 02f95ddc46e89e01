package exercise

import (
	"crypto/sha256"
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/instrument"
	"patientladder/core/notation/score"
	"patientladder/core/reading/naming"
	"patientladder/core/technique/keycycle"
	"patientladder/golden"
)

// asRead writes an exercise as one reads it: per hand, the notes with finger, string and fret, plucking finger, bow, and
// what is held, silent or short.
func asRead(b Built) string {
	var out strings.Builder
	hand := "-"
	for _, n := range b.Notes {
		if n.Hand != hand {
			hand = n.Hand
			fmt.Fprintf(&out, "\n  %s", hand)
		}
		fmt.Fprintf(&out, " %s:%s=%s/%d", n.At, n.Length, n.Pitch, n.Finger)
		if n.String > 0 {
			fmt.Fprintf(&out, "@%d+%d", n.String, n.Above)
		}
		out.WriteString(n.Pluck)
		if n.Bow != "" {
			out.WriteString("!" + n.Bow)
		}
		for _, flag := range []struct {
			on   bool
			sign string
		}{{n.Slur, "("}, {n.Unslur, ")"}, {n.Chord, "+"}, {n.Silent, "~"}, {n.Short, "."}} {
			if flag.on {
				out.WriteString(flag.sign)
			}
		}
		if n.Begins {
			fmt.Fprintf(&out, "[%d]", n.Group)
		}
		if n.Join != "" {
			fmt.Fprintf(&out, "<%s>", n.Join)
		}
		if n.Meet != "" {
			fmt.Fprintf(&out, "<%s %d>", n.Meet, n.Degree)
		}
		if n.Where != "" {
			fmt.Fprintf(&out, "<%s>", n.Where)
		}
	}
	fmt.Fprintf(&out, "\n  of %d, %s long", b.Beats, b.Length)
	for _, c := range b.Chords {
		fmt.Fprintf(&out, " %s at %s", c.Name, c.At)
	}
	for _, d := range b.Dynamics {
		fmt.Fprintf(&out, " %s%s at %s", d.Hand, d.Text, d.At)
	}
	return out.String()
}

// asWritten is the score of an exercise in one line: parts, staves with their clefs, bars, and for each note where it is
// written, with its value, fingers and words.
func asWritten(s *score.Score) string {
	data, err := json.Marshal(s)
	if err != nil {
		return err.Error()
	}
	sum := sha256.Sum256(data)
	return fmt.Sprintf("%d parts, %d bars, %d notes, print %x", len(s.Parts), len(s.Bars), len(s.Notes), sum[:6])
}

// Every step of every type on every instrument: its places by name, and the notes of the first of them and of one far off.
func TestEveryExerciseAsItIsMade(t *testing.T) {
	for _, x := range instrument.All() {
		var out strings.Builder
		for _, kind := range For(x) {
			for _, step := range kind.Steps {
				places := Places(Exercise{Type: kind, Step: step, Instrument: x})
				fmt.Fprintf(&out, "### %s/%s\n", kind.ID, step.ID)
				for _, p := range places {
					fmt.Fprintf(&out, "%s | %s | %s\n", p.ID(), p.Title(naming.Words{}), p.PlaceName(naming.Words{}))
				}
				for i, p := range places {
					if i != 0 && i != len(places)*2/3 {
						continue
					}
					b, err := p.Build()
					require.NoError(t, err)
					fmt.Fprintf(&out, "%s, %s%s\n", p.ID(), p.Full(naming.Words{}), asRead(b))
					written, err := p.Score(naming.Words{})
					require.NoError(t, err)
					fmt.Fprintf(&out, "  written: %s\n", asWritten(written))
					for _, choice := range Near(p) {
						fmt.Fprintf(&out, "  %s:", choice.Name)
						for _, o := range choice.Options {
							out.WriteString(" " + o.ID())
						}
						out.WriteByte('\n')
					}
				}
			}
		}
		first, _ := First(x)
		fmt.Fprintf(&out, "### first: %s\n", first.ID())
		golden.Equal(t, x.ID+".txt", out.String())
	}
}

// What each preview bite is played as, and the keys of a cycle in every order from every key.
func TestEveryBiteAndEveryRound(t *testing.T) {
	var out strings.Builder
	for _, x := range instrument.All() {
		for _, kind := range For(x) {
			for _, s := range kind.Plants {
				for bite := range 4 {
					for _, notes := range [][]string{nil, {"F#4", "G4", "Bb2"}} {
						if e, ok := ForBite(x, s, bite, notes); ok {
							fmt.Fprintf(&out, "%s %s %d %v: %s\n", x.ID, s, bite, notes, e.ID())
						}
					}
				}
			}
		}
		kind, ok := CycleType(x)
		if !ok {
			continue
		}
		for _, base := range Places(Exercise{Type: kind, Step: kind.Steps[0], Instrument: x})[:1] {
			for _, first := range CycleKeys(base) {
				for _, order := range []keycycle.Order{keycycle.Fifths, keycycle.Semitones} {
					round, err := Round(base, first, order)
					fmt.Fprintf(&out, "%s from %s by %s:", x.ID, first, order)
					for _, e := range round {
						fmt.Fprintf(&out, " %s", e.Key)
					}
					fmt.Fprintln(&out, err)
				}
			}
		}
	}
	golden.Equal(t, "bites.txt", out.String())
}

// Students who pass what the staircases propose, the third proposal left in work for a while, from
// nothing, with one skill from pieces, and with the key of the week wished for: thirty passes each.
func TestHowTheStaircasesAreClimbed(t *testing.T) {
	var out strings.Builder
	for _, x := range instrument.All() {
		for _, from := range []string{"nothing", "pieces", "a wish"} {
			fmt.Fprintf(&out, "### %s, from %s\n", x.ID, from)
			var p Progress
			var wish Wish
			switch from {
			case "pieces":
				p.Secure = func(s string) bool { return len(s)%3 == 0 }
			case "a wish":
				if kind, ok := CycleType(x); ok {
					wish = Wish{Type: kind.ID, Place: "D/major/-", Since: time.Date(2026, 5, 4, 0, 0, 0, 0, time.UTC)}
				}
			}
			for pass := range 30 {
				var proposed []Proposal
				for _, stair := range Climb(x, p, wish) {
					if stair.Next != nil {
						proposed = append(proposed, *stair.Next)
					}
				}
				if len(proposed) == 0 { // what is in work is passed first
					p.Cleared, p.Working = append(p.Cleared, p.Working...), nil
					continue
				}
				chosen := proposed[pass%len(proposed)]
				fmt.Fprintf(&out, "%d of %d: %s %+v\n", pass%len(proposed)+1, len(proposed), chosen.Exercise.ID(), whyProposed(chosen.Reasons))
				if pass%7 == 3 {
					p.Working = append(p.Working, chosen.Exercise.ID())
				} else {
					p.Cleared = append(p.Cleared, chosen.Exercise.ID())
				}
			}
			for _, stair := range Climb(x, p, wish) {
				fmt.Fprintf(&out, "%s at %d", stair.Type.ID, stair.At)
				for _, s := range stair.Steps {
					fmt.Fprintf(&out, " %s %d+%d/%d %t", s.Step.ID, len(s.Cleared), len(s.Working), s.Of, s.Known)
				}
				out.WriteByte('\n')
			}
			superseded := slices.Sorted(maps.Keys(p.Superseded(x)))
			fmt.Fprintf(&out, "superseded: %v\n", superseded)
		}
	}
	golden.Equal(t, "climbs.txt", out.String())
}

func whyProposed(reasons []Reason) (out []string) {
	for _, r := range reasons {
		one := fmt.Sprintf("%s %s>%s %d/%d %s", r.Kind, r.Step.ID, r.Now.ID, r.Count, r.Of, r.Order)
		if !r.Day.IsZero() {
			one += r.Day.Format(" 2006-01-02")
		}
		out = append(out, one)
	}
	return out
}

package exercise

import (
	"slices"

	"patientladder/core/base/rational"
	"patientladder/core/technique/scale"
)

// levels are the six of loudness by the weight of the arm, the softest first (common practice).
var levels = []string{"pp", "p", "mp", "mf", "f", "ff"}

// Loudness of a level, 0 to 1, as it is played to listen to: even steps (ours).
func loudness(level string) float64 { return 0.2 + 0.16*float64(slices.Index(levels, level)) }

// weights plays five notes up and back once on each level of the step, each hand by itself or both; without levels three
// times, growing and fading with the line.
func (e Exercise) weights() (Built, error) {
	s, err := scale.Of(e.Key, e.Kind, 1)
	if err != nil {
		return Built{}, err
	}
	b := Built{Beats: 4}
	rounds := e.Step.Levels
	if len(rounds) == 0 {
		rounds = make([]string, 3)
	}
	play := func(which string, octave int, fingers []int) {
		var notes []Note
		for range rounds {
			for _, d := range []int{1, 2, 3, 4, 5, 4, 3, 2} {
				p := s.Up.Notes[d-1]
				p.Octave += octave
				notes = append(notes, Note{Pitch: p, Hand: which, Finger: fingers[d-1]})
			}
		}
		first := notes[0]
		laid, _ := line(append(notes, first), rational.Rat{}, rational.Int(1), b.Beats)
		b.Notes = append(b.Notes, laid...)
	}
	if e.Step.Hands != "left" {
		play("right", 0, s.Up.Right)
	}
	if e.Step.Hands != "right" {
		play("left", -1, s.Up.Left)
	}
	for i, level := range e.Step.Levels {
		b.Dynamics = append(b.Dynamics, DynamicAt{rational.Int(int64(8 * i)), level, ""})
	}
	return b, nil
}

// lineDynamics grow while the line rises and fade while it falls, by the first hand that plays.
func lineDynamics(notes []Note) (out []DynamicAt) {
	hand, way, last := notes[0].Hand, 0, notes[0].Pitch.Semitone()
	for i, n := range notes {
		if i == 0 || n.Hand != hand {
			continue
		}
		now := n.Pitch.Semitone()
		turned := 1
		if now < last {
			turned = -1
		}
		if now != last && turned != way {
			at := notes[i-1].At
			if way != 0 {
				out = append(out, DynamicAt{at, "end", ""})
			}
			out = append(out, DynamicAt{at, map[int]string{1: "crescendo", -1: "diminuendo"}[turned], ""})
			way = turned
		}
		last = now
		if i+1 == len(notes) || notes[i+1].Hand != hand {
			out = append(out, DynamicAt{n.At, "end", ""})
		}
	}
	return out
}

// usual is how loud a note without a level is played.
const usual = 0.68

// Loud is how loud a note is played to listen to, 0 to 1: by the last level before it, and on the way between soft and
// loud where it grows or fades.
func (b Built) Loud(n Note) float64 {
	if n.Accent {
		return loudness("ff")
	}
	at := usual
	var from DynamicAt
	growing := 0
	for _, d := range b.Dynamics {
		if d.Hand != "" && d.Hand != n.Hand || n.At.Less(d.At) {
			continue
		}
		switch d.Text {
		case "crescendo":
			growing, from = 1, d
		case "diminuendo":
			growing, from = -1, d
		case "end":
			growing = 0
			at = map[string]float64{"crescendo": loudness("f"), "diminuendo": loudness("p")}[from.Text]
		default:
			growing, at = 0, loudness(d.Text)
		}
	}
	if growing == 0 {
		return at
	}
	end := b.Length
	for _, d := range b.Dynamics {
		if from.At.Less(d.At) && d.At.Less(end) {
			end = d.At
		}
	}
	way := n.At.Sub(from.At).Float() / max(1e-9, end.Sub(from.At).Float())
	if growing < 0 {
		way = 1 - way
	}
	return loudness("p") + way*(loudness("f")-loudness("p"))
}

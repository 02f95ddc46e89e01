package abc

import (
	"fmt"
	"strconv"
	"strings"

	"patientladder/core/base/rational"
	"patientladder/core/notation/score"
)

// notes writes the notes of one voice in a bar, with invisible rests where it is silent.
func (w *writer) notes(bar int, notes []int, signs []score.Sign) []score.Sign {
	b := &w.s.Bars[bar]
	now, end := b.Start, b.Start.Add(b.Length)
	grace := false
	for i := 0; i < len(notes); {
		n := &w.s.Notes[notes[i]]
		j := i + 1
		for j < len(notes) && w.s.Notes[notes[j]].Chord {
			j++
		}
		if now.Less(n.Onset) {
			w.b.WriteString("x" + length(n.Onset.Sub(now)) + " ")
			now = n.Onset
		}
		for len(signs) > 0 && !n.Onset.Less(signs[0].At) {
			w.sign(signs[0])
			signs = signs[1:]
		}
		if n.Grace != grace {
			w.b.WriteString(map[bool]string{true: "{", false: "}"}[n.Grace])
			grace = n.Grace
		}
		w.group(notes[i:j])
		if !n.Grace {
			now = n.End()
		}
		i = j
	}
	if grace {
		w.b.WriteString("}")
	}
	for len(signs) > 0 && signs[0].At.Less(end) {
		w.sign(signs[0])
		signs = signs[1:]
	}
	if now.Less(end) {
		w.b.WriteString("x" + length(end.Sub(now)) + " ")
	}
	return signs
}

// group writes a note, a rest or a chord.
func (w *writer) group(notes []int) {
	n := &w.s.Notes[notes[0]]
	duration := n.Duration
	if n.Tuplet.Actual > 0 && n.Tuplet.Normal > 0 && !n.Grace {
		fmt.Fprintf(&w.b, "(%d:%d:1", n.Tuplet.Actual, n.Tuplet.Normal) // one note each: any mixture of lengths can be written
		duration = duration.Mul(rational.New(int64(n.Tuplet.Actual), int64(n.Tuplet.Normal)))
	}
	if n.SlurStart {
		w.b.WriteString("(")
	}
	for _, a := range n.Articulations {
		if name, ok := nameOf(articulations, a); ok {
			w.b.WriteString("!" + name + "!")
		}
	}
	for _, a := range n.Ornaments {
		if name, ok := nameOf(ornaments, a); ok {
			w.b.WriteString("!" + name + "!")
		}
	}
	if n.Fermata {
		w.b.WriteString("!fermata!")
	}
	if n.Rolled {
		w.b.WriteString("!arpeggio!")
	}
	if len(notes) == 1 {
		w.finger(n)
		w.pitch(n)
		w.b.WriteString(w.lengthOf(n, duration))
		if n.TieStart {
			w.b.WriteString("-")
		}
	} else {
		w.b.WriteString("[")
		for _, i := range notes {
			m := &w.s.Notes[i]
			w.finger(m)
			w.pitch(m)
			if m.TieStart {
				w.b.WriteString("-")
			}
		}
		w.b.WriteString("]" + w.lengthOf(n, duration))
	}
	if n.SlurStop {
		w.b.WriteString(")")
	}
	for _, a := range n.Articulations {
		if a == "breath-mark" {
			w.b.WriteString("!breath!")
		}
	}
	w.b.WriteString(" ")
	if !n.Rest && !n.Grace {
		word := strings.NewReplacer(" ", "~", "-", `\-`, "_", "", "*", "", "|", "", "%", `\%`).Replace(n.Lyric)
		if word == "" {
			word = "*"
		}
		w.words = append(w.words, word)
	}
}

// nameOf finds the shortest name that stands for a mark.
func nameOf(names map[string]string, mark string) (string, bool) {
	best := ""
	for name, m := range names {
		if m == mark && len(name) > 1 && (best == "" || len(name) < len(best) || len(name) == len(best) && name < best) {
			best = name
		}
	}
	return best, best != ""
}

func (w *writer) finger(n *score.Note) {
	if len(n.Fingering) == 1 && n.Fingering[0] >= '0' && n.Fingering[0] <= '5' {
		w.b.WriteString("!" + n.Fingering + "!")
	}
}

func (w *writer) lengthOf(n *score.Note, d rational.Rat) string {
	if n.Grace {
		return ""
	}
	return length(d)
}

// length writes a duration in units: "", "2", "/2", "3/2".
func length(d rational.Rat) string {
	d = d.Mul(rational.Int(2)) // in quavers
	num, den := d.Num(), d.Den()
	switch {
	case num == 1 && den == 1:
		return ""
	case den == 1:
		return strconv.FormatInt(num, 10)
	case num == 1:
		return "/" + strconv.FormatInt(den, 10)
	}
	return fmt.Sprintf("%d/%d", num, den)
}

// pitch writes a name. A sign is written wherever the key does not give the
// note, or the step carried a sign in the bar before.
func (w *writer) pitch(n *score.Note) {
	if n.Rest {
		w.b.WriteString("z")
		return
	}
	b := &w.s.Bars[n.Bar-1]
	alter := signature(b.Fifths, b.Mode).alter[n.Pitch.Step]
	if n.Pitch.Alter != alter || w.touched[n.Pitch.Step] || n.ShownAccidental {
		w.touched[n.Pitch.Step] = true
		w.b.WriteString([...]string{"__", "_", "=", "^", "^^"}[max(-2, min(n.Pitch.Alter, 2))+2])
	}
	octave := n.Pitch.Octave
	if octave >= 5 {
		w.b.WriteString(strings.ToLower(string(n.Pitch.Step)) + strings.Repeat("'", octave-5))
		return
	}
	w.b.WriteString(string(n.Pitch.Step) + strings.Repeat(",", 4-octave))
}

func (w *writer) sign(x score.Sign) {
	text := strings.ReplaceAll(oneLine(x.Text), `"`, "'")
	switch x.Kind {
	case score.Dynamic:
		w.b.WriteString("!" + tagOnly(text) + "!")
	case score.Crescendo:
		w.b.WriteString("!<(!")
	case score.Diminuendo:
		w.b.WriteString("!>(!")
	case score.HairpinEnd:
		w.b.WriteString("!<)!")
	case score.PedalDown:
		w.b.WriteString("!ped!")
	case score.PedalUp:
		w.b.WriteString("!ped-up!")
	case score.Words, score.Rehearsal:
		w.b.WriteString(`"^` + text + `"`)
	case score.Chord:
		w.b.WriteString(`"` + text + `"`)
	case score.TempoMark:
		w.b.WriteString("[Q:1/4=" + number(x.Value) + "]")
	}
}

func tagOnly(s string) string {
	return strings.Map(func(c rune) rune {
		if c >= 'a' && c <= 'z' {
			return c
		}
		return -1
	}, s)
}

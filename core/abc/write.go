package abc

import (
	"fmt"
	"math"
	"sort"
	"strconv"
	"strings"

	"patientladder/core/rational"
	"patientladder/core/score"
)

// Write writes a score as one ABC tune. Reading it again gives the same notes.
// Signs that stand between two notes move to the next one.
func Write(s *score.Score) []byte {
	w := &writer{s: s}
	w.head()
	for _, v := range w.voices() {
		w.voice(v)
	}
	return []byte(w.b.String())
}

type writer struct {
	s *score.Score
	b strings.Builder
	// touched are the steps that carried a sign of their own in the bar.
	touched map[byte]bool
	words   []string // of the line being written
}

// voicePart is one voice of a staff: its notes in order, and its name.
type voicePart struct {
	name        string
	part, staff int
	first       bool // the first voice of its staff: it carries the signs
	notes       []int
}

func (w *writer) head() {
	b := w.s.Bars[0]
	fmt.Fprintf(&w.b, "X:1\nT:%s\n", oneLine(w.s.Title))
	if w.s.Composer != "" {
		fmt.Fprintf(&w.b, "C:%s\n", oneLine(w.s.Composer))
	}
	fmt.Fprintf(&w.b, "M:%s\nL:1/8\n", meterText(b))
	if w.s.Tempo > 0 && !w.marked() {
		fmt.Fprintf(&w.b, "Q:1/4=%s\n", number(w.s.Tempo))
	}
	if staves := w.scoreLine(); staves != "" {
		fmt.Fprintf(&w.b, "%%%%score %s\n", staves)
	}
	fmt.Fprintf(&w.b, "K:%s\n", keyText(b))
}

func (w *writer) marked() bool {
	for _, x := range w.s.Signs {
		if x.Kind == score.TempoMark {
			return true
		}
	}
	return false
}

func oneLine(s string) string {
	return strings.TrimSpace(strings.NewReplacer("\n", " ", "\r", " ", "%", `\%`).Replace(s))
}

func number(f float64) string { return strconv.FormatFloat(math.Round(f*100)/100, 'f', -1, 64) }

func meterText(b score.Bar) string {
	if b.BeatUnit == 0 {
		return "none"
	}
	return fmt.Sprintf("%d/%d", b.Beats, b.BeatUnit)
}

// keyText names a key by its tonic; a key without a mode is written as its major key.
func keyText(b score.Bar) string {
	shift, name := 0, ""
	for _, m := range modes {
		if m.name == b.Mode && b.Mode != "" {
			shift, name = m.shift, b.Mode[:3]
		}
	}
	if b.Mode == "" && b.Fifths == 0 {
		return "none"
	}
	place := b.Fifths - shift + 1 // of the tonic on the line of fifths from F
	sign := ""
	for ; place > 6; place -= 7 {
		sign += "#"
	}
	for ; place < 0; place += 7 {
		sign += "b"
	}
	return string("FCGDAEB"[place]) + sign + name
}

func (w *writer) voices() []voicePart {
	type key struct {
		part, staff int
		voice       string
	}
	at := map[key]int{}
	var out []voicePart
	last := 0
	for i := range w.s.Notes {
		n := &w.s.Notes[i]
		if n.Chord && len(out) > 0 {
			out[last].notes = append(out[last].notes, i)
			continue
		}
		k := key{n.Part, n.Staff, n.Voice}
		if _, ok := at[k]; !ok {
			at[k] = len(out)
			out = append(out, voicePart{part: n.Part, staff: n.Staff})
		}
		last = at[k]
		out[last].notes = append(out[last].notes, i)
	}
	sort.SliceStable(out, func(a, b int) bool {
		if out[a].part != out[b].part {
			return out[a].part < out[b].part
		}
		return out[a].staff < out[b].staff
	})
	for i := range out {
		out[i].name = strconv.Itoa(i + 1)
		out[i].first = i == 0 || out[i-1].part != out[i].part || out[i-1].staff != out[i].staff
	}
	return out
}

// scoreLine says which voices share a part and a staff; empty for a single voice.
func (w *writer) scoreLine() string {
	voices := w.voices()
	if len(voices) < 2 {
		return ""
	}
	var parts []string
	for i := 0; i < len(voices); {
		var staves []string
		part := voices[i].part
		for i < len(voices) && voices[i].part == part {
			var ids []string
			staff := voices[i].staff
			for i < len(voices) && voices[i].part == part && voices[i].staff == staff {
				ids = append(ids, voices[i].name)
				i++
			}
			text := strings.Join(ids, " ")
			if len(ids) > 1 {
				text = "(" + text + ")"
			}
			staves = append(staves, text)
		}
		text := strings.Join(staves, " ")
		if len(staves) > 1 {
			text = "{" + text + "}"
		}
		parts = append(parts, text)
	}
	return strings.Join(parts, " ")
}

func (w *writer) voice(v voicePart) {
	clef := ""
	if c := w.s.Parts[v.part].Clefs; v.staff <= len(c) {
		for _, name := range []string{"treble", "bass", "alto", "tenor"} {
			if known := clefs[name]; known.Sign == c[v.staff-1].Sign && (c[v.staff-1].Line == 0 || known.Line == c[v.staff-1].Line) {
				clef = " clef=" + name
				break
			}
		}
	}
	transposed := 0
	for _, i := range v.notes {
		if n := &w.s.Notes[i]; !n.Rest {
			transposed = n.MIDI - n.Pitch.Semitone()
			break
		}
	}
	if transposed != 0 {
		clef += fmt.Sprintf(" transpose=%d", transposed)
	}
	if name := oneLine(w.s.Parts[v.part].Name); name != "" && v.first && v.staff == 1 {
		clef += ` name="` + strings.ReplaceAll(name, `"`, "'") + `"`
	}
	if v.name != "1" || clef != "" || w.scoreLine() != "" {
		fmt.Fprintf(&w.b, "V:%s%s\n", v.name, clef)
	}
	var signs []score.Sign
	if v.first {
		for _, x := range w.s.Signs {
			if x.Part == v.part && x.Staff == v.staff {
				signs = append(signs, x)
			}
		}
		sort.SliceStable(signs, func(a, b int) bool { return signs[a].At.Less(signs[b].At) })
	}
	at := 0
	for bar := range w.s.Bars {
		w.barStart(bar)
		w.touched = map[byte]bool{}
		var notes []int
		for at < len(v.notes) && w.s.Notes[v.notes[at]].Bar == bar+1 {
			notes = append(notes, v.notes[at])
			at++
		}
		signs = w.notes(bar, notes, signs)
		w.barEnd(bar)
		if bar%4 == 3 || bar == len(w.s.Bars)-1 {
			w.b.WriteByte('\n')
			w.lyrics()
		}
	}
}

func (w *writer) lyrics() {
	for len(w.words) > 0 && w.words[len(w.words)-1] == "*" {
		w.words = w.words[:len(w.words)-1]
	}
	if len(w.words) > 0 {
		w.b.WriteString("w: " + strings.Join(w.words, " ") + "\n")
	}
	w.words = nil
}

func (w *writer) barStart(bar int) {
	b := &w.s.Bars[bar]
	if bar > 0 {
		before := &w.s.Bars[bar-1]
		if b.Beats != before.Beats || b.BeatUnit != before.BeatUnit {
			fmt.Fprintf(&w.b, "[M:%s]", meterText(*b))
		}
		if b.Fifths != before.Fifths || b.Mode != before.Mode {
			fmt.Fprintf(&w.b, "[K:%s]", keyText(*b))
		}
	}
	if b.RepeatStart {
		w.b.WriteString("|:")
	}
	if len(b.Endings) > 0 && (bar == 0 || w.s.Bars[bar-1].RepeatEnd > 0 || fmt.Sprint(w.s.Bars[bar-1].Endings) != fmt.Sprint(b.Endings)) {
		w.b.WriteString("[" + strings.Trim(strings.ReplaceAll(fmt.Sprint(b.Endings), " ", ","), "[]") + " ")
	}
}

func (w *writer) barEnd(bar int) {
	b := &w.s.Bars[bar]
	last := bar == len(w.s.Bars)-1
	switch {
	case b.RepeatEnd > 0:
		w.b.WriteString(strings.Repeat(":", b.RepeatEnd-1) + "| ")
	case last:
		w.b.WriteString("|]")
	case len(b.Endings) > 0 && len(w.s.Bars[bar+1].Endings) == 0:
		w.b.WriteString("|| ")
	default:
		w.b.WriteString("| ")
	}
}

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

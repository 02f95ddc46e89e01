package abc

import (
	"fmt"
	"math"
	"sort"
	"strconv"
	"strings"

	"patientladder/core/notation/score"
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

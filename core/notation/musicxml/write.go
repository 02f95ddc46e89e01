package musicxml

import (
	"encoding/xml"
	"fmt"
	"sort"
	"strconv"
	"strings"

	"patientladder/core/base/rational"
	"patientladder/core/notation/score"
)

// Options say what is written beside the score itself.
type Options struct {
	// Colour returns the colour of a note by its index in Score.Notes, as
	// "#RRGGBB", or an empty string for the usual one; nil for no colours.
	Colour func(note int) string
	// Marks are boxed marks at the start of chunks.
	Marks []Mark
}

// Mark is a boxed mark above the first staff.
type Mark struct {
	At   rational.Rat
	Bar  int // from 1
	Text string
}

// Write writes a score as MusicXML 4.0, partwise. Reading it again gives the
// same notes and signs.
func Write(s *score.Score, o Options) []byte {
	w := &writer{s: s, o: o, notes: s.NotesByBar(), signs: signsByBar(s, o.Marks)}
	w.line(`<?xml version="1.0" encoding="UTF-8"?>`)
	w.line(`<score-partwise version="4.0">`)
	if s.Title != "" {
		w.line(`<work><work-title>` + escape(s.Title) + `</work-title></work>`)
	}
	if s.Composer != "" {
		w.line(`<identification><creator type="composer">` + escape(s.Composer) + `</creator></identification>`)
	}
	w.line(`<part-list>`)
	for i, p := range s.Parts {
		w.line(`<score-part id="` + partID(i) + `"><part-name>` + escape(p.Name) + `</part-name></score-part>`)
	}
	w.line(`</part-list>`)
	for i := range s.Parts {
		w.part(i)
	}
	w.line(`</score-partwise>`)
	return []byte(w.b.String())
}

func partID(i int) string { return "P" + strconv.Itoa(i+1) }

type writer struct {
	s     *score.Score
	o     Options
	b     strings.Builder
	notes [][]int        // indices of the notes of each bar
	signs [][]score.Sign // signs of each bar

	divisions int64
	// transposed is what the notes of each staff are moved by at the moment.
	transposed map[int]int
	cursor     rational.Rat // from the start of the bar
}

func signsByBar(s *score.Score, marks []Mark) [][]score.Sign {
	out := make([][]score.Sign, len(s.Bars))
	tempo := false
	for _, x := range s.Signs {
		tempo = tempo || x.Kind == score.TempoMark
	}
	if !tempo && s.Tempo > 0 && len(out) > 0 {
		out[0] = append(out[0], score.Sign{Kind: score.TempoMark, Value: s.Tempo, Bar: 1, Staff: 1})
	}
	for _, m := range marks {
		out[m.Bar-1] = append(out[m.Bar-1], score.Sign{Kind: score.Rehearsal, Text: m.Text, At: m.At, Bar: m.Bar, Staff: 1})
	}
	for _, x := range s.Signs {
		out[x.Bar-1] = append(out[x.Bar-1], x)
	}
	return out
}

func (w *writer) line(s string) {
	w.b.WriteString(s)
	w.b.WriteByte('\n')
}

func escape(s string) string {
	var b strings.Builder
	_ = xml.EscapeText(&b, []byte(s)) // a strings.Builder never fails
	return b.String()
}

func (w *writer) part(part int) {
	w.transposed = map[int]int{}
	w.divisions = 1
	fine := func(t rational.Rat) {
		if lcm, ok := rational.LCM(w.divisions, t.Den()); ok {
			w.divisions = lcm
		}
	}
	for i := range w.s.Notes {
		if n := &w.s.Notes[i]; n.Part == part {
			fine(n.Duration)
			fine(n.Onset.Sub(w.s.Bars[n.Bar-1].Start))
		}
	}
	for _, list := range w.signs {
		for _, x := range list {
			if x.Part == part {
				fine(x.At.Sub(w.s.Bars[x.Bar-1].Start))
			}
		}
	}
	for i := range w.s.Bars {
		fine(w.s.Bars[i].Length)
	}
	w.line(`<part id="` + partID(part) + `">`)
	for bar := range w.s.Bars {
		w.bar(part, bar)
	}
	w.line(`</part>`)
}

func (w *writer) bar(part, bar int) {
	b := &w.s.Bars[bar]
	implicit := ""
	if b.Short || b.BeatUnit > 0 && rational.New(4*int64(b.Beats), int64(b.BeatUnit)).Less(b.Length) {
		implicit = ` implicit="yes"`
	}
	w.line(`<measure number="` + escape(w.s.BarLabel(bar+1)) + `"` + implicit + `>`)
	w.cursor = rational.Rat{}
	w.attributes(part, bar)
	w.leftBarline(bar)
	var signs []score.Sign
	for _, x := range w.signs[bar] {
		if x.Part == part {
			x.At = x.At.Sub(b.Start)
			signs = append(signs, x)
		}
	}
	for _, v := range w.voices(part, bar) {
		signs = w.voice(v, b.Start, signs)
	}
	for _, x := range signs {
		w.sign(x)
	}
	w.to(b.Length)
	w.rightBarline(bar)
	w.line(`</measure>`)
}

// voices groups the notes of a part in a bar by staff and voice, in the order in which they come.
func (w *writer) voices(part, bar int) [][]int {
	type key struct {
		staff int
		voice string
	}
	at := map[key]int{}
	last := 0
	var out [][]int
	for _, i := range w.notes[bar] {
		n := &w.s.Notes[i]
		if n.Part != part {
			continue
		}
		if n.Chord && len(out) > 0 { // whatever voice it names, it sounds with the note before it
			out[last] = append(out[last], i)
			continue
		}
		k := key{n.Staff, n.Voice}
		if _, ok := at[k]; !ok {
			at[k] = len(out)
			out = append(out, nil)
		}
		last = at[k]
		out[last] = append(out[last], i)
	}
	sort.SliceStable(out, func(a, b int) bool { return w.s.Notes[out[a][0]].Staff < w.s.Notes[out[b][0]].Staff })
	return out
}

// voice writes the notes of one voice with the signs of its staff before them,
// and returns the signs that are left.
func (w *writer) voice(notes []int, start rational.Rat, signs []score.Sign) []score.Sign {
	staff := w.s.Notes[notes[0]].Staff
	for _, i := range notes {
		n := &w.s.Notes[i]
		onset := n.Onset.Sub(start)
		if !n.Chord {
			var left []score.Sign
			for _, x := range signs {
				if x.Staff == staff && !onset.Less(x.At) {
					w.sign(x)
				} else {
					left = append(left, x)
				}
			}
			signs = left
			w.to(onset)
		}
		w.note(i)
		if !n.Chord {
			w.cursor = onset.Add(n.Duration)
		}
	}
	return signs
}

// to moves the cursor.
func (w *writer) to(at rational.Rat) {
	switch c := at.Cmp(w.cursor); {
	case c > 0:
		w.line(`<forward><duration>` + w.count(at.Sub(w.cursor)) + `</duration></forward>`)
	case c < 0:
		w.line(`<backup><duration>` + w.count(w.cursor.Sub(at)) + `</duration></backup>`)
	}
	w.cursor = at
}

func (w *writer) count(d rational.Rat) string {
	return strconv.FormatInt(d.Num()*w.divisions/d.Den(), 10)
}

func (w *writer) attributes(part, bar int) {
	b := &w.s.Bars[bar]
	p := &w.s.Parts[part]
	first := bar == 0
	before := score.Bar{}
	if !first {
		before = w.s.Bars[bar-1]
	}
	var a strings.Builder
	if first {
		fmt.Fprintf(&a, `<divisions>%d</divisions>`, w.divisions)
	}
	if first || b.Fifths != before.Fifths || b.Mode != before.Mode {
		fmt.Fprintf(&a, `<key><fifths>%d</fifths>`, b.Fifths)
		if b.Mode != "" {
			a.WriteString(`<mode>` + escape(b.Mode) + `</mode>`)
		}
		a.WriteString(`</key>`)
	}
	switch {
	case b.BeatUnit > 0 && (first || b.Beats != before.Beats || b.BeatUnit != before.BeatUnit):
		fmt.Fprintf(&a, `<time><beats>%d</beats><beat-type>%d</beat-type></time>`, b.Beats, b.BeatUnit)
	case b.BeatUnit == 0 && before.BeatUnit > 0:
		a.WriteString(`<time><senza-misura/></time>`)
	}
	if first {
		if p.Staves > 1 {
			fmt.Fprintf(&a, `<staves>%d</staves>`, p.Staves)
		}
		for i, c := range p.Clefs {
			a.WriteString(clefXML(c, i+1))
		}
		if len(p.Strings) > 0 {
			fmt.Fprintf(&a, `<staff-details><staff-lines>%d</staff-lines>`, len(p.Strings))
			for i, m := range p.Strings {
				step, alter := "CCDDEFFGGAAB"[m%12], "010100101010"[m%12]
				fmt.Fprintf(
					&a,
					`<staff-tuning line="%d"><tuning-step>%c</tuning-step><tuning-alter>%c</tuning-alter><tuning-octave>%d</tuning-octave></staff-tuning>`,
					i+1,
					step,
					alter,
					m/12-1,
				)
			}
			a.WriteString(`</staff-details>`)
		}
	}
	if a.Len() > 0 {
		w.line(`<attributes>` + a.String() + `</attributes>`)
	}
}

func clefXML(c score.Clef, staff int) string {
	if c.Sign == "" {
		return ""
	}
	s := fmt.Sprintf(`<clef number="%d"><sign>%s</sign>`, staff, escape(c.Sign))
	if c.Line != 0 {
		s += fmt.Sprintf(`<line>%d</line>`, c.Line)
	}
	if c.Octave != 0 {
		s += fmt.Sprintf(`<clef-octave-change>%d</clef-octave-change>`, c.Octave)
	}
	return s + `</clef>`
}

// endingNumbers writes the passes of an ending as "1, 2".
func endingNumbers(list []int) string {
	out := make([]string, len(list))
	for i, n := range list {
		out[i] = strconv.Itoa(n)
	}
	return strings.Join(out, ", ")
}

func (w *writer) leftBarline(bar int) {
	b := &w.s.Bars[bar]
	inside := ""
	if begins := len(b.Endings) > 0 && (bar == 0 || w.s.Bars[bar-1].RepeatEnd > 0 || endingNumbers(w.s.Bars[bar-1].Endings) != endingNumbers(b.Endings)); begins {
		inside += `<ending number="` + endingNumbers(b.Endings) + `" type="start"/>`
	}
	if b.RepeatStart {
		inside += `<repeat direction="forward"/>`
	}
	if inside != "" {
		w.line(`<barline location="left">` + inside + `</barline>`)
	}
}

func (w *writer) rightBarline(bar int) {
	b := &w.s.Bars[bar]
	inside := ""
	last := bar == len(w.s.Bars)-1
	if last {
		inside += `<bar-style>light-heavy</bar-style>`
	}
	if len(b.Endings) > 0 && (last || b.RepeatEnd > 0 || endingNumbers(w.s.Bars[bar+1].Endings) != endingNumbers(b.Endings)) {
		inside += `<ending number="` + endingNumbers(b.Endings) + `" type="stop"/>`
	}
	if b.RepeatEnd > 0 {
		inside += `<repeat direction="backward"`
		if b.RepeatEnd > 2 {
			inside += ` times="` + strconv.Itoa(b.RepeatEnd) + `"`
		}
		inside += `/>`
	}
	if inside != "" {
		w.line(`<barline location="right">` + inside + `</barline>`)
	}
}

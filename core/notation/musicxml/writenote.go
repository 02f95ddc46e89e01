package musicxml

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"patientladder/core/notation/score"
)

// note writes one note or rest, its elements in the order of the standard.
func (w *writer) note(i int) {
	n := &w.s.Notes[i]
	if !n.Rest {
		w.transpose(n)
	}
	var b strings.Builder
	b.WriteString(`<note>`)
	if n.Grace {
		b.WriteString(`<grace/>`)
	}
	if n.Chord {
		b.WriteString(`<chord/>`)
	}
	if n.Rest {
		b.WriteString(`<rest/>`)
	} else {
		b.WriteString(`<pitch><step>` + string(n.Pitch.Step) + `</step>`)
		if n.Pitch.Alter != 0 {
			fmt.Fprintf(&b, `<alter>%d</alter>`, n.Pitch.Alter)
		}
		fmt.Fprintf(&b, `<octave>%d</octave></pitch>`, n.Pitch.Octave)
	}
	if !n.Grace {
		b.WriteString(`<duration>` + w.count(n.Duration) + `</duration>`)
	}
	if n.TieStop {
		b.WriteString(`<tie type="stop"/>`)
	}
	if n.TieStart {
		b.WriteString(`<tie type="start"/>`)
	}
	b.WriteString(`<voice>` + escape(n.Voice) + `</voice>`)
	if n.Type != "" {
		b.WriteString(`<type>` + escape(n.Type) + `</type>`)
	}
	b.WriteString(strings.Repeat(`<dot/>`, n.Dots))
	if n.ShownAccidental {
		b.WriteString(
			`<accidental>` + [...]string{"flat-flat", "flat", "natural", "sharp", "double-sharp"}[max(-2, min(n.Pitch.Alter, 2))+2] + `</accidental>`,
		)
	}
	if n.Tuplet.Actual > 0 {
		fmt.Fprintf(
			&b,
			`<time-modification><actual-notes>%d</actual-notes><normal-notes>%d</normal-notes></time-modification>`,
			n.Tuplet.Actual,
			n.Tuplet.Normal,
		)
	}
	if w.o.Colour != nil && !n.Rest {
		if c := w.o.Colour(i); c != "" {
			b.WriteString(`<notehead color="` + escape(c) + `">normal</notehead>`)
		}
	}
	if w.s.Parts[n.Part].Staves > 1 {
		fmt.Fprintf(&b, `<staff>%d</staff>`, n.Staff)
	}
	if inside := w.notations(i, n); inside != "" {
		b.WriteString(`<notations>` + inside + `</notations>`)
	}
	if n.Lyric != "" {
		b.WriteString(`<lyric><text>` + escape(n.Lyric) + `</text></lyric>`)
	}
	b.WriteString(`</note>`)
	w.line(b.String())
}

// transpose writes what moves the written notes of a staff when it changes.
func (w *writer) transpose(n *score.Note) {
	by := n.MIDI - n.Pitch.Semitone()
	if by == w.transposed[n.Staff] {
		return
	}
	w.transposed[n.Staff] = by
	w.line(fmt.Sprintf(`<attributes><transpose number="%d"><chromatic>%d</chromatic></transpose></attributes>`, n.Staff, by))
}

// leadsTo is how the left hand sounds the next note out of this one.
func (w *writer) leadsTo(i int) score.Join {
	n := &w.s.Notes[i]
	for k := i + 1; k < len(w.s.Notes); k++ {
		x := &w.s.Notes[k]
		if x.Part == n.Part && x.Voice == n.Voice && !x.Chord && !x.Rest {
			return x.Join
		}
	}
	return ""
}

func (w *writer) notations(i int, n *score.Note) string {
	var b strings.Builder
	if n.TieStop {
		b.WriteString(`<tied type="stop"/>`)
	}
	if n.TieStart {
		b.WriteString(`<tied type="start"/>`)
	}
	if n.SlurStop {
		b.WriteString(`<slur type="stop" number="1"/>`)
	}
	if n.SlurStart {
		b.WriteString(`<slur type="start" number="1"/>`)
	}
	if n.Join == score.Slide {
		b.WriteString(`<slide type="stop" number="1"/>`)
	}
	next := w.leadsTo(i)
	if next == score.Slide {
		b.WriteString(`<slide type="start" number="1"/>`)
	}
	if p := int64(n.Tuplet.Actual); p > 2 && p%2 == 1 && !n.Chord && !n.Grace {
		at := n.Onset.Sub(w.s.Bars[n.Bar-1].Start)
		if at.Den()%p != 0 {
			b.WriteString(`<tuplet type="start"/>`)
		}
		if at.Add(n.Duration).Den()%p != 0 {
			b.WriteString(`<tuplet type="stop"/>`)
		}
	}
	list := func(name string, items []string, one func(string) string) {
		if len(items) == 0 {
			return
		}
		b.WriteString(`<` + name + `>`)
		for _, x := range items {
			b.WriteString(one(x))
		}
		b.WriteString(`</` + name + `>`)
	}
	list("ornaments", n.Ornaments, func(x string) string {
		if x == "tremolo" {
			return `<tremolo type="single">3</tremolo>`
		}
		return `<` + tag(x) + `/>`
	})
	var technical []string
	if n.Bow == "down" || n.Bow == "up" {
		technical = append(technical, `<`+n.Bow+`-bow/>`)
	}
	if n.Fingering != "" {
		technical = append(technical, `<fingering>`+escape(n.Fingering)+`</fingering>`)
	}
	if n.String > 0 {
		technical = append(technical, `<string>`+strconv.Itoa(n.String)+`</string>`)
	}
	if n.Pluck != "" {
		technical = append(technical, `<pluck>`+escape(n.Pluck)+`</pluck>`)
	}
	if n.String > 0 || n.Fret > 0 {
		technical = append(technical, `<fret>`+strconv.Itoa(n.Fret)+`</fret>`)
	}
	for _, end := range []string{"stop", "start"} {
		how := n.Join
		if end == "start" {
			how = next
		}
		if how == score.Hammer || how == score.Pull {
			technical = append(technical, fmt.Sprintf(`<%s type="%s" number="1"/>`, how, end))
		}
	}
	list("technical", technical, func(x string) string { return x })
	list("articulations", n.Articulations, func(x string) string { return `<` + tag(x) + `/>` })
	if n.Fermata {
		b.WriteString(`<fermata/>`)
	}
	if n.Rolled {
		b.WriteString(`<arpeggiate/>`)
	}
	return b.String()
}

// tag keeps a name that came from a file to what can stand in a tag.
func tag(s string) string {
	return strings.Map(func(c rune) rune {
		if c >= 'a' && c <= 'z' || c == '-' {
			return c
		}
		return -1
	}, s)
}

// dynamics are the marks that have an element of their own.
var dynamics = []string{
	"p",
	"pp",
	"ppp",
	"pppp",
	"f",
	"ff",
	"fff",
	"ffff",
	"mp",
	"mf",
	"sf",
	"sfp",
	"sfpp",
	"fp",
	"rf",
	"rfz",
	"sfz",
	"sffz",
	"fz",
	"n",
	"pf",
	"sfzp",
}

// sign writes one sign; its time may lie off the cursor.
func (w *writer) sign(x score.Sign) {
	offset := ""
	if d := x.At.Sub(w.cursor); !d.IsZero() {
		offset = `<offset>` + w.count(d) + `</offset>`
	}
	direction := func(inside, after string) {
		staff := ""
		if w.s.Parts[x.Part].Staves > 1 {
			staff = `<staff>` + strconv.Itoa(x.Staff) + `</staff>`
		}
		w.line(`<direction><direction-type>` + inside + `</direction-type>` + offset + staff + after + `</direction>`)
	}
	switch x.Kind {
	case score.Dynamic:
		if slices.Contains(dynamics, x.Text) {
			direction(`<dynamics><`+x.Text+`/></dynamics>`, "")
		} else {
			direction(`<dynamics><other-dynamics>`+escape(x.Text)+`</other-dynamics></dynamics>`, "")
		}
	case score.Crescendo, score.Diminuendo:
		direction(`<wedge type="`+string(x.Kind)+`"/>`, "")
	case score.HairpinEnd:
		direction(`<wedge type="stop"/>`, "")
	case score.PedalDown:
		direction(`<pedal type="start"/>`, "")
	case score.PedalUp:
		direction(`<pedal type="stop"/>`, "")
	case score.Words:
		direction(`<words>`+escape(x.Text)+`</words>`, "")
	case score.Rehearsal:
		direction(`<rehearsal>`+escape(x.Text)+`</rehearsal>`, "")
	case score.TempoMark:
		value := strconv.FormatFloat(x.Value, 'f', -1, 64)
		direction(`<metronome><beat-unit>quarter</beat-unit><per-minute>`+value+`</per-minute></metronome>`, `<sound tempo="`+value+`"/>`)
	case score.Chord:
		w.harmony(x.Text, offset)
	case score.ClefChange:
		at := w.cursor
		w.to(x.At)
		w.line(`<attributes>` + clefXML(x.Clef, x.Staff) + `</attributes>`)
		w.to(at)
	}
}

// harmony writes a chord symbol: its root, its kind where it is a usual one, its bass.
func (w *writer) harmony(text, offset string) {
	name, bass, _ := strings.Cut(text, "/")
	if name == "" || name[0] < 'A' || name[0] > 'G' {
		w.line(`<harmony><root><root-step text="">C</root-step></root><kind text="` + escape(text) + `">none</kind>` + offset + `</harmony>`)
		return
	}
	note := func(kind, s string) (xml, rest string) {
		xml = `<` + kind + `><` + kind + `-step>` + s[:1] + `</` + kind + `-step>`
		rest = s[1:]
		switch {
		case strings.HasPrefix(rest, "#"):
			xml, rest = xml+`<`+kind+`-alter>1</`+kind+`-alter>`, rest[1:]
		case strings.HasPrefix(rest, "b"):
			xml, rest = xml+`<`+kind+`-alter>-1</`+kind+`-alter>`, rest[1:]
		}
		return xml + `</` + kind + `>`, rest
	}
	root, rest := note("root", name)
	kind := `<kind text="` + escape(rest) + `">other</kind>`
	for _, k := range chordKinds {
		if k[1] == rest {
			kind = `<kind>` + k[0] + `</kind>`
		}
	}
	low := ""
	if bass != "" && bass[0] >= 'A' && bass[0] <= 'G' {
		low, _ = note("bass", bass)
	}
	w.line(`<harmony>` + root + kind + low + offset + `</harmony>`)
}

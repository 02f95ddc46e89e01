// Package engrave draws a few bars of a score: the little excerpts that stand
// on a practice sheet and on the family's page. It is no engraver of whole
// pieces: beams, ties, slurs, fingers, tuplet numbers and tablature are drawn;
// dynamics, words and pedal are left out.
//
//	engrave.go  what is drawn, and the systems it is broken into
//	shape.go    filled shapes, and their form in SVG
//	glyphs.go   the outlines of the signs
//	system.go   one system: staves, clefs, bars
//	chord.go    the notes of one voice at one time
//	beam.go     beams, flags and stems
//	arc.go      ties and slurs
//	tab.go      tablature under the staves
//
// Lengths are in staff spaces, the distance between two lines of a staff; y
// grows downwards.
package engrave

import (
	"math"

	"patientladder/core/notation/score"
)

// Staff names a staff of a part: Part from 0, Number from 1.
type Staff struct{ Part, Number int }

// Drawing is a few bars drawn.
type Drawing struct {
	// Width and Height in staff spaces; 0 and 0 where there is nothing to draw.
	Width, Height float64
	Shapes        []Shape
	// Heads are the note heads, system by system and staff by staff.
	Heads []Head
	// Texts are words under the notes, then the numbers and letters of tablature, in the order of the notes.
	Texts []Text
}

// Text is written in letters of a size (of the whole letter, as fonts count) around X, on the line Y.
type Text struct {
	X, Y, Size float64
	Text       string
}

// Look is how something is drawn.
type Look struct {
	// Staves are those that are drawn; nil for all.
	Staves []Staff
	// Width is how wide a system may be in staff spaces; 0 for one system.
	Width float64
	// Strings is the number of strings of a fretted instrument: their tablature stands under the staves. 0 for none.
	Strings int
	// Lyrics writes the words under the notes.
	Lyrics bool
	// Pluck says for a plucking finger of the score what is written under the tablature; nil writes none.
	Pluck map[string]string
}

// Head is a note head: when it sounds, in quarter notes from the start of the
// piece, and where its centre stands.
type Head struct {
	At, X, Y float64
	// Staff counts from 0; Below is how far below its top line the head stands.
	Staff int
	Below float64
	// Up says that its stem points up; Stem that it has one.
	Up, Stem bool
}

// Stretch draws what begins from one time to another (in quarter notes from the
// start of the piece, the end excluded). Systems are broken at bar lines. What no
// notes on five lines are made for (a score written in tablature) gives an empty drawing.
func Stretch(s *score.Score, from, to float64, look Look) Drawing {
	staves, width := look.Staves, look.Width
	if staves == nil {
		staves = Staves(s)
	}
	e := &engraver{score: s, from: from, to: to, look: look}
	for _, st := range staves {
		clef, ok := clefAt(s, st, from)
		if !ok {
			return Drawing{}
		}
		e.staves = append(e.staves, stave{Staff: st, clef: clef})
	}
	bars := e.bars()
	if len(bars) == 0 || len(e.staves) == 0 {
		return Drawing{}
	}
	var d Drawing
	for first := 0; first < len(bars); {
		sys := newSystem(e, bars[first], first == 0)
		next := first
		for next < len(bars) && (next == first || width <= 0 || sys.x+sys.barWidth(bars[next]) <= width) {
			sys.bar(bars[next])
			next++
		}
		sys.close()
		d.add(sys)
		first = next
	}
	return d
}

// Staves returns the staves of a score in their order.
func Staves(s *score.Score) []Staff {
	var out []Staff
	for p, part := range s.Parts {
		for n := 1; n <= part.Staves; n++ {
			out = append(out, Staff{p, n})
		}
	}
	return out
}

// between is the space between two systems.
const between = 2.5

// add puts a system below what is drawn already.
func (d *Drawing) add(sys *system) {
	top, bottom := math.Inf(1), math.Inf(-1)
	for _, s := range sys.shapes {
		low, high := s.vertical()
		top, bottom = min(top, low), max(bottom, high)
	}
	shift := -top
	if d.Height > 0 {
		shift += d.Height + between
	}
	for _, s := range sys.shapes {
		d.Shapes = append(d.Shapes, s.moved(0, shift))
	}
	for _, h := range sys.heads {
		h.Y += shift
		d.Heads = append(d.Heads, h)
	}
	for _, x := range sys.texts {
		x.Y += shift
		d.Texts = append(d.Texts, x)
		bottom = max(bottom, x.Y-shift)
	}
	d.Height = bottom + shift
	d.Width = max(d.Width, sys.x)
}

type engraver struct {
	score    *score.Score
	from, to float64
	staves   []stave
	look     Look
}

type stave struct {
	Staff
	clef score.Clef
}

const epsilon = 1e-6

// bars are the positions from 1 of the bars in which something of the stretch lies.
func (e *engraver) bars() []int {
	var out []int
	for i, b := range e.score.Bars {
		start := b.Start.Float()
		if start < e.to-epsilon && start+b.Length.Float() > e.from+epsilon {
			out = append(out, i+1)
		}
	}
	return out
}

// clefAt is the clef of a staff at a time; ok is false for one that is not for notes on five lines. Under the clef of
// percussion the middle line stands for B, as under a treble clef.
func clefAt(s *score.Score, st Staff, at float64) (c score.Clef, ok bool) {
	c = score.Clef{Sign: "G"}
	if st.Part < len(s.Parts) && st.Number <= len(s.Parts[st.Part].Clefs) {
		c = s.Parts[st.Part].Clefs[st.Number-1]
	}
	for _, sign := range s.Signs {
		if sign.Kind == score.ClefChange && sign.Part == st.Part && sign.Staff == st.Number && sign.At.Float() <= at+epsilon {
			c = sign.Clef
		}
	}
	_, ok = references[c.Sign]
	return c, ok
}

// references are the places (see score.Pitch.StaffStep) of the notes that clefs
// name, and the line they usually stand on.
var references = map[string]struct{ step, line int }{"G": {32, 2}, "F": {24, 4}, "C": {28, 3}, "percussion": {34, 3}}

func lineOf(c score.Clef) int {
	if c.Line > 0 {
		return c.Line
	}
	return references[c.Sign].line
}

// height is how far below the top line of its staff a pitch stands.
func height(p score.Pitch, c score.Clef) float64 {
	bottom := references[c.Sign].step - 2*(lineOf(c)-1)
	return 4 - float64(p.StaffStep()-7*c.Octave-bottom)/2
}

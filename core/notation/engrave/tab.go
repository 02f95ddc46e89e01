package engrave

import (
	"slices"
	"strconv"

	"patientladder/core/notation/score"
)

// The measures of tablature.
const (
	tabGap   = 1.6 // between two strings
	tabDrop  = 2.2 // from the lowest sign of the staves to the first string
	digit    = 1.9 // the height of a number of a fret
	letter   = 1.5 // the height of a letter
	digitGap = 0.62
)

// mark is a note on a string: where it stands and what is done there.
type mark struct {
	x    float64
	note *score.Note
}

// barLine is a line through all of it.
type barLine struct{ x, width float64 }

// Joins are how a note is sounded by the left hand, as they are written over tablature (common practice).
var joins = map[score.Join]string{score.Hammer: "H", score.Pull: "P", score.Slide: "sl."}

// mark keeps the notes of a chord that lie on a string. A note that is held over is not struck again.
func (s *system) mark(c *chord, x float64) {
	if s.look.Strings == 0 {
		return
	}
	for _, n := range c.notes {
		if n.String >= 1 && n.String <= s.look.Strings && !n.TieStop {
			s.marks = append(s.marks, mark{x, n})
		}
	}
}

// tablature draws the strings under the staves, a number for each note on its string, and what the fingers do.
func (s *system) tablature() {
	if s.look.Strings == 0 {
		return
	}
	top := 4.0
	for _, shape := range s.shapes {
		_, low := shape.vertical()
		top = max(top, low)
	}
	top += tabDrop
	y := func(str int) float64 { return top + tabGap*float64(str-1) }
	slices.SortStableFunc(s.marks, func(a, b mark) int { return a.note.Onset.Cmp(b.note.Onset) })
	for str := 1; str <= s.look.Strings; str++ {
		at := 0.0
		for _, m := range s.marks {
			if m.note.String != str {
				continue
			}
			half := digitGap * float64(len(strconv.Itoa(m.note.Fret)))
			if m.x-half > at {
				s.add(box(at, y(str)-thin/2, m.x-half-at, thin))
			}
			at = max(at, m.x+half)
		}
		s.add(box(at, y(str)-thin/2, s.x-at, thin))
	}
	for _, l := range append(s.lines, barLine{0, thin}) {
		s.add(box(l.x, y(1)-thin/2, l.width, y(s.look.Strings)-y(1)+thin))
	}
	for _, m := range s.marks {
		n := m.note
		size := digit
		if n.Grace {
			size = letter
		}
		s.texts = append(s.texts, Text{m.x, y(n.String) + 0.36*size, size, strconv.Itoa(n.Fret)})
		if name := joins[n.Join]; name != "" {
			s.texts = append(s.texts, Text{m.x, y(1) - 1.1, letter, name})
		}
	}
	s.plucked(y(s.look.Strings) + 2)
}

// plucked writes under the strings which finger plucks, once for what sounds together.
func (s *system) plucked(y float64) {
	var last *score.Note
	for _, m := range s.marks {
		name := s.look.Pluck[m.note.Pluck]
		if name == "" || last != nil && last.Onset.Cmp(m.note.Onset) == 0 && last.Pluck == m.note.Pluck {
			continue
		}
		last = m.note
		s.texts = append(s.texts, Text{m.x, y, letter, name})
	}
}

package answer

import "patientladder/core/notation/score"

// Places tells where notes and bars stand on the page.
type Places struct {
	s     *score.Score
	above []int // staves of the parts above
}

// PlacesOf finds the places of a score.
func PlacesOf(s *score.Score) Places {
	p := Places{s: s, above: make([]int, len(s.Parts))}
	for i := 1; i < len(s.Parts); i++ {
		p.above[i] = p.above[i-1] + s.Parts[i-1].Staves
	}
	return p
}

// Staff counts the staves of all parts from 0.
func (p Places) Staff(part, staff int) int { return p.above[part] + staff - 1 }

// Note is where a note stands: its bar, staff, the time in the bar in quarter notes, and its key.
func (p Places) Note(i int) (bar, staff int, at float64, pitch int) {
	n := &p.s.Notes[i]
	return n.Bar, p.Staff(n.Part, n.Staff), n.Onset.Sub(p.s.Bars[n.Bar-1].Start).Float(), n.Pitch.Semitone()
}

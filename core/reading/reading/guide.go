package reading

import (
	"patientladder/core/notation/score"
)

// GuideNotes are the notes from which others are found: middle C, the G that
// the treble clef names, the F that the bass clef names, and the Cs on either
// side (common practice). A C clef names middle C.
func GuideNotes() []score.Pitch {
	return []score.Pitch{
		{Step: 'C', Octave: 2}, {Step: 'C', Octave: 3}, {Step: 'F', Octave: 3}, {Step: 'C', Octave: 4},
		{Step: 'G', Octave: 4}, {Step: 'C', Octave: 5}, {Step: 'C', Octave: 6},
	}
}

// Guided is a pitch of a line that the student does not know, and how it is
// found from the nearest guide note.
type Guided struct {
	Pitch string `json:"pitch"`
	// Guide is the nearest guide note by staff steps; of two as near, the one
	// that the line itself uses, else the lower.
	Guide     string    `json:"guide"`
	Direction Direction `json:"direction"`
	Interval  Interval  `json:"interval"`
	// Notes are indices into Score.Notes, Bars the bars in which they stand.
	Notes []int `json:"-"`
	Bars  []int `json:"bars"`
}

// Guides returns the pitches of a line that are not known, in the order in
// which they come. Known says what the student knows by itself; guide notes
// always count as known. A sign does not make a note unknown: C# is found as C is.
func Guides(s *score.Score, l Line, known func(score.Pitch) bool) []Guided {
	guides := GuideNotes()
	isGuide := map[int]bool{}
	used := map[int]bool{}
	for _, g := range guides {
		isGuide[g.StaffStep()] = true
	}
	for _, o := range l.Onset {
		for _, i := range o.Notes {
			used[s.Notes[i].Pitch.StaffStep()] = true
		}
	}
	at := map[int]int{}
	out := []Guided{}
	for _, o := range l.Onset {
		for _, i := range o.Notes {
			p := s.Notes[i].Pitch
			step := p.StaffStep()
			if isGuide[step] || known(p) {
				continue
			}
			k, seen := at[step]
			if !seen {
				k = len(out)
				at[step] = k
				g := nearestGuide(guides, step, used)
				natural := p
				natural.Alter = 0
				d := Up
				if step < g.StaffStep() {
					d = Down
				}
				out = append(out, Guided{Pitch: natural.String(), Guide: g.String(), Direction: d, Interval: Between(g, natural)})
			}
			x := &out[k]
			x.Notes = append(x.Notes, i)
			if n := len(x.Bars); n == 0 || x.Bars[n-1] != o.Bar {
				x.Bars = append(x.Bars, o.Bar)
			}
		}
	}
	return out
}

func nearestGuide(guides []score.Pitch, step int, used map[int]bool) score.Pitch {
	best, distance := guides[0], 1<<20
	for _, g := range guides {
		d := max(step-g.StaffStep(), g.StaffStep()-step)
		if d < distance || d == distance && used[g.StaffStep()] && !used[best.StaffStep()] {
			best, distance = g, d
		}
	}
	return best
}

// Package pattern finds what comes back in a piece: bars that are equal, bars
// that are alike, and shorter motifs; so that a piece of eighteen bars made of
// six patterns asks for six things to learn.
//
//	pattern.go  equal bars and the learning load
//	alike.go    equal in pitch only, in rhythm at another pitch
//	motif.go    figures shorter than a bar
package pattern

import (
	"sort"
	"strconv"

	"patientladder/core/notation/score"
)

// Pattern is a bar and where it comes again.
type Pattern struct {
	// Letter names the pattern in the order of first appearance: A … Z, AA ….
	Letter string `json:"letter"`
	// Bars are the positions, from 1, at which it stands.
	Bars []int `json:"bars"`
	// Like is the letter of the first pattern that this one resembles; empty for none.
	Like string `json:"like,omitempty"`
	// How says in what: "other rhythm", "octave", "transposed" or "transposed in the key".
	How string `json:"how,omitempty"`
	// Steps is by how many staff steps it lies higher, lower when negative.
	Steps int `json:"steps,omitempty"`
}

// Load is how much of a piece has to be learned.
type Load struct {
	Bars int `json:"bars"`
	// Distinct are the patterns that have to be learned: one that comes back in another rhythm, at another pitch or an
	// octave away is told apart and not counted anew. Varied of them come in another form as well.
	Distinct int       `json:"distinct"`
	Varied   int       `json:"varied"`
	Patterns []Pattern `json:"patterns"`
}

// Share is the learning load: distinct bars ÷ bars, between 0 and 1; 0 for an empty piece.
func (l Load) Share() float64 {
	if l.Bars == 0 {
		return 0
	}
	return float64(l.Distinct) / float64(l.Bars)
}

// Of finds the equal bars of a score: equal in pitch, rhythm and ties over all
// parts. Bars of rests only are counted as bars but need no learning.
func Of(s *score.Score) Load { return of(s, func(*score.Note) bool { return true }) }

// OfStaff is Of for one staff of one part, so that what a hand repeats under a
// changing melody is seen. Part counts from 0, staff from 1.
func OfStaff(s *score.Score, part, staff int) Load {
	return of(s, func(n *score.Note) bool { return n.Part == part && n.Staff == staff })
}

func of(s *score.Score, in func(*score.Note) bool) Load {
	load := Load{Bars: len(s.Bars), Patterns: []Pattern{}}
	at := map[string]int{}
	var firsts [][]int // the notes of the first bar of each pattern
	var key []byte
	for i, notes := range s.NotesByBar() {
		sounding := notes[:0]
		for _, k := range notes {
			if n := &s.Notes[k]; !n.Rest && in(n) {
				sounding = append(sounding, k)
			}
		}
		if len(sounding) == 0 {
			continue
		}
		inOrder(s, sounding)
		key = key[:0]
		for _, k := range sounding {
			key = appendNote(key, s, &s.Notes[k], i)
		}
		k, seen := at[string(key)]
		if !seen {
			k = len(load.Patterns)
			at[string(key)] = k
			load.Patterns = append(load.Patterns, Pattern{Letter: letter(k)})
			firsts = append(firsts, sounding)
		}
		load.Patterns[k].Bars = append(load.Patterns[k].Bars, i+1)
	}
	alike(s, load.Patterns, firsts)
	varied := map[string]bool{}
	for _, p := range load.Patterns {
		if p.Like == "" {
			load.Distinct++
		} else {
			varied[p.Like] = true
		}
	}
	for _, p := range load.Patterns {
		if p.Like == "" && varied[p.Letter] {
			load.Varied++
		}
	}
	return load
}

// inOrder sorts the notes of a bar by part, staff, time and pitch.
func inOrder(s *score.Score, notes []int) {
	before := func(a, b int) bool {
		x, y := &s.Notes[a], &s.Notes[b]
		if x.Part != y.Part {
			return x.Part < y.Part
		}
		if x.Staff != y.Staff {
			return x.Staff < y.Staff
		}
		if c := x.Onset.Cmp(y.Onset); c != 0 {
			return c < 0
		}
		if x.Grace != y.Grace {
			return x.Grace
		}
		return x.MIDI < y.MIDI
	}
	if !sort.SliceIsSorted(notes, func(i, j int) bool { return before(notes[i], notes[j]) }) {
		sort.SliceStable(notes, func(i, j int) bool { return before(notes[i], notes[j]) })
	}
}

// appendNote writes everything by which two bars can differ.
func appendNote(key []byte, s *score.Score, n *score.Note, bar int) []byte {
	at := n.Onset.Sub(s.Bars[bar].Start)
	flags := int64(0)
	for i, b := range [...]bool{n.TieStart, n.TieStop, n.Grace} {
		if b {
			flags |= 1 << i
		}
	}
	for _, x := range [...]int64{int64(n.Part), int64(n.Staff), at.Num(), at.Den(), n.Duration.Num(), n.Duration.Den(), int64(n.Pitch.StaffStep()), int64(n.Pitch.Alter), flags} {
		key = strconv.AppendInt(key, x, 36)
		key = append(key, ' ')
	}
	return key
}

func letter(i int) string {
	s := ""
	for i++; i > 0; i = (i - 1) / 26 {
		s = string(rune('A'+(i-1)%26)) + s
	}
	return s
}

// Package pattern finds the bars of a piece that are equal, so that a piece of
// eighteen bars made of six patterns asks for six things to learn.
package pattern

import (
	"sort"
	"strconv"
	"strings"

	"patientladder/core/score"
)

// Pattern is a bar and where it comes again.
type Pattern struct {
	// Letter names the pattern in the order of first appearance: A … Z, AA ….
	Letter string `json:"letter"`
	// Bars are the positions, from 1, at which it stands.
	Bars []int `json:"bars"`
}

// Load is how much of a piece has to be learned.
type Load struct {
	Bars     int       `json:"bars"`
	Distinct int       `json:"distinct"`
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
func Of(s *score.Score) Load {
	texts := make([][]string, len(s.Bars))
	for i := range s.Notes {
		n := &s.Notes[i]
		if n.Rest {
			continue
		}
		at := n.Onset.Sub(s.Bars[n.Bar-1].Start)
		texts[n.Bar-1] = append(texts[n.Bar-1], strings.Join([]string{
			strconv.Itoa(n.Part), strconv.Itoa(n.Staff), at.String(), n.Duration.String(), n.Pitch.String(),
			strconv.FormatBool(n.TieStart), strconv.FormatBool(n.TieStop), strconv.FormatBool(n.Grace),
		}, " "))
	}
	load := Load{Bars: len(s.Bars)}
	at := map[string]int{}
	for i, notes := range texts {
		if len(notes) == 0 {
			continue
		}
		sort.Strings(notes)
		key := strings.Join(notes, ";")
		k, seen := at[key]
		if !seen {
			k = len(load.Patterns)
			at[key] = k
			load.Patterns = append(load.Patterns, Pattern{Letter: letter(k)})
		}
		load.Patterns[k].Bars = append(load.Patterns[k].Bars, i+1)
	}
	load.Distinct = len(load.Patterns)
	return load
}

func letter(i int) string {
	s := ""
	for i++; i > 0; i = (i - 1) / 26 {
		s = string(rune('A'+(i-1)%26)) + s
	}
	return s
}

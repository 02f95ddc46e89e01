package score

import "patientladder/core/base/rational"

// mostPasses bounds how often a section is played, whatever the file says.
const mostPasses = 20

// Order returns the positions of the bars, from 1, in the order in which they
// are played: repeats taken, first and second endings each in its pass. It ends
// after limit bars, so that a hostile file cannot run on; limit is at least 1.
//
// A backward repeat goes back to the last forward repeat, or to the bar after
// the repeat before it, or to the beginning (common practice).
func (s *Score) Order(limit int) []int {
	var order []int
	start, pass := 0, 1
	for i := 0; i < len(s.Bars) && len(order) < limit; {
		b := &s.Bars[i]
		if b.RepeatStart && i != start {
			start, pass = i, 1
		}
		if len(b.Endings) > 0 && !has(b.Endings, pass) {
			i++
			continue
		}
		order = append(order, i+1)
		switch {
		case b.RepeatEnd > 0 && pass < s.passes(start, i):
			pass++
			i = start
			continue
		case b.RepeatEnd > 0, len(b.Endings) > 0 && (i+1 == len(s.Bars) || len(s.Bars[i+1].Endings) == 0):
			start, pass = i+1, 1
		}
		i++
	}
	return order
}

// passes is how often the section from start with a backward repeat at end is
// played: as often as that says, and at least once for every ending.
func (s *Score) passes(start, end int) int {
	most := s.Bars[end].RepeatEnd
	for i := start; i < len(s.Bars) && (i <= end || len(s.Bars[i].Endings) > 0); i++ {
		for _, e := range s.Bars[i].Endings {
			most = max(most, e)
		}
	}
	return min(most, mostPasses)
}

func has(list []int, n int) bool {
	for _, x := range list {
		if x == n {
			return true
		}
	}
	return false
}

// Unfolded returns the sounds with the repeats played out, in the order of
// Sounding. Bar is still the position at which a note is written.
func (s *Score) Unfolded(limit int) []Sound {
	byBar := s.NotesByBar()
	played := &Score{}
	var at rational.Rat
	for _, bar := range s.Order(limit) {
		b := &s.Bars[bar-1]
		for _, i := range byBar[bar-1] {
			n := s.Notes[i]
			n.Onset = n.Onset.Sub(b.Start).Add(at)
			played.Notes = append(played.Notes, n)
		}
		at = at.Add(b.Length)
	}
	return played.Sounding()
}

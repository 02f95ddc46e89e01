// Package chunk cuts a piece into chunks for practice: small ones first, which
// join two by two into longer ones until the whole is reached.
package chunk

import (
	"patientladder/core/pattern"
	"patientladder/core/rational"
	"patientladder/core/score"
)

// Chunk is a stretch of whole bars and the two chunks it is joined from.
type Chunk struct {
	// From and To are bar positions from 1, both included.
	From int `json:"from"`
	To   int `json:"to"`
	// Parts are the two chunks that join into this one; empty for a smallest chunk.
	Parts []Chunk `json:"parts,omitempty"`
	// SameAs is the first bar of an earlier smallest chunk with equal bars; 0 when there is none.
	SameAs int `json:"sameAs,omitempty"`
}

// Leaves returns the smallest chunks in order.
func (c Chunk) Leaves() []Chunk {
	if len(c.Parts) == 0 {
		return []Chunk{c}
	}
	var all []Chunk
	for _, p := range c.Parts {
		all = append(all, p.Leaves()...)
	}
	return all
}

// LeafBars is how many bars a smallest chunk has (common practice): under
// seven a bar, four or five notes; seven and eight two bars; older a phrase,
// taken as four.
func LeafBars(age int) int {
	switch {
	case age < 7:
		return 1
	case age < 9:
		return 2
	}
	return 4
}

// Tree cuts a score into smallest chunks of about leafBars bars, at the better
// of the nearby bar ends, and joins neighbours two by two. A pickup belongs to
// the bar after it. The score must have a bar; leafBars is at least 1.
func Tree(s *score.Score, load pattern.Load, leafBars int) Chunk {
	leaves := cut(s, max(leafBars, 1))
	markEqual(leaves, load)
	for len(leaves) > 1 {
		var joined []Chunk
		for i := 0; i < len(leaves); i += 2 {
			if i+1 == len(leaves) {
				joined = append(joined, leaves[i])
				continue
			}
			joined = append(joined, Chunk{From: leaves[i].From, To: leaves[i+1].To, Parts: leaves[i : i+2 : i+2]})
		}
		leaves = joined
	}
	return leaves[0]
}

// cut walks through the bars and ends each chunk where the music breathes, within one bar of the wanted size.
func cut(s *score.Score, size int) []Chunk {
	breath := breaths(s)
	var leaves []Chunk
	bars := len(s.Bars)
	for from := 1; from <= bars; {
		want := from + size - 1
		if from == 1 && s.Bars[0].Short && bars > 1 {
			want++
		}
		to := min(want, bars)
		if size > 1 {
			for _, near := range []int{want, want + 1, want - 1} {
				if near >= from && near < bars && breath[near-1] {
					to = near
					break
				}
			}
			if left := bars - to; left > 0 && left*2 < size {
				to = bars // no crumb at the end
			}
		}
		leaves = append(leaves, Chunk{From: from, To: to})
		from = to + 1
	}
	return leaves
}

// breaths says, for each bar, whether the top line breathes at its end: a long
// note (half of the bar or more), a rest, or the end of a slur there.
func breaths(s *score.Score) []bool {
	out := make([]bool, len(s.Bars))
	last := make([]int, len(s.Bars)) // last note or rest of the top staff, 1-based; 0 for none
	for i := range s.Notes {
		n := &s.Notes[i]
		if n.Part != 0 || n.Staff != 1 || n.Grace {
			continue
		}
		b := n.Bar - 1
		if last[b] == 0 || s.Notes[last[b]-1].Onset.Less(n.Onset) {
			last[b] = i + 1
		}
	}
	for b := range out {
		if last[b] == 0 {
			out[b] = true
			continue
		}
		n := &s.Notes[last[b]-1]
		half := s.Bars[b].Length.Mul(rational.New(1, 2))
		out[b] = !n.TieStart && (n.Rest || n.SlurStop || !n.Duration.Less(half))
	}
	return out
}

func markEqual(leaves []Chunk, load pattern.Load) {
	letterOf := map[int]string{}
	for _, p := range load.Patterns {
		for _, b := range p.Bars {
			letterOf[b] = p.Letter
		}
	}
	first := map[string]int{}
	for i := range leaves {
		key := ""
		for b := leaves[i].From; b <= leaves[i].To; b++ {
			key += letterOf[b] + "|"
		}
		if from, seen := first[key]; seen {
			leaves[i].SameAs = from
		} else {
			first[key] = leaves[i].From
		}
	}
}

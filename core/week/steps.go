package week

import (
	"math"
	"sort"

	"patientladder/core/chunk"
	"patientladder/core/leap"
	"patientladder/core/material"
)

// staircase returns the steps of one piece in order: look and mark first, the
// smallest chunks, then chunks joined two by two, then the whole. A chunk that
// equals an earlier one is not learned again. What the marks say is there
// already is left out.
func staircase(w Work, in Input) []Item {
	if w.Tree == nil {
		times, row := dose(in.Age)
		it := Item{Kind: Whole, Times: times, InRow: row, Minutes: plainMinutes}
		return []Item{finish(it, w, in)}
	}
	whole := w.item(Whole, *w.Tree, in)
	if w.RunDue {
		return []Item{whole}
	}
	var steps []Item
	for _, c := range w.Tree.Leaves() {
		if c.SameAs == 0 && len(w.Tree.Parts) > 0 {
			steps = append(steps, w.item(Chunk, c, in))
		}
	}
	for _, c := range joins(*w.Tree) {
		steps = append(steps, w.item(Join, c, in))
	}
	steps = append(steps, whole)
	// Full marks all over would leave only the whole.
	skip := int(math.Floor(w.Progress * float64(len(steps)-1)))
	steps = steps[skip:]
	if w.WeeksOn == 0 && w.Progress == 0 {
		look := Item{Kind: Look, Minutes: lookMinutes, Bars: barsOf(*w.Tree)}
		steps = append([]Item{finish(look, w, in)}, steps...)
	}
	return steps
}

// joins returns the inner chunks below the root, smaller ones first. Two
// joins of equal bars count once.
func joins(root chunk.Chunk) []chunk.Chunk {
	var out []chunk.Chunk
	level := []chunk.Chunk{root}
	for len(level) > 0 {
		var below, here []chunk.Chunk
		for _, c := range level {
			for _, p := range c.Parts {
				below = append(below, p)
				if len(p.Parts) > 0 && !allEqualEarlier(p) {
					here = append(here, p)
				}
			}
		}
		out = append(here, out...)
		level = below
	}
	return out
}

// merged returns the spots with overlapping ones as one, in the order of their bars.
func merged(spots []Bars) []Bars {
	sorted := append([]Bars(nil), spots...)
	sort.Slice(sorted, func(a, b int) bool { return sorted[a].From < sorted[b].From })
	var out []Bars
	for _, s := range sorted {
		if n := len(out); n > 0 && s.From <= out[n-1].To {
			out[n-1].To = max(out[n-1].To, s.To)
			continue
		}
		out = append(out, s)
	}
	return out
}

func allEqualEarlier(c chunk.Chunk) bool {
	for _, leaf := range c.Leaves() {
		if leaf.SameAs == 0 {
			return false
		}
	}
	return true
}

func barsOf(c chunk.Chunk) Bars { return Bars{From: c.From, To: c.To, Upbeat: c.Upbeat} }

// item is a step over a chunk of the tree.
func (w Work) item(k Kind, c chunk.Chunk, in Input) Item {
	return w.over(k, barsOf(c), c.Quarters(), in)
}

// over is a step over some bars that last so many quarter notes.
func (w Work) over(k Kind, bars Bars, quarters float64, in Input) Item {
	times, row := dose(in.Age)
	if k == Whole {
		times, row = 2, false
	}
	it := Item{Kind: k, Bars: bars, Times: times, InRow: row, Minutes: minutes(quarters, w.Material.Tempo, times, row)}
	return finish(it, w, in)
}

// quarters is the length of some bars.
func (w Work) quarters(b Bars) float64 {
	sum := 0.0
	for i := b.From; i <= b.To && i <= len(w.Quarters); i++ {
		sum += w.Quarters[i-1]
	}
	return sum
}

// finish puts the piece, the hand and the words on an item.
func finish(it Item, w Work, in Input) Item {
	it.Material, it.Title, it.Hand = w.Material.ID, w.Material.Title, w.hand()
	it.Words = words(it, w, in)
	return it
}

// together is the skill whose levels decide whether the hands stay apart.
const together = "hands-together"

// KeepApart says whether a student practises the hands apart at first: where
// it is wanted, and only until playing them together is secure.
func KeepApart(wanted bool, a leap.Ability, p leap.Policy) bool {
	level := p.Level(a.Skills[together])
	return wanted && level != leap.Secure && level != leap.Rusty
}

// hand is the gate of the hands: right a week, left a week, then together (common practice).
func (w Work) hand() string {
	if !w.HandsApart || w.Material.Texture != material.Together {
		return ""
	}
	switch w.WeeksOn {
	case 0:
		return "right hand"
	case 1:
		return "left hand"
	}
	return ""
}

package week

import (
	"fmt"
	"math"
	"sort"

	"patientladder/core/reading/chunk"
)

// staircase returns the steps of one piece in order: look and mark first, the
// smallest chunks, then chunks joined two by two, then the whole. A chunk that
// equals an earlier one is not learned again. What the marks say is there
// already is left out. Where both hands are kept apart each step comes once for
// each.
func staircase(w Work, in Input) []Item {
	if w.Tree == nil {
		var whole []Item
		for _, hand := range w.hands() {
			times, row := in.dose()
			whole = append(whole, finish(Item{Kind: Whole, Hand: hand, Times: times, InRow: row, Minutes: plainMinutes}, w, in))
		}
		return whole
	}
	whole := w.each(Whole, *w.Tree, in)
	if w.RunDue {
		return whole
	}
	var steps []Item
	for _, c := range w.Tree.Leaves() {
		if c.SameAs == 0 && len(w.Tree.Parts) > 0 {
			steps = append(steps, w.each(Chunk, c, in)...)
		}
	}
	for _, c := range joins(*w.Tree) {
		steps = append(steps, w.each(Join, c, in)...)
	}
	steps = append(steps, whole...)
	// Full marks all over would leave only the whole.
	skip := int(math.Floor(w.Progress * float64(len(steps)-len(whole))))
	steps = steps[skip:]
	if w.WeeksOn == 0 && w.Progress == 0 {
		look := Item{Kind: Look, Hand: w.Hand(), Minutes: lookMinutes, Bars: barsOf(*w.Tree), Start: w.Tree.Start.Float(), End: w.Tree.End.Float()}
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

// each is a step over a chunk of the tree, for one hand after the other.
func (w Work) each(k Kind, c chunk.Chunk, in Input) []Item {
	var out []Item
	for _, hand := range w.hands() {
		out = append(out, w.over(k, barsOf(c), c.Start.Float(), c.End.Float(), hand, in))
	}
	return out
}

// over is a step over some bars from one time to another in quarter notes.
func (w Work) over(k Kind, bars Bars, start, end float64, hand string, in Input) Item {
	times, row := in.dose()
	if k == Whole {
		times, row = 2, false
	}
	it := Item{Kind: k, Bars: bars, Start: start, End: end, Hand: hand, Times: times, InRow: row}
	it = finish(it, w, in)
	it.Minutes = minutes(end-start, w.Material.Tempo, it.Times, it.InRow)
	return it
}

// span is when some bars begin and end, in quarter notes.
func (w Work) span(b Bars) (start, end float64) {
	for i, q := range w.Quarters {
		if i+1 < b.From {
			start += q
		}
		if i+1 <= b.To {
			end += q
		}
	}
	return start, max(start, end)
}

// finish puts the piece, the key, what was set by hand and the words on an item.
func finish(it Item, w Work, in Input) Item {
	it.Material, it.Title = w.Material.ID, w.Material.Title
	it.Key = keyOf(it)
	if n := in.Hand.Times[it.Key]; n > 0 && it.Times > 0 {
		it.Minutes *= float64(n) / float64(it.Times)
		it.Times = n
	}
	it.Words = words(it, w, in)
	return it
}

// keyOf names an item by what it is, so that it is known again when the week is solved anew.
func keyOf(it Item) string {
	key := string(it.Kind) + " " + it.Material
	if it.Bars.From > 0 {
		key += fmt.Sprintf(" %d-%d", it.Bars.From, it.Bars.To)
	}
	if it.Bars.Upbeat {
		key += "u"
	}
	if it.Hand != "" {
		key += " " + it.Hand[:1]
	}
	return key
}

package week

import (
	"fmt"
	"math"
	"slices"
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
		return w.inBook(in)
	}
	whole := w.each(Whole, *w.Tree, in)
	if w.RunDue {
		return whole
	}
	steps := w.after(in)
	for _, it := range whole {
		// Where a hand rests between, what it plays of the whole may be a section that is learned already.
		if len(whole) == len(w.hands()) || !slices.ContainsFunc(steps, it.sameBars) {
			steps = append(steps, it)
		}
	}
	if where := w.played(of(*w.Tree), w.Hand()); w.WeeksOn == 0 && w.Progress == 0 && len(where) > 0 {
		kind := Look
		if in.BySound {
			kind = Hear
		}
		look := Item{
			Kind:    kind,
			Hand:    w.Hand(),
			Minutes: lookMinutes,
			Bars:    where[0].bars,
			Start:   where[0].start,
			End:     where[0].end,
		} // where the hand begins
		steps = append([]Item{finish(look, w, in)}, steps...)
	}
	return steps
}

// inBook are the steps of a piece whose notes nobody has but the family: the place is found, then the beginning, then a line
// more, and the whole at last. As for a run it is played whole.
func (w Work) inBook(in Input) (steps []Item) {
	add := func(k Kind, times int, row bool, minutes float64) {
		for _, hand := range w.hands() {
			steps = append(steps, finish(Item{Kind: k, Hand: hand, Times: times, InRow: row, Minutes: minutes}, w, in))
		}
	}
	if !w.RunDue {
		if times, row := in.dose(); w.Progress < inBookWhole {
			add(Chunk, times, row, plainMinutes)
			add(Join, times, row, plainMinutes)
		}
		if w.WeeksOn == 0 && w.Progress == 0 {
			kind := Look
			if in.BySound {
				kind = Hear
			}
			steps = append([]Item{finish(Item{Kind: kind, Hand: w.Hand(), Minutes: lookMinutes}, w, in)}, steps...)
		}
	}
	add(Whole, wholeTimes, false, plainMinutes)
	return steps
}

// inBookWhole is the share of marks from which a piece without a score is practised as a whole (default).
const inBookWhole = 0.5

// wholeTimes is how often a whole piece is played on a day (default).
const wholeTimes = 2

// ahead are the steps that the marks of the lesson say are there already, open those that are not. Full marks all over would leave
// only the whole.
func (w Work) ahead(in Input) (there, open []Item) {
	steps := w.parts(in)
	n := int(math.Floor(w.Progress * float64(len(steps))))
	return steps[:n], steps[n:]
}

// parts are the sections of a piece, the smallest first, and then what they are joined to, as if nothing were there yet.
func (w Work) parts(in Input) (out []Item) {
	for _, c := range w.Tree.Leaves() {
		if c.SameAs == 0 && len(w.Tree.Parts) > 0 {
			out = append(out, w.each(Chunk, c, in)...)
		}
	}
	for _, c := range joins(*w.Tree) {
		out = append(out, w.each(Join, c, in)...)
	}
	return onceEach(out)
}

// sameBars says that two items are about the same bars for the same hand.
func (it Item) sameBars(other Item) bool { return it.Bars == other.Bars && it.Hand == other.Hand }

// onceEach leaves out a step over bars that an earlier one is about already: where one hand rests, two
// sections can become one.
func onceEach(steps []Item) []Item {
	type place struct {
		bars Bars
		hand string
	}
	seen := map[place]bool{}
	var out []Item
	for _, it := range steps {
		if at := (place{it.Bars, it.Hand}); !seen[at] {
			seen[at] = true
			out = append(out, it)
		}
	}
	return out
}

// stretch is some bars with their times in quarter notes.
type stretch struct {
	bars       Bars
	start, end float64
}

func of(c chunk.Chunk) stretch { return stretch{barsOf(c), c.Start.Float(), c.End.Float()} }

// played are the stretches of one in which a hand plays, without the bars in which it rests; the
// whole of it for both hands.
func (w Work) played(whole stretch, hand string) []stretch {
	plays, known := w.Plays[hand]
	if hand == "" || !known {
		return []stretch{whole}
	}
	var out []stretch
	for bar := whole.bars.From; bar <= whole.bars.To; bar++ {
		if bar > len(plays) || !plays[bar-1] {
			continue
		}
		if n := len(out); n > 0 && out[n-1].bars.To == bar-1 {
			out[n-1].bars.To = bar
		} else {
			out = append(out, stretch{bars: Bars{From: bar, To: bar}})
		}
	}
	for i := range out {
		s := &out[i]
		s.start, s.end = w.span(s.bars)
		if s.bars.From == whole.bars.From {
			s.start, s.bars.Upbeat = whole.start, whole.bars.Upbeat
		}
		if s.bars.To == whole.bars.To {
			s.end = whole.end
		}
	}
	return out
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
	if len(c.Parts) == 0 {
		return c.SameAs != 0
	}
	return !slices.ContainsFunc(c.Parts, func(p chunk.Chunk) bool { return !allEqualEarlier(p) })
}

func barsOf(c chunk.Chunk) Bars { return Bars{From: c.From, To: c.To, Upbeat: c.Upbeat} }

// each is a step over a chunk of the tree, for one hand after the other.
func (w Work) each(k Kind, c chunk.Chunk, in Input) []Item {
	var out []Item
	for _, hand := range w.hands() {
		for _, s := range w.played(of(c), hand) {
			out = append(out, w.over(k, s.bars, s.start, s.end, hand, in))
		}
	}
	return out
}

// over is a step over some bars from one time to another in quarter notes.
func (w Work) over(k Kind, bars Bars, start, end float64, hand string, in Input) Item {
	times, row := in.dose()
	if k == Whole {
		times, row = wholeTimes, false
	}
	it := Item{Kind: k, Bars: bars, Start: start, End: end, Hand: hand, Times: times, InRow: row}
	it = finish(it, w, in)
	it.Minutes = w.minutes(k, end-start, it.Times, it.InRow)
	return it
}

// minutes estimates how long a step takes: at the usual share of the tempo, what is due for its run at its own.
func (w Work) minutes(k Kind, quarters float64, times int, row bool) float64 {
	if w.RunDue && k == Whole {
		quarters *= PracticeTempo
	}
	return minutes(quarters, w.Material.Tempo, times, row)
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
		it.Minutes = math.Ceil(2*it.Minutes*float64(n)/float64(it.Times)) / 2
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

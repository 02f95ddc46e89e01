package week

import (
	"cmp"
	"slices"
)

// Outcome is what home showed of a step that the week before had set.
type Outcome string

// The outcomes that change a week; of anything else a step goes on as it was.
const (
	// CameEasily: done on all its days, in full and never called hard: the next join begins earlier.
	CameEasily Outcome = "easy"
	// WasHard: called hard, or far under its count, on days enough: the same in halves first.
	WasHard Outcome = "hard"
)

// Shown is what home showed of some bars for a hand; the empty hand is both.
type Shown struct {
	Bars    Bars
	Hand    string
	Outcome Outcome
	// Slower is how many marks of the metronome below the usual it was practised.
	Slower int
}

// shown says what home showed of a step; empty for nothing that changes it.
func (w Work) shown(it Item) Outcome {
	i := slices.IndexFunc(w.Shown, func(x Shown) bool { return x.Bars == it.Bars && x.Hand == it.Hand })
	if i < 0 || it.Kind != Chunk && it.Kind != Join {
		return ""
	}
	return w.Shown[i].Outcome
}

// after are the steps of a piece as home left them: what came easily is there, because the next join and at last the whole hold it;
// what was hard comes first and in halves, and the others follow in their order. Of the steps that the marks say are there already
// only what was hard comes back.
func (w Work) after(in Input) []Item {
	_, open := w.ahead(in)
	rest := slices.DeleteFunc(open, func(it Item) bool { return w.shown(it) == CameEasily })
	return onceEach(slices.Concat(w.hard(in), rest))
}

// hard are the halves of what was hard and is a step of this week or lies in one, from the beginning of the piece; of a step and its
// half that were both hard the half.
func (w Work) hard(in Input) (out []Item) {
	parts := w.parts(in)
	var hard []Item
	for _, x := range w.Shown {
		it := Item{Kind: Chunk, Bars: x.Bars, Hand: x.Hand, Slower: x.Slower}
		if x.Outcome != WasHard || !slices.ContainsFunc(parts, it.within) {
			continue
		}
		if i := slices.IndexFunc(parts, it.sameBars); i >= 0 {
			it = parts[i]
		} else {
			start, end := w.span(x.Bars)
			it = w.over(Chunk, x.Bars, start, end, x.Hand, in)
		}
		it.Slower = x.Slower
		hard = append(hard, it)
	}
	slices.SortStableFunc(hard, func(a, b Item) int { return cmp.Or(a.Bars.From-b.Bars.From, a.Bars.To-b.Bars.To) })
	for _, it := range hard {
		if !slices.ContainsFunc(hard, func(x Item) bool { return x.within(it) && !x.sameBars(it) }) {
			out = append(out, w.halves(it, in)...)
		}
	}
	return out
}

// Step is a step of a working piece: some bars for a hand; the empty hand is both.
type Step struct {
	Material string
	Bars     Bars
	Hand     string
}

// goes are the steps of a piece that are there before the week begins: by the marks of the lesson, or because they came easily.
func (w Work) goes(in Input) (out []Item) {
	if w.Tree == nil {
		return nil
	}
	ahead, open := w.ahead(in)
	for _, it := range ahead {
		if w.shown(it) != WasHard {
			out = append(out, it)
		}
	}
	for _, it := range open {
		if w.shown(it) == CameEasily {
			out = append(out, it)
		}
	}
	return out
}

// there are the steps of a piece that came easily.
func (w Work) there() (out []Step) {
	for _, x := range w.Shown {
		if x.Outcome == CameEasily {
			out = append(out, Step{w.Material.ID, x.Bars, x.Hand})
		}
	}
	return out
}

// Halved says that a step of some bars is practised in halves where it was hard; a single bar has none.
func (b Bars) Halved() bool { return b.To > b.From }

// Step says that some bars are a step of a piece in this week, for the hand that plays.
func (in Input) Step(w Work, it Item) bool { return slices.ContainsFunc(w.parts(in), it.sameBars) }

// Hard says that some bars come first in this week, in halves or slower, because they were hard.
func (in Input) Hard(w Work, it Item) bool {
	return slices.ContainsFunc(w.hard(in), func(h Item) bool { return h.within(it) })
}

// halves are the two halves of a step by whole bars, or the step itself where it is a single bar; they are played a mark of
// the metronome slower than they were.
func (w Work) halves(it Item, in Input) []Item {
	stretches := []Bars{it.Bars}
	if it.Bars.Halved() && len(w.Quarters) > 0 {
		middle := (it.Bars.From + it.Bars.To) / 2
		stretches = []Bars{{From: it.Bars.From, To: middle, Upbeat: it.Bars.Upbeat}, {From: middle + 1, To: it.Bars.To}}
	}
	var out []Item
	for _, b := range stretches {
		start, end := it.Start, it.End
		if b.From != it.Bars.From {
			start, _ = w.span(b)
		}
		if b.To != it.Bars.To {
			_, end = w.span(b)
		}
		half := w.over(Chunk, b, start, end, it.Hand, in)
		if len(stretches) == 1 {
			half = it
		}
		half.Slower = it.Slower + 1
		out = append(out, half)
	}
	return out
}

package week

import "slices"

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
}

// shown says what home showed of a step; empty for nothing that changes it.
func (w Work) shown(it Item) Outcome {
	i := slices.IndexFunc(w.Shown, func(x Shown) bool { return x.Bars == it.Bars && x.Hand == it.Hand })
	if i < 0 || it.Kind != Chunk && it.Kind != Join {
		return ""
	}
	return w.Shown[i].Outcome
}

// after are the steps of a piece as home left them: what came easily is there, what was hard comes first and in halves, and the
// others follow in their order. Ahead are steps that the marks say are there already; of these only what was hard comes back.
func (w Work) after(ahead, steps []Item, in Input) []Item {
	var first, rest []Item
	for _, it := range slices.Concat(ahead, steps) {
		if w.shown(it) == WasHard {
			first = append(first, w.halves(it, in)...)
		}
	}
	for _, it := range steps {
		switch w.shown(it) {
		case CameEasily:
		default:
			rest = append(rest, it)
		}
	}
	return onceEach(slices.Concat(first, rest))
}

// halves are the two halves of a step by whole bars; the step itself where it is a single bar.
func (w Work) halves(it Item, in Input) []Item {
	if it.Bars.To <= it.Bars.From || len(w.Quarters) == 0 {
		return []Item{it}
	}
	middle := (it.Bars.From + it.Bars.To) / 2
	var out []Item
	for _, b := range []Bars{{From: it.Bars.From, To: middle, Upbeat: it.Bars.Upbeat}, {From: middle + 1, To: it.Bars.To}} {
		start, end := w.span(b)
		if b.From == it.Bars.From {
			start = it.Start
		}
		if b.To == it.Bars.To {
			end = it.End
		}
		out = append(out, w.over(Chunk, b, start, end, it.Hand, in))
	}
	return out
}

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

// after are the steps of a piece as home left them: what came easily and is part of a larger step is there, what was hard comes
// first and in halves, and the others follow in their order. Ahead are steps that the marks say are there already; of these only
// what was hard comes back.
func (w Work) after(ahead, steps []Item, in Input) []Item {
	var first, rest []Item
	for _, it := range slices.Concat(ahead, steps) {
		if w.shown(it) == WasHard {
			first = append(first, w.halves(it, in)...)
		}
	}
	for _, it := range steps {
		if w.shown(it) != CameEasily || !slices.ContainsFunc(steps, it.partOf) {
			rest = append(rest, it)
		}
	}
	return onceEach(slices.Concat(first, rest))
}

// Step is a step of a working piece: some bars for a hand; the empty hand is both.
type Step struct {
	Material string
	Bars     Bars
	Hand     string
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

// partOf says that a larger step for the same hand holds this one. Of what nothing holds the teacher hears first, however
// easily it came.
func (it Item) partOf(larger Item) bool {
	return larger.Kind == Join && larger.Hand == it.Hand && larger.Bars.From <= it.Bars.From && it.Bars.To <= larger.Bars.To &&
		larger.Bars.To-larger.Bars.From > it.Bars.To-it.Bars.From
}

// Step says that some bars are a step of a piece in this week, for the hand that plays, and that a larger one holds it, so that it
// is not set again once it came easily.
func (in Input) Step(w Work, it Item) (is, held bool) {
	parts := w.parts(in)
	return slices.ContainsFunc(parts, it.sameBars), slices.ContainsFunc(parts, it.partOf)
}

// halves are the two halves of a step by whole bars, or the step itself where it is a single bar; they are played a mark of
// the metronome slower.
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
		half.Slower = 1
		out = append(out, half)
	}
	return out
}

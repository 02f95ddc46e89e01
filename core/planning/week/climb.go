package week

import (
	"math"
	"slices"
)

// climb is the way up one staircase over the days.
type climb struct {
	work Work
	// spots are practised every day, steps once and in order.
	spots, steps []Item
	// dropped are repetitions that were taken out by hand.
	dropped []Item
	total   int
	// fresh is what was new on the last day on which it was practised, last the last step of all; quota is how many
	// new steps the day may still have; days counts those on which it was practised.
	fresh []Item
	last  *Item
	quota int
	days  int
	// had are the steps that go already: those from before the week, and those that were taken in it.
	had []Item
	// times and row are the dose.
	times int
	row   bool
	// turn is the next of the earlier sections that a day with minutes left takes up.
	turn int
	// today is what is new on the day that is being laid out, repeats what it begins with.
	today, repeats []Item
	hand           Hand
}

// open opens a day: by its end no more of the staircase is climbed than of the week has gone (0 to 1, more at a
// faster pace). The day begins with all that was new last time; where no step follows, the last one is practised in
// full.
func (c *climb) open(gone float64, h Hand) {
	c.hand = h
	c.fresh, c.today = append(c.fresh, c.today...), nil
	climbed := c.total - len(c.steps)
	c.quota = len(c.steps)
	if even := gone * float64(c.total); even < float64(c.total) {
		c.quota = int(math.Ceil(even-1e-9)) - climbed
	}
	c.repeats = c.repeats[:0:0]
	if c.last == nil {
		return
	}
	full, again := len(c.steps) == 0, c.fresh
	switch {
	case full:
		again = slices.DeleteFunc(slices.Clone(again), func(it Item) bool { return it.within(*c.last) })
	case len(again) == 0:
		again = []Item{*c.last}
	}
	for _, h := range c.had {
		if h.Slower > 0 { // what was hard begins every day, as often as it was set
			it := repeated(h, c.work, true)
			it.Purpose, it.Words = OnceHard, hardWords
			c.repeat(it)
		}
	}
	for _, it := range joined(slices.DeleteFunc(slices.Clone(again), func(it Item) bool { return it.Slower > 0 })) {
		c.repeat(repeated(it, c.work, false))
	}
	if full {
		c.repeat(repeated(*c.last, c.work, true))
	}
}

const hardWords = "This was hard last week: slowly, and only as long as it stays easy."

// within says that all bars of an item lie in another for the same hand.
func (it Item) within(other Item) bool {
	return it.Hand == other.Hand && it.Bars.From >= other.Bars.From && it.Bars.To <= other.Bars.To
}

// repeat begins the day with an item again, unless it was taken out by hand.
func (c *climb) repeat(it Item) {
	switch {
	case slices.ContainsFunc(c.repeats, func(r Item) bool { return r.Key == it.Key }):
	case !c.out(it):
		c.repeats = append(c.repeats, it)
	}
}

// out says that an item was taken out by hand, and notes it, so that it can be put back.
func (c *climb) out(it Item) bool {
	if !c.hand.dropped(it.Key) {
		return false
	}
	if !slices.ContainsFunc(c.dropped, func(d Item) bool { return d.Key == it.Key }) {
		c.dropped = append(c.dropped, it)
	}
	return true
}

// ways are what a day can hold of the piece.
func (c *climb) ways() []way {
	var out []way
	step := []Item(nil)
	if c.quota > 0 && len(c.steps) > 0 {
		step = c.steps[:1]
	}
	for mask := 1; mask < 8; mask++ {
		again, goes, spots := mask&1 > 0, mask&2 > 0, mask&4 > 0
		if again && len(c.repeats) == 0 || goes && step == nil || spots && len(c.spots) == 0 {
			continue
		}
		w := way{serves: true, again: again, step: goes, spots: spots}
		if spots {
			w.items = append(w.items, c.spots...)
		}
		if again {
			w.items = append(w.items, c.repeats...)
		}
		if goes {
			w.items = append(w.items, step...)
		}
		out = append(out, w)
	}
	return out
}

// take notes what a day has of the piece.
func (c *climb) take(w way) {
	c.days++
	if w.again {
		c.fresh = nil
	}
	if w.step {
		c.taken()
	}
}

// taken moves the first step to what is new today.
func (c *climb) taken() {
	step := c.steps[0]
	c.steps = c.steps[1:]
	c.quota--
	if step.Kind != Look && step.Kind != Hear {
		c.last = &step
		c.had = append(c.had, step)
		c.today = append(c.today, step)
	}
}

// climb takes the next step if the day has room and the pace allows it.
func (c *climb) climb(day *Day, room float64) bool {
	if c.quota <= 0 || len(c.steps) == 0 || day.add(c.steps[:1], room) == 0 {
		return false
	}
	c.taken()
	return true
}

// joined are items over neighbouring bars of one hand as one, in their order: what was new in two short sections is
// played again in one go.
func joined(items []Item) []Item {
	var out []Item
	for _, it := range items {
		if n := len(out); n > 0 && out[n-1].Hand == it.Hand && it.Bars.From == out[n-1].Bars.To+1 && it.Kind != Whole {
			last := &out[n-1]
			last.Bars.To, last.End = it.Bars.To, it.End
			last.Minutes += it.Minutes
			continue
		}
		out = append(out, it)
	}
	return out
}

// repeated is a step with which a day begins again: in full where nothing new follows, else twice, to begin with.
// As for a run it is played as it was.
func repeated(step Item, w Work, full bool) Item {
	if w.RunDue && step.Kind == Whole {
		return step
	}
	step.Kind = Again
	step.Key = keyOf(step)
	if full {
		step.Purpose = Settles
		step.Words = "The same once more: it is still settling."
		return step
	}
	if step.End > step.Start {
		step.Minutes = minutes(step.End-step.Start, w.Material.Tempo, 2, false)
	} else {
		step.Minutes = max(1, math.Ceil(step.Minutes)/2)
	}
	step.Times, step.InRow = 2, false
	step.Words = "Start with what was new last time."
	return step
}

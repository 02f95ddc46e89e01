package week

import (
	"cmp"
	"slices"
)

// spare gives minutes that a day has left to a piece: a section that the day begins with is played in full instead of twice, and then
// all that goes already is played from the beginning in one go.
func (c *climb) spare(day *Day, room func() float64) {
	for i := range day.Items {
		it := &day.Items[i]
		if it.Kind != Again || it.Material != c.work.Material.ID || it.Times == c.times || c.hand.Times[it.Key] > 0 || !section(*it) {
			continue
		}
		longer := c.minutes(*it)
		if extra := longer - it.Minutes; extra >= 0 && extra <= room() {
			it.Times, it.InRow, it.Minutes = c.times, c.row, longer
			day.Minutes += extra
		}
	}
	for _, it := range c.soFar(day) {
		if !c.out(it) {
			day.add([]Item{it}, room())
		}
	}
}

const (
	// mostEarlier is how many earlier sections of a piece a day takes up before others have their turn (default).
	mostEarlier = 2
	// longSection is how many bars are played in full as often as a section is (default); what is longer is played in one go.
	longSection = 4
)

// section says that an item is short enough to be played as often as a section; how long a piece without a score is nobody knows.
func section(it Item) bool { return it.Bars.From > 0 && it.Bars.To-it.Bars.From < longSection }

// minutes are those of a section in full.
func (c *climb) minutes(it Item) float64 {
	return c.work.minutes(Again, it.End-it.Start, c.times, c.row)
}

// earlier gives minutes that a day has left to sections that go already and that the day has not, neighbours as one, in turn; it
// says whether there was any.
func (c *climb) earlier(day *Day, room func() float64) (any bool) {
	var sections []Item
	for _, h := range c.had {
		larger := func(x Item) bool { return x.Kind != Whole && h.within(x) && !h.sameBars(x) }
		if h.Kind != Whole && !slices.ContainsFunc(c.had, larger) && !slices.ContainsFunc(sections, h.sameBars) {
			sections = append(sections, h)
		}
	}
	slices.SortStableFunc(sections, func(a, b Item) int { return cmp.Or(cmp.Compare(a.Hand, b.Hand), a.Bars.From-b.Bars.From) })
	sections = neighbours(sections)
	most, from := mostEarlier, c.turn
	for i := range sections {
		it := sections[(from+i)%len(sections)]
		today := slices.ContainsFunc(day.Items, func(d Item) bool { // all of it, or a part of it
			return d.Material == it.Material && (it.within(d) || d.within(it)) && section(d)
		})
		it.Kind, it.Purpose, it.Times, it.InRow, it.Slower = Again, Kept, c.times, c.row, 0
		it.Key, it.Minutes, it.Words = keyOf(it), c.minutes(it), "Play this once more, so that it stays."
		if most == 0 || today || !section(it) || c.out(it) || day.add([]Item{it}, room()) == 0 {
			continue
		}
		most--
		any = true
		c.turn = from + i + 1
	}
	return any
}

// neighbours are sections side by side as one, as long as a section may be.
func neighbours(sections []Item) (out []Item) {
	for _, it := range sections {
		if n := len(out); n > 0 && out[n-1].Hand == it.Hand && it.Bars.From == out[n-1].Bars.To+1 && it.Bars.To-out[n-1].Bars.From < longSection {
			out[n-1].Bars.To, out[n-1].End = it.Bars.To, it.End
			continue
		}
		out = append(out, it)
	}
	return out
}

// soFar is all that goes of a piece from its beginning, for each hand, where that is more than one section and than any one thing that
// the day has of it.
func (c *climb) soFar(day *Day) (out []Item) {
	if c.work.Tree == nil || c.work.RunDue {
		return nil
	}
	leaves := c.work.Tree.Leaves()
	for _, hand := range c.work.hands() {
		goes := func(from, to int) bool {
			return slices.ContainsFunc(c.had, func(h Item) bool { return h.Hand == hand && h.Bars.From <= from && to <= h.Bars.To })
		}
		known := map[int]bool{}
		until := 0
		for _, leaf := range leaves {
			known[leaf.From] = goes(leaf.From, leaf.To) || leaf.SameAs > 0 && known[leaf.SameAs]
			if !known[leaf.From] {
				break
			}
			until = leaf.To
		}
		if until == 0 {
			continue
		}
		all := of(*c.work.Tree)
		so := Item{Kind: Again, Purpose: SoFar, Bars: Bars{From: all.bars.From, To: until, Upbeat: all.bars.Upbeat}, Start: all.start, Hand: hand, Times: wholeTimes}
		if _, so.End = c.work.span(so.Bars); until == all.bars.To {
			so.End = all.end
		}
		if slices.ContainsFunc(slices.Concat(c.had, day.Items), func(it Item) bool { return it.Material == c.work.Material.ID && it.Kind != Whole && so.within(it) }) ||
			slices.ContainsFunc(day.Items, so.sameBars) {
			continue
		}
		so.Material, so.Title = c.work.Material.ID, c.work.Material.Title
		so.Key, so.Minutes = keyOf(so), c.work.minutes(Again, so.End-so.Start, so.Times, false)
		so.Words = "From the beginning as far as you know it, without a stop."
		out = append(out, so)
	}
	return out
}

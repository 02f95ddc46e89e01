package week

import "math"

// offer is what one piece or one drill asks of a day: one of its ways, or nothing.
type offer struct {
	ways []way
	// before counts the days on which it was practised: who waited longest comes first.
	before int
}

// way is one of the ways in which a day can serve a piece, with what it is worth.
type way struct {
	items []Item
	// serves says that the piece is practised at all; again that all that was new last time is played again, step
	// that it goes on by a step, spots that its hard spots are in; due that it is technique that is due, both that
	// it has each hand that it should.
	serves, again, step, spots, due, both bool
}

func (w way) minutes() (m float64) {
	for _, it := range w.items {
		m += it.Minutes
	}
	return m
}

// worth ranks what a day can hold, as one number: first as many working pieces as can be are practised, those
// that waited longest before the others; then what was new last time is played again; then each goes on by a
// step; then the hard spots; then what is due in technique, that which waited longest first, with each hand.
func (w way) worth(before int) int64 {
	const patience = 30 // more days than a week can have
	waited := int64(patience - min(before, patience-1))
	out := int64(0)
	add := func(is bool, worth int64) {
		out <<= 8
		if is {
			out += worth
		}
	}
	add(w.serves, 1)
	add(w.serves, waited)
	add(w.again, 1)
	add(w.step, 1)
	add(w.spots, 1)
	add(w.due, waited)
	add(w.both, 1)
	return out
}

// choose picks a way for each offer so that all fit into the room (minutes, a multiple of a half) and their worth is
// the largest; of equal ones those that take the fewest minutes. It is exact: a multiple-choice knapsack over half
// minutes. It returns, for each offer, the index of its way, −1 for nothing.
func choose(offers []offer, room float64) []int {
	halves := max(0, int(math.Floor(2*room+1e-9)))
	best := make([]int64, halves+1)
	for i := range best {
		best[i] = -1
	}
	best[0] = 0
	took := make([][]int, len(offers))
	for i, o := range offers {
		next := append([]int64(nil), best...)
		took[i] = make([]int, halves+1)
		for h := range took[i] {
			took[i][h] = -1
		}
		for k, w := range o.ways {
			size, worth := int(math.Round(2*w.minutes())), w.worth(o.before)
			for h := size; h <= halves; h++ {
				if from := best[h-size]; from >= 0 && from+worth > next[h] {
					next[h], took[i][h] = from+worth, k
				}
			}
		}
		best = next
	}
	at := 0
	for h := range best {
		if best[h] > best[at] {
			at = h
		}
	}
	out := make([]int, len(offers))
	for i := len(offers) - 1; i >= 0; i-- {
		out[i] = took[i][at]
		if out[i] >= 0 {
			at -= int(math.Round(2 * offers[i].ways[out[i]].minutes()))
		}
	}
	return out
}

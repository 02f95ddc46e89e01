// Package plucked finds which finger plucks which string, and how chords lie and
// change under the left hand.
//
//	roll.go   picking patterns by string and finger
//	chord.go  chord shapes and what moves from one to the next
package plucked

import (
	"fmt"
	"slices"

	"patientladder/core/library/instrument"
)

// Stroke is one string plucked by one finger.
type Stroke struct {
	// String counts from 1.
	String int
	// Finger is "p" (thumb), "i", "m" or "a".
	Finger string
}

// What a roll should not do, in the order of how bad it is.
const (
	crossed = 3 // a finger reaches over its neighbour to a string on the other side
	away    = 1 // a finger plays beside its usual string, for each finger of distance
)

// Fingers gives the strings of a roll, played over and over, their fingers:
// neighbours use different fingers, the last and the first too; beyond that each
// string keeps its usual finger where it can, and no finger crosses another
// (common practice). The cheapest way of all is found. It refuses an instrument
// that is not plucked, and strings that are not there.
func Fingers(x instrument.Instrument, strings []int) ([]Stroke, error) {
	if x.Family != instrument.Plucked {
		return nil, fmt.Errorf("rolls are for plucked strings; %s has none", x.ID)
	}
	if len(strings) < 2 || len(strings) > 64 {
		return nil, fmt.Errorf("a roll has 2 to 64 strokes, not %d", len(strings))
	}
	for _, s := range strings {
		if s < 1 || s > len(x.Open) {
			return nil, fmt.Errorf("the %s has strings 1 to %d; there is no string %d", x.ID, len(x.Open), s)
		}
	}
	names := instrument.Plucking()
	usual := func(i int) int { return slices.Index(names, x.Pluck[strings[i]-1]) }
	// The place of a string across the hand, from the thumb's side on; a short string
	// of the thumb lies on the thumb's side whatever it sounds.
	across := func(i int) int { return -strings[i] }
	var best []int
	bestCost := 1 << 30
	n := len(strings)
	for first := range names {
		// cost[f] is the cheapest way to reach stroke i with finger f, from `first` on.
		cost := make([]int, len(names))
		from := make([][]int, n)
		for f := range names {
			cost[f] = 1 << 29
		}
		cost[first] = away * abs(first-usual(0))
		for i := 1; i <= n; i++ {
			at := i % n
			next := make([]int, len(names))
			back := make([]int, len(names))
			for f := range names {
				next[f] = 1 << 29
				for g := range names {
					c := cost[g] + step(g, f, across(i-1), across(at))
					if g != f && c < next[f] {
						next[f], back[f] = c, g
					}
				}
				if i < n {
					next[f] += away * abs(f-usual(at))
				}
			}
			if i < n {
				from[i] = back
				cost = next
				continue
			}
			if next[first] < bestCost { // around to the beginning
				bestCost = next[first]
				best = make([]int, n)
				f := back[first]
				for k := n - 1; k > 0; k-- {
					best[k] = f
					f = from[k][f]
				}
				best[0] = first
			}
		}
	}
	out := make([]Stroke, n)
	for i, s := range strings {
		out[i] = Stroke{String: s, Finger: names[best[i]]}
	}
	return out, nil
}

// step is what going from one finger to the next costs: crossing, when the
// fingers and their strings lie the other way round.
func step(a, b, from, to int) int {
	if a < b && from > to || a > b && from < to {
		return crossed
	}
	return 0
}

func abs(n int) int { return max(n, -n) }

// Package learning lets a studio learn from its own lessons: how much its skills really ask for, against the table's
// weights, and how fast its learned pieces fade, against the published memory. What was learned is drawn towards what was
// believed before, and counts only where it foretells better what it has not seen.
//
//	learning.go  whether what was learned foretells better
//	skill.go     the weights of skills
//	fade.go      the scale of the memory
//	used.go      what a studio uses of it
package learning

import "math"

// Verdict says whether what was learned foretells better than what was believed before, on what it had not seen.
type Verdict struct {
	// Tests is on how many it was tried, Gain how much better it foretold each on average (difference of the logarithms of
	// the chances that were given to what came), Doubt the standard error of that.
	Tests       int
	Gain, Doubt float64
	Better      bool
}

// leastTests is on how many it must be tried before it may count (default): as many as a term brings.
const leastTests = 20

// verdict weighs the differences, one for each that had not been seen. It is better where the gain is larger than its doubt.
func verdict(gains []float64) Verdict {
	v := Verdict{Tests: len(gains)}
	if len(gains) < 2 {
		return v
	}
	n := float64(len(gains))
	for _, g := range gains {
		v.Gain += g / n
	}
	spread := 0.0
	for _, g := range gains {
		spread += (g - v.Gain) * (g - v.Gain) / (n - 1)
	}
	v.Doubt = math.Sqrt(spread / n)
	v.Better = v.Tests >= leastTests && v.Gain > v.Doubt
	return v
}

const (
	// firstSeen is how many must have been seen before the first is foretold; blocks is in how many steps the rest is
	// foretold, each from all before it (defaults).
	firstSeen, blocks = 10, 8
)

// unseen cuts a row of things that happened one after another into stretches: each is foretold from all before it.
func unseen(n int) (cuts []int) {
	if n <= firstSeen {
		return nil
	}
	for k := range blocks {
		at := firstSeen + k*(n-firstSeen)/blocks
		if len(cuts) == 0 || at > cuts[len(cuts)-1] {
			cuts = append(cuts, at)
		}
	}
	return cuts
}

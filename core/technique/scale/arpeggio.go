package scale

import "patientladder/core/notation/score"

// arpeggioFingers fingers a broken triad upwards over some octaves. The thumb
// plays a white root; from a black root it plays the white note beside a black
// one over which it passes, as in a scale; where all are black it plays the root
// (common practice).
func arpeggioFingers(octave []score.Pitch, octaves int) (right, left []int) {
	n := 3*octaves + 1
	right, left = make([]int, n), make([]int, n)
	r, l := triad(octave, true), triad(octave, false)
	for i := range n {
		right[i], left[i] = r[i%3], l[i%3]
	}
	// The outermost root is played by the fifth finger where the thumb would turn
	// for it, and by what lies next to the fifth where that is nearer.
	if right[n-1] == 1 {
		right[n-1] = 5
	}
	if left[0] == 1 {
		left[0] = 5
	}
	return right, left
}

// triad is the fingers of root, third and fifth.
func triad(octave []score.Pitch, right bool) [3]int {
	thumb := 0
	if score.BlackKey(octave[0].Semitone()) {
		for at := 1; at < 3; at++ {
			beside := at - 1
			if !right {
				beside = (at + 1) % 3
			}
			if !score.BlackKey(octave[at].Semitone()) && score.BlackKey(octave[beside].Semitone()) {
				thumb = at
			}
		}
	}
	var out [3]int
	next := func(by int) int {
		if right {
			return (thumb + by) % 3
		}
		return (thumb - by + 3) % 3
	}
	second, third := next(1), next(2)
	out[thumb], out[second] = 1, 2
	out[third] = outer(octave, second, third, right)
	return out
}

// outer is the finger after the second: 4 over a fourth or more; for a left hand
// with the thumb on the root also 4 over a third, unless the third of the chord is a black
// key a major third above the root, where the shorter hand of 3 lies better
// (common practice).
func outer(octave []score.Pitch, second, third int, right bool) int {
	gap := octave[third].Semitone() - octave[second].Semitone()
	if !right {
		gap = -gap
	}
	gap = ((gap % 12) + 12) % 12
	if gap >= 5 {
		return 4
	}
	if !right && third == 1 {
		major := octave[1].Semitone()-octave[0].Semitone() == 4
		if !(major && score.BlackKey(octave[1].Semitone())) {
			return 4
		}
	}
	return 3
}

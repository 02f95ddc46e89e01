package scale

import (
	"patientladder/core/notation/score"
	"patientladder/core/reading/turn"
)

// scaleWay fingers a scale of seven notes upwards over some octaves.
func scaleWay(octave []score.Pitch, octaves int) Way {
	r, l := turn.Of(octave, true), turn.Of(octave, false)
	w := Way{Notes: over(octave, octaves)}
	group := func(three bool) int {
		if three {
			return 3
		}
		return 4
	}
	for i := range w.Notes {
		w.Right, w.Left = append(w.Right, r.Finger(i%7, true)), append(w.Left, l.Finger(i%7, false))
		w.RightGroups, w.LeftGroups = append(w.RightGroups, group(r.Three(i%7, true))), append(w.LeftGroups, group(l.Three(i%7, false)))
	}
	// A note that ends the scale without a turn goes with its neighbours.
	if n := len(w.Notes) - 1; w.Right[n] == 1 {
		w.RightGroups[n] = w.RightGroups[n-1]
	}
	if w.Left[0] == 1 {
		w.LeftGroups[0] = w.LeftGroups[1]
	}
	ends(w.Right, w.Left)
	return w
}

// ends avoids the last turn: where the thumb would be put under only to end the
// scale, the next finger plays the outermost note.
func ends(right, left []int) {
	if n := len(right) - 1; right[n] == 1 {
		right[n] = right[n-1] + 1
	}
	if left[0] == 1 {
		left[0] = left[1] + 1
	}
}

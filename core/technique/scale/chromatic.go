package scale

import "patientladder/core/notation/score"

// chromatic returns the twelve notes from a tonic up: with sharps, or from a
// flat with flats.
func chromatic(t Tonic) []score.Pitch {
	names := []Tonic{{'C', 0}, {'C', 1}, {'D', 0}, {'D', 1}, {'E', 0}, {'F', 0}, {'F', 1}, {'G', 0}, {'G', 1}, {'A', 0}, {'A', 1}, {'B', 0}}
	if t.Alter < 0 {
		names = []Tonic{
			{'C', 0},
			{'D', -1},
			{'D', 0},
			{'E', -1},
			{'E', 0},
			{'F', 0},
			{'G', -1},
			{'G', 0},
			{'A', -1},
			{'A', 0},
			{'B', -1},
			{'B', 0},
		}
	}
	first := score.Pitch{Step: t.Step, Alter: t.Alter, Octave: 4}
	out := []score.Pitch{first}
	for i := 1; i < 12; i++ {
		semitone := first.Semitone() + i
		n := names[semitone%12]
		p := score.Pitch{Step: n.Step, Alter: n.Alter, Octave: 4}
		p.Octave += (semitone - p.Semitone()) / 12
		out = append(out, p)
	}
	return out
}

// chromaticFingers: the third finger on every black key, the thumb on white
// ones, and the second where two white keys lie side by side: for the right hand
// on F and C, for the left on E and B (common practice). A hand that begins or
// ends on such a key may take the thumb there.
func chromaticFingers(octave []score.Pitch, octaves int) (right, left []int) {
	n := 12*octaves + 1
	right, left = make([]int, n), make([]int, n)
	for i := range n {
		class := octave[i%12].Semitone() % 12
		switch {
		case score.BlackKey(class):
			right[i], left[i] = 3, 3
		default:
			right[i], left[i] = 1, 1
			if class == 5 || class == 0 {
				right[i] = 2
			}
			if class == 4 || class == 11 {
				left[i] = 2
			}
		}
	}
	if right[0] == 2 { // nothing comes before it
		right[0] = 1
	}
	return right, left
}

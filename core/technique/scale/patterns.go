package scale

import "patientladder/core/notation/score"

// tetrachords share a scale of eight notes between the hands: four fingers of the
// left take the lower four, four of the right the upper, without thumbs (common
// practice). A note that a hand does not play has finger 0.
func tetrachords(t Tonic) Way {
	return Way{
		Notes: over(ring(t, Major), 1),
		Left:  []int{5, 4, 3, 2, 0, 0, 0, 0},
		Right: []int{0, 0, 0, 0, 2, 3, 4, 5},
	}
}

// inversions are the fingers of a triad that is broken upwards from its root, its
// third and its fifth (common practice): the fingers outside are always 1 and 5;
// inside it is 3, but 2 where the wider step lies on the far side of it.
var inversions = [3]struct{ right, left [3]int }{
	{[3]int{1, 3, 5}, [3]int{5, 3, 1}},
	{[3]int{1, 2, 5}, [3]int{5, 3, 1}},
	{[3]int{1, 3, 5}, [3]int{5, 2, 1}},
}

// broken breaks a triad: three notes up from the root, from the third, from the
// fifth, and so on, and once more from the root above.
func broken(triad []score.Pitch, octaves int) Way {
	notes := over(triad, octaves+1)
	var w Way
	for from := range 3*octaves + 1 {
		for k := range 3 {
			w.Notes = append(w.Notes, notes[from+k])
			w.Right = append(w.Right, inversions[from%3].right[k])
			w.Left = append(w.Left, inversions[from%3].left[k])
		}
	}
	return w
}

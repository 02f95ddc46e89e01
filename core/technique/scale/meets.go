package scale

import "fmt"

// Meet is a note on which both hands meet when they play in parallel.
type Meet struct {
	// Degree counts from 1 within the octave.
	Degree int
	// Right and Left are the fingers.
	Right, Left int
	// Kind is "same" for the same finger, "pair" for the same two fingers on two
	// notes side by side, "group" for the same three on three.
	Kind string
}

// meets finds where the hands meet, each degree with its fingers once.
func meets(w Way, octave int) []Meet {
	n := len(w.Notes)
	kinds := make([]string, n)
	same := func(from, size int) bool {
		if from+size > n {
			return false
		}
		var count [6]int
		for i := from; i < from+size; i++ {
			if w.Right[i] == 0 || w.Left[i] == 0 {
				return false
			}
			count[w.Right[i]]++
			count[w.Left[i]]--
			// The fingers lie side by side; the thumb does not turn in between.
			if i > from && (w.Right[i] != w.Right[i-1]+1 || w.Left[i] != w.Left[i-1]-1) {
				return false
			}
		}
		return count == [6]int{}
	}
	mark := func(from, size int, kind string) {
		for i := from; i < from+size; i++ {
			kinds[i] = kind
		}
	}
	for i := range n {
		if w.Right[i] == w.Left[i] && w.Right[i] > 0 && kinds[i] == "" {
			mark(i, 1, "same")
		}
		if same(i, 2) && w.Right[i] != w.Left[i] {
			mark(i, 2, "pair")
		}
		if same(i, 3) && w.Right[i] != w.Left[i] && w.Right[i+1] == w.Left[i+1] {
			mark(i, 3, "group")
		}
	}
	var out []Meet
	seen := map[string]bool{}
	for i, kind := range kinds {
		m := Meet{Degree: i%octave + 1, Right: w.Right[i], Left: w.Left[i], Kind: kind}
		if key := fmt.Sprint(m); kind != "" && !seen[key] {
			seen[key] = true
			out = append(out, m)
		}
	}
	return out
}

// mirror finds where the same fingers play together when both hands start on the
// tonic and move apart, each degree of the right hand once.
func mirror(s Scale) []Meet {
	if s.Kind == Tetrachords || s.Kind.chord() && s.Kind.ring() == 9 {
		return nil
	}
	var out []Meet
	n, ring := len(s.Up.Right), s.Kind.ring()
	seen := map[int]bool{}
	for i := range n {
		// The left hand goes down from its highest note.
		r, l := s.Up.Right[i], s.Up.Left[n-1-i]
		if degree := i%ring + 1; r == l && !seen[degree] {
			seen[degree] = true
			out = append(out, Meet{Degree: degree, Right: r, Left: l, Kind: "same"})
		}
	}
	return out
}

// Alternative is a fingering that handbooks also print.
type Alternative struct {
	Right bool
	// Fingers upwards, one for each note.
	Fingers []int
	Why     string
}

// alternatives are the usual ones: from a black key a start on the second finger,
// which lies beside the thumb that follows.
func alternatives(s Scale) []Alternative {
	var out []Alternative
	if r := s.Up.Right; r[0] > 2 && r[1] == 1 {
		f := append([]int{2}, r[1:]...)
		out = append(out, Alternative{Right: true, Fingers: f, Why: "the first note by the second finger, beside the thumb that follows"})
	}
	if l, n := s.Up.Left, len(s.Up.Left)-1; l[n] > 2 && l[n-1] == 1 {
		f := append(append([]int{}, l[:n]...), 2)
		out = append(out, Alternative{Fingers: f, Why: "the last note by the second finger, beside the thumb before it"})
	}
	return out
}

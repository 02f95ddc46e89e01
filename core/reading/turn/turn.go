// Package turn finds where the thumb turns in a scale: how the groups of three and four fingers lie on its seven notes.
// Scales are practised with it, and runs in pieces are fingered by it.
package turn

import "patientladder/core/notation/score"

// Groups is a fingering of one octave by the rule of the thumb: it falls on two
// of the seven notes, three and four apart, and the fingers from 2 on follow it.
// First is the note (from 0) of the thumb that begins the group of three, second
// that of the group of four; for the right hand they go up from the thumb, for
// the left hand down.
type Groups struct{ three, four int }

// candidates are all ways to lay a group of three and one of four around an octave.
func candidates(right bool) []Groups {
	var out []Groups
	for three := range 7 {
		if right { // the thumb of the four lies three notes above that of the three
			out = append(out, Groups{three, (three + 3) % 7})
		} else { // and three notes below it
			out = append(out, Groups{three, (three + 4) % 7})
		}
	}
	return out
}

// Finger is that of a note, counted from 0 within the octave.
func (g Groups) Finger(note int, right bool) int {
	distance := func(thumb int) int {
		if right {
			return (note - thumb + 7) % 7
		}
		return (thumb - note + 7) % 7
	}
	if d := distance(g.three); d < 3 {
		return 1 + d
	}
	return 1 + distance(g.four)
}

// cost orders the candidates, the smaller the better: no thumb on a black key
// where it can be helped; from a white tonic the thumb plays it; then the thumb
// lies beside a black key over which it passes easily (for the right hand after
// one, for the left hand before one, going up); then, from a white tonic, the
// group of three lies next to the tonic (common practice, stated by the handbooks).
func (g Groups) cost(octave []score.Pitch, right bool) [4]int {
	var c [4]int
	white := !black(octave[0])
	for _, thumb := range []int{g.three, g.four} {
		if black(octave[thumb]) {
			c[0]++
		}
		beside := (thumb + 6) % 7
		if !right {
			beside = (thumb + 1) % 7
		}
		if !black(octave[beside]) {
			c[2]++
		}
	}
	if white && g.three != 0 && g.four != 0 {
		c[1] = 1
	}
	if white && g.three != 0 {
		c[3] = 1
	}
	return c
}

func less(a, b [4]int) bool {
	for i := range a {
		if a[i] != b[i] {
			return a[i] < b[i]
		}
	}
	return false
}

func black(p score.Pitch) bool { return score.BlackKey(p.Semitone()) }

// Three says that a note, counted from 0 within the octave, lies in the group of three: under fingers 1, 2 and 3.
func (g Groups) Three(note int, right bool) bool {
	d := note - g.three
	if !right {
		d = -d
	}
	return (d+7)%7 < 3
}

// Of finds how the groups lie for the right or the left hand in a scale, given by its seven notes upwards from the tonic.
func Of(octave []score.Pitch, right bool) Groups {
	list := candidates(right)
	out := list[0]
	for _, g := range list[1:] {
		if less(g.cost(octave, right), out.cost(octave, right)) {
			out = g
		}
	}
	return out
}

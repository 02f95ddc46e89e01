package exercise

import "patientladder/core/technique/plucked"

// Under are the notes of an exercise at which each place is met first, in order: what lies under the left hand on strings. None
// for a roll, which is held by chords.
func (e Exercise) Under(b Built) (out []Note) {
	if e.Type.What == rolling {
		return nil
	}
	seen := map[[2]int]bool{}
	for _, n := range b.Notes {
		if at := [2]int{n.String, n.Above}; !seen[at] {
			seen[at] = true
			out = append(out, n)
		}
	}
	return out
}

// rolling is what a roll is called.
const rolling = "roll"

// Round are the plucked notes of one round of a roll, two to a beat; none for what is no roll.
func (e Exercise) Round(b Built) (out []Note) {
	if e.Type.What != rolling {
		return nil
	}
	for _, n := range b.Notes {
		if n.Pluck != "" && len(out) < 2*b.Beats {
			out = append(out, n)
		}
	}
	return out
}

// Key is a key of a keyboard with the finger that comes to it first.
type Key struct {
	MIDI   int
	Finger int
	// Meets says that the hands meet there.
	Meets bool
}

// Board are the keys of one hand in the order in which they are met.
type Board struct {
	Hand string // "right" or "left"
	Keys []Key
}

// Boards are the keys that each hand plays, the right one first; a hand without any is left out.
func (b Built) Boards() (out []Board) {
	for _, hand := range []string{"right", "left"} {
		board, seen := Board{Hand: hand}, map[int]bool{}
		for _, n := range b.Notes {
			if midi := n.Pitch.Semitone(); n.Hand == hand && !seen[midi] {
				seen[midi] = true
				board.Keys = append(board.Keys, Key{MIDI: midi, Finger: n.Finger, Meets: n.Meet != ""})
			}
		}
		if len(board.Keys) > 0 {
			out = append(out, board)
		}
	}
	return out
}

// Dot is a place on a string, counted from 1, and the finger on it, 0 for none.
type Dot struct{ String, At, Finger int }

// Neck is what lies under the left hand on strings: a chord, or with an empty name all places of an exercise.
type Neck struct {
	Chord string
	Dots  []Dot
}

// Necks are the chords of an exercise, as they are held, or the places that it takes where it has none. A string that a chord
// leaves out has no dot.
func (e Exercise) Necks(b Built) (out []Neck) {
	if len(b.Chords) == 0 {
		var n Neck
		for _, x := range e.Under(b) {
			n.Dots = append(n.Dots, Dot{x.String, x.Above, x.Finger})
		}
		if len(n.Dots) > 0 {
			out = append(out, n)
		}
	}
	var chords []string
	for _, c := range b.Chords {
		chords = append(chords, c.Name)
	}
	for _, shape := range plucked.Shapes(e.Instrument, chords) {
		n := Neck{Chord: shape.Name}
		for i, fret := range shape.Frets {
			if fret >= 0 {
				n.Dots = append(n.Dots, Dot{i + 1, fret, shape.Fingers[i]})
			}
		}
		out = append(out, n)
	}
	return out
}

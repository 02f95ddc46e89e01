package reading

import (
	"sort"

	"patientladder/core/base/rational"
	"patientladder/core/notation/score"
)

// Hand says who plays a line.
type Hand string

// The hands of a keyboard player; Whole is a part that is not divided by hands.
const (
	Right Hand = "right"
	Left  Hand = "left"
	Whole Hand = "part"
	// Either is said where any hand may be used; no line has it.
	Either Hand = "either"
)

// Line is what one hand (or one undivided part) plays, onset by onset.
type Line struct {
	Hand Hand
	Part int
	// Staff is the staff the hand reads, from 1.
	Staff int
	Onset []Onset
}

// Onset is one moment at which a hand plays something new.
type Onset struct {
	At  rational.Rat
	Bar int
	// Notes are indices into Score.Notes, lowest pitch first. Held ties are not played anew.
	Notes []int
	// Ends are the times at which the notes stop sounding, ties joined.
	Ends []rational.Rat
	// Outer is the note on the outside of the hand: the highest for the right
	// hand and an undivided part, the lowest for the left.
	Outer int
}

// Lines sorts the notes of a score into lines. On a keyboard (keyboard true) a
// part on two staves is a right hand above and a left hand below, and a part
// on one staff belongs to the right hand under a treble clef and to the left
// under a bass clef, unless another part has two staves: then it is somebody
// else's, a voice or a partner. On other instruments each part is one line.
// Grace notes are ornaments of a line and do not count as its onsets.
func Lines(s *score.Score, keyboard bool) []Line {
	plays := make([]bool, len(s.Parts))
	for i := range plays {
		plays[i] = Plays(s, i, keyboard)
	}
	return LinesOf(s, keyboard, plays)
}

// LinesOf is Lines with the parts that are the student's: on a keyboard the others are one line each.
func LinesOf(s *score.Score, keyboard bool, plays []bool) []Line {
	type key struct{ part, staff int }
	index := map[key]int{}
	var lines []Line
	for _, snd := range s.Sounding() {
		if snd.Grace {
			continue
		}
		k := key{snd.Part, 1}
		if keyboard && plays[snd.Part] {
			k.staff = snd.Staff
		}
		at, ok := index[k]
		if !ok {
			at = len(lines)
			index[k] = at
			lines = append(lines, Line{Hand: handOf(s, snd.Part, k.staff, keyboard && plays[snd.Part]), Part: snd.Part, Staff: k.staff})
		}
		l := &lines[at]
		if n := len(l.Onset); n > 0 && l.Onset[n-1].At.Cmp(snd.Onset) == 0 {
			l.Onset[n-1].Notes = append(l.Onset[n-1].Notes, snd.Note)
			l.Onset[n-1].Ends = append(l.Onset[n-1].Ends, snd.Onset.Add(snd.Duration))
		} else {
			l.Onset = append(l.Onset, Onset{At: snd.Onset, Bar: snd.Bar, Notes: []int{snd.Note}, Ends: []rational.Rat{snd.Onset.Add(snd.Duration)}})
		}
	}
	for i := range lines {
		l := &lines[i]
		for k := range l.Onset {
			o := &l.Onset[k]
			o.Outer = o.Notes[len(o.Notes)-1]
			if l.Hand == Left {
				o.Outer = o.Notes[0]
			}
		}
	}
	sort.SliceStable(lines, func(a, b int) bool {
		if lines[a].Part != lines[b].Part {
			return lines[a].Part < lines[b].Part
		}
		return lines[a].Staff < lines[b].Staff
	})
	return lines
}

// Plays says whether a part is the student's own: on a keyboard the parts on
// two staves where there are any, otherwise every part.
func Plays(s *score.Score, part int, keyboard bool) bool {
	if !keyboard || s.Parts[part].Staves >= 2 {
		return true
	}
	for _, p := range s.Parts {
		if p.Staves >= 2 {
			return false
		}
	}
	return true
}

func handOf(s *score.Score, part, staff int, keyboard bool) Hand {
	if !keyboard {
		return Whole
	}
	p := s.Parts[part]
	switch {
	case p.Staves >= 2 && staff == 1:
		return Right
	case p.Staves >= 2:
		return Left
	case len(p.Clefs) > 0 && p.Clefs[0].Sign == "F":
		return Left
	}
	return Right
}

package position

import (
	"patientladder/core/base/rational"
	"patientladder/core/notation/score"
	"patientladder/core/reading/reading"
)

// reach is how many white keys a hand covers from thumb to fifth finger, less one.
const reach = 4

// keyboard gives the grips of one hand on a keyboard. The hand lies on five
// neighbouring white keys or the black keys beside them, a finger to each step.
type keyboard struct {
	s    *score.Score
	l    reading.Line
	held [][]int // per onset: notes struck before that still sound
	left bool
	// scale holds the fingers of scale runs, by the index of the note.
	scale map[int]int
}

func newKeyboard(s *score.Score, l reading.Line) *keyboard {
	k := &keyboard{s: s, l: l, held: heldNotes(l), left: l.Hand == reading.Left}
	k.scale = k.runs()
	return k
}

// wanted is the finger that a note has: the printed one, or that of the scale of which it is a part; below 1 for none.
func (k *keyboard) wanted(note int) int {
	if f := Given(&k.s.Notes[note]); f >= 1 {
		return f
	}
	return k.scale[note]
}

// heldNotes finds, for each onset, the notes of the line that were struck before and still sound.
func heldNotes(l reading.Line) [][]int {
	type held struct {
		note int
		end  rational.Rat
	}
	out := make([][]int, len(l.Onset))
	var sounding []held
	for i, o := range l.Onset {
		kept := sounding[:0]
		for _, h := range sounding {
			if o.At.Less(h.end) {
				kept = append(kept, h)
				if len(out[i]) < 10 {
					out[i] = append(out[i], h.note)
				}
			}
		}
		sounding = kept
		for k, n := range o.Notes {
			sounding = append(sounding, held{n, o.Ends[k]})
		}
	}
	return out
}

// finger is the finger over a step when the hand lies at a place.
func (k *keyboard) finger(step, place int) int {
	if k.left {
		return 5 - (step - place)
	}
	return step - place + 1
}

// place is where the hand lies when a finger is over a step.
func (k *keyboard) place(step, finger int) int {
	if k.left {
		return step - (5 - finger)
	}
	return step - (finger - 1)
}

func (k *keyboard) grips(i int) []grip {
	notes := k.l.Onset[i].Notes
	low, high := 1<<20, -1<<20
	given, conflict := free, false
	note := func(n int, own bool) {
		step := k.s.Notes[n].Pitch.StaffStep()
		low, high = min(low, step), max(high, step)
		f := k.wanted(n)
		if !own || f < 1 {
			return
		}
		p := k.place(step, f)
		if given == free {
			given = p
		} else if given != p {
			conflict = true // an opened hand: its lowest finger decides
			if k.left {
				given = max(given, p)
			} else {
				given = min(given, p)
			}
		}
	}
	for _, n := range notes {
		note(n, true)
	}
	own := [2]int{low, high}
	for _, n := range k.held[i] {
		note(n, false)
	}
	if high-low > reach && own[1]-own[0] <= reach && high-low > 7 {
		low, high = own[0], own[1] // a held note beyond an octave is left to the pedal
	}
	var places []int
	stretch := conflict || high-low > reach
	switch {
	case given != free:
		places = []int{given}
		stretch = stretch || low < given || high > given+reach
	case stretch:
		places = []int{low, high - reach}
	default:
		for p := high - reach; p <= low; p++ {
			places = append(places, p)
		}
	}
	effort := 0
	if stretch {
		effort = 1
	}
	out := make([]grip, len(places))
	for j, p := range places {
		out[j] = grip{place: p, stretch: stretch, effort: effort, strange: k.strange(p, low, i), fingers: k.fingers(notes, p, low, high, stretch)}
	}
	return out
}

// strange is 0 for a position on the tonic, 1 for one on the lowest note, 2 for others.
func (k *keyboard) strange(place, low, i int) int {
	tonic := k.s.Bars[k.l.Onset[i].Bar-1].TonicStep()
	switch {
	case "CDEFGAB"[((place%7)+7)%7] == tonic:
		return 0
	case place == low:
		return 1
	}
	return 2
}

// fingers gives each note its finger: the one that is printed, the one that
// lies over it, or, in an opened hand, one between the outer fingers.
func (k *keyboard) fingers(notes []int, place, low, high int, stretch bool) []int {
	out := make([]int, len(notes))
	for i, n := range notes {
		step := k.s.Notes[n].Pitch.StaffStep()
		f := k.finger(step, place)
		if stretch {
			along := 4 * (step - low) // of the way from the lowest to the highest note, in fingers
			if high > low {
				along /= high - low
			}
			f = 1 + along
			if k.left {
				f = 5 - along
			}
		}
		if g := k.wanted(n); g >= 1 {
			f = g
		}
		out[i] = max(1, min(f, 5))
	}
	return out
}

// awkward is 0 for a shift at a rest, or where the thumb passes under or a
// finger over it; 1 for any other between single notes; 2 with chords.
func (k *keyboard) awkward(i int, before, now *grip) int {
	a, b := k.l.Onset[i-1], k.l.Onset[i]
	if atRest(a, b) {
		return 0
	}
	if len(a.Notes) != 1 || len(b.Notes) != 1 {
		return 2
	}
	if c := crossing(k.s.Notes[a.Notes[0]].MIDI, k.s.Notes[b.Notes[0]].MIDI, before.fingers[0], now.fingers[0], k.left); c != "" {
		return 0
	}
	return 1
}

// atRest says that the hand is free between two onsets.
func atRest(a, b reading.Onset) bool {
	for _, end := range a.Ends {
		if !end.Less(b.At) {
			return false
		}
	}
	return true
}

// crossing tells a thumb that passes under, or a finger that passes over it.
func crossing(from, to, before, now int, left bool) string {
	up := to > from
	switch {
	case to == from:
		return ""
	case up != left && now == 1 && before >= 2 && before <= 4:
		return "thumb under"
	case up == left && before == 1 && now >= 2 && now <= 4:
		return "over the thumb"
	}
	return ""
}

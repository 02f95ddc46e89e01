package exercise

import (
	"cmp"
	"slices"
	"strconv"

	"patientladder/core/library/instrument"
	"patientladder/core/notation/score"
	"patientladder/core/technique/bowed"
	"patientladder/core/technique/scale"
)

// ForBite finds the exercise by which a bite plants a skill before a piece needs it:
// the step of the first type that plants the skill (its steps are the bites of
// some types, its first step serves for others), in the key of the piece, and for
// a finger pattern on the string on which the piece needs it. Notes are those of the piece
// as they sound ("F#3"); bite counts from 1. ok is false where no exercise plants
// the skill.
func ForBite(x instrument.Instrument, skill string, bite int, notes []string) (Exercise, bool) {
	for _, t := range For(x) {
		if !slices.Contains(t.Plants, skill) {
			continue
		}
		e := Exercise{Type: t, Step: t.Steps[0], Instrument: x}
		if t.Bites {
			e.Step = t.Steps[max(0, min(bite, len(t.Steps))-1)]
		}
		if step, named := t.StepOf(t.BySkill[skill]); named {
			e.Step = step
		}
		if t.Fingers[skill] != 0 {
			return e.forFinger(t.Fingers[skill], notes)
		}
		places := Places(e)
		key := keyOf(notes)
		for _, p := range places {
			if p.Type.keyed() && p.Type.What == "" && p.Key == key {
				return p, true
			}
		}
		if t.What == "chords" {
			slices.SortStableFunc(places, func(a, b Exercise) int { return cmp.Compare(b.share(notes), a.share(notes)) })
		}
		if len(places) > 0 {
			return places[0], true
		}
	}
	return Exercise{}, false
}

// share says how well an exercise goes with the notes of a piece, 0 to 2: how many of its own
// notes are in the piece, and how many of the piece's are in it.
func (e Exercise) share(notes []string) float64 {
	b, err := e.Build()
	if err != nil || len(notes) == 0 {
		return 0
	}
	in, covered := 0, map[string]bool{}
	for _, n := range b.Notes {
		p := n.Pitch
		p.Octave -= e.Instrument.Octave
		if slices.Contains(notes, p.String()) {
			in++
			covered[p.String()] = true
		}
	}
	return float64(in)/float64(len(b.Notes)) + float64(len(covered))/float64(len(notes))
}

// forFinger finds the string on which the key of a piece has a finger (−1: an extended
// hand), the one with most of the piece's notes first.
func (e Exercise) forFinger(finger int, notes []string) (Exercise, bool) {
	e.Key, e.Kind = keyOf(notes), scale.Major
	list, err := bowed.Patterns(e.Instrument, e.Key, e.Kind)
	if err != nil {
		return e, false
	}
	used := map[int]int{}
	for _, name := range notes {
		if p, ok := score.ParsePitch(name); ok {
			for _, pattern := range list {
				if slices.ContainsFunc(pattern.Stops, func(s bowed.Stop) bool { return s.Pitch.Semitone() == p.Semitone() && e.asks(s, finger) }) {
					used[pattern.String]++
				}
			}
		}
	}
	// Where the piece's own notes do not show it, any string of the key will do.
	best, most := 0, -1
	for _, pattern := range list {
		has := slices.ContainsFunc(pattern.Stops, func(s bowed.Stop) bool { return e.asks(s, finger) })
		if has && pattern.Moves == 0 && used[pattern.String] > most {
			best, most = pattern.String, used[pattern.String]
		}
	}
	e.What = strconv.Itoa(best)
	return e, best > 0 && e.check() == nil
}

// highSecond stands for a second finger that lies a whole step from a first one in its usual place.
const highSecond = 12

// asks says that a stop asks for a finger of a type's table.
func (e Exercise) asks(s bowed.Stop, finger int) bool {
	switch finger {
	case -1:
		return s.Extended
	case 2:
		return s.Finger == 2 && !s.Extended && e.Instrument.LowSecond(s.Above, s.Place)
	case highSecond:
		return s.Finger == 2 && !e.Instrument.LowSecond(s.Above, s.Place)
	}
	return s.Finger == finger && !s.Extended
}

// keyOf is the major key with the fewest sharps or flats that has all the notes, or
// most of them.
func keyOf(notes []string) scale.Tonic {
	var in []score.Pitch
	for _, name := range notes {
		if p, ok := score.ParsePitch(name); ok {
			in = append(in, p)
		}
	}
	best, most := few[0], -1
	for _, key := range few {
		n := 0
		for _, p := range in {
			if score.KeyAlter(p.Step, key.Fifths(false)) == p.Alter {
				n++
			}
		}
		if n > most {
			best, most = key, n
		}
	}
	return best
}

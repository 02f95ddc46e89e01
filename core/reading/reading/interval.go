package reading

import (
	"strconv"

	"patientladder/core/notation/score"
)

// Interval is the distance between two written pitches, whatever its direction.
type Interval struct {
	// Number counts staff steps inclusively: 1 for a unison, 3 for a third.
	Number int `json:"number"`
	// Quality is "perfect", "major", "minor", "augmented" or "diminished"
	// (with "doubly " before it where the spelling asks for it).
	Quality string `json:"quality"`
	// Semitones is the sounding distance, never negative.
	Semitones int `json:"semitones"`
}

// Between returns the interval from one written pitch to another.
// The quality follows from the spelling: C–D# is an augmented second, C–Eb a
// minor third (standard theory of intervals).
func Between(a, b score.Pitch) Interval {
	steps, semis := b.StaffStep()-a.StaffStep(), b.Semitone()-a.Semitone()
	if steps < 0 || steps == 0 && semis < 0 {
		steps, semis = -steps, -semis
	}
	natural := 12*(steps/7) + [7]int{0, 2, 4, 5, 7, 9, 11}[steps%7]
	off := semis - natural
	perfect := steps%7 == 0 || steps%7 == 3 || steps%7 == 4
	sounding := semis
	if sounding < 0 {
		sounding = -sounding // a spelling such as B#–Cb falls while it rises on paper
	}
	return Interval{Number: steps + 1, Quality: quality(off, perfect), Semitones: sounding}
}

// quality names the distance in semitones from the perfect or major interval.
func quality(off int, perfect bool) string {
	if !perfect {
		switch {
		case off == 0:
			return "major"
		case off == -1:
			return "minor"
		case off < 0:
			off++
		}
	}
	switch {
	case off == 0:
		return "perfect"
	case off == 1:
		return "augmented"
	case off == -1:
		return "diminished"
	case off == 2:
		return "doubly augmented"
	case off == -2:
		return "doubly diminished"
	}
	return strconv.Itoa(off) + " semitones altered"
}

package exercise

import (
	"patientladder/core/base/rational"
	"patientladder/core/notation/score"
)

// sticking is how the hands share strokes, over and over.
type sticking struct {
	name, hands string
}

// stickings by their id, and the order in which they are learned (common practice: single strokes, double strokes, then both mixed).
var (
	stickings = map[string]sticking{
		"single": {"Single strokes", "RL"}, "double": {"Double strokes", "RRLL"}, "mixed": {"Single and double mixed", "RLRRLRLL"},
		"leftfirst": {"Single strokes, left hand first", "LR"},
	}
	stickingOrder = []string{"single", "leftfirst", "double", "mixed"}
)

// drum is where strokes are written: on the middle line.
var drum = score.Pitch{Step: 'B', Octave: 4}

// struck plays four bars of a sticking, so many strokes to a beat as the step says; where it asks for accents they fall on the beat.
func (e Exercise) struck() Built {
	b := Built{Beats: 4}
	perBeat := max(1, e.Step.PerBeat)
	hands := stickings[e.What].hands
	for i := range 4 * 4 * perBeat {
		b.Notes = append(b.Notes, Note{
			At: rational.New(int64(i), int64(perBeat)), Length: rational.New(1, int64(perBeat)), Pitch: drum,
			Stick:  hands[i%len(hands) : i%len(hands)+1],
			Accent: e.Step.Dynamics == "accents" && i%perBeat == 0,
		})
	}
	return b
}

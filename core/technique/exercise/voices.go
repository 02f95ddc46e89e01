package exercise

import (
	"patientladder/core/base/rational"
	"patientladder/core/technique/scale"
)

// sung is a note of a voice within five notes: its degree, 0 for a rest, and its length in quarter notes.
type sung struct {
	degree int
	length int64
}

// round is a tune of four bars within five notes that goes with itself a bar later, as it is and upside down. Ours.
var round = []sung{{1, 2}, {3, 2}, {5, 2}, {3, 2}, {3, 1}, {4, 1}, {5, 2}, {1, 1}, {2, 1}, {3, 2}}

// voices are what the right and the left hand play of two voices. Ours.
var voices = map[string]func() (right, left []sung){
	// A canon at the octave: the same tune a bar later.
	"round": func() (right, left []sung) {
		twice := append(append([]sung{}, round...), round...)
		return append(twice, sung{1, 4}, sung{1, 4}), append(append([]sung{{0, 4}}, twice...), sung{1, 4})
	},
	// A question and its answer, never at once.
	"answer": func() (right, left []sung) {
		asks := []sung{{1, 1}, {2, 1}, {3, 1}, {1, 1}, {5, 4}}
		answers := []sung{{5, 1}, {4, 1}, {3, 1}, {2, 1}, {1, 4}}
		back := []sung{{5, 1}, {3, 1}, {4, 1}, {2, 1}, {3, 4}}
		rest := []sung{{0, 8}}
		return chain(asks, rest, back, rest), chain(rest, answers, rest, answers)
	},
	// One voice is held while the other moves, then the other way round.
	"held": func() (right, left []sung) {
		held := []sung{{3, 4}, {5, 4}}
		moves := []sung{{1, 1}, {2, 1}, {3, 1}, {1, 1}, {3, 1}, {2, 1}, {1, 1}, {3, 1}}
		return chain(held, []sung{{5, 1}, {4, 1}, {3, 1}, {5, 1}, {3, 1}, {4, 1}, {5, 1}, {3, 1}}, []sung{{1, 4}}),
			chain(moves, []sung{{1, 4}, {1, 4}}, []sung{{1, 4}})
	},
	// The same tune a bar later, upside down.
	"mirror": func() (right, left []sung) {
		for _, n := range round {
			left = append(left, sung{6 - n.degree, n.length})
		}
		return chain(round, []sung{{1, 4}, {1, 4}}), chain([]sung{{0, 4}}, left, []sung{{1, 4}})
	},
}

func chain(lists ...[]sung) (out []sung) {
	for _, l := range lists {
		out = append(out, l...)
	}
	return out
}

// canon plays two voices, the right hand's and the left's an octave lower.
func (e Exercise) canon() (Built, error) {
	s, err := scale.Of(e.Key, e.Kind, 1)
	if err != nil {
		return Built{}, err
	}
	b := Built{Beats: 4}
	voice := func(which string, octave int, fingers []int, tune []sung) {
		at := rational.Rat{}
		for _, n := range tune {
			length := rational.Int(n.length)
			if n.degree > 0 {
				p := s.Up.Notes[n.degree-1]
				p.Octave += octave
				b.Notes = append(b.Notes, Note{At: at, Length: length, Pitch: p, Hand: which, Finger: fingers[n.degree-1]})
			}
			at = at.Add(length)
		}
	}
	right, left := voices[e.Step.Voices]()
	voice("right", 0, s.Up.Right, right)
	voice("left", -1, s.Up.Left, left)
	return b, nil
}

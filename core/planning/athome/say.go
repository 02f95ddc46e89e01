package athome

import (
	"slices"

	"patientladder/core/notation/engrave"
	"patientladder/core/planning/week"
	"patientladder/core/reading/analysis"
	"patientladder/core/reading/naming"
	"patientladder/core/reading/position"
	"patientladder/core/reading/reading"
)

type shift = position.Shift

// Say is one word that is said aloud: of a move its direction and kind, of a note its name or its finger, or a rest.
type Say struct {
	Direction reading.Direction
	Kind      reading.Kind
	Pitch     string
	Finger    int
	Rest      bool
	// Start says that it is the note with which a hand begins, where moves are said; Pitch and Finger are its.
	Start bool
}

// SayLine is what is said of one hand until the other one goes on.
type SayLine struct {
	Hand  reading.Hand
	Words []Say
}

// Sign is the direction of a line from one note to the next, over the later one.
type Sign struct {
	// At is when the later note sounds, in quarter notes from the start of the piece.
	At        float64
	Direction reading.Direction
	// Staff is the one on which it stands among those that are drawn, from 0.
	Staff int
}

// mostSaid is how many words a child says of one thing to do (default).
const mostSaid = 32

// note is one onset of a line that is said.
type note struct {
	line *analysis.Line
	reading.Onset
}

// sayOf is what is said aloud before it is played, by the way in which the student reads: hands that take turns in the order in which
// they play, hands that play at once one after the other. Each begins with its first note, and rests are said. It is nothing where
// a finger is to be said that nobody knows.
func sayOf(it week.Item, s Source, hands []Hand) (out []SayLine, more bool) {
	var notes []note
	all := lines(it, s.Piece)
	for _, h := range hands {
		for i := range all {
			if on := within(all[i], it); all[i].Hand == h.Hand && len(on) > 0 && on[0].At.Float() == h.At {
				for _, o := range on {
					notes = append(notes, note{&all[i], o})
				}
				break
			}
		}
	}
	if inTurn(hands, it, s.Piece) {
		slices.SortStableFunc(notes, func(a, b note) int { return a.At.Cmp(b.At) })
	}
	said := 0
	for i, n := range notes {
		if said >= mostSaid {
			return out, true
		}
		begins := i == 0 || notes[i-1].line != n.line
		if begins {
			out = append(out, SayLine{Hand: n.line.Hand})
		}
		words := &out[len(out)-1].Words
		if !begins && rests(notes[i-1], n) {
			*words = append(*words, Say{Rest: true, Finger: -1})
			said++
		}
		word, known := wordOf(n, begins, notes[max(0, i-1)], s)
		if !known {
			return nil, false
		}
		*words = append(*words, word)
		said++
	}
	return out, false
}

// wordOf is the word of a note by the one before it; begins says that its hand begins with it, or goes on after the other one.
func wordOf(n note, begins bool, before note, s Source) (word Say, known bool) {
	pitch, finger := s.Piece.Score.Notes[n.Outer].Pitch.String(), -1
	for _, f := range n.line.Position.Fingers {
		if f.Note == n.Outer {
			finger = f.Finger
		}
	}
	switch s.Approach {
	case naming.ByName:
		return Say{Pitch: pitch, Finger: -1}, true
	case naming.ByPosition:
		return Say{Finger: finger}, finger >= 0
	}
	start := Say{Start: true, Pitch: pitch, Finger: finger}
	if begins {
		return start, true
	}
	for _, m := range n.line.Moves {
		if m.From == before.Outer && m.To == n.Outer {
			word = Say{Direction: m.Direction, Finger: -1}
			if s.Approach == naming.ByInterval {
				word.Kind = m.Kind
			}
			return word, true
		}
	}
	return start, true // nobody says how it goes on from there
}

// rests says that a line is silent between two of its onsets.
func rests(a, b note) bool {
	end := a.At
	for _, e := range a.Ends {
		if end.Less(e) {
			end = e
		}
	}
	return end.Less(b.At)
}

// movesIn are the moves of a line between some of its onsets.
func movesIn(l analysis.Line, on []reading.Onset) (out []reading.Move) {
	in := map[int]bool{}
	for _, o := range on {
		in[o.Outer] = true
	}
	for _, m := range l.Moves {
		if in[m.From] && in[m.To] {
			out = append(out, m)
		}
	}
	return out
}

// signsOf are the directions of all lines of a thing to do. Of a piece for two hands all staves are drawn, of one hand its own.
func signsOf(it week.Item, p *analysis.Piece) (out []Sign) {
	all := engrave.Staves(p.Score)
	for _, l := range lines(it, p) {
		staff := 0
		if it.Hand == "" {
			staff = max(0, slices.Index(all, engrave.Staff{Part: l.Part, Number: l.Staff}))
		}
		for _, m := range movesIn(l, within(l, it)) {
			out = append(out, Sign{At: p.Score.Notes[m.To].Onset.Float(), Direction: m.Direction, Staff: staff})
		}
	}
	return out
}

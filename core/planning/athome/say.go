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

// Say is one word that is said aloud: of a move its direction and kind, of a note its name or its finger.
type Say struct {
	Direction reading.Direction
	Kind      reading.Kind
	Pitch     string
	Finger    int
}

// Sign is the direction of a line from one note to the next, over the later one.
type Sign struct {
	// At is when the later note sounds, in quarter notes from the start of the piece.
	At        float64
	Direction reading.Direction
	// Staff is the one on which it stands among those that are drawn, from 0.
	Staff int
}

// mostSaid is how many words a child says in one go (default).
const mostSaid = 8

// sayOf is what is said aloud before it is played, by the way in which the student reads: of the hand that begins.
func sayOf(it week.Item, s Source, hands []Hand) (out []Say, more bool) {
	if len(hands) == 0 {
		return nil, false
	}
	var line analysis.Line
	for _, l := range lines(it, s.Piece) {
		if l.Hand == hands[0].Hand {
			line = l
			break
		}
	}
	on := within(line, it)
	if len(on) == 0 {
		return nil, false
	}
	switch s.Approach {
	case naming.ByName:
		for _, o := range on {
			out = append(out, Say{Pitch: s.Piece.Score.Notes[o.Outer].Pitch.String(), Finger: -1})
		}
	case naming.ByPosition:
		fingers := map[int]int{}
		for _, f := range line.Position.Fingers {
			fingers[f.Note] = f.Finger
		}
		for _, o := range on {
			f, known := fingers[o.Outer]
			if !known || f < 0 {
				return nil, false
			}
			out = append(out, Say{Finger: f})
		}
	default:
		for _, m := range movesIn(line, on) {
			x := Say{Direction: m.Direction, Finger: -1}
			if s.Approach == naming.ByInterval {
				x.Kind = m.Kind
			}
			out = append(out, x)
		}
	}
	if len(out) > mostSaid {
		return out[:mostSaid], true
	}
	return out, false
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

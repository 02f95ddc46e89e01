package reading

import (
	"patientladder/core/notation/score"
)

// Direction is where the line goes from one onset to the next.
type Direction string

// The three directions, by sounding pitch.
const (
	Up   Direction = "up"
	Down Direction = "down"
	Same Direction = "same"
)

// Kind is the size of a move in the words of a first lesson.
type Kind string

// A step is a second, a skip a third, a leap a fourth or wider.
const (
	Stay Kind = "same"
	Step Kind = "step"
	Skip Kind = "skip"
	Leap Kind = "leap"
)

// Move is the way from one onset of a line to the next, read at its outer notes.
type Move struct {
	// From and To are indices into Score.Notes.
	From, To  int
	Bar       int // the bar of To
	Direction Direction
	Kind      Kind
	Interval  Interval
	// AfterRest says that the hand was silent in between, so the move is read, not felt.
	AfterRest bool
}

// Counts is how many moves of a line go up, down or stay, and how many are steps, skips and leaps; one
// that stays is none of these.
type Counts struct{ Up, Down, Same, Step, Skip, Leap int }

// CountOf counts moves.
func CountOf(moves []Move) (c Counts) {
	for _, m := range moves {
		switch m.Direction {
		case Up:
			c.Up++
		case Down:
			c.Down++
		default:
			c.Same++
		}
		switch m.Kind {
		case Step:
			c.Step++
		case Skip:
			c.Skip++
		case Leap:
			c.Leap++
		}
	}
	return c
}

// Moves returns the moves of a line in order; a line of n onsets has n−1.
func Moves(s *score.Score, l Line) []Move {
	if len(l.Onset) < 2 {
		return nil
	}
	moves := make([]Move, 0, len(l.Onset)-1)
	for i := 1; i < len(l.Onset); i++ {
		from, to := &s.Notes[l.Onset[i-1].Outer], &s.Notes[l.Onset[i].Outer]
		m := Move{From: l.Onset[i-1].Outer, To: l.Onset[i].Outer, Bar: l.Onset[i].Bar, Interval: Between(from.Pitch, to.Pitch)}
		m.AfterRest = from.End().Less(to.Onset) && !from.TieStart
		switch d := to.Pitch.Semitone() - from.Pitch.Semitone(); {
		case d > 0:
			m.Direction = Up
		case d < 0:
			m.Direction = Down
		default:
			m.Direction = Same
		}
		m.Kind = kindOf(m)
		moves = append(moves, m)
	}
	return moves
}

func kindOf(m Move) Kind {
	switch {
	case m.Direction == Same:
		return Stay
	case m.Interval.Number <= 2:
		return Step // a chromatic semitone (C–C#) is a step under the hand
	case m.Interval.Number == 3:
		return Skip
	}
	return Leap
}

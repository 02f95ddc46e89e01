package studentplan

import "patientladder/core/planning/ladder"

// FirstStep is one of the steps by which a studio begins.
type FirstStep string

// The steps in their order; each can be left out.
const (
	ChooseWay    FirstStep = "way"
	FirstStudent FirstStep = "student"
	FirstPieces  FirstStep = "pieces"
	EnterBefore  FirstStep = "known"
	FirstLesson  FirstStep = "lesson"
)

// First is a step with whether it is done. Ladder is the one on which it goes on; empty before the first student.
type First struct {
	Step   FirstStep
	Done   bool
	Ladder string
}

// MostBeginning is how many students a studio has that is still led (default).
const MostBeginning = 3

// FirstSteps are the steps of a studio that begins; nil once somebody had a lesson, or where there are more
// than three students. wayChosen says that the way of teaching was looked at and kept; placed are the rungs by ladder.
func FirstSteps(students []Student, wayChosen bool, placed map[string][]ladder.Placed) []First {
	if len(students) > MostBeginning {
		return nil
	}
	at, pieces, known := "", false, false
	for _, s := range students {
		if !s.Standing.LastLesson.IsZero() {
			return nil
		}
		if at == "" {
			at = s.Ladder
		}
		pieces = pieces || len(placed[s.Ladder]) > 0 || s.Standing.Begun()
		known = known || s.Standing.Entries > 0
	}
	return []First{
		{ChooseWay, wayChosen, at}, {FirstStudent, at != "", at}, {FirstPieces, pieces, at}, {EnterBefore, known, at}, {FirstLesson, false, at},
	}
}

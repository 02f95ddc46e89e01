package brief

import (
	"patientladder/core/base/civil"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/studentplan"
)

// FirstStep is one of the steps by which a studio begins.
type FirstStep string

// The steps in their order; each can be left out.
const (
	ChooseWay    FirstStep = "way"
	FirstStudent FirstStep = "student"
	FirstPieces  FirstStep = "pieces"
	EnterBefore  FirstStep = "known"
	FirstLesson  FirstStep = "lesson"
	FirstWeek    FirstStep = "week"
)

// First is a step with whether it is done. Ladder is the one on which it goes on; empty before the first student.
type First struct {
	Step   FirstStep
	Done   bool
	Ladder string
}

// MostBeginning is how many students a studio has that is still led (default).
const MostBeginning = 3

// ledDays is for how long after the first lesson the last step is still shown (default): who sets no weeks is not led for ever.
const ledDays = 28

// Beginner is who begins: whether students can be added, whether the way of teaching is one's own to choose (not a
// colleague's who joins a studio), whether it was looked at and kept, and whether a week was published.
type Beginner struct{ Adds, ChoosesWay, WayChosen, Published bool }

// FirstSteps are the steps of a studio, or of somebody in it, that begins; nil once somebody had a lesson and a week was
// published, where there are more than three students, and for who adds none. placed are the rungs by ladder.
func FirstSteps(students []studentplan.Student, who Beginner, placed map[string][]ladder.Placed) []First {
	if len(students) > MostBeginning || !who.Adds {
		return nil
	}
	at, pieces, known, taught := "", false, false, ""
	for _, s := range students {
		if !s.Standing.LastLesson.IsZero() {
			if who.Published || civil.Between(s.Local(s.Standing.FirstLesson), s.Today) > ledDays {
				return nil
			}
			if taught == "" {
				taught = s.Ladder
			}
		}
		if at == "" {
			at = s.Ladder
		}
		pieces = pieces || len(placed[s.Ladder]) > 0 || s.Standing.Begun()
		known = known || s.Standing.Entries > 0
	}
	var out []First
	if who.ChoosesWay {
		out = append(out, First{ChooseWay, who.WayChosen, at})
	}
	return append(out, []First{
		{FirstStudent, at != "", at}, {FirstPieces, pieces, at}, {EnterBefore, known, at}, {FirstLesson, taught != "", at},
		{FirstWeek, false, taught},
	}...)
}

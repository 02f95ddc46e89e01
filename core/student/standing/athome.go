package standing

import (
	"patientladder/core/base/civil"
	"patientladder/core/student/memory"
	"patientladder/core/student/studentlog"
)

// homeHolds is to how many times of what a lesson left a memory can grow at home (default): whoever ticks everything has
// the piece asked for a little later, and never for good.
const homeHolds = 4

// playedAtHome lets a learned piece age from the day on which it was played as a whole at home. That is weaker than a
// teacher's ear: the memory goes part of the way that a hearing would take it (Policy.AtHome), and no day at home makes a
// piece fall apart.
func (f *fold) playedAtHome(e *studentlog.Entry) {
	id, day, whole := e.WholeAtHome()
	if !whole || f.ctx.Policy.AtHome <= 0 || f.works[id] == nil {
		return
	}
	w, on := f.works[id], f.day(e.At)
	if !day.IsZero() {
		on = min(on, civil.On(day))
	}
	w.AtHomeOn = max(w.AtHomeOn, on)
	if w.State != Cleared && w.State != Polished || !w.Memory.Heard() {
		return
	}
	switch {
	case on == w.homeOn && w.HeardOn == on: // another answer for the day: the last one holds
	case on <= w.HeardOn:
		return
	default:
		w.homeOn, w.beforeHome = on, remembered{w.Memory, w.HeardOn}
	}
	rating := memory.Solid
	if e.Felt == studentlog.Hard {
		rating = memory.Shaky
	}
	was := w.beforeHome
	heard := f.curve.Next(was.State, int(on-was.on), rating)
	part := func(was, heard float64) float64 { return was + f.ctx.Policy.AtHome*(heard-was) }
	w.Memory = memory.State{
		Stability:  min(part(was.Stability, heard.Stability), max(was.Stability, homeHolds*w.lessons.Stability)),
		Difficulty: part(was.Difficulty, heard.Difficulty),
	}
	w.HeardOn = on
}

// heard lets a piece be heard as a whole in a lesson. What was played at home between two hearings never takes away from what
// the hearings alone would have left: a memory that was fresh gains little by being asked for.
func (w *work) heard(on civil.Day, r memory.Rating, c memory.Curve) {
	was := w.lessons
	same := was.State == w.Memory && was.on == w.HeardOn
	w.hear(on, r, c)
	w.homeOn = noDay
	if same {
		w.lessons = remembered{w.Memory, on}
		return
	}
	w.lessons = remembered{c.Next(was.State, int(on-was.on), r), on}
	if w.lessons.Stability > w.Memory.Stability {
		w.Memory = w.lessons.State
	}
}

// Package inlesson makes the plan of one student's lesson: what could be in it, what holds of a kept plan, and what has to wait. The
// rules of choosing are those of core/planning/lessonplan.
package inlesson

import (
	"slices"
	"time"

	"patientladder/core/planning/fromhome"
	"patientladder/core/planning/intechnique"
	"patientladder/core/planning/lessonplan"
	"patientladder/core/planning/planting"
	"patientladder/core/planning/proposing"
	"patientladder/core/planning/signs"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/standing"
	"patientladder/core/technique/drill"
	"patientladder/core/technique/exercise"
)

// beginnerPieces is for how many cleared pieces posture is looked at in every lesson (default).
const beginnerPieces = 12

// Lesson is what the plan of a lesson is made from.
type Lesson struct {
	Day        time.Time
	Candidates []lessonplan.Segment
	Limits     lessonplan.Limits
	// Beside are pieces that could be begun beside those in work, where the lesson would else stay a third empty.
	Beside []lessonplan.Segment
	// Key is the key of the week that is not begun yet, and SlidesTo the lesson to which it slides when it finds no
	// room; nil and zero for none.
	Key      *exercise.Exercise
	SlidesTo time.Time
}

// Of collects what could be in the lesson of a day. Waited are the segments, by id, that had to wait last time; home is what
// home showed of the week before it.
func Of(a *studentplan.StudentOutlook, day time.Time, waited []string, home []fromhome.Thing) Lesson {
	in := lessonplan.Input{
		Age: a.Age(day), Minutes: a.LessonMinutes(day), Instrument: a.Instrument, Gap: a.Gap(day), UsualGap: a.Timetable().UsualGap(day),
		Pool: a.GamePool(), Used: a.Standing.Activities, Waited: map[string]bool{},
		SetupDue: a.AsksToMeasure(), Beginner: len(a.Standing.In(standing.Cleared, standing.Polished)) < beginnerPieces,
		Fresh: proposing.Fresh(*a), Reviews: a.ForLesson(), Home: heardAtHome(a.Student, home),
	}
	for _, id := range waited {
		in.Waited[id] = true
	}
	stuck := map[string]bool{}
	for _, s := range a.Due(a.Today) {
		if s.Kind == signs.Stuck {
			stuck[s.Material] = true
		}
	}
	for _, id := range a.In(standing.Working) {
		in.Pieces = append(in.Pieces, pieceInLesson(a, id, stuck[id]))
	}
	for _, b := range planting.Bites(a) {
		in.Bites = append(in.Bites, lessonplan.Bite{Skill: b.Skill, Step: b.Step, For: b.For, Slack: b.Slack})
	}
	out := Lesson{Day: day, Limits: lessonplan.LimitsFor(in.Age, in.Minutes, a.Policy.ReviewShare)}
	in.Teach, out.Key, out.SlidesTo = toTeach(a, day)
	in.Stair = stairDue(a, day, in.Age)
	in.Fault = a.Watched().InLesson()
	out.Candidates = lessonplan.Candidates(in)
	for _, f := range proposing.Beside(*a) {
		out.Beside = append(out.Beside, lessonplan.BesideOthers(f))
	}
	return out
}

// Plan solves the lesson with what was set by hand. A lesson that would stay a third empty takes up a piece beside
// those in work, where one is ready.
func (l Lesson) Plan(h lessonplan.Hand) (lessonplan.Plan, error) {
	list := l.Candidates
	if slices.ContainsFunc(l.Beside, func(s lessonplan.Segment) bool { _, pinned := h.Pins[s.ID]; return pinned }) {
		list = append(slices.Clip(list), l.Beside...)
	}
	p, err := lessonplan.Make(list, l.Limits, h)
	if err != nil || len(list) > len(l.Candidates) || len(l.Beside) == 0 || 3*p.Free < p.Minutes {
		return p, err
	}
	return lessonplan.Make(append(slices.Clip(list), l.Beside...), l.Limits, h)
}

// KeptPlan is the plan of a lesson as it was kept; Kept is false for none.
type KeptPlan struct {
	Kept bool
	Plan lessonplan.Plan
	Hand lessonplan.Hand
}

// LivePlan is the plan that holds for a lesson.
type LivePlan struct {
	Plan lessonplan.Plan
	// Hand is what was set by hand and still holds.
	Hand lessonplan.Hand
	// Changes is how it would be planned by now, where somebody set something by hand and it would be planned
	// otherwise.
	Changes []lessonplan.Change
}

// Live says which plan holds. One that the lesson has begun with stays as it is, and so does that of a lesson that
// is over. Before, a plan that nobody touched is solved again at once; one that somebody touched stays, and says what
// has changed since.
func (l Lesson) Live(kept KeptPlan, today time.Time) (LivePlan, error) {
	if kept.Kept && (kept.Plan.Begun || l.Day.Before(today)) {
		return LivePlan{Plan: kept.Plan, Hand: kept.Hand}, nil
	}
	out := LivePlan{Hand: kept.Hand.Without(l.Candidates, l.Beside)}
	fresh, err := l.Plan(out.Hand)
	switch {
	case !kept.Kept || kept.Hand.Untouched():
		out.Plan = fresh
		return out, err
	case err != nil: // what was pinned does not fit any more: the teacher decides
		out.Plan = kept.Plan
		return out, nil
	}
	out.Plan, out.Changes = kept.Plan, lessonplan.Differences(kept.Plan, fresh)
	if len(out.Changes) == 0 {
		out.Plan = fresh
	}
	return out, nil
}

// KeyPostponed says that a plan has no room for the key of the week: it comes to SlidesTo.
func (l Lesson) KeyPostponed(p lessonplan.Plan) bool {
	return l.Key != nil && !slices.ContainsFunc(p.Segments, func(c lessonplan.Chosen) bool { return c.Exercise == l.Key.ID() })
}

// toTeach are the exercises that are due in a lesson and not begun: the key of the week, else the next step of a
// staircase on which the student stands, where no exercise is in work. Key is the first of them if it is that of the cycle.
func toTeach(a *studentplan.StudentOutlook, day time.Time) (out []lessonplan.Teach, key *exercise.Exercise, slides time.Time) {
	stairs, cycle, _ := intechnique.Stairs(a)
	add := func(e exercise.Exercise, isKey bool) {
		out = append(out, lessonplan.Teach{Exercise: e.ID(), Material: drill.ID(e), Key: isKey, Goals: a.Exercises.Of(e).Step.Goals})
	}
	if cycle != nil {
		if w, ok := cycle.On(day); ok && w.State != intechnique.KeyThrough && w.State != intechnique.KeyBegun && !a.Begun(drill.ID(w.Exercise)) {
			add(w.Exercise, true)
			key, slides = &w.Exercise, slidesTo(a, day)
		}
	}
	if len(out) > 0 || slices.ContainsFunc(a.Standing.In(standing.Working), func(id string) bool { return a.Library[id].Exercise != "" }) ||
		len(intechnique.ExercisesAhead(a)) > 0 {
		return out, key, slides
	}
	begun := func(st exercise.Stair) bool {
		return slices.ContainsFunc(st.Steps, func(s exercise.StairStep) bool { return len(s.Cleared) > 0 })
	}
	stairs = slices.DeleteFunc(slices.Clone(stairs), func(st exercise.Stair) bool { return !begun(st) })
	if next := intechnique.ProposedExercises(a, stairs); len(next) > 0 {
		add(next[0].Exercise, false)
	}
	return out, key, slides
}

// slidesTo is the lesson after that of a day.
func slidesTo(a *studentplan.StudentOutlook, day time.Time) time.Time {
	for n := 0; ; n++ {
		if next := a.Lessons.Day(n); next.After(day) {
			return next
		}
	}
}

func pieceInLesson(a *studentplan.StudentOutlook, id string, stuck bool) lessonplan.Piece {
	ms := a.Standing.Materials[id]
	return lessonplan.Piece{
		Material: a.Library[id], RunDue: ms.RunDue, Stuck: stuck, Full: ms.Full, Points: ms.Points, Spots: ms.OpenSpots(),
		Focus: append(a.OpenPoints(id), a.OpenOwnPoints(id)...),
	}
}

// heardAtHome is what a lesson asks about of what home showed, by material; nothing where the studio does not let it count.
func heardAtHome(s studentplan.Student, things []fromhome.Thing) map[string]lessonplan.AtHome {
	out := map[string]lessonplan.AtHome{}
	if !s.Policy.HomeCounts {
		return out
	}
	touched := map[string]bool{}
	for _, x := range fromhome.Narrowed(things) {
		id := x.Item.Material
		touched[id] = touched[id] || x.Done > 0
		h := out[id]
		switch x.Outcome {
		case fromhome.Hard, fromhome.Short:
			h.Hard = append(h.Hard, lessonplan.Stretch{From: x.Item.Bars.From, To: x.Item.Bars.To})
		case fromhome.Left:
			h.Left = true
		}
		out[id] = h
	}
	for id, h := range out {
		h.Left = h.Left && !touched[id]
		out[id] = h
	}
	return out
}

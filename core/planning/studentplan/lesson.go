package studentplan

import (
	"slices"
	"time"

	"patientladder/core/library/material"
	"patientladder/core/planning/fromhome"
	"patientladder/core/planning/lessonplan"
	"patientladder/core/planning/signs"
	"patientladder/core/student/leap"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
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

// Lesson collects what could be in the lesson of a day. Waited are the segments, by id, that had to wait last time; home is what
// home showed of the week before it.
func (a *StudentOutlook) Lesson(day time.Time, waited []string, home []fromhome.Thing) Lesson {
	in := lessonplan.Input{
		Age: a.Age(day), Minutes: a.LessonMinutes(day), Instrument: a.Instrument, Gap: a.Gap(day), UsualGap: a.Timetable().UsualGap(day),
		Pool: a.pool(), Used: a.Standing.Activities, Waited: map[string]bool{},
		SetupDue: a.AsksToMeasure(), Beginner: len(a.Standing.In(standing.Cleared, standing.Polished)) < beginnerPieces,
		Fresh: a.Fresh(), Reviews: a.ForLesson(), Home: a.heardAtHome(home),
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
		in.Pieces = append(in.Pieces, a.pieceInLesson(id, stuck[id]))
	}
	for _, b := range a.Bites() {
		in.Bites = append(in.Bites, lessonplan.Bite{Skill: b.Skill, Step: b.Step, For: b.For, Slack: b.Slack})
	}
	out := Lesson{Day: day, Limits: lessonplan.LimitsFor(in.Age, in.Minutes, a.Policy.ReviewShare)}
	in.Teach, out.Key, out.SlidesTo = a.toTeach(day)
	in.Stair = a.stairDue(day, in.Age)
	in.Fault = a.Watched().inLesson()
	out.Candidates = lessonplan.Candidates(in)
	for _, f := range a.Beside() {
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
func (a *StudentOutlook) toTeach(day time.Time) (out []lessonplan.Teach, key *exercise.Exercise, slides time.Time) {
	stairs, cycle, _ := a.Stairs()
	add := func(e exercise.Exercise, isKey bool) {
		out = append(out, lessonplan.Teach{Exercise: e.ID(), Material: drill.ID(e), Key: isKey, Goals: a.Exercises.Of(e).Step.Goals})
	}
	if cycle != nil {
		if w, ok := cycle.On(day); ok && w.State != KeyThrough && w.State != KeyBegun && !a.Begun(drill.ID(w.Exercise)) {
			add(w.Exercise, true)
			key, slides = &w.Exercise, a.slidesTo(day)
		}
	}
	if len(out) > 0 || slices.ContainsFunc(a.Standing.In(standing.Working), func(id string) bool { return a.Library[id].Exercise != "" }) ||
		len(a.ExercisesAhead()) > 0 {
		return out, key, slides
	}
	begun := func(st exercise.Stair) bool {
		return slices.ContainsFunc(st.Steps, func(s exercise.StairStep) bool { return len(s.Cleared) > 0 })
	}
	stairs = slices.DeleteFunc(slices.Clone(stairs), func(st exercise.Stair) bool { return !begun(st) })
	if next := a.ProposedExercises(stairs); len(next) > 0 {
		add(next[0].Exercise, false)
	}
	return out, key, slides
}

// slidesTo is the lesson after that of a day.
func (a *StudentOutlook) slidesTo(day time.Time) time.Time {
	for n := 0; ; n++ {
		if next := a.Lessons.Day(n); next.After(day) {
			return next
		}
	}
}

func (a *StudentOutlook) pieceInLesson(id string, stuck bool) lessonplan.Piece {
	ms := a.Standing.Materials[id]
	return lessonplan.Piece{
		Material: a.Library[id], RunDue: ms.RunDue, Stuck: stuck, Full: ms.Full, Points: ms.Points, Spots: ms.OpenSpots(),
		Focus: append(a.openPoints(id), a.openOwnPoints(id)...),
	}
}

// pointsOn are the focus points of a piece, for all students and for this one alone.
func (s Student) pointsOn(id string) []material.FocusPoint {
	points := slices.Clip(s.Library[id].FocusPoints)
	if m := s.Standing.Materials[id]; m != nil {
		points = append(points, m.Own...)
	}
	return points
}

// openPoints are the focus points of a piece that have no full mark, in the teacher's words.
func (s Student) openPoints(id string) (out []string) {
	for _, f := range s.pointsOn(id) {
		if s.Standing.Materials[id].Marks[f.ID] != studentlog.Full {
			out = append(out, f.Text)
		}
	}
	return out
}

// openOwnPoints are the student's own points that travel and have no full mark on a piece.
func (s Student) openOwnPoints(id string) (out []string) {
	for _, f := range s.Standing.Travelling() {
		if s.Standing.Materials[id].Marks[f.ID] != studentlog.Full {
			out = append(out, f.Text)
		}
	}
	return out
}

// LessonPieces are the pieces that a lesson shows: those in work, and those cleared today.
func (s Student) LessonPieces() (out []string) {
	for _, id := range s.In(standing.Working, standing.Cleared, standing.Polished) {
		ms := s.Standing.Materials[id]
		if ms.State == standing.Working || s.Local(ms.ClearedAt).Equal(s.Today) {
			out = append(out, id)
		}
	}
	return out
}

// NewSkills are the skills that are new or half planted for the student in a material.
func (s Student) NewSkills(id string) (out []string) {
	for _, part := range s.Policy.Standing.Leap.Of(s.Library[id], s.Standing.Ability).Parts {
		if part.Level == leap.New || part.Level == leap.Planted {
			out = append(out, part.Skill)
		}
	}
	return out
}

// Point is a focus point of a piece in the lesson.
type Point struct {
	ID, Text string
	// Own says that it is the student's own, Streak in how many materials in a row it got its full mark.
	Own    bool
	Streak int
}

// PointsOf are the focus points of a piece, then those of the student. One that is a habit no
// longer travels, but a mark given on this piece stays to be seen.
func (s Student) PointsOf(id string) (out []Point) {
	for _, f := range s.pointsOn(id) {
		out = append(out, Point{ID: f.ID, Text: f.Text})
	}
	for _, f := range s.Standing.Focus {
		if _, marked := s.Standing.Materials[id].Marks[f.ID]; !f.Habit || marked {
			out = append(out, Point{ID: f.ID, Text: f.Text, Own: true, Streak: f.Streak})
		}
	}
	return out
}

// HasPoint says that a mark could be given for a focus point of a piece: one of its own, one of the
// student's, or a usual fault of the exercise that it is.
func (s Student) HasPoint(id, focus string) bool {
	has := func(id string) bool { return id == focus }
	for _, f := range s.pointsOn(id) {
		if has(f.ID) {
			return true
		}
	}
	if x, err := s.Exercises.Parse(s.Library[id].Exercise, s.OnInstrument()); err == nil {
		for _, f := range x.Type.Faults {
			if has(material.Fault + f.ID) {
				return true
			}
		}
	}
	return slices.ContainsFunc(s.Standing.Focus, func(f standing.FocusStanding) bool { return has(f.ID) })
}

// heardAtHome is what a lesson asks about of what home showed, by material; nothing where the studio does not let it count.
func (s Student) heardAtHome(things []fromhome.Thing) map[string]lessonplan.AtHome {
	out := map[string]lessonplan.AtHome{}
	if !s.Policy.HomeCounts {
		return out
	}
	touched := map[string]bool{}
	for _, x := range things {
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

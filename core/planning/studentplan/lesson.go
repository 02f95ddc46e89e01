package studentplan

import (
	"slices"
	"time"

	"patientladder/core/library/material"
	"patientladder/core/planning/lessonplan"
	"patientladder/core/planning/signs"
	"patientladder/core/student/leap"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
	"patientladder/core/technique/exercise"
)

// beginnerPieces is for how many cleared pieces posture is looked at in every lesson (default).
const beginnerPieces = 12

// Lesson is what the plan of a lesson is made from.
type Lesson struct {
	Day        time.Time
	Candidates []lessonplan.Segment
	Limits     lessonplan.Limits
}

// Lesson collects what could be in the lesson of a day. Waited are the segments, by id, that had to wait last time.
func (a *Ahead) Lesson(day time.Time, waited []string) Lesson {
	in := lessonplan.Input{
		Age: a.Age(day), Instrument: a.Instrument, Gap: a.Gap(day), Used: a.Standing.Activities, Waited: map[string]bool{},
		SetupDue: a.SetupDue(), Beginner: len(a.Standing.In(standing.Cleared, standing.Polished)) < beginnerPieces,
		Fresh: a.Fresh(), Reviews: a.ForLesson(),
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
	return Lesson{Day: day, Candidates: lessonplan.Candidates(in), Limits: lessonplan.LimitsFor(in.Age, a.LessonMinutes(day), a.Policy.ReviewShare)}
}

// Plan solves the lesson with what was set by hand.
func (l Lesson) Plan(h lessonplan.Hand) (lessonplan.Plan, error) {
	return lessonplan.Make(l.Candidates, l.Limits, h)
}

func (a *Ahead) pieceInLesson(id string, stuck bool) lessonplan.Piece {
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

// InHand are the pieces that a lesson shows: those in work, and those cleared today.
func (s Student) InHand() (out []string) {
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
	if x, err := exercise.Parse(s.Library[id].Exercise, s.Player()); err == nil {
		for _, f := range x.Type.Faults {
			if has(material.Fault + f.ID) {
				return true
			}
		}
	}
	return slices.ContainsFunc(s.Standing.Focus, func(f standing.FocusStanding) bool { return has(f.ID) })
}

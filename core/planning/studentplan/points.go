package studentplan

import (
	"slices"

	"patientladder/core/library/material"
	"patientladder/core/student/leap"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
)

// pointsOn are the focus points of a piece, for all students and for this one alone.
func (s Student) pointsOn(id string) []material.FocusPoint {
	points := slices.Clip(s.Library[id].FocusPoints)
	if m := s.Standing.Materials[id]; m != nil {
		points = append(points, m.Own...)
	}
	return points
}

// OpenPoints are the focus points of a piece that have no full mark, in the teacher's words.
func (s Student) OpenPoints(id string) (out []string) {
	for _, f := range s.pointsOn(id) {
		if s.Standing.Materials[id].Marks[f.ID] != studentlog.Full {
			out = append(out, f.Text)
		}
	}
	return out
}

// OpenOwnPoints are the student's own points that travel and have no full mark on a piece.
func (s Student) OpenOwnPoints(id string) (out []string) {
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

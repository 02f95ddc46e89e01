package inlesson

import (
	"time"

	"patientladder/core/planning/lessonplan"
	"patientladder/core/planning/meeting"
	"patientladder/core/planning/studentplan"
)

// EarAndRhythm are the student's places on the two staircases that live in two minutes of a lesson, as they stand on a day.
// A line whose goals the studio does not use is left out.
func EarAndRhythm(s studentplan.Student, day time.Time) (out []meeting.Place) {
	for _, line := range meeting.Lines() {
		p := s.Meetings.On(line, s.Age(day), s.Standing.Met, day, s.Local)
		off := false
		for _, id := range p.Goals() {
			g, known := s.Pool.Get(id)
			off = off || known && g.Off
		}
		if !off && len(p.Stairs) > 0 {
			out = append(out, p)
		}
	}
	return out
}

// EarClimbed are the stairs of ear and rhythm that were climbed from one day to another.
func EarClimbed(s studentplan.Student, first, last time.Time) (out []meeting.Climbed) {
	for _, line := range meeting.Lines() {
		out = append(out, s.Meetings.Climbed(line, s.Age(last), s.Standing.Met, first, last, s.Local)...)
	}
	return out
}

// stairDue is the step that a lesson has room for; nil for none, and for the very young, whose lessons are made of games.
func stairDue(a *studentplan.StudentOutlook, day time.Time, age int) *lessonplan.Stair {
	if lessonplan.VeryYoung(age) {
		return nil
	}
	places := EarAndRhythm(a.Student, day)
	p, any := meeting.DueLine(places)
	if !any {
		return nil
	}
	out := &lessonplan.Stair{Line: string(p.Line), Stair: p.Stairs[p.At].ID, At: p.At + 1, Of: len(p.Stairs)}
	for _, x := range places {
		out.Goals = append(out.Goals, x.Goals()...)
	}
	return out
}

// Climbed is the place on a staircase that a segment of a lesson is about, as it stands today; false for another segment.
func Climbed(s studentplan.Student, x lessonplan.Segment) (meeting.Place, bool) {
	if x.Kind != lessonplan.Climb {
		return meeting.Place{}, false
	}
	for _, p := range EarAndRhythm(s, s.Today) {
		if x.ID == lessonplan.StairID(string(p.Line)) && !p.All() {
			return p, true
		}
	}
	return meeting.Place{}, false
}

package studentplan

import (
	"time"

	"patientladder/core/base/calendar"
	"patientladder/core/base/civil"
	"patientladder/core/planning/forecast"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/outlook"
)

// Horizon is what the outlooks of a studio share.
type Horizon struct {
	Model *forecast.Model
}

// Options say how far and from where an outlook looks. The zero value looks along the
// whole ladder, from outside today's lesson.
type Options struct {
	// Given are the holidays, by id, in which there are lessons all the same.
	Given []string
	// Near looks only as far ahead as previews do.
	Near bool
	// InLesson looks from within today's lesson; otherwise one that was given
	// today is over, and the next is a week away.
	InLesson bool
}

// StudentOutlook is a student with what lies ahead.
type StudentOutlook struct {
	Student
	outlook.Outlook
	Horizon
	// Lessons are those from the next one on.
	Lessons *calendar.Lessons
	// Placed are the rungs in the teacher's order.
	Placed []ladder.Placed
}

// Ahead makes the outlook of a student with the rungs in some order.
func (s Student) Ahead(h Horizon, placed []ladder.Placed, o Options) StudentOutlook {
	a := StudentOutlook{Student: s, Horizon: h, Placed: placed}
	table := s.Timetable(o.Given...)
	from := s.Today
	if s.GivenToday() && !o.InLesson {
		from = from.AddDate(0, 0, 1)
	}
	a.Lessons = table.From(from)
	a.Outlook = outlook.Of(outlook.Input{
		Student: s.Ladder, Standing: s.Standing, Library: s.Library, Placed: placed, Skills: s.Skills, Leap: s.Policy.Standing.Leap,
		Preview: s.Policy.Preview, Model: h.Model, Lessons: a.Lessons, PerWeek: table.PerWeek(from), Breaks: table.Breaks(), Day: s.Today,
		Near: o.Near, ReadingFrom: s.ReadingFrom(a.Lessons),
	})
	if !a.Lessons.Any() {
		a.Outlook = a.Outlook.Undated()
	}
	a.hideEarlyForecasts()
	return a
}

// ReadingFrom is the lesson, from 0 for the next one, in which the reading strand may begin.
func (s Student) ReadingFrom(lessons *calendar.Lessons) int {
	if s.Standing.FirstLesson.IsZero() {
		return s.Policy.ReadingAfter
	}
	return lessons.Until(s.ReadingBegins().AddDate(0, 0, -1))
}

// ReadingBegins is the day from which on the reading strand may begin.
func (s Student) ReadingBegins() time.Time {
	first := s.Standing.FirstLesson
	if first.IsZero() {
		first = s.Today
	}
	return s.Local(first).AddDate(0, 0, 7*s.Policy.ReadingAfter)
}

// BySound says that the student does not read yet: reading begins later by the way of teaching, and no reading
// stage was begun.
func (s Student) BySound() bool { return s.Standing.ByEar }

// farthest is how many weeks ahead a date is said (default): beyond, three more pieces would make it look silly.
const farthest = 78

// Foreseen are the rungs, by material, of which it is said when they begin and are cleared: not where it is too early to
// say, nor what comes after such a one on its strand, nor what lies too far ahead.
func (a StudentOutlook) Foreseen() map[string]bool {
	out := map[string]bool{}
	for _, rail := range a.View.Rails {
		for _, r := range rail.Rungs {
			w, on := a.When[r.Material.ID]
			if r.Layer == ladder.Review || r.Aside != "" || !on {
				continue
			}
			if _, _, high := a.Days(w.Clear); a.Early(r) || civil.Between(a.Today, high) > 7*farthest {
				break
			}
			out[r.Material.ID] = true
		}
	}
	return out
}

// knownEnough is how many cleared pieces of a student let a guess about an unknown piece be said (default).
const knownEnough = 5

// Early says that it is too early to say how long a rung takes.
func (a StudentOutlook) Early(r ladder.Rung) bool {
	weeks := a.Model.Weeks(a.Ladder, r.Leap.Size, r.Material.DistinctBars)
	return weeks.Early() || r.Leap.Unknown && weeks.Own < knownEnough
}

// hideEarlyForecasts takes back what is usual for a piece of which it is too early to say how long it takes: nothing is long there yet.
func (a StudentOutlook) hideEarlyForecasts() {
	for _, rail := range a.View.Rails {
		for _, r := range rail.Rungs {
			if w, on := a.When[r.Material.ID]; on && r.Layer == ladder.Now && a.Early(r) {
				w.Usual, w.Long = 0, false
				a.When[r.Material.ID] = w
			}
		}
	}
}

// Gap is the number of days from a lesson to the one after it.
func (a StudentOutlook) Gap(day time.Time) int {
	for n := 0; ; n++ {
		if next := a.Lessons.Day(n); next.After(day) {
			return civil.Between(day, next)
		}
	}
}

// Days turns a range of lessons into the days of the lessons.
func (a *StudentOutlook) Days(s forecast.Span) (low, median, high time.Time) {
	return a.Lessons.Day(s.Low), a.Lessons.Day(s.Median), a.Lessons.Day(s.High)
}

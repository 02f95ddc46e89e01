// Package withfamily answers what a family sees, says and is told: the day at home and the way so far, ticks and notes, practice against
// enjoyment, reminders and treats. It shows of a child no more than a family needs.
package withfamily

import (
	"slices"
	"time"

	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
	"patientladder/core/student/standing"
)

// PathStep is one material on the way so far.
type PathStep struct {
	Material string
	// Learned is the day on which it was cleared; zero for a piece in work.
	Learned time.Time
	// Full of Points focus points have their mark.
	Full, Points int
}

// Path is the way so far: what was cleared, in its order, then what is being learned.
func Path(s studentplan.Student) []PathStep {
	var out []PathStep
	learned := s.Standing.In(standing.Cleared, standing.Polished)
	slices.SortStableFunc(learned, func(a, b string) int {
		return s.Standing.Materials[a].ClearedAt.Compare(s.Standing.Materials[b].ClearedAt)
	})
	for _, id := range learned {
		out = append(out, PathStep{Material: id, Learned: s.Local(s.Standing.Materials[id].ClearedAt)})
	}
	for _, id := range s.In(standing.Working) {
		ms := s.Standing.Materials[id]
		out = append(out, PathStep{Material: id, Full: ms.Full, Points: ms.Points})
	}
	return out
}

// DayAtHome is what a family has before it on a day.
type DayAtHome string

// The kinds of days.
const (
	NothingSet DayAtHome = "nothing" // no week was published
	Practice   DayAtHome = "practice"
	Rest       DayAtHome = "rest"
	LessonDay  DayAtHome = "lesson" // practice rests, for the lesson is today
	LiesAhead  DayAtHome = "ahead"  // the week begins later
	Over       DayAtHome = "over"   // the week is over
)

// AtHome is the day of a family.
type AtHome struct {
	Kind DayAtHome
	// Things to do on a day of practice, and about how long they take.
	Things  int
	Minutes float64
	// Left of the things are not ticked, and take about so many minutes.
	Left        int
	LeftMinutes float64
	// Begins is the first day of a week that lies ahead, NextLesson the day of the next lesson, zero where none is in sight.
	Begins, NextLesson time.Time
}

// AtHomeOf says what a family has before it today, with a published week; nil for none.
func AtHomeOf(s studentplan.Student, start time.Time, published *week.Plan) AtHome {
	out := AtHome{Begins: start}
	out.NextLesson, _ = s.NextLessonDay(s.Today)
	if published == nil {
		out.Kind = NothingSet
		return out
	}
	for _, d := range published.Days {
		switch {
		case !d.Date.Equal(s.Today):
		case !d.Rest && len(d.Items) > 0:
			out.Kind, out.Things, out.Minutes = Practice, len(d.Items), d.Minutes
			for _, it := range d.Items {
				if !ticked(s, d.Date, it) {
					out.Left, out.LeftMinutes = out.Left+1, out.LeftMinutes+it.Minutes
				}
			}
			return out
		case out.NextLesson.Equal(s.Today):
			out.Kind = LessonDay
			return out
		default:
			out.Kind = Rest
			return out
		}
	}
	out.Kind = Over
	if start.After(s.Today) {
		out.Kind = LiesAhead
	}
	return out
}

// ticked says that the family reported a thing on its day.
func ticked(s studentplan.Student, day time.Time, it week.Item) bool {
	return slices.ContainsFunc(s.Standing.Home, func(r standing.Report) bool {
		return r.FromHome && r.Item == it.Key && r.Day == day.Format(time.DateOnly)
	})
}

// Current is the place of the published week that holds a day, else of the last one that began, else of
// the first; starts are in order.
func Current(starts []time.Time, day time.Time) int {
	at := 0
	for i, start := range starts {
		if !start.After(day) {
			at = i
		}
	}
	return at
}

// Readable are the published weeks that a family can read on a day: the one that holds it, and those to come, which it may
// look at as soon as they are published; starts are in order.
func Readable(starts []time.Time, day time.Time) []time.Time {
	if len(starts) == 0 {
		return nil
	}
	return starts[Current(starts, day):]
}

// Tune is what can be heard on a day of rest: a learned piece of the week, else one that is only listened to, never an
// exercise; ok is false where there is none.
func Tune(s studentplan.Student, p week.Plan) (it week.Item, ok bool) {
	for _, kind := range []week.Kind{week.Review, week.Listen} {
		for _, d := range p.Days {
			for _, it := range d.Items {
				if m := s.Library[it.Material]; it.Kind == kind && m.HasScore && m.Exercise == "" {
					return it, true
				}
			}
		}
	}
	return week.Item{}, false
}

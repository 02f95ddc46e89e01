package lookback

import (
	"cmp"
	"slices"
	"strings"
	"time"

	"patientladder/core/base/calendar"
	"patientladder/core/base/civil"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
)

// Became says what became of a lesson of the calendar.
type Became string

// What became of a lesson.
const (
	ToCome      Became = "ahead"      // it is still to come, or goes on
	Taught      Became = "taught"     // something of it was entered
	NotEntered  Became = "notEntered" // it took place by the calendar, and nothing was entered
	WasMissed   Became = "missed"     // it was entered that it did not take place
	WasCanceled Became = "cancelled"
	OnlyPlanned Became = "planned" // no lesson: something was arranged on this day
	Forgotten   Became = ""        // it was too long ago, or before the student was entered here: nobody asks
)

// BecameOf says what became of a lesson.
func BecameOf(s studentplan.Student, l calendar.Lesson) Became {
	over := l.Day.Before(s.Today) || l.Day.Equal(s.Today) && minuteNow(s.Studio) >= l.Ends()
	switch {
	case l.State == calendar.Cancelled:
		return WasCanceled
	case entered(s, l) && (over || s.GivenToday()):
		return Taught
	case slices.Contains(s.Standing.Missed, l.Day.Format(time.DateOnly)):
		return WasMissed
	case !over:
		return ToCome
	case !l.Held() || civil.Between(l.Day, s.Today) > standing.HomeDays || before(s.Studio, l, s.Profile.Added) || neverEntered(s):
		return Forgotten
	}
	return NotEntered
}

// entered says that something of a lesson was entered: on its day, and what is only arranged not before it began.
func entered(s studentplan.Student, l calendar.Lesson) bool {
	if _, given := slices.BinarySearch(s.Standing.Given, civil.On(l.Day)); given {
		return true
	}
	return slices.ContainsFunc(s.Standing.Planned, func(at time.Time) bool { return began(s.Studio, l, at) })
}

// began says that a lesson had begun by a moment of its day.
func began(s studentplan.Studio, l calendar.Lesson, at time.Time) bool {
	return s.Local(at).Equal(l.Day) && !at.Before(civil.At(l.Day, l.StartsAt, s.Zone))
}

// ofLesson says that an entry tells of a lesson: it was heard or done in one, or arranged once one of its day had begun. Of
// the time before the student was entered here, and before the first lesson time, nobody knows the lessons: there it counts.
func ofLesson(s studentplan.Student, e *studentlog.Entry) bool {
	if !e.InLesson() || !e.Plans() {
		return e.InLesson()
	}
	day, table := s.Local(e.At), s.Timetable()
	if day.Before(table.Begin()) && (s.Profile.Added.After(s.Now) || day.Before(s.Local(s.Profile.Added))) {
		return true
	}
	return slices.ContainsFunc(table.On(day), func(l calendar.Lesson) bool { return l.Held() && began(s.Studio, l, e.At) })
}

// LessonDays are the days of lessons of which something was entered, in order; live is the log as it counts.
func LessonDays(s studentplan.Student, live []*studentlog.Entry) (out []time.Time) {
	for _, e := range live {
		if d := s.Local(e.At); (len(out) == 0 || !out[len(out)-1].Equal(d)) && ofLesson(s, e) {
			out = append(out, d)
		}
	}
	slices.SortFunc(out, time.Time.Compare)
	return slices.Compact(out)
}

// newFor is for how many days a student is a new one of whom the first lesson may have been forgotten (default).
const newFor = 28

// neverEntered says that nothing was entered of the student's lessons for weeks, although the student is no new one: then they
// are not entered here, and nobody asks for each of them.
func neverEntered(s studentplan.Student) bool {
	if len(s.Standing.Given)+len(s.Standing.Planned) > 0 {
		return false
	}
	return s.Profile.Added.IsZero() || s.Profile.Added.After(s.Now) || civil.Between(s.Local(s.Profile.Added), s.Today) > newFor
}

// before says that a lesson was over by a moment that has come.
func before(s studentplan.Studio, l calendar.Lesson, at time.Time) bool {
	return !at.After(s.Now) && !civil.At(l.Day, l.Ends(), s.Zone).After(at)
}

// LessonOn is the lesson of a day: one that takes place before one that does not; ok is false where there is none.
func LessonOn(s studentplan.Student, day time.Time) (out calendar.Lesson, ok bool) {
	for _, l := range s.Timetable().On(day) {
		if !ok || l.Held() && !out.Held() {
			out, ok = l, true
		}
	}
	return out, ok
}

// minuteNow is the time of day in the studio, in minutes after midnight.
func minuteNow(s studentplan.Studio) int {
	now := s.Now.In(s.Zone)
	return 60*now.Hour() + now.Minute()
}

// Unentered is a lesson of which nothing was entered.
type Unentered struct {
	Student studentplan.Student
	Lesson  calendar.Lesson
}

// AllUnentered are the lessons of some students before today that took place by the calendar, and of which nothing was
// entered, the oldest first. Today's are open on the page of the day.
func AllUnentered(students []studentplan.Student) (out []Unentered) {
	for _, s := range students {
		for _, l := range s.Timetable().Held(s.Today.AddDate(0, 0, -standing.HomeDays), s.Today.AddDate(0, 0, -1)) {
			if BecameOf(s, l) == NotEntered {
				out = append(out, Unentered{s, l})
			}
		}
	}
	slices.SortStableFunc(out, func(a, b Unentered) int {
		return cmp.Or(a.Lesson.Day.Compare(b.Lesson.Day), a.Lesson.StartsAt-b.Lesson.StartsAt, strings.Compare(a.Student.Name, b.Student.Name))
	})
	return out
}

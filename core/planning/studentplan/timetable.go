package studentplan

import (
	"time"

	"patientladder/core/base/calendar"
	"patientladder/core/base/civil"
	"patientladder/core/planning/week"
)

// Timetable is when the lessons of a student are, with the holidays but for those, by id, in which there
// are lessons all the same, and without any once the student has left.
func (s Student) Timetable(given ...string) calendar.Timetable {
	t := s.Profile.Lessons.Ended(s.Profile.Until)
	t.Holidays = calendar.Breaks(s.Holidays, s.Profile.Student, given)
	return t
}

// Paused says that lessons rest on a day.
func (p Profile) Paused(day time.Time) bool { return calendar.InBreak(day, p.Lessons.Pauses) }

// Gone says that the student has left, or stopped the instrument, by a day.
func (p Profile) Gone(day time.Time) bool { return !p.Until.IsZero() && !day.Before(p.Until) }

// usualMinutes is how long a lesson lasts where none is in sight (default).
const usualMinutes = 30

// LessonMinutes is how long the lesson of a day lasts, else the usual one.
func (s Student) LessonMinutes(day time.Time) int {
	for _, l := range s.Timetable().On(day) {
		if l.Held() {
			return l.Minutes
		}
	}
	if slot, ok := s.Profile.Lessons.Usual(day); ok {
		return slot.Minutes
	}
	return usualMinutes
}

// HasLesson says that a lesson takes place on a day.
func (s Student) HasLesson(day time.Time) bool { return len(s.Timetable().Held(day, day)) > 0 }

// LastLessonDay is the day of the last lesson that took place on a day or before it; ok is false before the first.
func (s Student) LastLessonDay(day time.Time) (time.Time, bool) {
	l, ok := s.Timetable().Last(day)
	return l.Day, ok
}

// NextLessonDay is the day of the first lesson on a day or after it; ok is false where none is in sight.
func (s Student) NextLessonDay(day time.Time) (time.Time, bool) {
	l, ok := s.Timetable().Next(day)
	return l.Day, ok
}

// WeekStart is the first day of the week that is practised now: the day after the latest lesson. Before the first lesson
// weeks follow each other from the day after the first meeting, else from the day on which the student was entered here:
// none begins before there was anything to practise.
func (s Student) WeekStart(today time.Time) time.Time {
	if last, ok := s.LastLessonDay(today); ok {
		return last.AddDate(0, 0, 1)
	}
	from := today
	switch met := s.Standing.FirstLesson; {
	case !met.IsZero() && !s.Local(met).After(today):
		from = s.Local(met).AddDate(0, 0, 1)
	case !s.Profile.Added.IsZero() && !s.Local(s.Profile.Added).After(today):
		from = s.Local(s.Profile.Added)
	}
	if from.After(today) {
		return from
	}
	return today.AddDate(0, 0, -civil.Between(from, today)%week.Days)
}

// WeekDays is how many days a week of practice that begins on a day has: after a lesson, up to the next one,
// that day included. Where the next lesson falls out it goes on, at most so long. One that begins on another
// day has seven, and so has one after which no lesson is in sight. Before the first lesson it ends with that one.
func (s Student) WeekDays(start time.Time) int {
	next, ok := s.NextLessonDay(start)
	if !ok {
		return week.Days
	}
	if !s.HasLesson(start.AddDate(0, 0, -1)) {
		if _, before := s.LastLessonDay(start); before {
			return week.Days
		}
		return max(1, min(civil.Between(start, next)+1, week.Days))
	}
	return max(1, min(civil.Between(start, next)+1, week.MostDays))
}

// IsOver says that a week of practice has passed.
func (s Student) IsOver(start, today time.Time) bool {
	return start.AddDate(0, 0, s.WeekDays(start)).Before(today)
}

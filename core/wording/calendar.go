package wording

import (
	"errors"
	"fmt"
	"strings"
	"time"

	"patientladder/core/base/calendar"
	"patientladder/core/library/material"
	"patientladder/core/planning/agenda"
	"patientladder/core/planning/withfamily"
	"patientladder/core/reading/section"
	"patientladder/core/student/person"
)

// Clock writes a time of day in minutes after midnight as 15:30.
func Clock(minutes int) string { return fmt.Sprintf("%02d:%02d", minutes/60, minutes%60) }

// WeekdayAndDay writes "Monday, 4 May".
func WeekdayAndDay(t time.Time) string { return t.Format("Monday, 2 January") }

// shortDay writes "Mon 4 May".
func shortDay(t time.Time) string { return t.Format("Mon 2 Jan") }

// Slot says when the lessons of a slot are: "Mondays 15:30, 30 min, every second week".
func Slot(s calendar.Slot) string {
	out := fmt.Sprintf("%ss %s, %d min", s.Weekday, Clock(s.StartsAt), s.Minutes)
	if s.Every == 2 {
		out += ", every second week"
	}
	return out
}

// SlotSpan says when the lessons of a slot are and for how long it holds.
func SlotSpan(s calendar.Slot, today time.Time) string {
	out := Slot(s)
	if s.From.After(today) {
		out += ", from " + DayAndYear(s.From)
	}
	if !s.Until.IsZero() {
		out += ", until " + DayAndYear(s.Until)
	}
	return out
}

// Slots says when the lessons of a student are on a day: those of the slots in use, else those to come.
func Slots(t calendar.Timetable, today time.Time) string {
	var now, later []string
	for _, s := range t.Slots {
		switch {
		case s.Holds(today):
			now = append(now, Slot(s))
		case s.From.After(today):
			later = append(later, SlotSpan(s, today))
		}
	}
	switch {
	case len(now) > 0:
		return strings.Join(now, " and ")
	case len(later) > 0:
		return strings.Join(later, " and ")
	}
	return "No lesson time yet"
}

// LessonDate says what is special about a dated lesson; empty for nothing.
func LessonDate(l agenda.Lesson) string {
	var out []string
	switch l.State {
	case calendar.Moved:
		out = append(out, "Moved from "+shortDay(l.Due))
	case calendar.Added:
		if l.MakesUp == "" {
			out = append(out, "Extra lesson")
		} else if due, ok := calendar.DueOf(l.MakesUp); ok {
			out = append(out, "Makes up for "+shortDay(due))
		}
	case calendar.Cancelled:
		switch {
		case l.By == calendar.ByTeacher:
			out = append(out, "Cancelled by you")
		case l.Late:
			out = append(out, "Cancelled late")
		default:
			out = append(out, "Cancelled in time")
		}
		if l.ToMakeUp {
			out = append(out, "to be made up")
		}
	case calendar.OnBreak:
		out = append(out, "No lesson: holiday or pause")
	}
	if len(l.Clashes) > 0 {
		out = append(out, "at the same time as "+List(l.Clashes))
	}
	return Capital(strings.Join(out, ", "))
}

// MovedAway says where a lesson went that was due on a day.
func MovedAway(l agenda.Lesson) string {
	return fmt.Sprintf("Moved to %s, %s", shortDay(l.Day), Clock(l.StartsAt))
}

// Agenda says what is special about some days.
func Agenda(days []agenda.Day, toMakeUp int, today time.Time) string {
	held, clashes, cancelled := 0, 0, 0
	for _, d := range days {
		held += d.Held()
		for _, l := range d.Lessons {
			if len(l.Clashes) > 0 {
				clashes++
			}
			if l.State == calendar.Cancelled && !d.Day.Before(today) {
				cancelled++
			}
		}
	}
	parts := []string{Capital(Counted(held, "lesson"))}
	if clashes > 0 {
		parts = append(parts, Numbered(clashes)+" at the same time as another")
	}
	if cancelled > 0 {
		parts = append(parts, Numbered(cancelled)+" cancelled")
	}
	if toMakeUp > 0 {
		parts = append(parts, Numbered(toMakeUp)+" to make up")
	}
	return strings.Join(parts, "; ") + "."
}

// FreeTime writes "Tue 5 May, 15:30".
func FreeTime(t calendar.Time) string { return shortDay(t.Day) + ", " + Clock(t.StartsAt) }

// Pause says a pause: "from 4 May to 17 May 2026", "since 4 May 2026, until further notice".
func Pause(first, last, today time.Time) string {
	switch {
	case !last.IsZero():
		return fmt.Sprintf("No lessons from %s to %s", DayAndYear(first), DayAndYear(last))
	case first.After(today):
		return fmt.Sprintf("No lessons from %s until further notice", DayAndYear(first))
	}
	return fmt.Sprintf("No lessons since %s, until further notice", DayAndYear(first))
}

// NotDone says why something cannot be done with a lesson or a student; empty for an error of another kind.
func NotDone(err error) string {
	for _, c := range []struct {
		is   error
		says string
	}{
		{person.ErrNoName, "The student needs a name."},
		{person.ErrBornAhead, "The birthday lies in the future. Check the year."},
		{person.ErrBornLong, "The birthday is more than 120 years ago. Check the year."},
		{person.ErrSince, "The first day in the studio lies before the birthday. Check both."},
		{person.ErrPauseEnds, "The pause ends before it begins. Check both days."},
		{person.ErrPauseLong, "The pause begins too far from today. Check the year."},
		{person.ErrLeavesLate, "That day is too far from today. Check the year."},
		{section.ErrSectionBars, "The bars of a section are not in the piece, or overlap with another section. Check the first and last bars."},
		{section.ErrSectionOfPart, "A section cannot be split again. Join the sections first, then split the whole piece."},
		{section.ErrSplitTwice, "The piece is split already. Join its sections first."},
		{section.ErrNotSplit, "The piece is not split."},
		{material.ErrMergeSelf, "A piece cannot be merged with itself."},
		{material.ErrMergeSplit, "A piece that is split into sections cannot be merged. Join its sections first."},
		{withfamily.ErrTreatWords, "Say what the treat is."},
		{withfamily.ErrTreatFor, "Say for which piece the treat is, or for how many more."},
		{calendar.ErrNoLesson, "This lesson does not exist any more. Look at the calendar again."},
		{calendar.ErrPast, "That day is over. Choose today or a later day; what happened is entered in the lesson itself."},
		{calendar.ErrMinutes, fmt.Sprintf("A lesson lasts %d to %d minutes.", calendar.ShortestLesson, calendar.LongestLesson)},
		{calendar.ErrTime, "The lesson would go past midnight. Choose an earlier time."},
		{calendar.ErrEvery, "Lessons are every week or every second week."},
		{calendar.ErrBackwards, "The last day lies before the first."},
		{calendar.ErrGiven, "This lesson is over. It cannot be moved; correct what happened in the lesson itself."},
		{calendar.ErrOverlap, "Two of the lesson times overlap. Change one of them."},
		{calendar.ErrMadeUp, "That lesson was not cancelled, or another stands for it already."},
		{calendar.ErrUnnamed, "The holiday needs a name."},
		{calendar.ErrLong, "A holiday is at most a year long."},
		{calendar.ErrFar, "That is too far away. Move it by less than the time to the next lesson, or change the lesson times."},
	} {
		if errors.Is(err, c.is) {
			return c.says
		}
	}
	return ""
}

// HolidayNotDone says why a holiday is none; empty for an error of another kind.
func HolidayNotDone(h calendar.Holiday, err error) string {
	if errors.Is(err, calendar.ErrReversed) {
		return fmt.Sprintf("The holiday ends on %s, before it begins on %s.", DayAndYear(h.Last), DayAndYear(h.First))
	}
	return NotDone(err)
}

// HolidaysFound says what came of a file of holidays.
func HolidaysFound(taken, skipped int, try bool) string {
	verb := "added"
	if try {
		verb = "to add"
	}
	out := Capital(Counted(taken, "holiday")) + " " + verb
	if skipped > 0 {
		out += fmt.Sprintf("; %s not taken", Counted(skipped, "event"))
	}
	return out + "."
}

// Taught is an instrument with its lesson times in words.
type Taught struct{ Instrument, Lessons string }

// Person says of a student in one sentence what is learned when, or that lessons rest or have ended.
func Person(first string, taught []Taught, left, today time.Time, paused bool) string {
	switch {
	case !left.IsZero() && !left.After(today):
		return fmt.Sprintf("%s left on %s. Everything is kept.", first, DayAndYear(left))
	case len(taught) == 0:
		return first + " has no lessons now."
	}
	var parts []string
	for _, t := range taught {
		parts = append(parts, t.Instrument+", "+t.Lessons)
	}
	out := Capital(strings.Join(parts, "; ")) + "."
	if paused {
		out = "Lessons are paused. " + out
	}
	if !left.IsZero() {
		out += fmt.Sprintf(" Leaves on %s.", DayAndYear(left))
	}
	return out
}

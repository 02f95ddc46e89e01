// Package agenda lays the lessons of a whole studio over its days: who comes when, what is special about a
// lesson, which holidays there are, which lessons are at one time, which are still to be made up, and which
// times are free.
package agenda

import (
	"cmp"
	"slices"
	"strings"
	"time"

	"patientladder/core/base/calendar"
	"patientladder/core/base/civil"
)

// Pupil is one student on one instrument.
type Pupil struct {
	Ladder, Student, Name, Instrument string
	// Lessons has the holidays in it, and ends where the student left or stopped.
	Lessons calendar.Timetable
	// Gone says that the student has left or stopped by today, and is owed nothing.
	Gone bool
}

// Lesson is a dated lesson of a pupil.
type Lesson struct {
	Pupil
	calendar.Lesson
	// Clashes are the names of those who have a lesson at the same time.
	Clashes []string
	// ToMakeUp says that it was cancelled and could be made up.
	ToMakeUp bool
}

// Day is a day of the studio.
type Day struct {
	Day time.Time
	// Holidays are the names of those of the whole studio.
	Holidays []string
	// Lessons are those that are on the day, by time; those that fall out as well.
	Lessons []Lesson
	// Away are those that were due on the day and were moved to another.
	Away []Lesson
}

// Cancelled are the lessons of the day that were cancelled.
func (d Day) Cancelled() (out []Lesson) {
	for _, l := range d.Lessons {
		if l.State == calendar.Cancelled {
			out = append(out, l)
		}
	}
	return out
}

// Held counts the lessons of the day that take place.
func (d Day) Held() (n int) {
	for _, l := range d.Lessons {
		if l.Held() {
			n++
		}
	}
	return n
}

// Build lays the lessons over the days from one to another, both included.
func Build(pupils []Pupil, holidays []calendar.Holiday, from, to time.Time) []Day {
	var out []Day
	for day := from; !day.After(to); day = day.AddDate(0, 0, 1) {
		d := Day{Day: day}
		for _, h := range holidays {
			if h.Student == "" && !day.Before(h.First) && !day.After(h.Last) {
				d.Holidays = append(d.Holidays, h.Name)
			}
		}
		out = append(out, d)
	}
	at := func(day time.Time) *Day {
		if i := civil.Between(from, day); i >= 0 && i < len(out) {
			return &out[i]
		}
		return nil
	}
	for _, p := range pupils {
		toMakeUp := ids(p.Lessons.ToMakeUp(from, to))
		for _, l := range p.Lessons.Between(from, to) {
			x := Lesson{Pupil: p, Lesson: l, ToMakeUp: slices.Contains(toMakeUp, l.ID)}
			if d := at(l.Day); d != nil {
				d.Lessons = append(d.Lessons, x)
			}
			if d := at(l.Due); d != nil && !l.Due.IsZero() && !l.Due.Equal(l.Day) {
				d.Away = append(d.Away, x)
			}
		}
	}
	for i := range out {
		slices.SortFunc(out[i].Lessons, byTime)
		slices.SortFunc(out[i].Away, byTime)
		point(out[i].Lessons)
	}
	return out
}

func ids(lessons []calendar.Lesson) (out []string) {
	for _, l := range lessons {
		out = append(out, l.ID)
	}
	return out
}

func byTime(a, b Lesson) int {
	return cmp.Or(a.StartsAt-b.StartsAt, strings.Compare(a.Name, b.Name), strings.Compare(a.Pupil.Ladder, b.Pupil.Ladder))
}

// point points out the lessons of a day that are at one time.
func point(lessons []Lesson) {
	var busy []calendar.Busy
	var of []int
	for i, l := range lessons {
		if l.Held() {
			busy = append(busy, calendar.Busy{Day: l.Day, Starts: l.StartsAt, Ends: l.Ends()})
			of = append(of, i)
		}
	}
	for i, clash := range calendar.Clashes(busy) {
		for _, j := range clash {
			lessons[of[i]].Clashes = append(lessons[of[i]].Clashes, lessons[of[j]].Name)
		}
	}
}

// madeUpWithin is for how many weeks a cancelled lesson is offered to be made up (default): about a term.
const madeUpWithin = 12

// ToMakeUp are the cancelled lessons of the last weeks, and those ahead, for which none stands yet, the oldest first.
func ToMakeUp(pupils []Pupil, today time.Time) (out []Lesson) {
	from, to := today.AddDate(0, 0, -7*madeUpWithin), today.AddDate(0, 0, 7*madeUpWithin)
	for _, p := range pupils {
		if p.Gone {
			continue
		}
		for _, l := range p.Lessons.ToMakeUp(from, to) {
			out = append(out, Lesson{Pupil: p, Lesson: l, ToMakeUp: true})
		}
	}
	slices.SortStableFunc(out, func(a, b Lesson) int { return cmp.Or(a.Day.Compare(b.Day), byTime(a, b)) })
	return out
}

// How far around a day free times are looked for, in days, and how many are named (default).
const (
	freeBefore, freeAfter = 7, 14
	mostFree              = 8
)

// Free are times that are free for a lesson, those near a day first; none before today.
func Free(pupils []Pupil, holidays []calendar.Holiday, student string, minutes int, near, today time.Time) []calendar.Time {
	from, to := near.AddDate(0, 0, -freeBefore), near.AddDate(0, 0, freeAfter)
	if !from.After(today) {
		from = today.AddDate(0, 0, 1)
	}
	var busy, taken []calendar.Busy
	for _, p := range pupils {
		for _, l := range p.Lessons.Held(from.AddDate(0, 0, -28), to) {
			busy = append(busy, calendar.Busy{Day: l.Day, Starts: l.StartsAt, Ends: l.Ends()})
		}
		if p.Student != student {
			continue
		}
		// When a lesson of the student's own was cancelled the student cannot come, or the teacher cannot.
		for _, l := range p.Lessons.Between(from, to) {
			if l.State == calendar.Cancelled {
				taken = append(taken, calendar.Busy{Day: l.Day, Starts: l.StartsAt, Ends: l.Ends()})
			}
		}
	}
	free := calendar.Free(busy, calendar.Breaks(holidays, student, nil), minutes, from, to, near, mostFree+len(taken))
	free = slices.DeleteFunc(free, func(t calendar.Time) bool {
		return slices.ContainsFunc(taken, func(b calendar.Busy) bool {
			return b.Day.Equal(t.Day) && t.StartsAt < b.Ends && b.Starts < t.StartsAt+t.Minutes
		})
	})
	return free[:min(len(free), mostFree)]
}

package calendar

import (
	"errors"
	"fmt"
	"slices"
	"time"

	"patientladder/core/base/civil"
)

// What cannot be done with a lesson; core/wording says each in a sentence.
var (
	ErrNoLesson  = errors.New("there is no such lesson")
	ErrPast      = errors.New("that time is over")
	ErrMinutes   = errors.New("a lesson lasts 5 to 240 minutes")
	ErrTime      = errors.New("the lesson would not begin and end on that day")
	ErrEvery     = errors.New("lessons are every week or every second week")
	ErrBackwards = errors.New("the last day lies before the first")
	ErrGiven     = errors.New("the lesson was given already")
	ErrOverlap   = errors.New("two of the times overlap")
	ErrMadeUp    = errors.New("the lesson was not cancelled, or is made up for already")
	ErrUnnamed   = errors.New("the holiday has no name")
	ErrReversed  = errors.New("the holiday ends before it begins")
	ErrLong      = errors.New("the holiday is longer than a year")
	ErrFar       = errors.New("that is too far ahead")
)

// Bounds of a lesson in minutes, and how far ahead one may be moved in days.
const (
	ShortestLesson = 5
	LongestLesson  = 240
	FarAhead       = 3 * 366
)

// Time is when a lesson is.
type Time struct {
	Day               time.Time
	StartsAt, Minutes int
}

// Check says what cannot be about a time of day and a length.
func (t Time) Check() error {
	switch {
	case t.Minutes < ShortestLesson || t.Minutes > LongestLesson:
		return ErrMinutes
	case t.StartsAt < 0 || t.StartsAt+t.Minutes > 24*60:
		return ErrTime
	}
	return nil
}

// on checks a time to which a lesson is to be put on a day.
func (t Time) on(today time.Time) error {
	switch {
	case t.Day.Before(today):
		return ErrPast
	case civil.Between(today, t.Day) > FarAhead:
		return ErrFar
	}
	return t.Check()
}

// Move puts one lesson at another time. A cancelled one takes place again then.
func (t Timetable) Move(id string, to Time, today time.Time) (Timetable, error) {
	l, ok := t.Find(id)
	if !ok {
		return t, ErrNoLesson
	}
	if err := to.on(today); err != nil {
		return t, err
	}
	if l.Day.Before(today) && l.Held() {
		return t, ErrGiven
	}
	c := Change{Lesson: id, Kind: Move, Day: to.Day, StartsAt: to.StartsAt, Minutes: to.Minutes}
	if l.Due.IsZero() {
		c.Kind, c.MakesUp = Extra, l.MakesUp
	}
	return t.with(c), nil
}

// RescheduleSeries puts a lesson and all that come after it in its slot at another time of the week. The lessons
// before it stay, and so does what was done with single ones of them.
func (t Timetable) RescheduleSeries(id string, to Time, today time.Time, slot string) (Timetable, error) {
	old, due, ok := parse(id)
	at := slices.IndexFunc(t.Slots, func(s Slot) bool { return s.ID == old })
	if !ok || at < 0 || !t.Slots[at].makes(due) {
		return t, ErrNoLesson
	}
	if err := to.on(today); err != nil {
		return t, err
	}
	if due.Before(today) {
		return t, ErrPast
	}
	s := t.Slots[at]
	if gap := civil.Between(due, to.Day); gap <= -s.every() || gap >= s.every() {
		return t, ErrFar // two lessons would change places
	}
	next := Slot{ID: slot, Weekday: to.Day.Weekday(), StartsAt: to.StartsAt, Minutes: to.Minutes, Every: s.Every, From: to.Day, Until: s.Until}
	return t.replaced(at, due, next), nil
}

// replaced ends a slot before a lesson of it, and lets another follow.
func (t Timetable) replaced(at int, due time.Time, next ...Slot) Timetable {
	s := t.Slots[at]
	out := t
	out.Slots = slices.Clone(t.Slots)
	out.Changes = slices.DeleteFunc(slices.Clone(t.Changes), func(c Change) bool {
		slot, day, ok := parse(c.Lesson)
		return ok && slot == s.ID && !day.Before(due)
	})
	if s.Until = due.AddDate(0, 0, -1); s.Until.Before(s.first()) {
		out.Slots = slices.Delete(out.Slots, at, at+1) // it never made a lesson
	} else {
		out.Slots[at] = s
	}
	out.Slots = append(out.Slots, next...)
	return out
}

// SetSlots lets other slots hold from a day on; those before end there. Lessons that were moved or
// cancelled before that day stay as they are.
func (t Timetable) SetSlots(from time.Time, slots []Slot) (Timetable, error) {
	for i, s := range slots {
		if err := (Time{StartsAt: s.StartsAt, Minutes: s.Minutes}).Check(); err != nil {
			return t, err
		}
		if s.Every != 1 && s.Every != 2 {
			return t, ErrEvery
		}
		if !s.Until.IsZero() && s.Until.Before(from) {
			return t, ErrBackwards
		}
		for _, o := range slots[:i] { // all begin in the same week, so that every second week meets every week
			if o.Weekday == s.Weekday && o.StartsAt < s.StartsAt+s.Minutes && s.StartsAt < o.StartsAt+o.Minutes {
				return t, ErrOverlap
			}
		}
	}
	out := t
	for {
		at := slices.IndexFunc(out.Slots, func(s Slot) bool { return s.Until.IsZero() || !s.Until.Before(from) })
		if at < 0 {
			break
		}
		out = out.replaced(at, from)
	}
	out.Slots = slices.Clone(out.Slots)
	for _, s := range slots {
		s.From = from
		out.Slots = append(out.Slots, s)
	}
	return out, nil
}

// CancelLesson lets one lesson fall out. An added one that stands for another is taken back with it.
func (t Timetable) CancelLesson(id string, by Who, late bool) (Timetable, error) {
	l, ok := t.Find(id)
	if !ok {
		return t, ErrNoLesson
	}
	if l.Due.IsZero() {
		return t.without(id), nil
	}
	return t.with(Change{Lesson: id, Kind: Cancel, By: by, Late: late}), nil
}

// Restore takes back what was done with one lesson. An added one is gone; the one that stood for a
// cancelled lesson goes with the cancelling.
func (t Timetable) Restore(id string) (Timetable, error) {
	if _, ok := t.Find(id); !ok {
		return t, ErrNoLesson
	}
	for _, c := range t.Changes {
		if c.Kind == Extra && c.MakesUp == id {
			t = t.without(c.Lesson)
		}
	}
	return t.without(id), nil
}

// Add puts a lesson beside the slots; makesUp is the cancelled lesson that it stands for, empty for none.
func (t Timetable) Add(id string, at Time, makesUp string, today time.Time) (Timetable, error) {
	if err := at.on(today); err != nil {
		return t, err
	}
	if makesUp != "" {
		l, ok := t.Find(makesUp)
		if !ok || l.State != Cancelled || l.MadeUp != "" && l.MadeUp != id {
			return t, ErrMadeUp
		}
	}
	return t.with(Change{Lesson: id, Kind: Extra, Day: at.Day, StartsAt: at.StartsAt, Minutes: at.Minutes, MakesUp: makesUp}), nil
}

func (t Timetable) with(c Change) Timetable {
	t = t.without(c.Lesson)
	t.Changes = append(t.Changes, c)
	return t
}

func (t Timetable) without(lesson string) Timetable {
	t.Changes = slices.DeleteFunc(slices.Clone(t.Changes), func(c Change) bool { return c.Lesson == lesson })
	return t
}

// ToMakeUp are the lessons of some days that were cancelled in time, or by the teacher, and for which none stands yet.
func (t Timetable) ToMakeUp(from, to time.Time) []Lesson {
	return slices.DeleteFunc(t.Between(from, to), func(l Lesson) bool {
		return l.State != Cancelled || l.MadeUp != "" || l.By == ByStudent && l.Late
	})
}

// CarriedOn are the slots in use or to come on a day, to go on from that day in another timetable; their
// ids are made of that one.
func (t Timetable) CarriedOn(day time.Time, id string) (out Timetable) {
	for _, s := range t.Slots {
		if !s.Until.IsZero() && s.Until.Before(day) {
			continue
		}
		if next := s.between(day, day.AddDate(0, 0, 2*s.every())); s.From.Before(day) && len(next) > 0 {
			// From its next lesson on, so that every second week stays the same one.
			s.From = next[0]
		}
		if s.ID = id; len(out.Slots) > 0 {
			s.ID = fmt.Sprintf("%s%d", id[:len(id)-1], len(out.Slots))
		}
		out.Slots = append(out.Slots, s)
	}
	return out
}

package calendar

import (
	"cmp"
	"math"
	"slices"
	"strings"
	"time"

	"patientladder/core/base/civil"
)

// Slot is a time in the week that makes lessons. All days are midnights in UTC of the studio's local
// dates, and a time of day stays what it is over a change of clocks.
type Slot struct {
	ID      string
	Weekday time.Weekday
	// StartsAt is in minutes after midnight, local time, 0 to 1439; Minutes is how long a lesson lasts.
	StartsAt, Minutes int
	// Every is how many weeks lie between two lessons, 1 or 2.
	Every int
	// From is the first day on which it holds; its first lesson is on the first of its weekdays from then on.
	From time.Time
	// Until is the last day on which it holds; zero for no end.
	Until time.Time
}

// Holds says that the slot is in use on a day.
func (s Slot) Holds(day time.Time) bool {
	return !day.Before(s.From) && (s.Until.IsZero() || !day.After(s.Until))
}

// first is the first lesson of the slot.
func (s Slot) first() time.Time {
	return s.From.AddDate(0, 0, (int(s.Weekday)-int(s.From.Weekday())+7)%7)
}

// every is the number of days between two lessons.
func (s Slot) every() int { return 7 * max(1, s.Every) }

// makes says that the slot puts a lesson on a day.
func (s Slot) makes(day time.Time) bool {
	return s.Holds(day) && day.Weekday() == s.Weekday && civil.Between(s.first(), day)%s.every() == 0
}

// between are the days from one to another, both included, on which the slot puts lessons.
func (s Slot) between(from, to time.Time) (out []time.Time) {
	if !s.Until.IsZero() && s.Until.Before(to) {
		to = s.Until
	}
	day := s.first()
	if gap := civil.Between(day, from); gap > 0 {
		step := s.every()
		day = day.AddDate(0, 0, (gap+step-1)/step*step)
	}
	for ; !day.After(to); day = day.AddDate(0, 0, s.every()) {
		out = append(out, day)
	}
	return out
}

// Who cancelled a lesson.
type Who string

// Those who cancel.
const (
	ByStudent Who = "student"
	ByTeacher Who = "teacher"
)

// ChangeKind says what was done with one lesson.
type ChangeKind string

// What is done with one lesson.
const (
	Move   ChangeKind = "move"   // it is at another time
	Cancel ChangeKind = "cancel" // it falls out
	Extra  ChangeKind = "extra"  // it is there beside the slots
)

// Change is one lesson that is otherwise than its slot makes it, or that no slot made.
type Change struct {
	// Lesson is the id of the lesson (see LessonID); an extra lesson has one of its own.
	Lesson string
	Kind   ChangeKind
	// Day, StartsAt and Minutes are where it is now (move, extra).
	Day               time.Time
	StartsAt, Minutes int
	// By and Late say who cancelled, and whether too late to be made up by the studio's rules (cancel).
	By   Who
	Late bool
	// MakesUp is the cancelled lesson that an extra one stands for; empty for none.
	MakesUp string
}

// LessonID names the lesson that a slot puts on a day, wherever it is moved.
func LessonID(slot string, due time.Time) string { return due.Format(time.DateOnly) + "-" + slot }

// DueOf is the day on which its slot put a lesson, by its id; ok is false for an added one.
func DueOf(id string) (due time.Time, ok bool) {
	_, due, ok = parse(id)
	return due, ok
}

// parse is the slot and the day of the id of a lesson; ok is false for an extra lesson.
func parse(id string) (slot string, due time.Time, ok bool) {
	if len(id) <= len(time.DateOnly) || id[len(time.DateOnly)] != '-' {
		return "", time.Time{}, false
	}
	due, err := time.Parse(time.DateOnly, id[:len(time.DateOnly)])
	return id[len(time.DateOnly)+1:], due, err == nil
}

// State is what becomes of a dated lesson.
type State string

// The states of lessons.
const (
	Planned   State = "planned"
	Moved     State = "moved" // planned, at another time than its slot
	Added     State = "added" // planned, and no slot made it
	Cancelled State = "cancelled"
	OnBreak   State = "break" // it falls into a holiday or a pause
)

// Lesson is one dated lesson.
type Lesson struct {
	ID string
	// Due is the day on which its slot puts it; zero for an added one.
	Due               time.Time
	Day               time.Time
	StartsAt, Minutes int
	State             State
	// By and Late are those of the cancelling.
	By   Who
	Late bool
	// MakesUp is the cancelled lesson that it stands for, MadeUp the one that stands for it.
	MakesUp, MadeUp string
}

// Held says that the lesson takes place.
func (l Lesson) Held() bool { return l.State != Cancelled && l.State != OnBreak }

// Ends is in minutes after midnight.
func (l Lesson) Ends() int { return l.StartsAt + l.Minutes }

// Timetable is everything that makes the lessons of one student on one instrument.
type Timetable struct {
	Slots   []Slot
	Changes []Change
	// Holidays take the lessons that slots make; one that was moved into a holiday, or added there, takes place.
	Holidays []Break
	// Pauses take all lessons.
	Pauses []Break
}

// Ended is the timetable of one who has no lessons from a day on, because the student left or stopped; zero
// for no such day.
func (t Timetable) Ended(from time.Time) Timetable {
	if from.IsZero() {
		return t
	}
	slots := []Slot{}
	for _, s := range t.Slots {
		if last := from.AddDate(0, 0, -1); s.Until.IsZero() || s.Until.After(last) {
			s.Until = last
		}
		if !s.Until.Before(s.From) {
			slots = append(slots, s)
		}
	}
	t.Slots = slots
	t.Pauses = append(slices.Clone(t.Pauses), Break{From: from, To: NoEnd}) // takes what was moved or added there
	return t
}

// Between are the lessons that are or were due from one day to another, both included, by day and time, each once.
func (t Timetable) Between(from, to time.Time) (out []Lesson) {
	changed := make(map[string]Change, len(t.Changes))
	madeUp := map[string]string{}
	for _, c := range t.Changes {
		changed[c.Lesson] = c
		if c.Kind == Extra && c.MakesUp != "" {
			madeUp[c.MakesUp] = c.Lesson
		}
	}
	within := func(day time.Time) bool { return !day.Before(from) && !day.After(to) }
	for _, s := range t.Slots {
		for _, due := range s.between(from, to) {
			l := t.lesson(s, due, changed)
			l.MadeUp = madeUp[l.ID]
			out = append(out, l)
		}
	}
	for _, c := range t.Changes {
		switch c.Kind {
		case Extra:
			if within(c.Day) {
				out = append(
					out,
					t.paused(Lesson{ID: c.Lesson, Day: c.Day, StartsAt: c.StartsAt, Minutes: c.Minutes, State: Added, MakesUp: c.MakesUp}),
				)
			}
		case Move:
			// One that comes from outside of these days.
			if slot, due, ok := parse(c.Lesson); ok && within(c.Day) && !within(due) {
				if i := slices.IndexFunc(t.Slots, func(s Slot) bool { return s.ID == slot }); i >= 0 && t.Slots[i].makes(due) {
					out = append(out, t.lesson(t.Slots[i], due, changed))
				}
			}
		}
	}
	slices.SortFunc(out, func(a, b Lesson) int {
		return cmp.Or(a.Day.Compare(b.Day), cmp.Compare(a.StartsAt, b.StartsAt), strings.Compare(a.ID, b.ID))
	})
	return out
}

// lesson is the one that a slot puts on a day, with what was changed.
func (t Timetable) lesson(s Slot, due time.Time, changed map[string]Change) Lesson {
	l := Lesson{ID: LessonID(s.ID, due), Due: due, Day: due, StartsAt: s.StartsAt, Minutes: s.Minutes, State: Planned}
	c, ok := changed[l.ID]
	switch {
	case ok && c.Kind == Move:
		l.Day, l.StartsAt, l.Minutes, l.State = c.Day, c.StartsAt, c.Minutes, Moved
	case ok && c.Kind == Cancel:
		l.State, l.By, l.Late = Cancelled, c.By, c.Late
	case InBreak(due, t.Holidays):
		l.State = OnBreak
	}
	return t.paused(l)
}

// paused lets a lesson in a pause fall out.
func (t Timetable) paused(l Lesson) Lesson {
	if l.Held() && InBreak(l.Day, t.Pauses) {
		l.State = OnBreak
	}
	return l
}

// Begin is the first day on which there can be a lesson; zero where there is none at all.
func (t Timetable) Begin() (first time.Time) {
	earlier := func(day time.Time) {
		if first.IsZero() || day.Before(first) {
			first = day
		}
	}
	for _, s := range t.Slots {
		earlier(s.From)
	}
	for _, c := range t.Changes {
		if c.Kind != Cancel {
			earlier(c.Day)
		}
	}
	return first
}

// On are the lessons of a day that are on it now, those that fall out included.
func (t Timetable) On(day time.Time) []Lesson {
	return slices.DeleteFunc(t.Between(day, day), func(l Lesson) bool { return !l.Day.Equal(day) })
}

// Held are the lessons that take place from one day to another, both included.
func (t Timetable) Held(from, to time.Time) []Lesson {
	return slices.DeleteFunc(t.Between(from, to), func(l Lesson) bool {
		return !l.Held() || l.Day.Before(from) || l.Day.After(to)
	})
}

// Find is a lesson by its id; ok is false where there is none.
func (t Timetable) Find(id string) (Lesson, bool) {
	day := time.Time{}
	if _, due, ok := parse(id); ok {
		day = due
	}
	for _, c := range t.Changes {
		if c.Lesson == id && c.Kind == Extra {
			day = c.Day
		}
	}
	if day.IsZero() {
		return Lesson{}, false
	}
	all := t.Between(day, day)
	if i := slices.IndexFunc(all, func(l Lesson) bool { return l.ID == id }); i >= 0 {
		return all[i], true
	}
	return Lesson{}, false
}

// Next is the first lesson that takes place on a day or after it.
func (t Timetable) Next(day time.Time) (Lesson, bool) {
	for range farthest {
		if held := t.Held(day, day.AddDate(0, 0, 6)); len(held) > 0 {
			return held[0], true
		}
		if day = day.AddDate(0, 0, 7); t.over(day) {
			break
		}
	}
	return Lesson{}, false
}

// Last is the last lesson that took place on a day or before it.
func (t Timetable) Last(day time.Time) (Lesson, bool) {
	for earliest := t.earliest(); !day.Before(earliest); day = day.AddDate(0, 0, -7) {
		if held := t.Held(day.AddDate(0, 0, -6), day); len(held) > 0 {
			return held[len(held)-1], true
		}
	}
	return Lesson{}, false
}

// earliest is the day before which nothing was.
func (t Timetable) earliest() time.Time {
	first := time.Date(9999, 1, 1, 0, 0, 0, 0, time.UTC)
	for _, s := range t.Slots {
		first = minTime(first, s.From)
	}
	for _, c := range t.Changes {
		if c.Kind != Cancel {
			first = minTime(first, c.Day)
		}
	}
	return first
}

// over says that no lesson can come from a day on: no slot holds any more and nothing is moved there.
func (t Timetable) over(day time.Time) bool {
	for _, p := range t.Pauses {
		if !p.From.After(day) && p.To.Equal(NoEnd) {
			return true
		}
	}
	return !slices.ContainsFunc(t.Slots, func(s Slot) bool { return s.Until.IsZero() || !s.Until.Before(day) }) &&
		!slices.ContainsFunc(t.Changes, func(c Change) bool { return c.Kind != Cancel && !c.Day.Before(day) })
}

// Usual is the slot by which a student is known: the first of the week among those in use on a day, else
// the next that will be, else the last that was. ok is false where there is none.
func (t Timetable) Usual(day time.Time) (Slot, bool) {
	if len(t.Slots) == 0 {
		return Slot{}, false
	}
	rank := func(s Slot) int {
		switch {
		case s.Holds(day):
			return 0
		case s.From.After(day):
			return 1
		}
		return 2
	}
	monday := func(s Slot) int { return (int(s.Weekday) + 6) % 7 }
	return slices.MinFunc(t.Slots, func(a, b Slot) int {
		if by := rank(a) - rank(b); by != 0 {
			return by
		}
		switch rank(a) {
		case 1:
			return cmp.Or(a.From.Compare(b.From), strings.Compare(a.ID, b.ID))
		case 2:
			return cmp.Or(b.Until.Compare(a.Until), strings.Compare(a.ID, b.ID))
		}
		return cmp.Or(monday(a)-monday(b), a.StartsAt-b.StartsAt, strings.Compare(a.ID, b.ID))
	}), true
}

// PerWeek is how many lessons a week the slots in use on a day make; 1 where none is in use.
func (t Timetable) PerWeek(day time.Time) float64 {
	n := 0.0
	for _, s := range t.Slots {
		if s.Holds(day) {
			n += 1 / float64(max(1, s.Every))
		}
	}
	if n == 0 {
		return 1
	}
	return n
}

// UsualGap is how many days a lesson and the next may lie apart without a break between them: the weeks from one to
// the next, and two days by which a lesson is moved.
func (t Timetable) UsualGap(day time.Time) int {
	return max(7, int(math.Ceil(7/t.PerWeek(day)))) + 2
}

// Breaks are the stretches without lessons: holidays and pauses.
func (t Timetable) Breaks() []Break { return slices.Concat(t.Holidays, t.Pauses) }

// NoEnd is the last day of a pause that nobody knows the end of.
var NoEnd = time.Date(9999, 12, 31, 0, 0, 0, 0, time.UTC)

func minTime(a, b time.Time) time.Time {
	if b.Before(a) {
		return b
	}
	return a
}

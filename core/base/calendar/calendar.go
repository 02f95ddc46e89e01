// Package calendar knows when lessons are: the slots of the week make them, single ones are moved,
// cancelled, made up or added, holidays and pauses take them. Whatever counts lessons asks it.
//
//	calendar.go   the lessons to come, one after another; breaks and holidays
//	timetable.go  slots, changes, and the dated lessons that they make
//	change.go     what can be done with lessons, and what cannot
//	free.go       clashes, and free times
package calendar

import (
	"slices"
	"sort"
	"sync"
	"time"
)

// Break is a stretch of days without lessons, both ends included. Days are
// midnights in UTC of the studio's local dates.
type Break struct {
	From, To time.Time
}

// farthest is how many weeks ahead lessons are looked for.
const farthest = 20_000

// Lessons are the days of lessons from a day on; several may ask them at once.
type Lessons struct {
	mu    sync.Mutex
	table Timetable
	from  time.Time
	days  []time.Time // the lessons found so far
	week  int         // the next week to look at, from the day on
	over  bool        // no more will come
}

// New returns the lessons on a weekday from a day on; that day counts when it
// is one. Lessons within breaks do not take place.
func New(day time.Time, weekday time.Weekday, breaks []Break) *Lessons {
	t := Weekly(weekday, 0, 0, day)
	t.Holidays = breaks
	return t.From(day)
}

// Weekly is a lesson every week, at a time in minutes after midnight, from a day on.
func Weekly(weekday time.Weekday, startsAt, minutes int, from time.Time) Timetable {
	return Timetable{Slots: []Slot{{Weekday: weekday, StartsAt: startsAt, Minutes: minutes, Every: 1, From: from}}}
}

// From returns the lessons that take place from a day on; that day counts when there is one on it. Two on
// one day count as one.
func (t Timetable) From(day time.Time) *Lessons { return &Lessons{table: t, from: day} }

// Day is the day of the nth lesson, from 0. Where there are fewer, because nobody knows when they go on,
// it counts on a week a lesson; see Any.
func (l *Lessons) Day(n int) time.Time {
	l.mu.Lock()
	defer l.mu.Unlock()
	for len(l.days) <= n && l.more() {
		l.look()
	}
	if n < len(l.days) {
		return l.days[max(0, n)]
	}
	last, left := l.from, n
	if k := len(l.days); k > 0 {
		last, left = l.days[k-1], n-k+1
	}
	return last.AddDate(0, 0, 7*left)
}

// Any says that there is a lesson to come.
func (l *Lessons) Any() bool {
	l.mu.Lock()
	defer l.mu.Unlock()
	for len(l.days) == 0 && l.more() {
		l.look()
	}
	return len(l.days) > 0
}

// Until counts the lessons up to and on a day.
func (l *Lessons) Until(day time.Time) int {
	l.mu.Lock()
	defer l.mu.Unlock()
	for l.more() && !l.from.AddDate(0, 0, 7*l.week).After(day) {
		l.look()
	}
	return sort.Search(len(l.days), func(i int) bool { return l.days[i].After(day) })
}

func (l *Lessons) more() bool { return l.week < farthest && !l.over }

// atOnce is how many weeks are looked at together.
const atOnce = 13

// look takes the next weeks into account.
func (l *Lessons) look() {
	first := l.from.AddDate(0, 0, 7*l.week)
	l.week += atOnce
	next := first.AddDate(0, 0, 7*atOnce)
	for _, x := range l.table.Held(first, next.AddDate(0, 0, -1)) {
		if k := len(l.days); k == 0 || l.days[k-1].Before(x.Day) {
			l.days = append(l.days, x.Day)
		}
	}
	l.over = l.table.over(next)
}

// InBreak says that a day lies in a break.
func InBreak(day time.Time, breaks []Break) bool {
	return slices.ContainsFunc(breaks, func(b Break) bool { return !day.Before(b.From) && !day.After(b.To) })
}

// WeeksOff counts the lessons that fell into breaks, on a weekly grid from one
// day (without it) to another (with it).
func WeeksOff(from, to time.Time, breaks []Break) int {
	off := 0
	if len(breaks) == 0 {
		return 0
	}
	for day := from.AddDate(0, 0, 7); !day.After(to); day = day.AddDate(0, 0, 7) {
		for _, b := range breaks {
			if !day.Before(b.From) && !day.After(b.To) {
				off++
				break
			}
		}
	}
	return off
}

// Holiday is a break of the studio with a name.
type Holiday struct {
	ID, Name string
	// First and Last are midnights in UTC of the studio's local dates, both without lessons.
	First, Last time.Time
	// Student is whose it is; empty for the whole studio.
	Student string
}

// LongestHoliday is in days.
const LongestHoliday = 366

// Check says what is wrong with a holiday: it has no name, ends before it begins, or is too long.
func (h Holiday) Check() error {
	switch {
	case h.Name == "":
		return ErrUnnamed
	case h.Last.Before(h.First):
		return ErrReversed
	case h.Last.Sub(h.First) > LongestHoliday*24*time.Hour:
		return ErrLong
	}
	return nil
}

// Breaks are the holidays of the studio and of one student but for those, by id, in which there are lessons all the same.
func Breaks(holidays []Holiday, student string, given []string) []Break {
	var out []Break
	for _, h := range holidays {
		if (h.Student == "" || h.Student == student) && !slices.Contains(given, h.ID) {
			out = append(out, Break{From: h.First, To: h.Last})
		}
	}
	return out
}

// Same is a holiday for the same students and days among others.
func Same(holidays []Holiday, h Holiday) (Holiday, bool) {
	i := slices.IndexFunc(holidays, func(x Holiday) bool { return x.Student == h.Student && x.First.Equal(h.First) && x.Last.Equal(h.Last) })
	if i < 0 {
		return Holiday{}, false
	}
	return holidays[i], true
}

// WeekStart is the first day of the week in which a day lies, where weeks begin on a weekday.
func WeekStart(day time.Time, first time.Weekday) time.Time {
	return day.AddDate(0, 0, -((int(day.Weekday()) - int(first) + 7) % 7))
}

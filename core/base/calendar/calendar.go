// Package calendar counts the weekly lessons of a student, with the breaks
// taken out.
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

// Lessons are the weekly lessons from a day on; several may ask them at once.
type Lessons struct {
	mu     sync.Mutex
	first  time.Time // the first weekday of lessons on or after the day
	breaks []Break
	days   []time.Time // the lessons found so far
	week   int         // the next week to look at
}

// New returns the lessons on a weekday from a day on; that day counts when it
// is one. Lessons within breaks do not take place.
func New(day time.Time, weekday time.Weekday, breaks []Break) *Lessons {
	ahead := (int(weekday) - int(day.Weekday()) + 7) % 7
	sorted := append([]Break(nil), breaks...)
	sort.Slice(sorted, func(a, b int) bool { return sorted[a].From.Before(sorted[b].From) })
	return &Lessons{first: day.AddDate(0, 0, ahead), breaks: sorted}
}

// Day is the day of the nth lesson, from 0.
func (l *Lessons) Day(n int) time.Time {
	l.mu.Lock()
	defer l.mu.Unlock()
	for len(l.days) <= n && l.week < farthest {
		l.look()
	}
	if n < len(l.days) {
		return l.days[max(0, n)]
	}
	return l.first.AddDate(0, 0, 7*n) // decades ahead: nobody knows the breaks
}

// Until counts the lessons up to and on a day.
func (l *Lessons) Until(day time.Time) int {
	l.mu.Lock()
	defer l.mu.Unlock()
	for l.week < farthest && !l.first.AddDate(0, 0, 7*l.week).After(day) {
		l.look()
	}
	return sort.Search(len(l.days), func(i int) bool { return l.days[i].After(day) })
}

// look takes the next week into account.
func (l *Lessons) look() {
	day := l.first.AddDate(0, 0, 7*l.week)
	l.week++
	if !Off(day, l.breaks) {
		l.days = append(l.days, day)
	}
}

// Off says that a day lies in a break.
func Off(day time.Time, breaks []Break) bool {
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
}

// Breaks are the holidays but for those, by id, in which there are lessons all the same.
func Breaks(holidays []Holiday, given []string) []Break {
	var out []Break
	for _, h := range holidays {
		if !slices.Contains(given, h.ID) {
			out = append(out, Break{From: h.First, To: h.Last})
		}
	}
	return out
}

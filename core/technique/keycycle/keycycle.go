// Package keycycle lays the twelve keys over the weeks of a term: one key a
// week, breaks taken out.
package keycycle

import (
	"errors"
	"fmt"
	"slices"
	"time"

	"patientladder/core/base/calendar"
	"patientladder/core/base/civil"
	"patientladder/core/technique/scale"
)

// Order is a way to go through the keys.
type Order string

// The orders.
const (
	// Fifths goes up by fifths from any key; the default, from C.
	Fifths Order = "fifths"
	// Semitones goes up by semitones.
	Semitones Order = "semitones"
)

// circle are the twelve keys by fifths from C, each with its usual name.
var circle = []scale.Tonic{
	{Step: 'C'}, {Step: 'G'}, {Step: 'D'}, {Step: 'A'}, {Step: 'E'}, {Step: 'B'}, {Step: 'G', Alter: -1}, {Step: 'D', Alter: -1},
	{Step: 'A', Alter: -1},
	{Step: 'E', Alter: -1}, {Step: 'B', Alter: -1}, {Step: 'F'},
}

// Keys returns the twelve major keys in an order from one of them, which may be
// named otherwise ("F#" for G flat). From B the long fingers lie on the black
// keys and the short ones on the white, which is why some begin there (common practice).
func Keys(first scale.Tonic, o Order) ([]scale.Tonic, error) {
	at := slices.IndexFunc(circle, func(t scale.Tonic) bool { return t.Class() == first.Class() })
	step := map[Order]int{Fifths: 1, Semitones: 7}[o] // seven fifths make a semitone, octaves aside
	if at < 0 || step == 0 {
		return nil, fmt.Errorf("there is no order %q of the keys from %s", string(o), first)
	}
	var out []scale.Tonic
	for i := range circle {
		out = append(out, circle[(at+step*i)%len(circle)])
	}
	return out, nil
}

// Week is one key of the cycle.
type Week struct {
	Key scale.Tonic
	// Day is the lesson in which it is begun, Heard that in which it is heard.
	Day, Heard time.Time
}

// Plan is a cycle laid over lessons.
type Plan struct {
	Weeks []Week
	// End is the lesson in which the last key is heard.
	End time.Time
	// Missed are the lessons that fell out, by which the end slid.
	Missed []time.Time
	// Held are the lessons before a break in which no key is begun.
	Held []time.Time
	// Slid are the lessons that passed without their key: it found no room, and slides to the next.
	Slid []time.Time
}

// Build lays keys over the lessons of a timetable from a day on, one a week and at most one a lesson, without
// the lessons that were missed; each is heard in the lesson after. A key is begun
// only where it can be heard in the next lesson as usual, not right before a break, unless before
// says so. Slides says of a key, by its place, that the lesson of a day passed without it; nil for never. It refuses
// a cycle without keys or lessons.
func Build(
	keys []scale.Tonic,
	from time.Time,
	table calendar.Timetable,
	missed []time.Time,
	before bool,
	slides func(key int, day time.Time) bool,
) (Plan, error) {
	if len(keys) == 0 {
		return Plan{}, errors.New("a cycle without keys is none")
	}
	lessons := table.From(from)
	usual := table.UsualGap(from)
	var p Plan
	for n := 0; ; n++ {
		day := lessons.Day(n)
		if day.Sub(from) > 3*365*24*time.Hour {
			return Plan{}, fmt.Errorf("there are no lessons for this cycle: from %s on all fall into breaks", from.Format("2 January 2006"))
		}
		if slices.ContainsFunc(missed, day.Equal) {
			p.Missed = append(p.Missed, day)
			continue
		}
		i := len(p.Weeks)
		if i > 0 && civil.Between(p.Weeks[i-1].Day, day) < leastGap {
			continue // the second lesson of a week
		}
		if i > 0 && p.Weeks[i-1].Heard.IsZero() {
			p.Weeks[i-1].Heard = day
			if i == len(keys) {
				p.End = day
				return p, nil
			}
		}
		if !before && civil.Between(day, lessons.Day(n+1)) > usual {
			p.Held = append(p.Held, day)
			continue
		}
		if slides != nil && slides(i, day) {
			p.Slid = append(p.Slid, day)
			continue
		}
		p.Weeks = append(p.Weeks, Week{Key: keys[len(p.Weeks)], Day: day})
	}
}

// leastGap is how many days lie between two keys at the least, where there are two lessons a week: a
// lesson that was moved by two days still counts as the next week's.
const leastGap = 5

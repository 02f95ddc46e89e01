package calendar

import (
	"cmp"
	"slices"
	"time"

	"patientladder/core/base/civil"
)

// Busy is a stretch of a day that is taken.
type Busy struct {
	Day           time.Time
	Starts, Ends  int // minutes after midnight
	Whose, Lesson string
}

// Clashes are for each of some stretches, by place, those that overlap with it. Two lessons at one time
// are allowed; this points them out.
func Clashes(all []Busy) [][]int {
	out := make([][]int, len(all))
	for i := range all {
		for j := range i {
			if a, b := all[i], all[j]; a.Day.Equal(b.Day) && a.Starts < b.Ends && b.Starts < a.Ends {
				out[i], out[j] = append(out[i], j), append(out[j], i)
			}
		}
	}
	return out
}

// usualHours are those in which lessons are where a studio has none yet (default): from three to seven.
const usualFrom, usualTo = 15 * 60, 19 * 60

// quarter is to what minutes proposals are rounded.
const quarter = 15

// Free finds times for a lesson of some minutes on the days from one to another, both included: on each
// weekday within the hours in which the studio teaches then, else within its hours of all days. Those near
// a day come first, and at most so many are returned, two a day.
func Free(busy []Busy, breaks []Break, minutes int, from, to, near time.Time, most int) []Time {
	hours := map[time.Weekday][2]int{}
	all := [2]int{usualFrom, usualTo}
	for i, b := range busy {
		h, ok := hours[b.Day.Weekday()]
		if !ok {
			h = [2]int{b.Starts, b.Ends}
		}
		hours[b.Day.Weekday()] = [2]int{min(h[0], b.Starts), max(h[1], b.Ends)}
		if i == 0 {
			all = [2]int{b.Starts, b.Ends}
		}
		all = [2]int{min(all[0], b.Starts), max(all[1], b.Ends)}
	}
	var out []Time
	for day := from; !day.After(to); day = day.AddDate(0, 0, 1) {
		h, teaches := hours[day.Weekday()]
		if !teaches {
			if w := day.Weekday(); w == time.Saturday || w == time.Sunday {
				continue
			}
			h = all
		}
		if InBreak(day, breaks) {
			continue
		}
		var taken []Busy
		for _, b := range busy {
			if b.Day.Equal(day) {
				taken = append(taken, b)
			}
		}
		slices.SortFunc(taken, func(a, b Busy) int { return a.Starts - b.Starts })
		if teaches { // what is right before or after the hours of the day is free as well
			h = [2]int{max(0, h[0]-minutes), min(24*60, h[1]+minutes)}
		}
		found, at := 0, h[0]
		for _, b := range append(taken, Busy{Starts: h[1], Ends: 24 * 60}) {
			for at = rounded(at); at+minutes <= b.Starts && found < 2; at = rounded(at + minutes) {
				out = append(out, Time{day, at, minutes})
				found++
			}
			at = max(at, b.Ends)
		}
	}
	distance := func(t Time) int {
		if d := civil.Between(near, t.Day); d >= 0 {
			return d
		}
		return -civil.Between(near, t.Day)
	}
	slices.SortStableFunc(out, func(a, b Time) int {
		return cmp.Or(distance(a)-distance(b), a.Day.Compare(b.Day), a.StartsAt-b.StartsAt)
	})
	return out[:min(len(out), most)]
}

// rounded is the next quarter of an hour.
func rounded(minutes int) int { return (minutes + quarter - 1) / quarter * quarter }

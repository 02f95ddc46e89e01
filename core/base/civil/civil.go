// Package civil has the day of a calendar: the one that a wall calendar in the studio shows. An instant is never used as a
// day; it is made one in the zone of its studio.
package civil

import (
	"fmt"
	"time"
)

// Day is a day of the (proleptic Gregorian) calendar without a zone, as the number of days since 1 January 1970. Differences
// are whole days, whatever the clocks did between.
type Day int

// Of is the day of an instant in a zone; nil is UTC.
func Of(at time.Time, zone *time.Location) Day {
	if zone == nil {
		zone = time.UTC
	}
	y, m, d := at.In(zone).Date()
	return On(time.Date(y, m, d, 0, 0, 0, 0, time.UTC))
}

// On is the day of a date, which is midnight in UTC.
func On(date time.Time) Day {
	const seconds = 24 * 60 * 60
	s := date.Unix()
	if s < 0 {
		s -= seconds - 1
	}
	return Day(s / seconds)
}

// Date is the day as midnight in UTC, as calendars and pages have it.
func (d Day) Date() time.Time { return time.Unix(int64(d)*24*60*60, 0).UTC() }

// String writes it as 2026-05-04.
func (d Day) String() string { return d.Date().Format(time.DateOnly) }

// Parse reads a day such as 2026-05-04.
func Parse(text string) (Day, error) {
	t, err := time.Parse(time.DateOnly, text)
	if err != nil {
		return 0, fmt.Errorf("%q is not a day such as 2026-05-04", text)
	}
	return On(t), nil
}

// Between is how many days lie from a date to another, both midnights in UTC; below 0 where it is earlier.
func Between(from, to time.Time) int { return int(On(to) - On(from)) }

// Zone is a zone by its name, UTC where the name is not known.
func Zone(name string) *time.Location {
	zone, err := time.LoadLocation(name)
	if err != nil {
		return time.UTC
	}
	return zone
}

// At is the instant so many minutes after midnight on a date, which is midnight in UTC, as clocks in a zone show it.
func At(date time.Time, minutes int, zone *time.Location) time.Time {
	y, m, d := date.Date()
	return time.Date(y, m, d, 0, minutes, 0, 0, zone)
}

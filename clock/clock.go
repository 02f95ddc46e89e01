// Package clock is the one clock of the program: it is given to the server and to the demo, and the page
// lives by the server's. Nothing else reads the machine's time.
package clock

import (
	"fmt"
	"os"
	"strconv"
	"time"

	"patientladder/core/base/civil"
)

// Clock says what time it is.
type Clock func() time.Time

// Real is the machine's.
func Real() time.Time { return time.Now() }

// From begins at a time and goes on from there at a rate: 1 as the machine's, 0.01 a hundred times as
// slowly, so that a day does not end while it is looked at.
func From(start time.Time, rate float64) Clock {
	began := time.Now()
	return func() time.Time { return start.Add(time.Duration(rate * float64(time.Since(began)))) }
}

// Parse reads a local time such as 2026-05-04T15:30 in a zone.
func Parse(text, zone string) (time.Time, error) {
	loc, err := time.LoadLocation(zone)
	if err != nil {
		return time.Time{}, fmt.Errorf("%q is not a time zone such as Europe/Lisbon", zone)
	}
	at, err := time.ParseInLocation("2006-01-02T15:04", text, loc)
	if err != nil {
		return at, fmt.Errorf("%q is not a time such as 2026-05-04T15:30", text)
	}
	return at, nil
}

// Test is the clock of the tests and the zone of their studios: a Monday afternoon by default, or what
// LADDER_TEST_CLOCK, LADDER_TEST_ZONE and LADDER_TEST_RATE say (see make test-week).
func Test() (c Clock, zone string, err error) {
	text, rate := "2026-05-04T15:30", 1.0
	zone = "UTC"
	if v := os.Getenv("LADDER_TEST_CLOCK"); v != "" {
		text = v
	}
	if v := os.Getenv("LADDER_TEST_ZONE"); v != "" {
		zone = v
	}
	if v := os.Getenv("LADDER_TEST_RATE"); v != "" {
		if rate, err = strconv.ParseFloat(v, 64); err != nil {
			return nil, zone, fmt.Errorf("LADDER_TEST_RATE: %w", err)
		}
	}
	start, err := Parse(text, zone)
	return From(start, rate), zone, err
}

// Day is the day of a time in a zone, as midnight in UTC of that date.
func Day(t time.Time, zone string) time.Time {
	return civil.Of(t, civil.Zone(zone)).Date()
}

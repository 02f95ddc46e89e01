package ics

import (
	"bytes"
	"errors"
	"fmt"
	"time"

	ical "github.com/arran4/golang-ical"

	"patientladder/core/base/calendar"
)

// Found are the days off of a file.
type Found struct {
	// Holidays are by their first day; they have no ids.
	Holidays []calendar.Holiday
	// Skipped says of each event that was not taken why.
	Skipped []string
}

// Bounds of what is read.
const (
	mostEvents = 500
	mostName   = 100
	// longest holiday in days.
	longest = 366
)

// ErrNoCalendar is a file that is none.
var ErrNoCalendar = errors.New("this is not a calendar file (.ics)")

// Holidays reads the events of whole days out of an iCalendar file as holidays, but for those that were over
// before a day. What has a time of day, or repeats, is no holiday and is listed.
func Holidays(data []byte, today time.Time) (Found, error) {
	c, err := ical.ParseCalendar(bytes.NewReader(data))
	if err != nil || len(c.Events()) == 0 {
		return Found{}, ErrNoCalendar
	}
	var out Found
	skip := func(name, why string) { out.Skipped = append(out.Skipped, fmt.Sprintf("%s: %s", name, why)) }
	for i, e := range c.Events() {
		name := "An event without a name"
		if p := e.GetProperty(ical.ComponentPropertySummary); p != nil && p.Value != "" {
			name = p.Value
			if r := []rune(name); len(r) > mostName {
				name = string(r[:mostName])
			}
		}
		if i == mostEvents {
			skip(fmt.Sprintf("%d more events", len(c.Events())-i), "a file has at most 500")
			break
		}
		start, err := e.GetAllDayStartAt()
		if err != nil {
			skip(name, "it has a time of day, or none at all")
			continue
		}
		if p := e.GetProperty(ical.ComponentPropertyDtStart); p != nil && len(p.Value) != len(localDay) {
			skip(name, "it has a time of day")
			continue
		}
		if e.GetProperty(ical.ComponentPropertyRrule) != nil {
			skip(name, "it repeats; add each by hand")
			continue
		}
		first, last := midnight(start), midnight(start)
		if end, err := e.GetAllDayEndAt(); err == nil && end.After(start) {
			last = midnight(end).AddDate(0, 0, -1) // the end is the first day after (RFC 5545, section 3.6.1)
		}
		switch {
		case last.Before(today):
			skip(name, "it is over")
		case last.Sub(first) > longest*24*time.Hour:
			skip(name, "it is longer than a year")
		default:
			out.Holidays = append(out.Holidays, calendar.Holiday{Name: name, First: first, Last: last})
		}
	}
	return out, nil
}

func midnight(t time.Time) time.Time {
	y, m, d := t.Date()
	return time.Date(y, m, d, 0, 0, 0, 0, time.UTC)
}

// Package ics writes the calendar feed of a family: the weekly lessons and the
// days of practice, as iCalendar (RFC 5545).
//
//	ics.go   the feed
//	zone.go  the time zone of the lessons, spelled out
package ics

import (
	"fmt"
	"strings"
	"time"

	ical "github.com/arran4/golang-ical"
	"github.com/teambition/rrule-go"
)

// Feed is what a calendar shows.
type Feed struct {
	// ID names the ladder in the ids of the events, so that they stay the same.
	ID string
	// Lesson is the title of the lessons, Practice that of a day of practice.
	Lesson, Practice string
	// Page is the address of the family's page; empty for none.
	Page string
	Zone *time.Location
	// First is the day of the first lesson (midnight UTC); StartsAt is in minutes
	// after midnight, local time, and Minutes how long a lesson lasts.
	First             time.Time
	StartsAt, Minutes int
	// Until is the last day for which holidays are known; lessons go on after it.
	Until time.Time
	// Off says of a day whether lessons fall out.
	Off func(day time.Time) bool
	// Days are the days of practice.
	Days []Day
	// Made is when the feed is made.
	Made time.Time
}

// Day is one day of practice.
type Day struct {
	Date time.Time
	// Minutes as planned, Words what is to be done.
	Minutes float64
	Words   string
}

const (
	localTime = "20060102T150405"
	localDay  = "20060102"
)

// Write returns the feed as iCalendar.
func Write(f Feed) string {
	c := ical.NewCalendarFor("Patient Ladder")
	c.SetMethod(ical.MethodPublish)
	c.SetName(f.Lesson)
	c.SetXWRCalName(f.Lesson)
	zone := f.Zone.String()
	first := at(f.First, f.StartsAt, f.Zone)
	if f.Zone != time.UTC {
		addZone(c, f.Zone, first, f.Until.AddDate(2, 0, 0))
	}
	lesson := c.AddEvent(f.ID + "-lesson@patient-ladder")
	lesson.SetDtStampTime(f.Made)
	lesson.SetSummary(f.Lesson)
	set := func(p ical.ComponentProperty, t time.Time) {
		if f.Zone == time.UTC {
			lesson.AddProperty(p, t.Format(localTime)+"Z")
			return
		}
		lesson.AddProperty(p, t.Format(localTime), ical.WithTZID(zone))
	}
	set(ical.ComponentPropertyDtStart, first)
	set(ical.ComponentPropertyDtEnd, first.Add(time.Duration(f.Minutes)*time.Minute))
	weekly := rrule.ROption{Freq: rrule.WEEKLY, Dtstart: first, Until: at(f.Until, f.StartsAt, f.Zone)}
	if rule, err := rrule.NewRRule(weekly); err == nil {
		for _, t := range rule.All() {
			y, m, d := t.Date()
			if f.Off(time.Date(y, m, d, 0, 0, 0, 0, time.UTC)) {
				set(ical.ComponentPropertyExdate, t)
			}
		}
	}
	open := rrule.ROption{Freq: rrule.WEEKLY}
	lesson.AddRrule(open.RRuleString())
	if f.Page != "" {
		lesson.SetURL(f.Page)
	}
	for _, d := range f.Days {
		e := c.AddEvent(fmt.Sprintf("%s-practice-%s@patient-ladder", f.ID, d.Date.Format(localDay)))
		e.SetDtStampTime(f.Made)
		e.SetAllDayStartAt(d.Date)
		e.SetAllDayEndAt(d.Date.AddDate(0, 0, 1))
		e.SetSummary(fmt.Sprintf("%s, %s min", f.Practice, strings.TrimSuffix(fmt.Sprintf("%.1f", d.Minutes), ".0")))
		e.SetDescription(d.Words)
		e.SetTimeTransparency(ical.TransparencyTransparent) // it blocks no time
		if f.Page != "" {
			e.SetURL(f.Page)
		}
	}
	return c.Serialize(ical.WithNewLineWindows)
}

// at is a local time on a day.
func at(day time.Time, minutes int, zone *time.Location) time.Time {
	y, m, d := day.Date()
	return time.Date(y, m, d, minutes/60, minutes%60, 0, 0, zone)
}

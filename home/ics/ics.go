// Package ics writes the calendars to subscribe to, of a family and of the teacher: the lessons with what was
// moved and cancelled, and the days of practice, as iCalendar (RFC 5545). And it reads holidays out of one.
//
//	ics.go       the feed
//	zone.go      the time zone of the lessons, spelled out
//	holidays.go  the days off of a file
package ics

import (
	"fmt"
	"strings"
	"time"

	ical "github.com/arran4/golang-ical"

	"patientladder/core/base/calendar"
)

// Feed is what a calendar shows.
type Feed struct {
	// Name is that of the calendar.
	Name string
	Zone *time.Location
	// From is the first day that is shown, Made when the feed is made.
	From, Made time.Time
	Students   []Student
	// Days are the days of practice, Practice their title; PracticeID names them in their ids.
	Days                 []Day
	Practice, PracticeID string
	// Page is the address of the family's page; empty for none.
	Page string
}

// Student is one student on one instrument.
type Student struct {
	// ID names the ladder in the ids of the events, so that they stay the same.
	ID string
	// Title of the lessons.
	Title string
	// Lessons has the holidays and pauses in it.
	Lessons calendar.Timetable
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
	c.SetName(f.Name)
	c.SetXWRCalName(f.Name)
	if f.Zone != time.UTC {
		addZone(c, f.Zone, at(f.From, 0, f.Zone), f.known().AddDate(2, 0, 0))
	}
	for _, s := range f.Students {
		f.lessons(c, s)
	}
	for _, d := range f.Days {
		e := c.AddEvent(fmt.Sprintf("%s-practice-%s@patient-ladder", f.PracticeID, d.Date.Format(localDay)))
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

// known is the last day of which anything is known but that lessons go on.
func (f Feed) known() time.Time {
	last := f.Made
	later := func(d time.Time) {
		if d.After(last) && d.Before(calendar.NoEnd) {
			last = d
		}
	}
	for _, s := range f.Students {
		for _, b := range s.Lessons.Breaks() {
			later(b.To)
		}
		for _, c := range s.Lessons.Changes {
			later(c.Day)
			if due, ok := calendar.DueOf(c.Lesson); ok {
				later(due)
			}
		}
		for _, slot := range s.Lessons.Slots {
			later(slot.From)
		}
	}
	return last
}

// lessons writes each slot as an event that repeats, without the lessons that fall out; one that was moved
// stands in place of its repetition (RFC 5545, sections 3.8.4.4 and 3.8.5.1). Added lessons stand for themselves.
func (f Feed) lessons(c *ical.Calendar, s Student) {
	// A slot that ends is cut; what a pause without an end takes is, too.
	t, known := s.Lessons, f.known()
	for _, slot := range t.Slots {
		for _, p := range t.Pauses {
			if p.To.Equal(calendar.NoEnd) && (slot.Until.IsZero() || !slot.Until.Before(p.From)) {
				slot.Until = p.From.AddDate(0, 0, -1)
			}
		}
		one := calendar.Timetable{Slots: []calendar.Slot{slot}, Changes: t.Changes, Holidays: t.Holidays, Pauses: t.Pauses}
		from := f.From
		if slot.From.After(from) {
			from = slot.From
		}
		bare := calendar.Timetable{Slots: []calendar.Slot{slot}}
		first, ok := bare.Next(from)
		if !ok {
			continue
		}
		uid := fmt.Sprintf("%s-%s@patient-ladder", s.ID, slot.ID)
		e := c.AddEvent(uid)
		f.event(e, s, first.Day, slot.StartsAt, slot.Minutes)
		rule := fmt.Sprintf("FREQ=WEEKLY;INTERVAL=%d", max(1, slot.Every))
		if !slot.Until.IsZero() {
			// The end of a rule is in UTC where its start is in a zone.
			rule += ";UNTIL=" + at(slot.Until, slot.StartsAt, f.Zone).UTC().Format(localTime) + "Z"
		}
		e.AddRrule(rule)
		var moved []calendar.Lesson
		for _, l := range one.Between(first.Day, known) {
			switch {
			case l.Due.IsZero() || l.Due.Before(first.Day):
			case !l.Held():
				f.set(e, ical.ComponentPropertyExdate, l.Due, slot.StartsAt)
			case l.State == calendar.Moved:
				moved = append(moved, l)
			}
		}
		for _, l := range moved {
			m := c.AddEvent(uid)
			f.set(m, ical.ComponentProperty(ical.PropertyRecurrenceId), l.Due, slot.StartsAt)
			f.event(m, s, l.Day, l.StartsAt, l.Minutes)
		}
	}
	for _, change := range t.Changes {
		if l, ok := t.Find(change.Lesson); ok && change.Kind == calendar.Extra && l.Held() && !l.Day.Before(f.From) {
			f.event(c.AddEvent(fmt.Sprintf("%s-%s@patient-ladder", s.ID, l.ID)), s, l.Day, l.StartsAt, l.Minutes)
		}
	}
}

// event fills in a lesson.
func (f Feed) event(e *ical.VEvent, s Student, day time.Time, startsAt, minutes int) {
	e.SetDtStampTime(f.Made)
	e.SetSummary(s.Title)
	f.set(e, ical.ComponentPropertyDtStart, day, startsAt)
	f.set(e, ical.ComponentPropertyDtEnd, day, startsAt+minutes)
	if f.Page != "" {
		e.SetURL(f.Page)
	}
}

// set writes a local time on a day.
func (f Feed) set(e *ical.VEvent, p ical.ComponentProperty, day time.Time, minutes int) {
	t := at(day, minutes, f.Zone)
	if f.Zone == time.UTC {
		e.AddProperty(p, t.Format(localTime)+"Z")
		return
	}
	e.AddProperty(p, t.Format(localTime), ical.WithTZID(f.Zone.String()))
}

// at is a local time on a day.
func at(day time.Time, minutes int, zone *time.Location) time.Time {
	y, m, d := day.Date()
	return time.Date(y, m, d, minutes/60, minutes%60, 0, 0, zone)
}

package home

import (
	"context"
	"strings"

	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/core/planning/inweek"
	"patientladder/core/planning/week"
	"patientladder/core/planning/withfamily"
	"patientladder/core/wording"
	"patientladder/home/ics"
)

// feedWeeks is how long published weeks stay in the calendar.
const feedWeeks = 8

// GetCalendar returns the lessons and the days of practice as a calendar to subscribe to.
func (h *Handlers) GetCalendar(ctx context.Context, r contract.GetCalendarRequestObject) (contract.GetCalendarResponseObject, error) {
	f, sh, err := h.familyHome(ctx, r.Token)
	if err != nil {
		return nil, err
	}
	weeks, err := h.Store.PublishedWeeks(ctx, f.Studio, f.Ladder, week.Ago(sh.Today, feedWeeks))
	if err != nil {
		return nil, err
	}
	t := sh.Tongue(f)
	title := t.Say("feed.lesson", "name", sh.First(), "instrument", t.Shipped(sh.Instrument))
	feed := ics.Feed{
		Name: title, Practice: t.Say("feed.practice", "name", sh.First()), PracticeID: f.Ladder, Page: h.URL + open.FamilyPath(f.Token), Zone: sh.Zone,
		From: week.Ago(sh.Today, feedWeeks), Made: sh.Now, Students: []ics.Student{{ID: f.Ladder, Title: title, Lessons: sh.Timetable()}},
	}
	resting, err := h.Resting(ctx, sh)
	if err != nil {
		return nil, err
	}
	set := open.SetWeeks(sh.Student, weeks)
	for i := range set {
		set[i].Plan = withfamily.Rested(sh.Student, set[i].Plan, resting)
	}
	for _, d := range inweek.PracticeDays(set) {
		feed.Days = append(feed.Days, ics.Day{Date: d.Date, Minutes: d.Minutes, Words: wording.CalendarDay(t, d, sh.Library)})
	}
	text := ics.Write(feed)
	return contract.GetCalendar200TextcalendarResponse{Body: strings.NewReader(text), ContentLength: int64(len(text))}, nil
}

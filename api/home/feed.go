package home

import (
	"context"
	"fmt"
	"strings"
	"time"

	"patientladder/api/contract"
	"patientladder/api/open"
	"patientladder/core/base/calendar"
	"patientladder/core/planning/week"
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
	holidays, err := h.Store.Holidays(ctx, f.Studio)
	if err != nil {
		return nil, err
	}
	weeks, err := h.Store.PublishedWeeks(ctx, f.Studio, f.Ladder, sh.Today.AddDate(0, 0, -feedWeeks*week.Days))
	if err != nil {
		return nil, err
	}
	off := calendar.Breaks(holidays, nil)
	first := wording.FirstName(sh.Name)
	feed := ics.Feed{
		ID: f.Ladder, Lesson: first + ": " + sh.Instrument + " lesson", Practice: first + ": practice", Page: h.URL + familyPath(f.Token),
		Zone: sh.Zone, First: calendar.New(sh.Today.AddDate(0, 0, -feedWeeks*week.Days), sh.Weekday, nil).Day(0),
		StartsAt: sh.Row.StartsAt, Minutes: sh.Row.Minutes, Until: sh.Today, Made: sh.Now,
		Off: func(day time.Time) bool { return calendar.Off(day, off) },
	}
	for _, h := range holidays {
		if h.Last.After(feed.Until) {
			feed.Until = h.Last
		}
	}
	for i, w := range weeks {
		for _, d := range w.Published.Days {
			// A later week that begins earlier than this one ends holds from its first day on.
			if d.Rest || len(d.Items) == 0 || i+1 < len(weeks) && !d.Date.Before(weeks[i+1].Start) {
				continue
			}
			feed.Days = append(feed.Days, ics.Day{Date: d.Date, Minutes: d.Minutes, Words: dayWords(sh, d)})
		}
	}
	text := ics.Write(feed)
	return contract.GetCalendar200TextcalendarResponse{Body: strings.NewReader(text), ContentLength: int64(len(text))}, nil
}

func dayWords(sh open.Student, d week.Day) string {
	var lines []string
	if d.Focus != "" {
		lines = append(lines, "Listen for: "+d.Focus)
	}
	for _, it := range d.Items {
		line := fmt.Sprintf("%s: %s", kinds[it.Kind], it.Title)
		if where := where(sh.Library, it); where != "" && it.Bars.From > 0 {
			line += ", " + where
		}
		if it.Hand != "" {
			line += ", " + it.Hand + " only"
		}
		if it.Times > 1 {
			line += fmt.Sprintf(", %d ×", it.Times)
		}
		lines = append(lines, line)
	}
	return strings.Join(lines, "\n")
}

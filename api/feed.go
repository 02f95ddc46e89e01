package api

import (
	"context"
	"fmt"
	"strings"
	"time"

	"patientladder/api/contract"
	"patientladder/core/base/calendar"
	weekplan "patientladder/core/planning/week"
	"patientladder/home/ics"
)

// feedWeeks is how long published weeks stay in the calendar.
const feedWeeks = 8

// GetCalendar returns the lessons and the days of practice as a calendar to subscribe to.
func (s *Server) GetCalendar(ctx context.Context, r contract.GetCalendarRequestObject) (contract.GetCalendarResponseObject, error) {
	f, sh, err := s.familyHome(ctx, r.Token)
	if err != nil {
		return nil, err
	}
	holidays, err := s.store.Holidays(ctx, f.Studio)
	if err != nil {
		return nil, err
	}
	weeks, err := s.store.PublishedWeeks(ctx, f.Studio, f.Ladder, sh.today.AddDate(0, 0, -feedWeeks*weekplan.Days))
	if err != nil {
		return nil, err
	}
	off := breaks(holidays, nil)
	first, _, _ := strings.Cut(sh.ladder.Name, " ")
	feed := ics.Feed{
		ID: f.Ladder, Lesson: first + ": " + sh.ladder.Instrument + " lesson", Practice: first + ": practice", Page: s.url + familyPath(f.Token),
		Zone: sh.zone, First: calendar.New(sh.today.AddDate(0, 0, -feedWeeks*weekplan.Days), sh.ladder.Weekday, nil).Day(0),
		StartsAt: sh.ladder.StartsAt, Minutes: sh.ladder.Minutes, Until: sh.today, Made: sh.now,
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

func dayWords(sh shelf, d weekplan.Day) string {
	var lines []string
	if d.Focus != "" {
		lines = append(lines, "Listen for: "+d.Focus)
	}
	for _, it := range d.Items {
		line := fmt.Sprintf("%s: %s", kinds[it.Kind], it.Title)
		if where := whereItem(sh.lib, it); where != "" && it.Bars.From > 0 {
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

// Package lesson answers what is asked about lessons: the day, all students at once, the plan
// of a lesson, the lesson itself, and what is recorded in it.
//
//	today.go     the lessons of a day
//	overview.go  all students on one page
//	plan.go      the plan of a lesson
//	lesson.go    the lesson
//	piece.go     a piece in the lesson
//	entries.go   what is recorded
package lesson

import (
	"context"
	"time"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/api/open"
	"patientladder/core/library/instrument"
	"patientladder/core/planning/week"
	"patientladder/core/wording"
	"patientladder/store"
)

// Handlers answer the calls about lessons.
type Handlers struct{ *open.Desk }

// GetToday returns the lessons of a day with what is due in each.
func (h *Handlers) GetToday(ctx context.Context, r contract.GetTodayRequestObject) (contract.GetTodayResponseObject, error) {
	s, horizon, err := h.Shared(ctx)
	if err != nil {
		return nil, err
	}
	day := s.Today
	if !r.Params.Day.IsZero() {
		day = r.Params.Day.Time
	}
	all, err := h.Store.Ladders(ctx, s.Tenant.ID)
	if err != nil {
		return nil, err
	}
	weeks, err := h.Store.StudioWeeks(ctx, s.Tenant.ID, day.AddDate(0, 0, -3*week.Days))
	if err != nil {
		return nil, err
	}
	var ladders []store.Ladder
	for _, l := range all {
		if l.Weekday == day.Weekday() {
			ladders = append(ladders, l)
		}
	}
	students, err := h.Briefs(ctx, s, horizon, ladders)
	if err != nil {
		return nil, err
	}
	out := contract.Today{Day: answer.Date(day), Week: dayCounts(all, day), Lessons: []contract.TodayLesson{}}
	var pupils []wording.Pupil
	for _, x := range students {
		out.Lessons = append(out.Lessons, todayLesson(s, x, weeks[x.Row.ID], day))
		pupils = append(pupils, wording.Pupil{Name: x.Row.Name, Signs: x.Due})
	}
	out.Sentence = wording.Today(pupils, day.Equal(s.Today))
	return contract.GetToday200JSONResponse(out), nil
}

func todayLesson(s open.Studio, x open.Briefed, weeks []week.SetDays, day time.Time) contract.TodayLesson {
	n := s.Names()
	family, _ := instrument.FamilyOf(x.Row.Instrument)
	out := contract.TodayLesson{
		Student: answer.Student(x.Row, day), Working: []contract.WorkingBrief{}, Last: x.LastLesson, Given: s.GivenOn(x.LastLesson, day), Signs: answer.Signs(n, x.Due),
	}
	if home, ok := s.Home(x.Home, weeks, day); ok {
		out.Home = contract.Home{Days: home.Days, Practised: home.Practised, Joyful: home.Joyful, Fine: home.Fine, Hard: home.Hard, First: []string{}, Words: n.Home(home)}
		for _, id := range home.First {
			out.Home.First = append(out.Home.First, s.Library[id].Title)
		}
	}
	for _, w := range x.Working {
		out.Working = append(out.Working, contract.WorkingBrief{Material: w.Material, Title: s.Library[w.Material].Title, Full: w.Where.Full, Points: w.Where.Points, Why: wording.Standing(w.Where, family)})
	}
	return out
}

// dayCounts counts the lessons on the days from Monday to Sunday around a day.
func dayCounts(all []store.Ladder, day time.Time) []contract.DayCount {
	monday := day.AddDate(0, 0, -(int(day.Weekday())+6)%7)
	out := make([]contract.DayCount, week.Days)
	for i := range out {
		out[i].Day = answer.Date(monday.AddDate(0, 0, i))
		for _, l := range all {
			if l.Weekday == out[i].Day.Weekday() {
				out[i].Lessons++
			}
		}
	}
	return out
}

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
	"patientladder/core/base/parallel"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
	"patientladder/core/student/standing"
	"patientladder/core/wording"
	"patientladder/store"
)

// Handlers answer the calls about lessons.
type Handlers struct{ *open.Desk }

// GetToday returns the lessons of a day with what is due in each.
func (h *Handlers) GetToday(ctx context.Context, r contract.GetTodayRequestObject) (contract.GetTodayResponseObject, error) {
	s, horizon, rungs, err := h.Whole(ctx)
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
	var students []open.Student
	for _, l := range all {
		if l.Weekday == day.Weekday() {
			x, err := h.Open(ctx, s, l)
			if err != nil {
				return nil, err
			}
			students = append(students, x)
		}
	}
	out := contract.Today{Day: answer.Date(day), Week: dayCounts(all, day), Lessons: make([]contract.TodayLesson, len(students))}
	pupils := make([]wording.Pupil, len(students))
	parallel.Each(len(students), func(i int) {
		x := students[i]
		a := x.Look(horizon, rungs[x.Ladder], studentplan.Options{Near: true})
		due := a.Due(day)
		out.Lessons[i] = todayLesson(a, weeks[x.Ladder], day)
		out.Lessons[i].Signs = answer.Signs(s.Names(), due)
		pupils[i] = wording.Pupil{Name: x.Name, Signs: due}
	})
	out.Sentence = wording.Today(pupils, day.Equal(s.Today))
	return contract.GetToday200JSONResponse(out), nil
}

func todayLesson(a open.Ahead, weeks []week.SetDays, day time.Time) contract.TodayLesson {
	n := a.Of().Names()
	out := contract.TodayLesson{
		Student: answer.Student(a.Row, day), Working: []contract.WorkingBrief{}, Last: a.Standing.LastLesson, Given: a.Given(day),
	}
	if home, ok := a.Home(weeks, day); ok {
		out.Home = contract.Home{Days: home.Days, Practised: home.Practised, Joyful: home.Joyful, Fine: home.Fine, Hard: home.Hard, First: []string{}, Words: n.Home(home)}
		for _, id := range home.First {
			out.Home.First = append(out.Home.First, a.Library[id].Title)
		}
	}
	for _, id := range a.In(standing.Working) {
		ms := a.Standing.Materials[id]
		out.Working = append(out.Working, contract.WorkingBrief{Material: id, Title: a.Library[id].Title, Full: ms.Full, Points: ms.Points, Why: wording.Standing(ms, a.Family())})
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

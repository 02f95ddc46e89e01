package api

import (
	"context"
	"strings"
	"time"

	openapi_types "github.com/oapi-codegen/runtime/types"

	"patientladder/api/contract"
	"patientladder/core/base/parallel"
	weekplan "patientladder/core/planning/week"
	"patientladder/core/student/standing"
	"patientladder/store"
)

// GetToday returns the lessons of a day with what is ripe in each.
func (s *Server) GetToday(ctx context.Context, r contract.GetTodayRequestObject) (contract.GetTodayResponseObject, error) {
	b, h, rungs, err := s.whole(ctx)
	if err != nil {
		return nil, err
	}
	day := b.today
	if !r.Params.Day.IsZero() {
		day = r.Params.Day.Time
	}
	all, err := s.store.Ladders(ctx, b.studio.ID)
	if err != nil {
		return nil, err
	}
	weeks, err := s.store.StudioWeeks(ctx, b.studio.ID, day.AddDate(0, 0, -3*weekplan.Days))
	if err != nil {
		return nil, err
	}
	out := contract.Today{Day: openapi_types.Date{Time: day}, Week: week(all, day)}
	var shelves []shelf
	for _, l := range all {
		if l.Weekday == day.Weekday() {
			sh, err := s.open(ctx, b, l)
			if err != nil {
				return nil, err
			}
			shelves = append(shelves, sh)
		}
	}
	out.Lessons = make([]contract.TodayLesson, len(shelves))
	parallel.Each(len(shelves), func(i int) {
		id := shelves[i].ladder.ID
		out.Lessons[i] = todayLesson(look(shelves[i], h, rungs[id], lens{near: true}), weeks[id], day)
	})
	out.Sentence = todaySentence(out.Lessons, day.Equal(b.today))
	return contract.GetToday200JSONResponse(out), nil
}

func todayLesson(a ahead, weeks []store.SetDays, day time.Time) contract.TodayLesson {
	sh := a.shelf
	out := contract.TodayLesson{
		Student: student(sh.ladder, day), Working: []contract.WorkingBrief{},
		Signs: signsOut(a.signs(day)),
		Last:  sh.standing.LastLesson,
		Given: !sh.standing.LastLesson.IsZero() && sh.day(sh.standing.LastLesson).Equal(day),
	}
	if home := sh.home(weeks, day); home != nil {
		out.Home = *home
	}
	for _, id := range sh.in(standing.Working) {
		ms := sh.standing.Materials[id]
		out.Working = append(out.Working, contract.WorkingBrief{Material: id, Title: sh.lib[id].Title, Full: ms.Full, Points: ms.Points, Why: ms.Why})
	}
	return out
}

// week counts the lessons on the days from Monday to Sunday around a day.
func week(all []store.Ladder, day time.Time) []struct {
	Day     openapi_types.Date `json:"day"`
	Lessons int                `json:"lessons"`
} {
	monday := day.AddDate(0, 0, -(int(day.Weekday())+6)%7)
	out := make([]struct {
		Day     openapi_types.Date `json:"day"`
		Lessons int                `json:"lessons"`
	}, 7)
	for i := range out {
		out[i].Day.Time = monday.AddDate(0, 0, i)
		for _, l := range all {
			if l.Weekday == out[i].Day.Weekday() {
				out[i].Lessons++
			}
		}
	}
	return out
}

func todaySentence(lessons []contract.TodayLesson, today bool) string {
	when := "on this day"
	if today {
		when = "today"
	}
	if len(lessons) == 0 {
		return "No lessons " + when + "."
	}
	run, stuck, choose := []string{}, []string{}, []string{}
	for _, l := range lessons {
		first, _, _ := strings.Cut(l.Student.Name, " ")
		seen := map[contract.SignKind]bool{}
		for _, sign := range l.Signs {
			if seen[sign.Kind] {
				continue
			}
			seen[sign.Kind] = true
			switch sign.Kind {
			case contract.SignKindRun:
				run = append(run, first)
			case contract.SignKindStuck:
				stuck = append(stuck, first)
			case contract.SignKindChoose:
				choose = append(choose, first)
			}
		}
	}
	parts := []string{capital(counted(len(lessons), "lesson")) + " " + when}
	for _, group := range []struct {
		names     []string
		one, many string
	}{{run, " is ready for a run", " are ready for a run"}, {stuck, " is stuck", " are stuck"}, {choose, " needs a new piece", " need a new piece"}} {
		switch len(group.names) {
		case 0:
		case 1:
			parts = append(parts, group.names[0]+group.one)
		default:
			parts = append(parts, joined(group.names)+group.many)
		}
	}
	return strings.Join(parts, "; ") + "."
}

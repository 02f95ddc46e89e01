// Package lesson answers what is asked about lessons: the day, all students at once, the plan
// of a lesson, the lesson itself, and what is recorded in it.
//
//	today.go     the lessons of a day
//	overview.go  all students on one page
//	plan.go      the plan of a lesson
//	lesson.go    the lesson
//	piece.go     a piece in the lesson
//	entries.go   what is recorded
//	past.go      the lessons that were, and the last one
//	unentered.go those of which nothing was entered
package lesson

import (
	"context"
	"slices"
	"time"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/core/base/calendar"
	"patientladder/core/base/civil"
	"patientladder/core/library/instrument"
	"patientladder/core/planning/agenda"
	"patientladder/core/planning/brief"
	"patientladder/core/planning/fromhome"
	"patientladder/core/planning/lookback"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
	"patientladder/core/planning/withfamily"
	"patientladder/core/student/standing"
	"patientladder/core/wording"
	"patientladder/store"
)

// Handlers answer the calls about lessons.
type Handlers struct{ *open.Loader }

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
	all, err := h.Ladders(ctx)
	if err != nil {
		return nil, err
	}
	weeks, err := h.Store.StudioWeeks(ctx, s.Tenant.ID, week.Reaching(day, week.Days))
	if err != nil {
		return nil, err
	}
	first := calendar.WeekStart(day, s.Tenant.FirstDay)
	days := agenda.Build(s.Pupils(all), s.Holidays, first, first.AddDate(0, 0, week.Days-1))
	here := days[civil.Between(first, day)]
	students, err := h.briefsOf(ctx, s, horizon, all, here)
	if err != nil {
		return nil, err
	}
	out := contract.Today{
		Day: answer.Date(day), Today: answer.Date(s.Today), Week: []contract.DayCount{}, Lessons: []contract.TodayLesson{},
		Holidays: append([]string{}, here.Holidays...), Others: []contract.LessonDate{}, Moved: []contract.Moved{},
	}
	if open.Actor(ctx).Role.Publishes() {
		for _, m := range wording.MovedSince(s.Tenant.Told, s.Tenant.Timezone) {
			out.Moved = append(out.Moved, contract.Moved{Number: m.Number, Says: m.Says})
		}
	}
	for _, d := range days {
		out.Week = append(out.Week, contract.DayCount{Day: answer.Date(d.Day), Lessons: d.Held()})
	}
	written, err := h.Store.StudioNotes(ctx, s.Tenant.ID, s.Now.AddDate(0, 0, -withfamily.NoteDays))
	if err != nil {
		return nil, err
	}
	notes := map[string][]withfamily.Note{}
	for _, n := range open.OfThese(written, all) {
		notes[n.Ladder] = append(notes[n.Ladder], n.Note)
	}
	for _, of := range notes {
		out.Asked += withfamily.Waiting(of)
	}
	everybody, err := h.Students(ctx, s, "")
	if err != nil {
		return nil, err
	}
	opened := open.ByLadder(everybody)
	out.NotEntered = len(lookback.AllUnentered(open.Plain(everybody)))
	var pupils []wording.Pupil
	for _, l := range here.Lessons {
		if !l.Held() {
			continue
		}
		x := students[l.Pupil.Ladder]
		student, here := opened[x.Row.ID]
		if !here { // gone since
			student = open.Student{Tenant: s.Tenant, Student: studentplan.Student{Studio: s.Studio, Profile: x.Row.Profile(), Standing: &standing.Standing{}}}
		}
		// One question for each lesson of the day: a week's plan is large, and a day has few lessons.
		before, err := h.Before(ctx, student, x.Home, day)
		if err != nil {
			return nil, err
		}
		out.Lessons = append(out.Lessons, todayLesson(s, x, student.Student, l, weeks[x.Row.ID], notes[x.Row.ID], before.Shown, day))
		pupils = append(pupils, wording.Pupil{First: x.Row.Profile().First(), Signs: x.Due})
	}
	for _, l := range here.Cancelled() {
		out.Others = append(out.Others, answer.LessonDate(l))
	}
	for _, l := range here.Away {
		away := answer.LessonDate(l)
		away.Words = wording.MovedAway(l)
		out.Others = append(out.Others, away)
	}
	if out.First, err = h.firstSteps(ctx, s, everybody, len(weeks) > 0); err != nil {
		return nil, err
	}
	out.Sentence = wording.Today(pupils, day.Equal(s.Today))
	return contract.GetToday200JSONResponse(out), nil
}

// firstSteps are the steps of a studio that begins; only a small one is looked at for it.
func (h *Handlers) firstSteps(ctx context.Context, s open.Studio, students []open.Student, published bool) ([]contract.FirstStep, error) {
	out := []contract.FirstStep{}
	if len(students) > brief.MostBeginning {
		return out, nil
	}
	rungs, err := h.Store.AllRungs(ctx, s.Tenant.ID)
	if err != nil {
		return nil, err
	}
	role := open.Actor(ctx).Role
	for _, f := range brief.FirstSteps(open.Plain(students), brief.Beginner{Adds: role.Publishes(), ChoosesWay: role.Owns(), WayChosen: s.Tenant.WayVersion > 1, Published: published}, rungs) {
		out = append(out, contract.FirstStep{Step: contract.FirstStepStep(f.Step), Done: f.Done, Ladder: f.Ladder})
	}
	return out, nil
}

// briefsOf opens the briefs of those who have a lesson on a day, by ladder.
func (h *Handlers) briefsOf(
	ctx context.Context,
	s open.Studio,
	horizon open.Horizon,
	all []store.Ladder,
	day agenda.Day,
) (map[string]open.Briefed, error) {
	var ladders []store.Ladder
	for _, l := range all {
		if slices.ContainsFunc(day.Lessons, func(x agenda.Lesson) bool { return x.Held() && x.Pupil.Ladder == l.ID }) {
			ladders = append(ladders, l)
		}
	}
	list, err := h.Briefs(ctx, s, horizon, ladders)
	out := map[string]open.Briefed{}
	for _, x := range list {
		out[x.Row.ID] = x
	}
	return out, err
}

func todayLesson(
	s open.Studio,
	x open.Briefed,
	student studentplan.Student,
	l agenda.Lesson,
	weeks []week.SetDays,
	notes []withfamily.Note,
	shown []fromhome.Thing,
	day time.Time,
) contract.TodayLesson {
	n := s.Names()
	family, _ := instrument.FamilyOf(x.Row.Instrument)
	out := contract.TodayLesson{
		Student: answer.Student(x.Row, day), Lesson: answer.Became(l, lookback.BecameOf(student, l.Lesson)), Working: []contract.WorkingBrief{},
		Last: x.LastLesson, Signs: answer.Signs(n, x.Due),
	}
	if home, ok := withfamily.HomeOf(student, x.Home, weeks, notes, day); ok {
		home.Shown = shown
		out.Home = contract.Home{
			Days:      home.Days,
			Practised: home.Practised,
			Joyful:    home.Joyful,
			Fine:      home.Fine,
			Hard:      home.Hard,
			First:     []string{},
			Words:     n.Home(home),
		}
		for _, id := range home.First {
			out.Home.First = append(out.Home.First, s.Library[id].Title)
		}
	}
	for _, w := range x.Working {
		out.Working = append(
			out.Working,
			contract.WorkingBrief{
				Material: w.Material,
				Title:    s.Library[w.Material].Title,
				Full:     w.Where.Full,
				Points:   w.Where.Points,
				Why:      wording.Standing(w.Where, family),
			},
		)
	}
	return out
}

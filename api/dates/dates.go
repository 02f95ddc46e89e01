// Package dates answers what is asked about the calendar: which lessons there are, what is done with single
// ones, which times are free, holidays, and the calendar that the teacher subscribes to.
//
//	dates.go     the lessons of some days, changes, free times, lesson times
//	holidays.go  holidays of the studio and of a student, also out of a file
//	feed.go      the teacher's own calendar
package dates

import (
	"context"

	"patientladder/api/answer"
	"patientladder/api/asked"
	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/base/calendar"
	"patientladder/core/planning/agenda"
	"patientladder/core/planning/lookback"
	"patientladder/core/wording"
)

// Handlers answer the calls about the calendar.
type Handlers struct{ *open.Loader }

// pupils opens a studio with all who have lessons in it.
func (h *Handlers) pupils(ctx context.Context) (open.Studio, []agenda.Pupil, error) {
	s, err := h.Day(ctx)
	if err != nil {
		return s, nil, err
	}
	ladders, err := h.Ladders(ctx)
	return s, s.Pupils(ladders), err
}

// GetAgenda returns the lessons of some days.
func (h *Handlers) GetAgenda(ctx context.Context, r contract.GetAgendaRequestObject) (contract.GetAgendaResponseObject, error) {
	s, err := h.Studio(ctx)
	if err != nil {
		return nil, err
	}
	ladders, err := h.Ladders(ctx)
	if err != nil {
		return nil, err
	}
	opened, err := h.Students(ctx, s, "")
	if err != nil {
		return nil, err
	}
	students := open.ByLadder(opened)
	pupils := s.Pupils(ladders)
	from := r.Params.From.Time
	if from.IsZero() {
		from = s.Today
	}
	days := agenda.Build(pupils, s.Holidays, from, from.AddDate(0, 0, max(1, r.Params.Days)-1))
	toMakeUp := agenda.ToMakeUp(pupils, s.Today)
	out := contract.Agenda{
		From:     answer.Date(from),
		Today:    answer.Date(s.Today),
		Sentence: wording.Agenda(days, len(toMakeUp), s.Today),
		Days:     []contract.AgendaDay{},
		ToMakeUp: dated(toMakeUp),
	}
	for _, d := range days {
		out.Days = append(
			out.Days,
			contract.AgendaDay{Day: answer.Date(d.Day), Holidays: append([]string{}, d.Holidays...), Lessons: became(d.Lessons, students)},
		)
	}
	return contract.GetAgenda200JSONResponse(out), nil
}

// became are lessons with what became of them, as far as the students are still here.
func became(list []agenda.Lesson, students map[string]open.Student) []contract.LessonDate {
	out := dated(list)
	for i, l := range list {
		if x, here := students[l.Pupil.Ladder]; here {
			out[i] = answer.Became(l, lookback.BecameOf(x.Student, l.Lesson))
		}
	}
	return out
}

func dated(list []agenda.Lesson) []contract.LessonDate {
	out := []contract.LessonDate{}
	for _, l := range list {
		out = append(out, answer.LessonDate(l))
	}
	return out
}

// ChangeLesson does something with one dated lesson.
func (h *Handlers) ChangeLesson(ctx context.Context, r contract.ChangeLessonRequestObject) (contract.ChangeLessonResponseObject, error) {
	s, err := h.Day(ctx)
	if err != nil {
		return nil, err
	}
	n := r.Body
	to := calendar.Time{Day: n.Day.Time, Minutes: n.Minutes}
	if n.StartsAt != "" {
		if to.StartsAt, err = open.Clock(n.StartsAt); err != nil {
			return nil, err
		}
	}
	err = h.change(ctx, s, r.Ladder, func(t calendar.Timetable) (calendar.Timetable, error) {
		switch n.What {
		case contract.Move:
			return t.Move(r.Lesson, to, s.Today)
		case contract.MoveOn:
			return t.RescheduleSeries(r.Lesson, to, s.Today, n.Slot)
		case contract.Cancel:
			return t.CancelLesson(r.Lesson, calendar.Who(n.By), n.Late)
		case contract.Restore:
			return t.Restore(r.Lesson)
		}
		return t.Add(r.Lesson, to, n.MakesUp, s.Today)
	})
	return contract.ChangeLesson204Response{}, err
}

// change changes the timetable of a ladder, by what the rules of the calendar allow.
func (h *Handlers) change(
	ctx context.Context,
	s open.Studio,
	ladder string,
	change func(calendar.Timetable) (calendar.Timetable, error),
) error {
	if _, err := h.Ladder(ctx, ladder); err != nil {
		return err
	}
	var refused error
	err := h.Store.ChangeTimetable(ctx, s.Tenant.ID, ladder, func(t calendar.Timetable) (calendar.Timetable, error) {
		next, err := change(t)
		refused = err
		return next, err
	})
	if refused != nil {
		return refusal.Because(refused)
	}
	return err
}

// FindFree returns times that are free for a lesson.
func (h *Handlers) FindFree(ctx context.Context, r contract.FindFreeRequestObject) (contract.FindFreeResponseObject, error) {
	s, pupils, err := h.pupils(ctx)
	if err != nil {
		return nil, err
	}
	l, err := h.Ladder(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	minutes := r.Params.Minutes
	if minutes == 0 {
		x, err := h.For(s, l)
		if err != nil {
			return nil, err
		}
		minutes = x.LessonMinutes(r.Params.Near.Time)
	}
	out := contract.FindFree200JSONResponse{}
	for _, t := range agenda.Free(pupils, s.Holidays, l.StudentID, minutes, r.Params.Near.Time, s.Today) {
		out = append(
			out,
			contract.FreeTime{Day: answer.Date(t.Day), StartsAt: wording.Clock(t.StartsAt), Minutes: t.Minutes, Words: wording.FreeTime(t)},
		)
	}
	return out, nil
}

// SetSlots lets other lesson times hold from a day on.
func (h *Handlers) SetSlots(ctx context.Context, r contract.SetSlotsRequestObject) (contract.SetSlotsResponseObject, error) {
	s, err := h.Day(ctx)
	if err != nil {
		return nil, err
	}
	slots, err := asked.Slots(r.Body.Slots)
	if err != nil {
		return nil, err
	}
	err = h.change(ctx, s, r.Ladder, func(t calendar.Timetable) (calendar.Timetable, error) { return t.SetSlots(r.Body.From.Time, slots) })
	return contract.SetSlots204Response{}, err
}

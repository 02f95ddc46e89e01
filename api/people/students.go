package people

import (
	"context"
	"fmt"
	"strings"
	"time"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/api/open"
	"patientladder/api/problem"
	"patientladder/core/library/material"
	"patientladder/core/planning/curriculum"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/studentplan"
	"patientladder/store"
)

// ListStudents returns all students in the order of their lessons in the week.
func (h *Handlers) ListStudents(ctx context.Context, _ contract.ListStudentsRequestObject) (contract.ListStudentsResponseObject, error) {
	s, err := h.Day(ctx)
	if err != nil {
		return nil, err
	}
	all, err := h.Store.Ladders(ctx, s.Tenant.ID)
	if err != nil {
		return nil, err
	}
	out := make(contract.ListStudents200JSONResponse, len(all))
	for i, l := range all {
		out[i] = answer.Student(l, s.Today)
	}
	return out, nil
}

// AddStudent adds a student with a ladder and a weekly lesson, and puts the
// materials of a book on the ladder when one is named.
func (h *Handlers) AddStudent(ctx context.Context, r contract.AddStudentRequestObject) (contract.AddStudentResponseObject, error) {
	b, err := h.Studio(ctx)
	if err != nil {
		return nil, err
	}
	n := r.Body
	if _, err := open.Instrument(string(n.Instrument)); err != nil {
		return nil, err
	}
	name := strings.TrimSpace(n.Name)
	if name == "" {
		return nil, problem.Invalid("The student needs a name.")
	}
	if n.Born.After(b.Today) || n.Born.Before(b.Today.AddDate(-120, 0, 0)) {
		return nil, problem.Invalid(fmt.Sprintf("The date of birth, %s, cannot be right.", n.Born.Format(time.DateOnly)))
	}
	var hour, minute int
	if _, err := fmt.Sscanf(n.StartsAt, "%d:%d", &hour, &minute); err != nil {
		return nil, problem.Invalid(fmt.Sprintf("%q is not a time of day such as 15:30.", n.StartsAt))
	}
	l := store.Ladder{
		ID: n.Ladder, StudentID: n.Student, Name: name, Born: n.Born.Time, Instrument: string(n.Instrument),
		HandsApart: true, Weekday: time.Weekday(n.Weekday), StartsAt: hour*60 + minute, Minutes: n.Minutes,
	}
	l.PracticeDays, l.PracticeMinutes = studentplan.FirstPractice(l.Age(b.Today), l.Weekday)
	if err := h.Store.AddLadder(ctx, b.Tenant.ID, l); err != nil {
		return nil, err
	}
	if rungs := ofSource(b.Library, n.Source, l.Instrument); len(rungs) > 0 {
		if err := h.Store.PlaceRungs(ctx, b.Tenant.ID, l.ID, rungs); err != nil {
			return nil, err
		}
	}
	return contract.AddStudent201JSONResponse(answer.Student(l, b.Today)), nil
}

// ofSource returns the materials of a book for an instrument, in the book's order.
func ofSource(lib material.Library, source, instrument string) []ladder.Placed {
	var out []ladder.Placed
	if source == "" {
		return out
	}
	for _, m := range curriculum.Book(lib, source) {
		if m.Instrument == instrument {
			out = append(out, ladder.Placed{Material: m.ID, Strand: m.Strand})
		}
	}
	return out
}

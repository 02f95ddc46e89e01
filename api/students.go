package api

import (
	"context"
	"fmt"
	"sort"
	"strings"
	"time"

	"patientladder/api/contract"
	"patientladder/core/library/material"
	"patientladder/core/planning/ladder"
	"patientladder/store"
)

// ListStudents returns all students in the order of their lessons in the week.
func (s *Server) ListStudents(ctx context.Context, _ contract.ListStudentsRequestObject) (contract.ListStudentsResponseObject, error) {
	all, err := s.store.Ladders(ctx, actor(ctx).studio)
	if err != nil {
		return nil, err
	}
	out := make(contract.ListStudents200JSONResponse, len(all))
	for i, l := range all {
		out[i] = student(l, s.now())
	}
	return out, nil
}

// AddStudent adds a student with a ladder and a weekly lesson, and puts the
// materials of a book on the ladder when one is named.
func (s *Server) AddStudent(ctx context.Context, r contract.AddStudentRequestObject) (contract.AddStudentResponseObject, error) {
	b, err := s.book(ctx)
	if err != nil {
		return nil, err
	}
	n := r.Body
	if _, err := instrumentOf(string(n.Instrument)); err != nil {
		return nil, err
	}
	name := strings.TrimSpace(n.Name)
	if name == "" {
		return nil, invalid("The student needs a name.")
	}
	if n.Born.After(b.today) || n.Born.Before(b.today.AddDate(-120, 0, 0)) {
		return nil, invalid(fmt.Sprintf("The date of birth, %s, cannot be right.", n.Born.Format(time.DateOnly)))
	}
	var hour, minute int
	if _, err := fmt.Sscanf(n.StartsAt, "%d:%d", &hour, &minute); err != nil {
		return nil, invalid(fmt.Sprintf("%q is not a time of day such as 15:30.", n.StartsAt))
	}
	l := store.Ladder{
		ID: n.Ladder, StudentID: n.Student, Name: name, Born: n.Born.Time, Instrument: string(n.Instrument),
		PracticeDays: [7]bool{true, true, true, true, true, true, true}, PracticeMinutes: 20, HandsApart: true,
		Weekday: time.Weekday(n.Weekday), StartsAt: hour*60 + minute, Minutes: n.Minutes,
	}
	l.PracticeDays[l.Weekday] = false // the lesson day is for the lesson
	if l.Age(b.today) < 7 {
		l.PracticeMinutes = 10
	}
	if err := s.store.AddLadder(ctx, b.studio.ID, l); err != nil {
		return nil, err
	}
	if rungs := ofSource(b.lib, n.Source, l.Instrument); len(rungs) > 0 {
		if err := s.store.PlaceRungs(ctx, b.studio.ID, l.ID, rungs); err != nil {
			return nil, err
		}
	}
	return contract.AddStudent201JSONResponse(student(l, b.today)), nil
}

// ofSource returns the materials of a book for an instrument, in the book's order.
func ofSource(lib material.Library, source, instrument string) []ladder.Placed {
	var list []material.Material
	for _, m := range lib {
		if source != "" && m.SourceID == source && m.Instrument == instrument {
			list = append(list, m)
		}
	}
	sort.Slice(list, func(a, b int) bool { return list[a].Order < list[b].Order })
	out := make([]ladder.Placed, len(list))
	for i, m := range list {
		out[i] = ladder.Placed{Material: m.ID, Strand: m.Strand}
	}
	return out
}

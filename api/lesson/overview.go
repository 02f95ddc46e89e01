package lesson

import (
	"context"
	"slices"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/api/ladder"
	"patientladder/app/open"
	"patientladder/core/planning/signs"
	"patientladder/core/planning/studentplan"
	"patientladder/core/wording"
	"patientladder/store"
)

// GetOverview returns all students on one page, those that need something most first.
func (h *Handlers) GetOverview(ctx context.Context, _ contract.GetOverviewRequestObject) (contract.GetOverviewResponseObject, error) {
	s, horizon, err := h.Shared(ctx)
	if err != nil {
		return nil, err
	}
	ladders, err := h.Ladders(ctx)
	if err != nil {
		return nil, err
	}
	targets, err := h.Store.AllTargets(ctx, s.Tenant.ID)
	if err != nil {
		return nil, err
	}
	ladders = slices.DeleteFunc(ladders, func(l store.Ladder) bool {
		p := l.Profile()
		return p.Gone(s.Today) || p.Paused(s.Today)
	})
	students, err := h.Briefs(ctx, s, horizon, ladders)
	if err != nil {
		return nil, err
	}
	due := make([][]signs.Sign, len(students))
	pupils := make([]wording.Pupil, len(students))
	for i, x := range students {
		due[i] = x.Due
		pupils[i] = wording.Pupil{First: x.Row.Profile().First(), Signs: x.Due, Starved: x.Review.Starved > 0}
	}
	out := contract.Overview{Students: make([]contract.OverviewStudent, 0, len(students)), Sentence: wording.Studio(pupils)}
	for _, i := range signs.ByUrgency(due) {
		x := overviewStudent(s, students[i])
		if list := targets[students[i].Row.ID]; len(list) > 0 {
			// A target may lie beyond what a brief looks at.
			a, err := h.Ahead(ctx, students[i].Row.ID, studentplan.Options{})
			if err != nil {
				return nil, err
			}
			x.Targets = ladder.Targets(a, list)
		}
		out.Students = append(out.Students, x)
	}
	return contract.GetOverview200JSONResponse(out), nil
}

func overviewStudent(s open.Studio, x open.Briefed) contract.OverviewStudent {
	out := contract.OverviewStudent{
		Student: answer.Student(x.Row, s.Today), Working: []contract.WorkingPiece{}, Review: answer.Review(x.Review),
		Signs: answer.Signs(s.Names(), x.Due), Targets: []contract.TargetBrief{},
	}
	for _, w := range x.Working {
		words := ""
		if w.Foreseen {
			words = wording.Between(w.Low, w.High, s.Today)
		}
		out.Working = append(out.Working, contract.WorkingPiece{
			Clears: contract.Days{Low: answer.Date(w.Low), Median: answer.Date(w.Median), High: answer.Date(w.High), Words: words},
			Long:   w.Long, Full: w.Where.Full, Material: w.Material, Points: w.Where.Points, Title: s.Library[w.Material].Title, Usual: w.Usual,
			Weeks: w.Weeks,
		})
	}
	return out
}

package lesson

import (
	"context"
	"errors"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/api/ladder"
	"patientladder/api/open"
	"patientladder/core/base/parallel"
	"patientladder/core/planning/signs"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/standing"
	"patientladder/core/wording"
)

// GetOverview returns all students on one page, those that need something most first.
func (h *Handlers) GetOverview(ctx context.Context, _ contract.GetOverviewRequestObject) (contract.GetOverviewResponseObject, error) {
	s, horizon, rungs, err := h.Whole(ctx)
	if err != nil {
		return nil, err
	}
	targets, err := h.Store.AllTargets(ctx, s.Tenant.ID)
	if err != nil {
		return nil, err
	}
	students, err := h.Students(ctx, s, "")
	if err != nil {
		return nil, err
	}
	list := make([]contract.OverviewStudent, len(students))
	due := make([][]signs.Sign, len(students))
	pupils := make([]wording.Pupil, len(students))
	errs := make([]error, len(students))
	parallel.Each(len(students), func(i int) {
		x := students[i]
		near := len(targets[x.Ladder]) == 0 // a target may lie beyond what previews look at
		a := x.Look(horizon, rungs[x.Ladder], studentplan.Options{Near: near})
		review, err := h.Review(ctx, a)
		errs[i], due[i] = err, a.Due(a.Today)
		list[i] = overviewStudent(a, review)
		list[i].Signs, list[i].Targets = answer.Signs(s.Names(), due[i]), ladder.Targets(a, targets[x.Ladder])
		pupils[i] = wording.Pupil{Name: x.Name, Signs: due[i], Starved: review.Starved > 0}
	})
	out := contract.Overview{Students: make([]contract.OverviewStudent, 0, len(students)), Sentence: wording.Studio(pupils)}
	for _, i := range signs.ByUrgency(due) {
		out.Students = append(out.Students, list[i])
	}
	return contract.GetOverview200JSONResponse(out), errors.Join(errs...)
}

func overviewStudent(a open.Ahead, review studentplan.ReviewState) contract.OverviewStudent {
	out := contract.OverviewStudent{Student: answer.Student(a.Row, a.Today), Working: []contract.WorkingPiece{}, Review: answer.Review(review)}
	for _, id := range a.In(standing.Working) {
		ms, w := a.Standing.Materials[id], a.When[id]
		out.Working = append(out.Working, contract.WorkingPiece{
			Clears: answer.Days(&a.Ahead, w.Clear), Full: ms.Full, Material: id, Points: ms.Points, Title: a.Library[id].Title, Usual: w.Usual, Weeks: max(0, w.Elapsed-1),
		})
	}
	return out
}

package people

import (
	"context"

	"patientladder/api/contract"
	"patientladder/app"
	"patientladder/core/planning/studentplan"
	"patientladder/core/wording"
)

// EraseStudent lets everything about a student go in a day.
func (h *Handlers) EraseStudent(ctx context.Context, r contract.EraseStudentRequestObject) (contract.EraseStudentResponseObject, error) {
	s, err := h.Day(ctx)
	if err != nil {
		return nil, err
	}
	p, at, err := app.EraseStudent(ctx, h.Loader, r.Student)
	words := wording.ErasedAt(at.In(s.Zone), studentplan.Profile{Name: p.Name, Called: p.Called}.First())
	return contract.EraseStudent200JSONResponse{Words: words}, err
}

// KeepStudent takes a deletion back.
func (h *Handlers) KeepStudent(ctx context.Context, r contract.KeepStudentRequestObject) (contract.KeepStudentResponseObject, error) {
	return contract.KeepStudent204Response{}, app.KeepStudent(ctx, h.Loader, r.Student)
}

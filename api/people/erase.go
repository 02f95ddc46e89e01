package people

import (
	"context"
	"time"

	"patientladder/api/contract"
	"patientladder/api/open"
	"patientladder/core/planning/studentplan"
	"patientladder/core/wording"
	"patientladder/store"
)

// Regret is how long a deletion can be taken back (default).
const Regret = 24 * time.Hour

// EraseStudent lets everything about a student go in a day.
func (h *Handlers) EraseStudent(ctx context.Context, r contract.EraseStudentRequestObject) (contract.EraseStudentResponseObject, error) {
	s, err := h.Day(ctx)
	if err != nil {
		return nil, err
	}
	p, _, err := h.Person(ctx, r.Student)
	if err != nil {
		return nil, err
	}
	at := h.Now().Add(Regret)
	if err := h.Store.MarkErase(ctx, s.Tenant.ID, p.ID, at); err != nil {
		return nil, err
	}
	words := wording.ErasedAt(at.In(s.Zone), studentplan.Profile{Name: p.Name, Called: p.Called}.First())
	return contract.EraseStudent200JSONResponse{Words: words}, h.Store.Audit(ctx, s.Tenant.ID, store.Audited{At: h.Now(), Kind: "student-deleted", Teacher: open.Actor(ctx).Teacher})
}

// KeepStudent takes a deletion back.
func (h *Handlers) KeepStudent(ctx context.Context, r contract.KeepStudentRequestObject) (contract.KeepStudentResponseObject, error) {
	who := open.Actor(ctx)
	if err := h.Store.MarkErase(ctx, who.Studio, r.Student, time.Time{}); err != nil {
		return nil, err
	}
	return contract.KeepStudent204Response{}, h.Store.Audit(ctx, who.Studio, store.Audited{At: h.Now(), Kind: "student-kept", Teacher: who.Teacher})
}

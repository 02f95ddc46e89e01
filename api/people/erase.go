package people

import (
	"context"
	"time"

	"patientladder/api/contract"
	"patientladder/app/open"
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
	words := wording.ErasedAt(at.In(s.Zone), studentplan.Profile{Name: p.Name, Called: p.Called}.First())
	return contract.EraseStudent200JSONResponse{Words: words}, h.mark(ctx, p.ID, at, "student-deleted")
}

// KeepStudent takes a deletion back.
func (h *Handlers) KeepStudent(ctx context.Context, r contract.KeepStudentRequestObject) (contract.KeepStudentResponseObject, error) {
	return contract.KeepStudent204Response{}, h.mark(ctx, r.Student, time.Time{}, "student-kept")
}

// mark sets when everything about a student goes, zero for never, and notes who said so.
func (h *Handlers) mark(ctx context.Context, student string, at time.Time, kind string) error {
	who := open.Actor(ctx)
	return h.Store.Together(ctx, func(ctx context.Context) error {
		if err := h.Store.MarkErase(ctx, who.Studio, student, at); err != nil {
			return err
		}
		return h.Store.Audit(ctx, who.Studio, store.Audited{At: h.Now(), Kind: kind, Teacher: who.Teacher})
	})
}

package people

import (
	"context"
	"time"

	"github.com/oklog/ulid/v2"

	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/student/person"
	"patientladder/store"
)

// SetPause lets a student pause.
func (h *Handlers) SetPause(ctx context.Context, r contract.SetPauseRequestObject) (contract.SetPauseResponseObject, error) {
	s, err := h.Day(ctx)
	if err != nil {
		return nil, err
	}
	if _, _, err := h.Person(ctx, r.Student); err != nil {
		return nil, err
	}
	if err := person.CheckPause(r.Body.First.Time, r.Body.Last.Time, s.Today); err != nil {
		return nil, refusal.Because(err)
	}
	return contract.SetPause204Response{}, h.Store.SetPause(
		ctx,
		s.Tenant.ID,
		r.Student,
		store.Pause{ID: r.Pause, First: r.Body.First.Time, Last: r.Body.Last.Time},
	)
}

// RemovePause takes a pause away.
func (h *Handlers) RemovePause(ctx context.Context, r contract.RemovePauseRequestObject) (contract.RemovePauseResponseObject, error) {
	return contract.RemovePause204Response{}, h.Store.RemovePause(ctx, open.Actor(ctx).Studio, r.Student, r.Pause)
}

// Leave lets a student leave; everything is kept.
func (h *Handlers) Leave(ctx context.Context, r contract.LeaveRequestObject) (contract.LeaveResponseObject, error) {
	s, err := h.Day(ctx)
	if err != nil {
		return nil, err
	}
	if err := person.CheckLeaving(r.Body.From.Time, s.Today); err != nil {
		return nil, refusal.Because(err)
	}
	return contract.Leave204Response{}, h.Store.SetLeft(ctx, s.Tenant.ID, r.Student, r.Body.From.Time, nil)
}

// ComeBack takes a student in again, as if nothing had happened but a pause.
func (h *Handlers) ComeBack(ctx context.Context, r contract.ComeBackRequestObject) (contract.ComeBackResponseObject, error) {
	s, err := h.Day(ctx)
	if err != nil {
		return nil, err
	}
	p, _, err := h.Person(ctx, r.Student)
	if err != nil {
		return nil, err
	}
	var away *store.Pause
	if first, last, ok := person.Away(p.Left, s.Today); ok {
		away = &store.Pause{ID: ulid.Make().String(), First: first, Last: last}
	}
	return contract.ComeBack204Response{}, h.Store.SetLeft(ctx, s.Tenant.ID, r.Student, time.Time{}, away)
}

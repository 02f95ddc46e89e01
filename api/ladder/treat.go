package ladder

import (
	"context"
	"errors"
	"strings"

	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/planning/withfamily"
	"patientladder/store"
)

// Treats are what was promised on a ladder, with what is earned of it; none where the way of teaching has none.
func Treats(ctx context.Context, d *open.Loader, s open.Student) ([]contract.Treat, error) {
	out := []contract.Treat{}
	if !s.Way.Rewards {
		return out, nil
	}
	list, err := d.Store.Treats(ctx, s.Tenant.ID, s.Ladder)
	n := s.Of().Names()
	for _, t := range list {
		x := withfamily.Treat{ID: t.ID, Words: t.Words, Material: t.Material, Pieces: t.Pieces, Base: t.Base, Given: !t.Given.IsZero()}
		earned, left := withfamily.Earned(s.Student, x)
		out = append(out, contract.Treat{Id: t.ID, Words: t.Words, Earned: earned, Given: x.Given, Says: n.Treat(x, earned, left)})
	}
	return out, err
}

// ListTreats returns what was promised.
func (h *Handlers) ListTreats(ctx context.Context, r contract.ListTreatsRequestObject) (contract.ListTreatsResponseObject, error) {
	s, err := h.Student(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	out, err := Treats(ctx, h.Loader, s)
	return contract.ListTreats200JSONResponse(out), err
}

// SetTreat promises something, or notes that it was had.
func (h *Handlers) SetTreat(ctx context.Context, r contract.SetTreatRequestObject) (contract.SetTreatResponseObject, error) {
	s, err := h.Student(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	if !s.Way.Rewards {
		return nil, refusal.Invalid("Treats are switched off in this way of teaching.")
	}
	t := store.Treat{
		ID:       r.Treat,
		Words:    strings.TrimSpace(r.Body.Words),
		Material: r.Body.Material,
		Pieces:   r.Body.Pieces,
		Base:     withfamily.ClearedPieces(s.Student),
		Made:     s.Today,
	}
	list, err := h.Store.Treats(ctx, s.Tenant.ID, s.Ladder)
	if err != nil {
		return nil, err
	}
	t = t.Since(list)
	switch err := withfamily.Promise(s.Student, withfamily.Treat{Words: t.Words, Material: t.Material, Pieces: t.Pieces}); {
	case errors.Is(err, withfamily.ErrTreatMaterial):
		return nil, refusal.NoMaterial
	case err != nil:
		return nil, refusal.Because(err)
	}
	if r.Body.Given {
		t.Given = s.Today
	}
	return contract.SetTreat204Response{}, h.Store.SetTreat(ctx, s.Tenant.ID, s.Ladder, t)
}

// RemoveTreat takes a promise away.
func (h *Handlers) RemoveTreat(ctx context.Context, r contract.RemoveTreatRequestObject) (contract.RemoveTreatResponseObject, error) {
	studio := open.Actor(ctx).Studio
	if _, err := h.Ladder(ctx, r.Ladder); err != nil {
		return nil, err
	}
	return contract.RemoveTreat204Response{}, h.Store.RemoveTreat(ctx, studio, r.Ladder, r.Treat)
}

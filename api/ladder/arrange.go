package ladder

import (
	"context"
	"errors"

	"patientladder/api/contract"
	"patientladder/app/refusal"
	"patientladder/core/library/material"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/whatif"
	"patientladder/store"
)

// Arrange sets the order of everything that was not begun, or shows what it would do.
func (h *Handlers) Arrange(ctx context.Context, r contract.ArrangeRequestObject) (contract.ArrangeResponseObject, error) {
	a, err := h.Ahead(ctx, r.Ladder, studentplan.Options{})
	if err != nil {
		return nil, err
	}
	if r.Body.Version != a.Row.RungsVersion {
		return nil, store.ErrConflict
	}
	n := a.Of().Names()
	var wanted []ladder.Placed
	for _, w := range r.Body.Rungs {
		wanted = append(wanted, ladder.Placed{Material: w.Material, Strand: material.Strand(w.Strand), Aside: ladder.Aside(w.Aside)})
	}
	placed, err := whatif.Arranged(a.StudentOutlook, wanted)
	var refused whatif.OrderError
	switch {
	case errors.As(err, &refused) && refused.Kind == whatif.Unknown:
		return nil, refusal.NoMaterial
	case errors.As(err, &refused):
		return nil, refusal.Invalid(n.Order(refused, a.Instrument))
	}
	then := a.Opened.Look(a.OpenHorizon, placed, studentplan.Options{})
	targets, err := h.Store.Targets(ctx, a.Tenant.ID, a.Ladder)
	if err != nil {
		return nil, err
	}
	out := contract.Arranged{Changes: []contract.Consequence{}}
	for _, c := range whatif.Consequences(&a.StudentOutlook, &then.StudentOutlook, targets) {
		out.Changes = append(
			out.Changes,
			contract.Consequence{Kind: contract.ConsequenceKind(c.Kind), Material: c.Material, Worse: c.Worse, Text: n.Consequence(c)},
		)
	}
	err = h.Store.Together(ctx, func(ctx context.Context) (err error) {
		if !r.Params.Try {
			if err := h.Store.Arrange(ctx, a.Tenant.ID, a.Ladder, r.Body.Version, placed); err != nil {
				return err
			}
			then.Row.RungsVersion = a.Row.RungsVersion + 1
		}
		out.Ladder, err = h.view(ctx, then)
		return err
	})
	return contract.Arrange200JSONResponse(out), err
}

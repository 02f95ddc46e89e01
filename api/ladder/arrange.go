package ladder

import (
	"context"

	"patientladder/api/contract"
	"patientladder/app"
	"patientladder/core/library/material"
	"patientladder/core/planning/ladder"
	"patientladder/store"
)

// Arrange sets the order of everything that was not begun, or shows what it would do.
func (h *Handlers) Arrange(ctx context.Context, r contract.ArrangeRequestObject) (contract.ArrangeResponseObject, error) {
	var wanted []ladder.Placed
	for _, w := range r.Body.Rungs {
		wanted = append(wanted, ladder.Placed{Material: w.Material, Strand: material.Strand(w.Strand), Aside: ladder.Aside(w.Aside)})
	}
	out, err := store.Whole(ctx, h.Store, func(ctx context.Context) (out contract.Arranged, err error) {
		x, err := app.Arrange(ctx, h.Loader, r.Ladder, wanted, r.Body.Version, r.Params.Try)
		if err != nil {
			return out, err
		}
		out.Changes = []contract.Consequence{}
		for _, c := range x.Changes {
			out.Changes = append(
				out.Changes,
				contract.Consequence{
					Kind: contract.ConsequenceKind(c.Kind), Material: c.Material, Worse: c.Worse, Text: x.Was.Of().Names().Consequence(c),
				},
			)
		}
		out.Ladder, err = h.view(ctx, x.Then)
		return out, err
	})
	return contract.Arrange200JSONResponse(out), err
}

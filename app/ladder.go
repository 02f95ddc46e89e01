package app

import (
	"context"
	"errors"

	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/whatif"
	"patientladder/store"
)

// Rearranged is a ladder in another order: as it was, as it would be, and what that does.
type Rearranged struct {
	Was, Then open.Ahead
	Changes   []whatif.Consequence
}

// Arrange sets the order of everything that was not begun, or only says what it would do; version is that of the order that was seen.
func Arrange(ctx context.Context, d *open.Loader, id string, wanted []ladder.Placed, version int64, try bool) (out Rearranged, err error) {
	if out.Was, err = d.Ahead(ctx, id, studentplan.Options{}); err != nil {
		return out, err
	}
	a := out.Was
	if version != a.Row.RungsVersion {
		return out, store.ErrConflict
	}
	placed, err := whatif.Arranged(a.StudentOutlook, wanted)
	var refused whatif.OrderError
	switch {
	case errors.As(err, &refused) && refused.Kind == whatif.Unknown:
		return out, refusal.NoMaterial
	case errors.As(err, &refused):
		return out, refusal.Invalid(a.Of().Names().Order(refused, a.Instrument))
	}
	out.Then = a.Opened.Look(a.OpenHorizon, placed, studentplan.Options{})
	targets, err := d.Store.Targets(ctx, a.Tenant.ID, a.Ladder)
	if err != nil {
		return out, err
	}
	out.Changes = whatif.Consequences(&a.StudentOutlook, &out.Then.StudentOutlook, targets)
	if try {
		return out, nil
	}
	out.Then.Row.RungsVersion = a.Row.RungsVersion + 1
	return out, d.Store.Arrange(ctx, a.Tenant.ID, a.Ladder, version, placed)
}

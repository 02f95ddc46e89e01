package people

import (
	"context"
	"errors"
	"slices"
	"strings"

	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/planning/lessonplan"
	"patientladder/store"
)

// ListActivities returns the goals of lessons without a piece, as the studio has them.
func (h *Handlers) ListActivities(
	ctx context.Context,
	_ contract.ListActivitiesRequestObject,
) (contract.ListActivitiesResponseObject, error) {
	own, err := h.Store.Activities(ctx, open.Actor(ctx).Studio)
	if err != nil {
		return nil, err
	}
	shipped := lessonplan.Shipped()
	out := contract.ListActivities200JSONResponse{}
	for _, g := range shipped.Over(own) {
		_, ships := shipped.Get(g.ID)
		out = append(out, contract.ActivityGoal{
			Id: g.ID, Name: g.Name, From: g.From, To: g.To, Options: g.Options, Home: g.Home, Off: g.Off, Own: !ships,
			Changed: ships && slices.ContainsFunc(own, func(o lessonplan.Goal) bool { return o.ID == g.ID }),
		})
	}
	return out, nil
}

// SetActivity changes a goal for the studio, switches it off, or adds one.
func (h *Handlers) SetActivity(ctx context.Context, r contract.SetActivityRequestObject) (contract.SetActivityResponseObject, error) {
	g := lessonplan.Goal{
		ID:   r.Activity,
		Name: strings.TrimSpace(r.Body.Name),
		From: r.Body.From,
		To:   r.Body.To,
		Home: strings.TrimSpace(r.Body.Home),
		Off:  r.Body.Off,
	}
	for _, o := range r.Body.Options {
		g.Options = append(g.Options, strings.TrimSpace(o))
	}
	if err := g.Check(); err != nil {
		return nil, refusal.Because(err)
	}
	return contract.SetActivity204Response{}, h.Store.SetActivity(ctx, open.Actor(ctx).Studio, g)
}

// ResetActivity takes the studio's form of a goal away.
func (h *Handlers) ResetActivity(ctx context.Context, r contract.ResetActivityRequestObject) (contract.ResetActivityResponseObject, error) {
	err := h.Store.DropActivity(ctx, open.Actor(ctx).Studio, r.Activity)
	if errors.Is(err, store.ErrNotFound) {
		return nil, refusal.NotFound("The studio has no activity of its own by that name.")
	}
	return contract.ResetActivity204Response{}, err
}

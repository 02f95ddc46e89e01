package lesson

import (
	"context"

	"patientladder/api/contract"
	"patientladder/app/open"
)

// SetTold notes that the teacher has read which figures a new version moved.
func (h *Handlers) SetTold(ctx context.Context, r contract.SetToldRequestObject) (contract.SetToldResponseObject, error) {
	return contract.SetTold204Response{}, h.Store.SetTold(ctx, open.Actor(ctx).Studio, r.Body.Number)
}

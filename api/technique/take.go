package technique

import (
	"context"

	"patientladder/api/contract"
)

// TakeExercise puts an exercise on a ladder.
func (h *Handlers) TakeExercise(ctx context.Context, r contract.TakeExerciseRequestObject) (contract.TakeExerciseResponseObject, error) {
	s, err := h.Student(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	m, err := h.Loader.TakeExercise(ctx, s, r.Body.Exercise)
	if err != nil {
		return nil, err
	}
	out := contract.TakeExercise201JSONResponse{}
	out.Material, out.Title = m.ID, m.Title
	return out, nil
}

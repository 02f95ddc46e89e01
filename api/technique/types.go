package technique

import (
	"context"
	"errors"

	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/technique/exercise"
	"patientladder/core/wording"
	"patientladder/store"
)

// ListExerciseTypes returns the types of exercises with their goals and faults, as the studio says them.
func (h *Handlers) ListExerciseTypes(
	ctx context.Context,
	_ contract.ListExerciseTypesRequestObject,
) (contract.ListExerciseTypesResponseObject, error) {
	s, err := h.Studio(ctx)
	if err != nil {
		return nil, err
	}
	out := contract.ListExerciseTypes200JSONResponse{}
	for _, t := range s.Exercises.All() {
		x := contract.ExerciseType{
			Id:       t.ID,
			Name:     t.Name,
			Changed:  s.Exercises.Changed(t.ID),
			Families: []string{},
			Faults:   []contract.WatchedFault{},
		}
		for _, f := range t.Families {
			x.Families = append(x.Families, string(f))
		}
		for _, step := range t.Steps {
			x.Steps = append(x.Steps, struct {
				Goals []string `json:"goals"`
				Name  string   `json:"name"`
				Step  string   `json:"step"`
			}{step.Goals, wording.Capital(step.Name), step.ID})
		}
		for _, f := range t.Faults {
			x.Faults = append(x.Faults, contract.WatchedFault{Id: f.ID, Text: f.Text, Look: f.Look, Off: f.Off})
		}
		out = append(out, x)
	}
	return out, nil
}

// SetExerciseType changes goals and faults of a type for the studio.
func (h *Handlers) SetExerciseType(
	ctx context.Context,
	r contract.SetExerciseTypeRequestObject,
) (contract.SetExerciseTypeResponseObject, error) {
	goals := map[string][]string{}
	for _, s := range r.Body.Steps {
		goals[s.Step] = s.Goals
	}
	var faults []exercise.Fault
	for _, f := range r.Body.Faults {
		faults = append(faults, exercise.Fault{ID: f.Id, Text: f.Text, Look: f.Look, Off: f.Off})
	}
	form, err := exercise.Written(r.Type, goals, faults)
	if err != nil {
		return nil, refusal.Because(err)
	}
	return contract.SetExerciseType204Response{}, h.Store.SetExerciseForm(ctx, open.Actor(ctx).Studio, form)
}

// ResetExerciseType lets a type speak as it came.
func (h *Handlers) ResetExerciseType(
	ctx context.Context,
	r contract.ResetExerciseTypeRequestObject,
) (contract.ResetExerciseTypeResponseObject, error) {
	err := h.Store.DropExerciseForm(ctx, open.Actor(ctx).Studio, r.Type)
	if errors.Is(err, store.ErrNotFound) {
		return nil, refusal.NotFound("The studio has changed nothing of that exercise.")
	}
	return contract.ResetExerciseType204Response{}, err
}

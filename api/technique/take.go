package technique

import (
	"context"
	"slices"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/api/open"
	"patientladder/core/library/material"
	"patientladder/core/planning/ladder"
	"patientladder/core/technique/drill"
	"patientladder/core/technique/exercise"
	"patientladder/store"
)

// TakeExercise puts an exercise on a ladder. An exercise that no student of the studio
// had before becomes a material of the library, so that marks, runs, gates, the week
// and the ladder treat it as any other.
func (h *Handlers) TakeExercise(ctx context.Context, r contract.TakeExerciseRequestObject) (contract.TakeExerciseResponseObject, error) {
	sh, err := h.Student(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	e, err := exerciseOf(sh.Instrument, r.Body.Exercise)
	if err != nil {
		return nil, err
	}
	m, err := h.exerciseMaterial(ctx, sh.Of(), e)
	if err != nil {
		return nil, err
	}
	placed, err := h.Store.Rungs(ctx, sh.Tenant.ID, sh.Ladder)
	if err != nil {
		return nil, err
	}
	if !slices.ContainsFunc(placed, func(p ladder.Placed) bool { return p.Material == m.ID }) {
		if err := h.Store.PlaceRungs(ctx, sh.Tenant.ID, sh.Ladder, []ladder.Placed{{Material: m.ID, Strand: material.Technique}}); err != nil {
			return nil, err
		}
	}
	out := contract.TakeExercise201JSONResponse{}
	out.Material, out.Title = m.ID, m.Title
	return out, nil
}

// exerciseMaterial returns the material of an exercise, made on first need.
func (h *Handlers) exerciseMaterial(ctx context.Context, b open.Studio, e exercise.Exercise) (material.Material, error) {
	if m, there := b.Library[drill.ID(e)]; there {
		return m, nil
	}
	d, err := drill.Of(e, b.Words, h.Demands)
	if err != nil {
		return material.Material{}, err
	}
	d.Material.Title = answer.Shorten(d.Material.Title)
	added, err := h.Store.AddMaterial(ctx, b.Tenant.ID, d.Material, &store.ScoreFile{Name: drill.FileName, Data: d.Score})
	if err != nil || !added {
		return d.Material, err
	}
	return d.Material, h.Store.SaveReading(ctx, b.Tenant.ID, store.Reading{Material: d.Material, Set: d.Given})
}

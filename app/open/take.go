package open

import (
	"context"

	"patientladder/app/refusal"
	"patientladder/core/library/material"
	"patientladder/core/planning/ladder"
	"patientladder/core/technique/drill"
	"patientladder/core/technique/exercise"
	"patientladder/store"
)

// TakeExercise puts an exercise, by its id, on the ladder of a student. An exercise that no student of the studio
// had before becomes a material of the library, so that marks, runs, gates, the week and the ladder treat it as any
// other.
func (d *Loader) TakeExercise(ctx context.Context, s Student, id string) (material.Material, error) {
	x, err := Instrument(s.Instrument)
	if err != nil {
		return material.Material{}, err
	}
	e, err := exercise.Parse(id, x)
	if err != nil {
		return material.Material{}, refusal.Because(err)
	}
	var m material.Material
	err = d.Store.Together(ctx, func(ctx context.Context) (err error) {
		if m, err = d.exerciseMaterial(ctx, s.Of(), e); err != nil {
			return err
		}
		return d.Store.PlaceRungs(ctx, s.Tenant.ID, s.Ladder, []ladder.Placed{{Material: m.ID, Strand: material.Technique}})
	})
	return m, err
}

// exerciseMaterial returns the material of an exercise, made on first need.
func (d *Loader) exerciseMaterial(ctx context.Context, b Studio, e exercise.Exercise) (material.Material, error) {
	if m, there := b.Library[drill.ID(e)]; there {
		return m, nil
	}
	made, err := drill.Of(e, b.Words, d.Demands)
	if err != nil {
		return material.Material{}, err
	}
	added, err := d.Store.AddMaterial(ctx, b.Tenant.ID, made.Material, &store.ScoreFile{Name: drill.FileName, Data: made.Score})
	if err != nil || !added {
		return made.Material, err
	}
	return made.Material, d.Store.SaveReading(ctx, b.Tenant.ID, store.Reading{Material: made.Material, Set: made.Given})
}

package api

import (
	"context"
	"slices"

	"patientladder/api/contract"
	"patientladder/core/library/material"
	"patientladder/core/planning/ladder"
	"patientladder/core/technique/drill"
	"patientladder/core/technique/exercise"
	"patientladder/store"
)

// TakeExercise puts an exercise on a ladder. An exercise that no student of the studio
// had before becomes a material of the library, so that marks, runs, gates, the week
// and the ladder treat it as any other.
func (s *Server) TakeExercise(ctx context.Context, r contract.TakeExerciseRequestObject) (contract.TakeExerciseResponseObject, error) {
	sh, err := s.shelf(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	e, err := exerciseOf(sh.ladder.Instrument, r.Body.Exercise)
	if err != nil {
		return nil, err
	}
	m, err := s.exerciseMaterial(ctx, sh.book, e)
	if err != nil {
		return nil, err
	}
	placed, err := s.store.Rungs(ctx, sh.studio.ID, sh.ladder.ID)
	if err != nil {
		return nil, err
	}
	if !slices.ContainsFunc(placed, func(p ladder.Placed) bool { return p.Material == m.ID }) {
		if err := s.store.PlaceRungs(ctx, sh.studio.ID, sh.ladder.ID, []ladder.Placed{{Material: m.ID, Strand: material.Technique}}); err != nil {
			return nil, err
		}
	}
	out := contract.TakeExercise201JSONResponse{}
	out.Material, out.Title = m.ID, m.Title
	return out, nil
}

// exerciseMaterial returns the material of an exercise, made on first need.
func (s *Server) exerciseMaterial(ctx context.Context, b book, e exercise.Exercise) (material.Material, error) {
	if m, there := b.lib[drill.ID(e)]; there {
		return m, nil
	}
	d, err := drill.Of(e, b.studio.Words, s.demands)
	if err != nil {
		return material.Material{}, err
	}
	d.Material.Title = shorten(d.Material.Title)
	added, err := s.store.AddMaterial(ctx, b.studio.ID, d.Material, &store.ScoreFile{Name: drill.FileName, Data: d.Score})
	if err != nil || !added {
		return d.Material, err
	}
	return d.Material, s.store.SaveReading(ctx, b.studio.ID, store.Reading{Material: d.Material, Set: d.Given})
}

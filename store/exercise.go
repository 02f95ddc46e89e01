package store

import (
	"context"

	"patientladder/core/technique/exercise"
	"patientladder/store/document"
	"patientladder/store/rows"
)

// ExerciseForms are the studio's own goals and faults of types of exercises, by type.
func (s *Store) ExerciseForms(ctx context.Context, studio string) (exercise.Forms, error) {
	bodies, err := s.q(ctx).ExerciseForms(ctx, studio)
	if err != nil || len(bodies) == 0 {
		return nil, err
	}
	out := make(exercise.Forms, len(bodies))
	for i, body := range bodies {
		if out[i], err = document.DecodeExerciseForm([]byte(body)); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// SetExerciseForm keeps one; an empty one is kept as well. Pieces, plans and weeks speak by it, so that what was kept
// of them counts no more.
func (s *Store) SetExerciseForm(ctx context.Context, studio string, f exercise.Form) error {
	body, err := document.EncodeExerciseForm(f)
	if err != nil {
		return err
	}
	return explain(s.within(ctx, func(q *rows.Queries) error {
		if err := q.SetExerciseForm(ctx, rows.SetExerciseFormParams{StudioID: studio, ID: f.Type, Body: string(body)}); err != nil {
			return err
		}
		return q.LibraryChanged(ctx, studio)
	}))
}

// DropExerciseForm takes the studio's form of a type away; one that is not there is ErrNotFound.
func (s *Store) DropExerciseForm(ctx context.Context, studio, id string) error {
	return explain(s.within(ctx, func(q *rows.Queries) error {
		if err := found(q.DropExerciseForm(ctx, rows.DropExerciseFormParams{StudioID: studio, ID: id})); err != nil {
			return err
		}
		return q.LibraryChanged(ctx, studio)
	}))
}

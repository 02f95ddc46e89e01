package store

import (
	"context"

	"patientladder/core/planning/lessonplan"
	"patientladder/store/document"
	"patientladder/store/rows"
)

// Activities are the studio's own, and those of the program that it has changed or switched off, by id.
func (s *Store) Activities(ctx context.Context, studio string) ([]lessonplan.Goal, error) {
	bodies, err := s.q.Activities(ctx, studio)
	if err != nil {
		return nil, err
	}
	out := make([]lessonplan.Goal, len(bodies))
	for i, body := range bodies {
		if out[i], err = document.DecodeActivity([]byte(body)); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// SetActivity keeps one. Plans and weeks are made of them, so that what was kept of both counts no more.
func (s *Store) SetActivity(ctx context.Context, studio string, g lessonplan.Goal) error {
	body, err := document.EncodeActivity(g)
	if err != nil {
		return err
	}
	return explain(s.within(ctx, func(q *rows.Queries) error {
		if err := q.SetActivity(ctx, rows.SetActivityParams{StudioID: studio, ID: g.ID, Body: string(body)}); err != nil {
			return err
		}
		return q.LibraryChanged(ctx, studio)
	}))
}

// DropActivity takes the studio's form of one away; one that is not there is ErrNotFound.
func (s *Store) DropActivity(ctx context.Context, studio, id string) error {
	return explain(s.within(ctx, func(q *rows.Queries) error {
		if err := found(q.DropActivity(ctx, rows.DropActivityParams{StudioID: studio, ID: id})); err != nil {
			return err
		}
		return q.LibraryChanged(ctx, studio)
	}))
}

package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"

	"patientladder/core/planning/learning"
	"patientladder/store/document"
	"patientladder/store/rows"
)

// Learned is what a studio uses of what it has learned; nothing where it uses nothing.
func (s *Store) Learned(ctx context.Context, studio string) (learning.Used, error) {
	body, err := s.q(ctx).Learned(ctx, studio)
	if errors.Is(err, sql.ErrNoRows) {
		return learning.Used{}, nil
	}
	if err != nil {
		return learning.Used{}, err
	}
	used, err := document.DecodeLearned([]byte(body))
	if err != nil {
		return used, fmt.Errorf("what studio %s has learned is damaged: %w", studio, err)
	}
	return used, nil
}

// UseLearned keeps what is used from now on, or nothing. Leaps and dates follow from it, so that what was kept of them
// counts no more.
func (s *Store) UseLearned(ctx context.Context, studio string, u learning.Used) error {
	body, err := document.EncodeLearned(u)
	if err != nil {
		return err
	}
	return explain(s.within(ctx, func(q *rows.Queries) error {
		if !u.Any() {
			err = q.DropLearned(ctx, studio)
		} else {
			err = q.SetLearned(ctx, rows.SetLearnedParams{StudioID: studio, Body: string(body)})
		}
		if err != nil {
			return err
		}
		return q.LibraryChanged(ctx, studio)
	}))
}

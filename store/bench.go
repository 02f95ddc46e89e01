package store

import (
	"context"
	"database/sql"
	"errors"

	"patientladder/core/student/setup"
	"patientladder/store/document"
	"patientladder/store/rows"
)

// Bench is what the studio's own bench and keys (or chair) measure; nil where nobody has measured them.
func (s *Store) Bench(ctx context.Context, studio string, asked setup.Asked) (*setup.Bench, error) {
	body, err := s.q(ctx).Bench(ctx, rows.BenchParams{StudioID: studio, Asked: string(asked)})
	if errors.Is(err, sql.ErrNoRows) {
		return nil, nil
	}
	if err != nil {
		return nil, err
	}
	b, err := document.DecodeBench([]byte(body))
	return &b, err
}

// SetBench keeps what the studio's own bench and keys measure.
func (s *Store) SetBench(ctx context.Context, studio string, asked setup.Asked, b setup.Bench) error {
	body, err := document.EncodeBench(b)
	if err != nil {
		return err
	}
	return explain(s.q(ctx).SetBench(ctx, rows.SetBenchParams{StudioID: studio, Asked: string(asked), Body: string(body)}))
}

package store

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"time"

	"patientladder/store/rows"
)

// Failed sign-ins are counted in the database, so that any number of servers
// throttle together. Subjects are kept as hashes: the table names nobody.

// AddLoginFailure records a failed sign-in for a subject (an e-mail or network address).
func (s *Store) AddLoginFailure(ctx context.Context, subject string, at time.Time) error {
	return s.q.AddLoginFailure(ctx, rows.AddLoginFailureParams{Subject: hash(subject), FailedAt: at.UTC()})
}

// LoginFailures counts the failed sign-ins of a subject since a time.
func (s *Store) LoginFailures(ctx context.Context, subject string, since time.Time) (int, error) {
	n, err := s.q.CountLoginFailures(ctx, rows.CountLoginFailuresParams{Subject: hash(subject), FailedAt: since.UTC()})
	return int(n), err
}

// ForgetLoginFailures clears a subject, and all failures older than a time.
func (s *Store) ForgetLoginFailures(ctx context.Context, subject string, olderThan time.Time) error {
	return s.q.ForgetLoginFailures(ctx, rows.ForgetLoginFailuresParams{Subject: hash(subject), FailedAt: olderThan.UTC()})
}

func hash(s string) string {
	sum := sha256.Sum256([]byte(s))
	return hex.EncodeToString(sum[:])
}

package store

import (
	"context"
	"time"

	"patientladder/store/rows"
)

// Passkey is a key of a device that signs somebody in.
type Passkey struct {
	// ID is a hash of the key's own.
	ID, Name string
	// Body is the key as it is checked.
	Body       []byte
	Made, Used time.Time
}

// AddPasskey keeps one; one that is there is ErrConflict.
func (s *Store) AddPasskey(ctx context.Context, teacher string, k Passkey) error {
	return explain(
		s.q(ctx).AddPasskey(ctx, rows.AddPasskeyParams{ID: k.ID, TeacherID: teacher, Name: k.Name, Body: string(k.Body), MadeAt: k.Made.UTC()}),
	)
}

// Passkeys are those of somebody, the first one first.
func (s *Store) Passkeys(ctx context.Context, teacher string) ([]Passkey, error) {
	list, err := s.q(ctx).Passkeys(ctx, teacher)
	out := make([]Passkey, len(list))
	for i, r := range list {
		out[i] = Passkey{ID: r.ID, Name: r.Name, Body: []byte(r.Body), Made: r.MadeAt, Used: r.UsedAt.Time}
	}
	return out, err
}

// UsePasskey keeps a key as it is after a sign-in.
func (s *Store) UsePasskey(ctx context.Context, teacher string, k Passkey) error {
	return s.q(ctx).UsePasskey(ctx, rows.UsePasskeyParams{Body: string(k.Body), UsedAt: moment(k.Used), ID: k.ID, TeacherID: teacher})
}

// DropPasskey takes one away; one that is not there is ErrNotFound.
func (s *Store) DropPasskey(ctx context.Context, teacher, id string) error {
	return found(s.q(ctx).DropPasskey(ctx, rows.DropPasskeyParams{ID: id, TeacherID: teacher}))
}

// DropPasskeys takes all keys of somebody away.
func (s *Store) DropPasskeys(ctx context.Context, teacher string) error {
	return s.q(ctx).DropPasskeys(ctx, teacher)
}

// AddChallenge keeps what a device was asked to sign, under a hash.
func (s *Store) AddChallenge(ctx context.Context, id string, body []byte, until time.Time) error {
	return s.q(ctx).AddChallenge(ctx, rows.AddChallengeParams{ID: id, Body: string(body), UntilAt: until.UTC()})
}

// TakeChallenge takes it, once; one that is not there or ran out is ErrNotFound.
func (s *Store) TakeChallenge(ctx context.Context, id string, now time.Time) (body []byte, err error) {
	return body, explain(s.within(ctx, func(q *rows.Queries) error {
		text, err := q.Challenge(ctx, rows.ChallengeParams{ID: id, UntilAt: now.UTC()})
		if err != nil {
			return err
		}
		body = []byte(text)
		return q.DropChallenges(ctx, rows.DropChallengesParams{ID: id, UntilAt: now.UTC()})
	}))
}

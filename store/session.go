package store

import (
	"context"
	"database/sql"
	"errors"
	"time"

	"patientladder/clock"
	"patientladder/store/rows"
)

// Sessions keeps sessions for scs, which lets them run out by the clock of the machine. A session is made only where a sign-in begins one (see Beginning); every other keeping
// changes a row that is there, so that one that was ended stays ended whatever is under way.
type Sessions struct {
	q    *rows.Queries
	now  clock.Clock
	stop chan struct{}
}

// Session is one that is open.
type Session struct {
	// ID names it where it is listed; it opens nothing.
	ID, Device  string
	Began, Seen time.Time
	// Token is what it is kept under, a hash.
	Token string
}

// Begin is filled by a sign-in: whose session begins, and on what.
type Begin struct{ ID, Teacher, Device string }

type beginKey struct{}

// Beginning returns a context in which a session can begin, and what a sign-in fills in for it.
func Beginning(ctx context.Context) (context.Context, *Begin) {
	b := &Begin{}
	return context.WithValue(ctx, beginKey{}, b), b
}

// BeginOf is what a sign-in fills in; nil in another context.
func BeginOf(ctx context.Context) *Begin {
	b, _ := ctx.Value(beginKey{}).(*Begin)
	return b
}

// sweepEvery is how often sessions that ran out are taken away.
const sweepEvery = 5 * time.Minute

// Sessions returns the sessions of a store; close them to stop their clean-up.
func (s *Store) Sessions(now clock.Clock) *Sessions {
	out := &Sessions{q: rows.New(s.db), now: now, stop: make(chan struct{})}
	go out.sweep()
	return out
}

func (s *Sessions) sweep() {
	tick := time.NewTicker(sweepEvery)
	defer tick.Stop()
	for {
		select {
		case <-tick.C:
			s.q.DropOldSessions(context.Background(), clock.Real().UTC()) // tried again at the next tick
		case <-s.stop:
			return
		}
	}
}

// Close stops the clean-up.
func (s *Sessions) Close() { close(s.stop) }

// FindCtx returns the data of a session that has not run out.
func (s *Sessions) FindCtx(ctx context.Context, token string) ([]byte, bool, error) {
	data, err := s.q.FindSession(ctx, rows.FindSessionParams{Token: token, Expiry: clock.Real().UTC()})
	if errors.Is(err, sql.ErrNoRows) {
		return nil, false, nil
	}
	return data, err == nil, err
}

// CommitCtx keeps the data of a session that is there, or of one that a sign-in began.
func (s *Sessions) CommitCtx(ctx context.Context, token string, data []byte, expiry time.Time) error {
	now := s.now().UTC()
	if b := BeginOf(ctx); b != nil && b.Teacher != "" {
		return s.q.BeginSession(ctx, rows.BeginSessionParams{
			Token: token, Data: data, Expiry: expiry.UTC(), ID: text(b.ID), TeacherID: text(b.Teacher), Device: b.Device, BeganAt: moment(now),
			SeenAt: moment(now),
		})
	}
	return s.q.KeepSession(ctx, rows.KeepSessionParams{Data: data, Expiry: expiry.UTC(), SeenAt: moment(now), Token: token})
}

// DeleteCtx ends a session.
func (s *Sessions) DeleteCtx(ctx context.Context, token string) error {
	return s.q.EndSession(ctx, token)
}

// Find, Commit and Delete are what scs asks of every store; it calls those with a context.
func (s *Sessions) Find(token string) ([]byte, bool, error) {
	return s.FindCtx(context.Background(), token)
}

// Commit keeps the data of a session that is there.
func (s *Sessions) Commit(token string, data []byte, expiry time.Time) error {
	return s.CommitCtx(context.Background(), token, data, expiry)
}

// Delete ends a session.
func (s *Sessions) Delete(token string) error { return s.DeleteCtx(context.Background(), token) }

func text(s string) sql.NullString { return sql.NullString{String: s, Valid: s != ""} }

func moment(t time.Time) sql.NullTime { return sql.NullTime{Time: t.UTC(), Valid: !t.IsZero()} }

// SessionsOf are the open sessions of somebody, the one seen last first.
func (s *Store) SessionsOf(ctx context.Context, teacher string) ([]Session, error) {
	list, err := s.q(ctx).SessionsOf(ctx, rows.SessionsOfParams{TeacherID: text(teacher), Expiry: clock.Real().UTC()})
	out := make([]Session, len(list))
	for i, r := range list {
		out[i] = Session{ID: r.ID.String, Device: r.Device, Began: r.BeganAt.Time, Seen: r.SeenAt.Time, Token: r.Token}
	}
	return out, err
}

// EndSession ends one session of somebody; one that is not there is ErrNotFound.
func (s *Store) EndSession(ctx context.Context, teacher, id string) error {
	return found(s.q(ctx).EndSessionOf(ctx, rows.EndSessionOfParams{TeacherID: text(teacher), ID: text(id)}))
}

// EndSessions ends all sessions of somebody but the one that is kept under a token (empty for none), and says how many.
func (s *Store) EndSessions(ctx context.Context, teacher, but string) (int, error) {
	n, err := s.q(ctx).EndOtherSessions(ctx, rows.EndOtherSessionsParams{TeacherID: text(teacher), Token: but})
	return int(n), err
}

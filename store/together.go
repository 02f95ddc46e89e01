package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"math/rand/v2"
	"sync/atomic"
	"time"

	"github.com/go-sql-driver/mysql"

	"patientladder/store/rows"
)

type together struct{}

// Together runs f so that all that is asked of the store with its context is one transaction: all of it is kept or, when f
// returns an error, nothing. It runs f again when the database gave the transaction up for another one that wanted the same
// rows, so f must begin from what it was given and not from what it left. What is computed from something written inside must not be remembered in memory before it
// returns. Inside another one it is a part of that, and what it wrote goes alone when it fails.
func (s *Store) Together(ctx context.Context, f func(ctx context.Context) error) error {
	if tx := transaction(ctx); tx != nil {
		return part(ctx, tx, func() error { return f(ctx) })
	}
	return again(ctx, func() error {
		tx, err := s.db.BeginTx(ctx, nil)
		if err != nil {
			return err
		}
		defer tx.Rollback() // after Commit this does nothing
		if err := f(context.WithValue(ctx, together{}, tx)); err != nil {
			return err
		}
		return tx.Commit()
	})
}

// tries is how often a transaction begins at most, pause the longest wait before it begins anew the first time; it doubles.
const (
	tries = 6
	pause = 8 * time.Millisecond
)

// again runs a transaction until it does not collide with another one.
func again(ctx context.Context, f func() error) error {
	for try := 1; ; try++ {
		err := f()
		if try == tries || !collided(err) {
			return err
		}
		select {
		case <-time.After(rand.N(pause << try)):
		case <-ctx.Done():
			return err
		}
	}
}

// collided says that the database gave a transaction up whole because of another one: a deadlock, also what nodes of a cluster
// find out when they commit, or a row that changed since it was read.
func collided(err error) bool {
	const deadlock, changedSince = 1213, 1020
	var my *mysql.MySQLError
	return errors.As(err, &my) && (my.Number == deadlock || my.Number == changedSince)
}

// Whole is Together for what has an answer.
func Whole[T any](ctx context.Context, s *Store, f func(ctx context.Context) (T, error)) (out T, err error) {
	err = s.Together(ctx, func(ctx context.Context) (err error) {
		out, err = f(ctx)
		return err
	})
	return out, err
}

// Within says that a context is one of Together.
func Within(ctx context.Context) bool { return transaction(ctx) != nil }

// transaction is that of a context; nil for none.
func transaction(ctx context.Context) *sql.Tx {
	tx, _ := ctx.Value(together{}).(*sql.Tx)
	return tx
}

// q are the queries, in the transaction of the context where there is one.
func (s *Store) q(ctx context.Context) *rows.Queries {
	if tx := transaction(ctx); tx != nil {
		return rows.New(tx)
	}
	return rows.New(s.db)
}

// part runs f within a transaction that goes on without what f wrote when it fails.
func part(ctx context.Context, tx *sql.Tx, f func() error) error {
	name := fmt.Sprint("part", parts.Add(1)) // a part may have parts, and a name is taken by the last who asks for it
	if _, err := tx.ExecContext(ctx, "SAVEPOINT "+name); err != nil {
		return err
	}
	if err := f(); err != nil {
		if collided(err) { // nothing is left to go back to
			return err
		}
		if _, back := tx.ExecContext(ctx, "ROLLBACK TO SAVEPOINT "+name); back != nil {
			return errors.Join(err, back)
		}
		return err
	}
	_, err := tx.ExecContext(ctx, "RELEASE SAVEPOINT "+name)
	return err
}

// parts counts the parts of transactions, to name them.
var parts atomic.Uint64

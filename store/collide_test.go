package store_test

import (
	"context"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/student/studentlog"
)

// Two transactions that want each other's rows: the database gives one of them up, and it is run again. Both are kept, each
// once. So it was seen when two families were written to in the same moment.
func TestTransactionsThatCollideAreRunAgain(t *testing.T) {
	st1, l1, _ := studio(t, db)
	st2, l2, _ := studio(t, db)
	add := func(ctx context.Context, studio, ladder, text string) error {
		_, err := db.Append(
			ctx,
			studio,
			ladder,
			[]studentlog.Entry{{ID: id(), At: time.Date(2026, 5, 4, 15, 30, 0, 0, time.UTC), Kind: studentlog.Note, Text: text}},
		)
		return err
	}
	var met, both sync.WaitGroup
	met.Add(2)
	var errs [2]error
	var times [2]int
	run := func(i int, studio, ladder, thenStudio, thenLadder string) {
		both.Go(func() {
			var once sync.Once
			errs[i] = db.Together(ctx, func(ctx context.Context) error {
				times[i]++
				if err := add(ctx, studio, ladder, "first"); err != nil {
					return err
				}
				once.Do(func() { met.Done(); met.Wait() }) // each holds its first ladder now
				return db.Together(ctx, func(ctx context.Context) error { return add(ctx, thenStudio, thenLadder, "second") })
			})
		})
	}
	run(0, st1, l1.ID, st2, l2.ID)
	run(1, st2, l2.ID, st1, l1.ID)
	both.Wait()
	require.Equal(t, [2]error{}, errs)
	require.ElementsMatch(t, []int{1, 2}, times[:])
	for _, at := range [][2]string{{st1, l1.ID}, {st2, l2.ID}} {
		log, err := db.Log(ctx, at[0], at[1])
		require.NoError(t, err)
		var texts []string
		for _, e := range log {
			texts = append(texts, e.Text)
		}
		require.ElementsMatch(t, []string{"first", "second"}, texts)
	}
}

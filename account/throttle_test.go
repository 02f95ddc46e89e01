package account

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

// Five tries go through at once; then the wait doubles from a second to a quarter of an hour.
func TestTriesSlowDown(t *testing.T) {
	now := time.Date(2026, 5, 4, 9, 0, 0, 0, time.UTC)
	var tries Tries
	var waits []time.Duration
	for range 18 {
		var wait time.Duration
		tries, wait = Pair.Try(tries, now)
		require.Zero(t, wait)
		waits = append(waits, max(0, tries.Free.Sub(now)))
		now = now.Add(waits[len(waits)-1])
	}
	s, m := time.Second, 15*time.Minute
	require.Equal(t, []time.Duration{0, 0, 0, 0, s, 2 * s, 4 * s, 8 * s, 16 * s, 32 * s, 64 * s, 128 * s, 256 * s, 512 * s, m, m, m, m}, waits)

	after, wait := Pair.Try(tries, now.Add(-time.Second))
	require.Equal(t, time.Second, wait)
	require.Equal(t, []any{tries.Free, 19, 18}, []any{after.Free, after.All, after.Passed}, "a try that must wait is counted and makes the wait no longer")
	again, wait := Pair.Try(after, now.Add(time.Hour-time.Second))
	require.Zero(t, wait)
	require.Equal(t, 1, again.Passed, "a quiet hour forgets")
	require.Equal(t, 1, again.All)
	back, wait := Pair.Try(after, now.Add(-time.Hour))
	require.Zero(t, wait)
	require.Equal(t, 1, back.Passed, "a clock that was put back locks nobody out")
}

// All of many tries at the same moment are counted, and no more go through than are free.
func TestTriesAtTheSameMoment(t *testing.T) {
	now := time.Date(2026, 5, 4, 9, 0, 0, 0, time.UTC)
	var tries Tries
	through := 0
	for range 24 {
		var wait time.Duration
		if tries, wait = Pair.Try(tries, now); wait == 0 {
			through++
		}
	}
	require.Equal(t, []int{24, 5, 5}, []int{tries.All, tries.Passed, through})
}

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
	require.Equal(
		t,
		[]any{tries.Free, 19, 18},
		[]any{after.Free, after.All, after.Passed},
		"a try that must wait is counted and makes the wait no longer",
	)
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

// A device that is known counts by itself; otherwise the narrowest first. What came well is taken back, an old link is no new
// guess, and a clock that was put back makes nobody wait.
func TestWhoIsCounted(t *testing.T) {
	require.Equal(t, []Subject{{"device d", Device}}, SignIn("a@b.example", "203.0.113.9", "d"))
	require.Equal(
		t,
		[]Subject{{"sign-in a@b.example from 203.0.113.9", Pair}, {"sign-in from 203.0.113.9", Address}, {"sign-in a@b.example", Account}},
		SignIn("a@b.example", "203.0.113.9", ""),
	)
	now := time.Date(2026, 5, 4, 9, 0, 0, 0, time.UTC)
	require.Equal(t, Tries{All: 3, Passed: 2, Last: now, Free: ever}, Tries{All: 4, Passed: 3, Free: now.Add(time.Minute)}.Back(now))
	require.Equal(t, Tries{All: 1, Last: now, Free: ever}, Tries{}.Back(now))
	require.Equal(
		t,
		[]bool{false, true, false},
		[]bool{
			Tries{}.Stale(now),
			Tries{All: 1, Last: now.Add(-59 * time.Minute)}.Stale(now),
			Tries{All: 1, Last: now.Add(-time.Hour)}.Stale(now),
		},
	)
	require.Equal(
		t,
		[]time.Duration{0, time.Second, 0},
		[]time.Duration{
			Links.Wait(Tries{Free: now}, now),
			Links.Wait(Tries{Free: now.Add(time.Second)}, now),
			Links.Wait(Tries{Free: now.Add(time.Hour)}, now),
		},
	)
}

package parallel

import (
	"runtime"
	"sync/atomic"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// Every number once, however many there are and whoever does them.
func TestEachIsDoneOnce(t *testing.T) {
	before := runtime.GOMAXPROCS(0)
	defer runtime.GOMAXPROCS(before)
	rapid.Check(t, func(t *rapid.T) {
		runtime.GOMAXPROCS(rapid.IntRange(1, 6).Draw(t, "processors"))
		done := make([]int, rapid.IntRange(0, 200).Draw(t, "n"))
		Each(len(done), func(i int) { done[i]++ })
		for i, n := range done {
			require.Equal(t, 1, n, "number %d", i)
		}
	})
}

func TestAFallIsRaisedWhereItIsMet(t *testing.T) {
	before := runtime.GOMAXPROCS(0)
	defer runtime.GOMAXPROCS(before)
	for _, processors := range []int{1, 4} {
		runtime.GOMAXPROCS(processors)
		require.PanicsWithValue(t, "seven", func() {
			Each(100, func(i int) {
				if i == 7 {
					panic("seven")
				}
			})
		})
	}
}

// They run at once: each of two waits for the other.
func TestTwoRunAtOnce(t *testing.T) {
	before := runtime.GOMAXPROCS(2)
	defer runtime.GOMAXPROCS(before)
	var there atomic.Int32
	Each(2, func(int) {
		there.Add(1)
		for there.Load() < 2 {
			runtime.Gosched()
		}
	})
	require.EqualValues(t, 2, there.Load())
}

package finding

import (
	"sort"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// However findings are added and merged, each bar stands once and in order.
func TestSettledSetsAreSorted(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		a, b, all := Set{}, Set{}, map[string]map[int]bool{}
		for range rapid.IntRange(0, 40).Draw(t, "n") {
			name := rapid.SampledFrom([]string{"x", "y", "z"}).Draw(t, "name")
			bar := rapid.IntRange(1, 9).Draw(t, "bar")
			into := a
			if rapid.Bool().Draw(t, "second") {
				into = b
			}
			into.Add(name, bar)
			if all[name] == nil {
				all[name] = map[int]bool{}
			}
			all[name][bar] = true
		}
		a.Merge(b)
		a.Settle()
		require.Len(t, a, len(all))
		for name, bars := range a {
			require.True(t, sort.IntsAreSorted(bars))
			require.Len(t, bars, len(all[name]))
		}
		require.True(t, sort.StringsAreSorted(a.Names()))
	})
}

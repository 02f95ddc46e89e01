// Package finding holds what is found in a score by name, each with its bars.
package finding

import (
	"slices"
	"sort"
)

// Set maps a finding to the positions of its bars, from 1. While it is being
// filled a bar may stand in it more than once; Settle puts it in order.
type Set map[string][]int

// Add records a finding in a bar.
func (s Set) Add(name string, bar int) {
	bars := s[name]
	if n := len(bars); n == 0 || bars[n-1] != bar {
		s[name] = append(bars, bar)
	}
}

// Settle sorts the bars of every finding and drops repeated ones.
func (s Set) Settle() Set {
	for name, bars := range s {
		if !slices.IsSorted(bars) {
			sort.Ints(bars)
		}
		s[name] = slices.Compact(bars)
	}
	return s
}

// Merge adds everything of another set.
func (s Set) Merge(other Set) {
	for name, bars := range other {
		s[name] = append(s[name], bars...)
	}
}

// Names returns the names in alphabetical order.
func (s Set) Names() []string {
	out := make([]string, 0, len(s))
	for name := range s {
		out = append(out, name)
	}
	sort.Strings(out)
	return out
}

// Package sorting has the comparisons that the standard library lacks.
package sorting

// FalseFirst compares two answers for a sort in which no comes before yes: below 0, 0 or above 0 as cmp.Compare.
func FalseFirst(a, b bool) int {
	switch {
	case a == b:
		return 0
	case b:
		return -1
	}
	return 1
}

// TrueFirst is the reverse.
func TrueFirst(a, b bool) int { return FalseFirst(b, a) }

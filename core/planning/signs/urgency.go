package signs

import (
	"cmp"
	"slices"
	"strings"

	"patientladder/core/library/material"
)

// Sort puts the most urgent kinds first, and orders within a kind by title, then id.
func Sort(found []Sign, lib material.Library) {
	slices.SortStableFunc(found, func(a, b Sign) int {
		return cmp.Or(
			place(a.Kind)-place(b.Kind),
			strings.Compare(lib[a.Material].Title, lib[b.Material].Title),
			strings.Compare(a.Material, b.Material),
		)
	})
}

func place(k Kind) int { return slices.IndexFunc(rules, func(r Rule) bool { return r.Kind == k }) }

// Urgency says how much a student with these signs needs the teacher: the sum of the signs' weights.
func Urgency(found []Sign) int {
	sum := 0
	for _, s := range found {
		r, _ := Of(s.Kind)
		sum += r.Weight
	}
	return sum
}

// ByUrgency returns the places of some students, the most urgent first; those who
// need the teacher equally keep their order.
func ByUrgency(students [][]Sign) []int {
	places := make([]int, len(students))
	for i := range places {
		places[i] = i
	}
	slices.SortStableFunc(places, func(a, b int) int { return Urgency(students[b]) - Urgency(students[a]) })
	return places
}

// Has says whether one of the signs is of a kind.
func Has(found []Sign, k Kind) bool {
	return slices.ContainsFunc(found, func(s Sign) bool { return s.Kind == k })
}

// Count counts the signs of a kind.
func Count(found []Sign, k Kind) (n int) {
	for _, s := range found {
		if s.Kind == k {
			n++
		}
	}
	return n
}

package signs

import (
	"cmp"
	"math"
	"slices"
	"strings"

	"patientladder/core/library/material"
)

// order is that of the kinds within a student, the most urgent first.
var order = []Kind{Run, Stuck, Choose, Late, Cliff, Spot, Bench, Review}

// weight is what a sign adds to the urgency of a student (default): who is stuck needs the
// teacher more than who is ready for a run. Measuring the bench can wait.
var weight = map[Kind]int{Stuck: 8, Late: 5, Choose: 5, Run: 4, Cliff: 3, Review: 2, Spot: 1}

// Sort puts the most urgent kinds first, and orders within a kind by title, then id.
func Sort(found []Sign, lib material.Library) {
	slices.SortStableFunc(found, func(a, b Sign) int {
		return cmp.Or(
			slices.Index(order, a.Kind)-slices.Index(order, b.Kind),
			strings.Compare(lib[a.Material].Title, lib[b.Material].Title),
			strings.Compare(a.Material, b.Material),
		)
	})
}

// Urgency says how much a student with these signs needs the teacher: the sum of the signs' weights.
func Urgency(found []Sign) int {
	sum := 0
	for _, s := range found {
		sum += weight[s.Kind]
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

func ceil(weeks float64) int { return int(math.Ceil(weeks)) }

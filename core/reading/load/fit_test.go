package load_test

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/dimension"
	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
)

// features are what the loads of a piece are worth at a weight of one, in the order of the dimensions, with a one before them.
func features(loads []material.Load) []float64 {
	out := []float64{1}
	for _, d := range dimension.Of(instrument.Keyboard) {
		d.Weight = 1
		value := 0.0
		for _, l := range loads {
			if l.Dimension == d.ID {
				value = l.Value
			}
		}
		out = append(out, d.Worth(value))
	}
	return out
}

// expected is what a weight is drawn towards, pull how strongly, and least what it is at the least: a dimension that teachers
// know counts a little even where these few pieces do not show it.
const expected, pull, least = 0.4, 10.0, 0.15

// fit finds the weights, none below 0, that come nearest to the grades: least squares, drawn towards zero, by coordinates.
func fit(x [][]float64, y []float64) []float64 {
	w := make([]float64, len(x[0]))
	left := slices.Clone(y)
	for range 3000 {
		for j := range w {
			num, den := pull*expected, pull
			if j == 0 {
				num, den = 0, 1e-9
			}
			for i := range x {
				num += x[i][j] * (left[i] + w[j]*x[i][j])
				den += x[i][j] * x[i][j]
			}
			next := num / den
			if j > 0 {
				next = max(least, next)
			}
			for i := range x {
				left[i] -= (next - w[j]) * x[i][j]
			}
			w[j] = next
		}
	}
	return w
}

func dot(a, b []float64) (sum float64) {
	for i := range a {
		sum += a[i] * b[i]
	}
	return sum
}

// spearman is the correlation of ranks, ties sharing the middle of theirs.
func spearman(a, b []float64) float64 {
	ra, rb := ranks(a), ranks(b)
	mean := float64(len(a)-1) / 2
	xy, xx, yy := 0.0, 0.0, 0.0
	for i := range ra {
		xy += (ra[i] - mean) * (rb[i] - mean)
		xx += (ra[i] - mean) * (ra[i] - mean)
		yy += (rb[i] - mean) * (rb[i] - mean)
	}
	return xy / math.Sqrt(xx*yy)
}

func ranks(a []float64) []float64 {
	out := make([]float64, len(a))
	for i := range a {
		for j := range a {
			switch {
			case a[j] < a[i]:
				out[i]++
			case a[j] == a[i] && j != i:
				out[i] += 0.5
			}
		}
	}
	return out
}

func heldOut(pieces []graded, seed uint64) []float64 {
	order := rand.New(rand.NewPCG(seed, 1)).Perm(len(pieces))
	said := make([]float64, len(pieces))
	for from := 0; from < len(order); from += 5 {
		out := order[from:min(from+5, len(order))]
		var x [][]float64
		var y []float64
		for i, p := range pieces {
			if !slices.Contains(out, i) {
				x, y = append(x, features(p.loads)), append(y, p.grade)
			}
		}
		w := fit(x, y)
		for _, i := range out {
			said[i] = dot(w, features(pieces[i].loads))
		}
	}
	return said
}

// The weights that ship are those that the graded pieces give.
func TestWeightsAreThoseOfTheFit(t *testing.T) {
	var x [][]float64
	var y []float64
	for _, p := range gradedPieces(t) {
		x, y = append(x, features(p.loads)), append(y, p.grade)
	}
	w := fit(x, y)
	for j, d := range dimension.Of(instrument.Keyboard) {
		require.InDelta(t, w[j+1], d.Weight, 0.0051, "%s", d.ID)
	}
	require.InDelta(t, w[0], dimension.Grade0, 0.0051)
}

// Five pieces are left out at a time, the weights are fitted to the others, and what they say of those five is compared with
// their grades: over all, and among those from the third year on, where notes and signs alone tell little.
func TestWhatWasLeftOutIsRanked(t *testing.T) {
	pieces := gradedPieces(t)
	for seed := range uint64(5) {
		said := heldOut(pieces, seed)
		var all, later, saidLater []float64
		for i, p := range pieces {
			all = append(all, p.grade)
			if p.grade >= 3 {
				later, saidLater = append(later, p.grade), append(saidLater, said[i])
			}
		}
		over, from := spearman(all, said), spearman(later, saidLater)
		t.Logf("rank correlation on what was left out: %.3f over all, %.3f from the third year on", over, from)
		require.Greater(t, over, 0.89)
		require.Greater(t, from, 0.8)
	}
}

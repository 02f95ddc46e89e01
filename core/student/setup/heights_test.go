package setup

import (
	"testing"

	"github.com/stretchr/testify/require"
)

// A tape tells half a centimetre: from there on something grew, or was measured otherwise.
func TestGrowthFromHalfACentimetre(t *testing.T) {
	before := Measures{Leg: 38, Elbow: 20}
	for _, x := range []struct {
		leg, elbow float64
		ok         bool
	}{{38, 20, false}, {38.5, 20, true}, {37.5, 20, true}, {38, 20.5, true}, {38, 19.5, true}, {38.2, 19.8, false}} {
		_, ok := GrowthOf(before, Measures{Leg: x.leg, Elbow: x.elbow})
		require.Equal(t, x.ok, ok, "%v", x)
	}
}

// Of firm mats those that come nearest, the fewest of equal ones; what is too thick the bench takes back within its give.
func TestTheMatsThatComeNearest(t *testing.T) {
	for _, x := range []struct {
		mats       []float64
		need, give float64
		want       []float64
	}{
		{nil, 4, 0, nil}, {[]float64{4}, 1, 0, nil}, {[]float64{4}, 2, 0, nil}, {[]float64{4}, 2.5, 0, []float64{4}},
		{[]float64{2, 2, 4}, 4, 0, []float64{4}}, {[]float64{2, 3, 6}, 5, 0, []float64{2, 3}}, {[]float64{2, 3, 6}, 5, 1, []float64{6}},
		{[]float64{3, 6}, 5, 0.5, []float64{6}}, {[]float64{4, 6}, 5, 0, []float64{4}}, {[]float64{6, 4}, 5, 0, []float64{6}},
	} {
		require.Equal(t, x.want, nearest(x.mats, x.need, x.give), "%v", x)
	}
}

package material

import (
	"testing"

	"github.com/stretchr/testify/require"
)

func TestBarsAreNamedAsPrinted(t *testing.T) {
	plain := Material{}
	pickup := Material{BarLabels: []string{"0", "1", "2", "3", "4"}}
	for _, c := range []struct {
		m    Material
		bars []int
		want string
	}{
		{plain, nil, "the whole piece"},
		{plain, []int{3}, "bar 3"},
		{plain, []int{1, 2, 3}, "bars 1–3"},
		{plain, []int{1, 3, 4, 9}, "bars 1, 3–4, 9"},
		{pickup, []int{1}, "bar 0"},
		{pickup, []int{2, 3, 5}, "bars 1–2, 4"},
	} {
		require.Equal(t, c.want, c.m.BarsName(c.bars))
	}
	require.Equal(t, "bar 0", pickup.Span(1, 1))
	require.Equal(t, "bars 0–3", pickup.Span(1, 4))
}

func TestManyPlacesAreCounted(t *testing.T) {
	m := Material{}
	require.Equal(t, "bars 1, 3, 5, 7, 9, 11", m.BarsName([]int{1, 3, 5, 7, 9, 11}))
	require.Equal(t, "bars 1, 3, 5, 7, 9–10 and 3 more places", m.BarsName([]int{1, 3, 5, 7, 9, 10, 13, 15, 17}))
}

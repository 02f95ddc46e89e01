package material

import (
	"fmt"
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

func TestAMaterialIsKeptWithinBounds(t *testing.T) {
	m := Material{
		Title:        "Fog",
		Bars:         20_000,
		DistinctBars: 20_000,
		BarLabels:    make([]string, 20_000),
		Notes:        make([]string, 200_000),
		Demands:      make([]Demand, 500),
		FocusPoints:  make([]FocusPoint, 200),
	}
	require.NoError(t, m.Check())
	for says, change := range map[string]func(*Material){
		"“Fog” has 20001 bars; at most 20000 are kept":     func(m *Material) { m.Bars++ },
		"“Fog” has 200001 notes; at most 200000 are kept":  func(m *Material) { m.Notes = append(m.Notes, "") },
		"“Fog” has 501 demands; at most 500 are kept":      func(m *Material) { m.Demands = append(m.Demands, Demand{}) },
		"“Fog” has 201 focus points; at most 200 are kept": func(m *Material) { m.FocusPoints = append(m.FocusPoints, FocusPoint{}) },
	} {
		x := m
		change(&x)
		require.EqualError(t, x.Check(), says)
	}
	m.BarLabels = append(m.BarLabels, "")
	require.EqualError(t, m.Check(), "“Fog” has 20001 bars; at most 20000 are kept")
}

func TestACopyIsSomebodysOwn(t *testing.T) {
	m := Material{
		ID:          "m",
		Title:       "Fog",
		Composer:    "C",
		SourceID:    "b",
		Source:      "Harbour",
		Unit:        "Quay",
		Page:        4,
		Order:       2,
		Bars:        8,
		HasScore:    true,
		Retired:     true,
		Demands:     []Demand{{Skill: "rests", Weight: 1}},
		FocusPoints: []FocusPoint{{ID: "f1", Text: "pulse"}, {ID: "f2", Text: "wrist"}},
	}
	n := 0
	c, ok := m.Copy("c", "Nils", func() string { n++; return fmt.Sprint("new", n) })
	require.True(t, ok)
	require.Equal(
		t,
		Material{
			ID:          "c",
			Title:       "Fog (Nils)",
			Composer:    "C",
			Bars:        8,
			HasScore:    true,
			Demands:     []Demand{{Skill: "rests", Weight: 1}},
			FocusPoints: []FocusPoint{{ID: "new1", Text: "pulse"}, {ID: "new2", Text: "wrist"}},
		},
		c,
	)
	c.Demands[0].Weight = 9
	require.Equal(t, 1.0, m.Demands[0].Weight)
	for _, none := range []Material{{Exercise: "scale"}, {PartOf: "unit"}} {
		_, ok := none.Copy("c", "Nils", nil)
		require.False(t, ok)
	}
}

func TestLabelsOfAllBars(t *testing.T) {
	require.Equal(t, []string{"0", "1", "2"}, Material{Bars: 3, BarLabels: []string{"0", "1", "2"}}.Labels())
	require.Equal(t, []string{"1", "2"}, Material{Bars: 2}.Labels())
	require.Equal(t, []string{}, Material{}.Labels())
}

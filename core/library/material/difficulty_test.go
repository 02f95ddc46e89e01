package material

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/dimension"
)

func TestFromTheEasiestToTheHardest(t *testing.T) {
	piece := func(title string, speed, jumps float64) Material {
		return Material{Title: title, Instrument: "piano", Loads: []Load{{Dimension: dimension.Speed, Value: speed}, {Dimension: dimension.Jumps, Value: jumps}}}
	}
	list := []Material{{Title: "Unread"}, piece("Étude", 10, 20), piece("March", 3, 0), piece("Air", 1, 0), {Title: "Lost"}}
	ByDifficulty(list)
	var got []string
	for _, m := range list {
		got = append(got, m.Title)
	}
	require.Equal(t, []string{"Air", "March", "Étude", "Lost", "Unread"}, got)
	require.Equal(t, []dimension.ID{dimension.Speed, dimension.Jumps}, list[2].Heaviest(3))
	require.Equal(t, []dimension.ID{dimension.Speed}, list[1].Heaviest(1))
	require.Empty(t, list[4].Heaviest(3))
}

package material

import (
	"cmp"
	"slices"
	"strings"

	"patientladder/core/library/dimension"
	"patientladder/core/library/instrument"
)

// Heaviest are the dimensions that add most to the difficulty of a material, at most n of them, the heaviest first.
func (m *Material) Heaviest(n int) []dimension.ID {
	family, _ := instrument.FamilyOf(m.Instrument)
	worth := map[dimension.ID]float64{}
	var out []dimension.ID
	for _, d := range dimension.Of(family) {
		if w := d.Worth(m.Load(d.ID)); w > 0 {
			worth[d.ID] = w
			out = append(out, d.ID)
		}
	}
	slices.SortStableFunc(out, func(x, y dimension.ID) int { return cmp.Compare(worth[y], worth[x]) })
	return out[:min(n, len(out))]
}

// ByDifficulty orders materials from the easiest to the hardest; what was not measured comes last, by its title.
func ByDifficulty(list []Material) {
	slices.SortStableFunc(list, func(x, y Material) int {
		a, known := x.Difficulty()
		b, other := y.Difficulty()
		switch {
		case known && other:
			return cmp.Or(cmp.Compare(a, b), strings.Compare(x.Title, y.Title))
		case known:
			return -1
		case other:
			return 1
		}
		return strings.Compare(x.Title, y.Title)
	})
}

package leap

import (
	"cmp"
	"slices"
	"strings"

	"patientladder/core/library/material"
)

// Foremost is how many demands stand first; the rest is folded (default).
const Foremost = 7

// InOrder are the demands of a material with what is new, rare and hard before the others: by what they add to the leap, then by
// weight, then what is asked for in few bars before what is asked for in many.
func (p Policy) InOrder(m *material.Material, a Ability) []material.Demand {
	out := slices.Clone(m.Demands)
	adds := func(d material.Demand) float64 { return d.Weight * p.Novelty(a.Skills[d.Skill]) }
	places := func(d material.Demand) int {
		if len(d.Bars) == 0 {
			return max(m.Bars, 1)
		}
		return len(d.Bars)
	}
	slices.SortStableFunc(out, func(x, y material.Demand) int {
		return cmp.Or(
			cmp.Compare(adds(y), adds(x)), cmp.Compare(y.Weight, x.Weight), cmp.Compare(places(x), places(y)), strings.Compare(x.Skill, y.Skill),
		)
	})
	return out
}

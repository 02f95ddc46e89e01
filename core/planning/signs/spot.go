package signs

// Spot is a working piece with hard spots that are open.
const Spot Kind = "spot"

var spot = Rule{
	Kind: Spot, Weight: 1, One: "has hard spots", Many: "have hard spots",
	Find: func(s Seen) (found []Sign) {
		for id, m := range s.working() {
			if open := m.OpenSpots(); open > 0 {
				found = append(found, Sign{Kind: Spot, Material: id, Count: open})
			}
		}
		return found
	},
	Says: func(s Sign, t Speech) string { return t.Figures(s.Count, "hard spot") + " in " + t.Title(s.Material) },
}

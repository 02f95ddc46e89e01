package signs

// Run is due where every point of a working piece has its mark.
const Run Kind = "run"

var run = Rule{
	Kind: Run, Weight: 4, One: "is ready for a run", Many: "are ready for a run", OnToday: true, InStudio: true,
	Find: func(s Seen) (found []Sign) {
		for id, m := range s.working() {
			if m.RunDue {
				found = append(found, Sign{Kind: Run, Material: id})
			}
		}
		return found
	},
	Says: func(s Sign, t Speech) string { return t.Title(s.Material) + " is ready for a run" },
}

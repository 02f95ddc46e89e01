package signs

// Choose is due where no piece is in work; a scale alone is no piece to work at.
const Choose Kind = "choose"

var choose = Rule{
	Kind: Choose, Weight: 5, One: "needs a new piece", Many: "need a new piece", OnToday: true,
	Find: func(s Seen) []Sign {
		for id := range s.working() {
			if s.Library[id].Exercise == "" {
				return nil
			}
		}
		return []Sign{{Kind: Choose}}
	},
	Says: func(Sign, Speech) string { return "No working piece: choose the next one" },
}

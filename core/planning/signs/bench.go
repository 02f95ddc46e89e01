package signs

// SetupDue is due where bench and feet are to be measured. It can wait.
const SetupDue Kind = "bench"

var bench = Rule{
	Kind: SetupDue, CanWait: true, One: "is to be measured", Many: "are to be measured",
	Find: func(s Seen) []Sign {
		if !s.Measure {
			return nil
		}
		return []Sign{{Kind: SetupDue, Measured: s.Measured}}
	},
	Says: func(s Sign, _ Speech) string {
		if s.Measured {
			return "Measure the bench and the feet again"
		}
		return "Measure the bench and the feet"
	},
}

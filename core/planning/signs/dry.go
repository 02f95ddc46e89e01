package signs

import "patientladder/core/library/material"

// Dry is due where a strand on which the student has learned something has nothing in work and nothing ahead: it would stay empty
// without a word.
const Dry Kind = "dry"

var dry = Rule{
	Kind: Dry, CanWait: true, One: "has an empty strand", Many: "have an empty strand", InStudio: true,
	Find: func(s Seen) (out []Sign) {
		for _, strand := range s.Dry {
			out = append(out, Sign{Kind: Dry, Strand: strand})
		}
		return out
	},
	Says: func(s Sign, _ Speech) string {
		if s.Strand == material.Technique {
			return "Nothing is left in technique: choose the next exercise"
		}
		return "Nothing is left in " + string(s.Strand) + ": choose what comes next"
	},
}

package review

import "patientladder/core/material"

// Useful is the share, 0 to 1, of what the working pieces ask for that a
// learned piece asks for too; 0 where nothing is being worked at.
func Useful(learned material.Material, working []material.Material) float64 {
	asked := map[string]bool{}
	for _, m := range working {
		for _, d := range m.Demands {
			asked[d.Skill] = true
		}
	}
	shared := 0
	for _, d := range learned.Demands {
		if asked[d.Skill] {
			shared++
		}
	}
	if len(asked) == 0 {
		return 0
	}
	return float64(shared) / float64(len(asked))
}

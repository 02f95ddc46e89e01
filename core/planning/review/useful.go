package review

import "patientladder/core/library/material"

// Skills are the skills that something asks for.
type Skills map[string]bool

// Asked are the skills that some materials ask for.
func Asked(by []material.Material) Skills {
	asked := Skills{}
	for _, m := range by {
		for _, d := range m.Demands {
			asked[d.Skill] = true
		}
	}
	return asked
}

// Useful is the share, 0 to 1, of the skills that a learned piece asks for too;
// 0 where there are none.
func (s Skills) Useful(learned material.Material) float64 {
	if len(s) == 0 {
		return 0
	}
	shared := 0
	for _, d := range learned.Demands {
		if s[d.Skill] {
			shared++
		}
	}
	return float64(shared) / float64(len(s))
}

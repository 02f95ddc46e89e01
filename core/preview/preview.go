// Package preview picks the bites that plant a skill before a piece needs it.
package preview

import (
	"patientladder/core/leap"
	"patientladder/core/material"
	"patientladder/core/skill"
)

// Look is how many rungs ahead are looked at (default), Most how many bites a
// lesson holds at the most (default).
const (
	Look = 6
	Most = 2
)

// Bite is one preview step.
type Bite struct {
	Skill string
	// Step counts from 1 to Of, the number of steps of the skill.
	Step, Of int
	Text     string
	// For is the id of the first material ahead that needs the skill.
	For string
}

// Bites returns the next step of the skills that the rungs ahead need, the
// skill that is needed first in front. Ahead is in the order of the ladder;
// the first Look materials count. A skill in recent had a step within the week
// and waits: never two steps of one skill in one week. Skills that are being
// learned, secure or rusty need no planting.
func Bites(ahead []material.Material, a leap.Ability, p leap.Policy, skills skill.Catalogue, recent map[string]bool) []Bite {
	var out []Bite
	seen := map[string]bool{}
	for i, m := range ahead {
		if i == Look {
			break
		}
		for _, d := range m.Demands {
			s, known := skills.Get(d.Skill)
			e := a.Skills[d.Skill]
			level := p.Level(e)
			if !known || seen[d.Skill] || level != leap.New && level != leap.Planted {
				continue
			}
			seen[d.Skill] = true
			if recent[d.Skill] || e.StepsDone >= len(s.Steps) {
				continue
			}
			if out = append(out, Bite{d.Skill, e.StepsDone + 1, len(s.Steps), s.Steps[e.StepsDone], m.ID}); len(out) == Most {
				return out
			}
		}
	}
	return out
}

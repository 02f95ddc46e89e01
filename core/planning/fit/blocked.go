package fit

import (
	"patientladder/core/library/material"
	"patientladder/core/planning/preview"
	"patientladder/core/student/leap"
)

// Block is a skill that keeps a material from being begun.
type Block struct {
	Skill string
	// Under is the skill on which it stands and which would be new as well; empty where it was not
	// met often enough for a performance piece: Met of Exposures times.
	Under          string
	Met, Exposures int
	// Way is the shortest way to it, in order.
	Way []Step
	// Lessons that the bites of the way take; materials on it come on top.
	Lessons int
}

// Step is one part of a way: bites of a skill, or a material that brings it.
type Step struct {
	Skill string
	Bites int
	// Material is the one with the smallest leap that asks for the skill; "" for bites.
	Material string
}

// blocks finds the demands that are not to be met in this material first: a
// skill that is new as well as what it stands on, and one that a performance
// piece may ask for only after some earlier meetings.
func (in Input) blocks(m material.Material) []Block {
	var out []Block
	asked := map[string]bool{}
	for _, d := range m.Demands {
		asked[d.Skill] = true
	}
	for _, d := range m.Demands {
		s, known := in.Skills.Get(d.Skill)
		if !known || !in.missing(d.Skill) && s.Exposures == 0 {
			continue
		}
		b := Block{Skill: d.Skill}
		e := in.Ability.Skills[d.Skill]
		met := e.StepsDone + e.Cleared
		if in.missing(d.Skill) {
			for _, need := range s.Needs {
				if asked[need] && in.missing(need) {
					b.Under = need
				}
			}
		}
		if m.Strand == material.Repertoire && met < s.Exposures && !e.Shown {
			b.Under, b.Met, b.Exposures = "", met, s.Exposures
		}
		if b.Under == "" && b.Exposures == 0 {
			continue
		}
		b.Way, b.Lessons = in.way(d.Skill, m.ID)
		out = append(out, b)
	}
	return out
}

// missing says that a skill is new.
func (in Input) missing(id string) bool {
	return in.Policy.Level(in.Ability.Skills[id]) == leap.New
}

// way is the shortest way to a skill: what it stands on first, each by its bites
// where it has any left, else by the material of the smallest leap that asks for it.
func (in Input) way(id, without string) (steps []Step, lessons int) {
	var needs []preview.Need
	seen := map[string]bool{}
	var walk func(id string) (after []string)
	walk = func(id string) (after []string) {
		s, known := in.Skills.Get(id)
		level := in.Policy.Level(in.Ability.Skills[id])
		if !known || level != leap.New && level != leap.Planted {
			return nil
		}
		if seen[id] {
			return []string{id}
		}
		seen[id] = true
		for _, need := range s.Needs {
			after = append(after, walk(need)...)
		}
		if done := in.Ability.Skills[id].StepsDone; done < len(s.Steps) {
			steps = append(steps, Step{Skill: id, Bites: len(s.Steps) - done})
			needs = append(needs, preview.Need{Skill: id, Done: done, Of: len(s.Steps), After: after})
			return []string{id}
		}
		if m := in.easiest(id, without); m != "" {
			steps = append(steps, Step{Skill: id, Material: m})
		}
		return after
	}
	walk(id)
	for _, o := range preview.Schedule(needs, in.PerLesson).Outcomes {
		lessons = max(lessons, o.Ready+1)
	}
	return steps, lessons
}

// easiest is the material with the smallest leap that asks for a skill; "" for none.
func (in Input) easiest(id, without string) string {
	best, size := "", 0.0
	for _, m := range in.Library {
		for _, d := range m.Demands {
			if d.Skill != id || m.ID == without || m.Retired {
				continue
			}
			if l := in.Policy.Of(m, in.Ability).Size; best == "" || l < size || l == size && m.ID < best {
				best, size = m.ID, l
			}
		}
	}
	return best
}

package curriculum

import (
	"maps"
	"slices"

	"patientladder/core/library/material"
	"patientladder/core/library/skill"
)

// Loose is a source without a title for each instrument that has pieces of no book, in the order of their names.
// Exercises belong to none.
func Loose(lib material.Library) (out []Source) {
	has := map[string]bool{}
	for _, m := range lib {
		if m.SourceID == "" && m.Exercise == "" {
			has[m.Instrument] = true
		}
	}
	for _, instrument := range slices.Sorted(maps.Keys(has)) {
		out = append(out, Source{Instrument: instrument})
	}
	return out
}

// Needed are those of a studio's own skills that the pieces of a book ask for, or what they ask for stands on.
func Needed(own []skill.Skill, book []material.Material, skills skill.Catalogue) (out []skill.Skill) {
	asked := map[string]bool{}
	for _, m := range book {
		for _, d := range m.Demands {
			asked[d.Skill] = true
			for _, id := range skills.Beneath(d.Skill) {
				asked[id] = true
			}
		}
	}
	for _, s := range own {
		if asked[s.ID] {
			out = append(out, s)
		}
	}
	return out
}

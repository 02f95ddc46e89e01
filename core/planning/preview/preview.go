// Package preview plants skills in small bites before a piece needs them: a
// piece is never the first meeting with a hard skill.
//
//	preview.go   what has to be planted, for which piece and until when
//	schedule.go  the bites as work with deadlines
//	mend.go      what can be done about a skill that would be late
package preview

import (
	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/student/leap"
)

// Policy says how far is looked ahead and how much is planted.
type Policy struct {
	// Rungs of each strand are looked at, and those that begin within Lessons.
	// Default 6 rungs or 16 weeks.
	Rungs, Lessons int
	// PerLesson is how many bites a lesson holds at the most. Default 2.
	PerLesson int
}

// DefaultPolicy returns the defaults.
func DefaultPolicy() Policy { return Policy{Rungs: 6, Lessons: 16, PerLesson: 2} }

// Rung is a material ahead.
type Rung struct {
	Material material.Material
	// Place counts the rungs ahead on its strand, from 0.
	Place int
	// Begin is the lesson, from 0 for the next one, in which it is expected to begin.
	Begin int
}

// Needs lists what the rungs ahead ask for that is new or half planted and has
// preview steps left, each with the piece that needs it first. A new skill
// that such a skill stands on is planted before it, whether a piece asks for it
// or not. A skill in recent had a step within the week. What is being learned,
// secure or rusty needs no planting. A skill that has to begin long before its first use is looked for that far ahead; an
// easy one is planted only where the lessons until then have bites to spare. The needs come in the order of the rungs, the
// easy ones last.
func Needs(ahead []Rung, a leap.Ability, l leap.Policy, skills skill.Catalogue, recent map[string]bool, p Policy) []Need {
	var out []Need
	at := map[string]int{}
	// add returns what has to be planted before a skill can be built on.
	var add func(id string, r Rung) []string
	add = func(id string, r Rung) []string {
		s, known := skills.Get(id)
		e := a.Skills[id]
		if level := l.Level(e); !known || level != leap.New && level != leap.Planted {
			return nil
		}
		var after []string
		for _, need := range s.Needs {
			if s.Easy {
				break
			}
			if n, _ := skills.Get(need); n.Easy {
				continue
			}
			after = append(after, add(need, r)...)
		}
		if e.StepsDone >= len(s.Steps) {
			return after
		}
		if i, seen := at[id]; seen {
			if r.Begin < out[i].By {
				out[i].By, out[i].For = r.Begin, r.Material.ID
			}
			return []string{id}
		}
		at[id] = len(out)
		out = append(out, Need{Skill: id, Done: e.StepsDone, Of: len(s.Steps), For: r.Material.ID, By: r.Begin, After: after, Rests: recent[id]})
		return []string{id}
	}
	near := func(r Rung) bool { return r.Place < p.Rungs || r.Begin <= p.Lessons }
	for _, r := range ahead {
		if !near(r) {
			for _, d := range r.Material.Demands {
				if s, _ := skills.Get(d.Skill); r.Begin <= s.Ahead {
					add(d.Skill, r)
				}
			}
			continue
		}
		for _, d := range r.Material.Demands {
			if s, _ := skills.Get(d.Skill); !s.Easy {
				add(d.Skill, r)
			}
		}
	}
	for _, r := range ahead {
		if !near(r) {
			continue
		}
		for _, d := range r.Material.Demands {
			s, _ := skills.Get(d.Skill)
			if _, seen := at[d.Skill]; s.Easy && !seen && spare(out, r.Begin, p.PerLesson) >= len(s.Steps)-a.Skills[d.Skill].StepsDone {
				add(d.Skill, r)
			}
		}
	}
	return out
}

// spare is how many bites the lessons before one have left beside those that are needed by then.
func spare(needs []Need, by, perLesson int) int {
	left := perLesson * by
	for _, n := range needs {
		if n.By <= by {
			left -= n.Of - n.Done
		}
	}
	return left
}

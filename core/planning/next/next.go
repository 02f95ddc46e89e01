// Package next proposes the next rung of a strand.
//
// The path is uneven on purpose: a hard piece is followed by an easy one. The
// proposal looks at the last two leaps of the strand and at the leap that each
// of the next materials would ask for now.
package next

import (
	"fmt"
	"strings"

	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/student/leap"
)

// Look is how many of the coming materials are considered (default).
const Look = 4

// Input is what the proposal is made from.
type Input struct {
	// Candidates are the materials ahead on the strand, in their order.
	Candidates []material.Material
	Ability    leap.Ability
	Policy     leap.Policy
	// Last are the leaps of the strand's rungs so far, oldest first.
	Last   []float64
	Reach  leap.Reach
	Skills skill.Catalogue
	// Straight takes the next in order after a large leap too, instead of an easy one.
	Straight bool
}

// Candidate is one material that was considered.
type Candidate struct {
	Material material.Material
	Leap     leap.Leap
	// Blocked names the demanded skills that are new and stand on something
	// that is new as well, so that the piece would be two firsts at once.
	Blocked []string
}

// Proposal is the next rung with its reasons. Chosen is nil when the strand has nothing ahead.
type Proposal struct {
	Chosen     *Candidate
	Considered []Candidate
	Reasons    []string
	// Ease says that an easy piece was looked for on purpose.
	Ease bool
}

// Propose chooses the next rung.
//
// After a leap over the comfortable reach it takes the first of the next Look
// materials that asks for less than half the reach, or the smallest leap when
// none does. Otherwise it takes the next in order, unless that is blocked or
// lies beyond one and a half times the reach while a later one does not. A
// blocked material is never put before one that is not. The first rung of a
// strand is the first in the order.
func Propose(in Input) Proposal {
	var p Proposal
	for _, m := range in.Candidates {
		if len(p.Considered) == Look {
			break
		}
		c := Candidate{Material: m, Leap: in.Policy.Of(m, in.Ability)}
		c.Blocked = Blocked(m, in)
		p.Considered = append(p.Considered, c)
	}
	if len(p.Considered) == 0 {
		p.Reasons = []string{"Nothing is ahead on this strand: put a material on it."}
		return p
	}
	n := len(in.Last)
	p.Ease = !in.Straight && n > 0 && in.Last[n-1] > in.Reach.Size
	at := 0
	if n > 0 { // a strand begins where its book begins
		at = pick(p.Considered, in.Reach.Size, p.Ease)
	}
	p.Chosen = &p.Considered[at]
	p.Reasons = reasons(p, at, in)
	return p
}

func pick(cs []Candidate, reach float64, ease bool) int {
	limit := 1.5 * reach
	if ease {
		limit = reach / 2
	}
	for i, c := range cs {
		if len(c.Blocked) == 0 && c.Leap.Size < limit {
			return i
		}
	}
	best := 0
	for i, c := range cs {
		b := cs[best]
		open, bestOpen := len(c.Blocked) == 0, len(b.Blocked) == 0
		if open && !bestOpen || open == bestOpen && c.Leap.Size < b.Leap.Size {
			best = i
		}
	}
	return best
}

// Blocked lists the new skills of a material whose own foundations are new too.
func Blocked(m material.Material, in Input) []string {
	asked := map[string]bool{}
	for _, d := range m.Demands {
		asked[d.Skill] = true
	}
	var out []string
	for _, d := range m.Demands {
		if in.Policy.Level(in.Ability.Skills[d.Skill]) != leap.New {
			continue
		}
		s, _ := in.Skills.Get(d.Skill)
		for _, need := range s.Needs {
			if asked[need] && in.Policy.Level(in.Ability.Skills[need]) == leap.New {
				out = append(out, d.Skill)
				break
			}
		}
	}
	return out
}

func reasons(p Proposal, at int, in Input) []string {
	c, reach := p.Considered[at], in.Reach.Size
	var out []string
	n := len(in.Last)
	switch {
	case n == 0:
		why := "a beginning is always a large leap"
		if c.Leap.Size <= reach {
			why = "much of it is there already"
		}
		out = append(out, fmt.Sprintf("It is the first on this strand and asks for %.1f; %s.", c.Leap.Size, why))
	case p.Ease && c.Leap.Size < reach/2:
		out = append(out, fmt.Sprintf("The last leap was %.1f, over the comfortable %.1f, so an easy one comes now: %.1f.", in.Last[n-1], reach, c.Leap.Size))
	case p.Ease:
		out = append(out, fmt.Sprintf("The last leap was %.1f, over the comfortable %.1f; none of the next %d is under half of that, and this is the smallest: %.1f.", in.Last[n-1], reach, len(p.Considered), c.Leap.Size))
	case c.Leap.Size > reach:
		out = append(out, fmt.Sprintf("It asks for %.1f, over the comfortable %.1f: plan more weeks, or plant its new skills first.", c.Leap.Size, reach))
	case n >= 2 && in.Last[n-1] < reach/2 && in.Last[n-2] < reach/2 && c.Leap.Size >= reach/2:
		out = append(out, fmt.Sprintf("The last two leaps were small (%.1f and %.1f): there is room for %.1f.", in.Last[n-2], in.Last[n-1], c.Leap.Size))
	default:
		out = append(out, fmt.Sprintf("It asks for %.1f, within the comfortable %.1f.", c.Leap.Size, reach))
	}
	if at > 0 {
		skipped := p.Considered[0]
		why := fmt.Sprintf("asks for %.1f now", skipped.Leap.Size)
		if len(skipped.Blocked) > 0 {
			why = "is blocked by " + names(skipped.Blocked, in.Skills)
		}
		out = append(out, fmt.Sprintf("“%s” comes first in the order but %s; it can follow.", skipped.Material.Title, why))
	}
	if fresh := newSkills(c.Leap); len(fresh) > 0 {
		out = append(out, "New in it: "+names(fresh, in.Skills)+".")
	} else {
		out = append(out, "Nothing in it is new.")
	}
	if len(c.Blocked) > 0 {
		out = append(out, "Two firsts at once: "+names(c.Blocked, in.Skills)+".")
	}
	return out
}

func newSkills(l leap.Leap) []string {
	var out []string
	for _, p := range l.Parts {
		if p.Level == leap.New || p.Level == leap.Planted {
			out = append(out, p.Skill)
		}
	}
	return out
}

func names(ids []string, c skill.Catalogue) string {
	words := make([]string, len(ids))
	for i, id := range ids {
		words[i] = c.Name(id)
	}
	return strings.Join(words, ", ")
}

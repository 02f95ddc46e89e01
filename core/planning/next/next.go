// Package next proposes the next rung of a strand.
//
// The path is uneven on purpose: a hard piece is followed by an easy one. The
// proposal looks at the last two leaps of the strand and at the leap that each
// of the next materials would ask for now.
package next

import (
	"time"

	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/student/leap"
)

// Considers is how many of the coming materials are considered (default).
const Considers = 4

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
	// Reasons say why it is this one, and what to know about it, in the order in which they are said.
	Reasons []Reason
	// Ease says that an easy piece was looked for on purpose.
	Ease bool
}

// Propose chooses the next rung.
//
// After a leap over the comfortable reach it takes the first of the next Considers
// materials that asks for less than half the reach, or the smallest leap when
// none does. Otherwise it takes the next in order, unless that is blocked or
// lies beyond one and a half times the reach while a later one does not. A
// blocked material is never put before one that is not. The first rung of a
// strand is the first in the order.
func Propose(in Input) Proposal {
	var p Proposal
	for _, m := range in.Candidates {
		if len(p.Considered) == Considers {
			break
		}
		c := Candidate{Material: m, Leap: in.Policy.Of(m, in.Ability)}
		c.Blocked = Blocked(m, in)
		p.Considered = append(p.Considered, c)
	}
	if len(p.Considered) == 0 {
		p.Reasons = []Reason{{Kind: Nothing}}
		return p
	}
	n := len(in.Last)
	p.Ease = !in.Straight && n > 0 && leap.Beyond(in.Last[n-1], in.Reach.Size)
	at := 0
	if n > 0 { // a strand begins where its book begins
		at = pick(p.Considered, in.Reach.Size, p.Ease)
	}
	p.Chosen = &p.Considered[at]
	p.Reasons = reasons(p, at, in)
	return p
}

func pick(cs []Candidate, reach float64, ease bool) int {
	if cs[0].Leap.Unknown && !ease {
		return 0 // nothing is known that would speak against the teacher's order
	}
	limit := 1.5 * reach
	if ease {
		limit = reach / 2
	}
	for i, c := range cs {
		if len(c.Blocked) == 0 && !c.Leap.Unknown && c.Leap.Size < limit {
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

// Why is the kind of a reason.
type Why string

// The kinds of reasons. The first group says why it is this one.
const (
	Nothing   Why = "nothing"   // nothing is ahead on the strand
	Beginning Why = "beginning" // the first rung of the strand
	Easy      Why = "easy"      // an easy one after a large leap
	Smallest  Why = "smallest"  // none is easy: the smallest after a large leap
	Stretch   Why = "stretch"   // beyond the comfortable leap
	Room      Why = "room"      // the last two leaps were small
	Fits      Why = "fits"      // within the comfortable leap
	InOrder   Why = "inOrder"   // nobody knows what it needs; it comes next in the teacher's order

	Passed   Why = "passed"   // another comes before it in the order
	New      Why = "new"      // what is new in it; no skills when nothing is
	TwoFirst Why = "twoFirst" // new skills that stand on something new as well
	Later    Why = "later"    // the strand begins only on a day
)

// Reason is one fact behind a proposal. Which fields are set follows from the kind.
type Reason struct {
	Kind Why
	// Leap is that of the chosen material, or of the one that was passed; Reach the comfortable leap.
	Leap, Reach float64
	// Last are the last leap, or the last two.
	Last []float64
	// Of is how many were considered.
	Of int
	// Material is the one that was passed.
	Material string
	// Skills are those that are new, or that block.
	Skills []string
	// Weeks of lessons before the strand begins, and the day on which it does.
	Weeks int
	From  time.Time
}

func reasons(p Proposal, at int, in Input) []Reason {
	c := p.Considered[at]
	out := []Reason{in.chosen(p, c)}
	if at > 0 {
		passed := p.Considered[0]
		out = append(out, Reason{Kind: Passed, Material: passed.Material.ID, Leap: passed.Leap.Size, Skills: passed.Blocked})
	}
	if !c.Leap.Unknown {
		out = append(out, Reason{Kind: New, Skills: newSkills(c.Leap)})
	}
	if len(c.Blocked) > 0 {
		out = append(out, Reason{Kind: TwoFirst, Skills: c.Blocked})
	}
	return out
}

// chosen is why it is this candidate.
func (in Input) chosen(p Proposal, c Candidate) Reason {
	r := Reason{Leap: c.Leap.Size, Reach: in.Reach.Size}
	n, half := len(in.Last), in.Reach.Size/2
	switch {
	case c.Leap.Unknown:
		r.Kind = InOrder
	case n == 0:
		r.Kind = Beginning
	case p.Ease && c.Leap.Size < half:
		r.Kind, r.Last = Easy, in.Last[n-1:]
	case p.Ease:
		r.Kind, r.Last, r.Of = Smallest, in.Last[n-1:], len(p.Considered)
	case leap.Beyond(c.Leap.Size, r.Reach):
		r.Kind = Stretch
	case n >= 2 && in.Last[n-1] < half && in.Last[n-2] < half && c.Leap.Size >= half:
		r.Kind, r.Last = Room, in.Last[n-2:]
	default:
		r.Kind = Fits
	}
	return r
}

func newSkills(l leap.Leap) []string {
	var out []string
	for _, p := range l.Fresh() {
		out = append(out, p.Skill)
	}
	return out
}

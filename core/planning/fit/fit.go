// Package fit ranks what could come next by how ready the student is for it and
// how well it suits, with the reasons.
//
//	fit.go      the ranking
//	blocked.go  what blocks a material, and the shortest way to it
package fit

import (
	"sort"

	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/student/leap"
	"patientladder/core/student/taste"
)

// Input is what the ranking is made from.
type Input struct {
	// Candidates are the materials that could be begun.
	Candidates []material.Material
	// Library is where the shortest way to a skill looks for materials.
	Library material.Library
	Ability leap.Ability
	Policy  leap.Policy
	Reach   leap.Reach
	Skills  skill.Catalogue
	Taste   taste.Profile
	// Idle are the strands on which nothing is in work.
	Idle map[material.Strand]bool
	// Ease says that an easy piece is wanted, after a large leap.
	Ease bool
	// PerLesson is how many preview bites a lesson holds.
	PerLesson int
}

// Candidate is one ranked material.
type Candidate struct {
	Material material.Material
	Leap     leap.Leap
	Blocks   []Block
	// Score is the sum of the parts below, by which those that nothing blocks are ranked.
	Score float64
	// Ready is the share of the weighted demands that are there, 0 to 1; Size how
	// well the leap fits the reach, 0 to 1; Taste −1 to 1; Balance 1 for an idle strand.
	Ready, Size, Taste, Balance float64
	// Reasons in the order in which they are said.
	Reasons []Reason
}

// Why is the kind of a reason.
type Why string

// The kinds of reasons.
const (
	Known      Why = "known"      // Share of what it asks for is there
	EasyWanted Why = "easyWanted" // the easy one that is wanted after a large leap
	NotEasy    Why = "notEasy"    // an easy one, under half of Reach, is wanted
	Beyond     Why = "beyond"     // beyond the comfortable leap
	Plateau    Why = "plateau"    // under a quarter of the comfortable leap
	Within     Why = "within"     // within the comfortable leap
	Liked      Why = "liked"      // the student takes to what it is like, or does not
	NotKnown   Why = "notKnown"   // nobody has said what it needs, and it has no score
	IdleStrand Why = "idle"       // nothing is in work on its strand
)

// Reason is one fact behind a rank. Which fields are set follows from the kind.
type Reason struct {
	Kind Why
	// Share from 0 to 1.
	Share       float64
	Leap, Reach float64
	Liking      taste.Liking
}

// The weights of the parts of the score (default).
const (
	readyWeight   = 2
	sizeWeight    = 1.5
	tasteWeight   = 0.75
	balanceWeight = 0.4
)

// Rank sorts the candidates, best first: those that nothing blocks by their
// score, then those of which nobody knows what they need, then those that are blocked, however well they would suit.
func Rank(in Input) []Candidate {
	out := make([]Candidate, len(in.Candidates))
	for i, m := range in.Candidates {
		out[i] = in.candidate(m)
	}
	sort.SliceStable(out, func(a, b int) bool {
		x, y := out[a], out[b]
		if (len(x.Blocks) > 0) != (len(y.Blocks) > 0) {
			return len(x.Blocks) == 0
		}
		if x.Leap.Unknown != y.Leap.Unknown {
			return y.Leap.Unknown
		}
		if x.Score != y.Score {
			return x.Score > y.Score
		}
		return x.Material.Order < y.Material.Order
	})
	return out
}

func (in Input) candidate(m material.Material) Candidate {
	c := Candidate{Material: m, Leap: in.Policy.Of(m, in.Ability)}
	c.Blocks = in.blocks(m)
	c.Ready = c.Leap.Ready
	var size Why
	c.Size, size = in.size(c.Leap.Size)
	var like taste.Liking
	c.Taste, like = in.Taste.Fit(m)
	if in.Idle[m.Strand] {
		c.Balance = 1
	}
	if c.Leap.Unknown {
		c.Size, size = 0, NotKnown
	}
	c.Score = readyWeight*c.Ready + sizeWeight*c.Size + tasteWeight*c.Taste + balanceWeight*c.Balance
	if c.Leap.Unknown {
		c.Reasons = append(c.Reasons, Reason{Kind: NotKnown})
	} else {
		c.Reasons = append(c.Reasons, Reason{Kind: Known, Share: c.Ready}, Reason{Kind: size, Leap: c.Leap.Size, Reach: in.Reach.Size})
	}
	if like.Signs > 0 && like.Score != 0 {
		c.Reasons = append(c.Reasons, Reason{Kind: Liked, Liking: like})
	}
	if c.Balance > 0 {
		c.Reasons = append(c.Reasons, Reason{Kind: IdleStrand})
	}
	return c
}

// size says how well a leap fits: best between a quarter of the reach and the
// reach; after a large leap best under half of it.
func (in Input) size(l float64) (float64, Why) {
	reach := in.Reach.Size
	switch {
	case in.Ease && l < reach/2:
		return 1, EasyWanted
	case in.Ease:
		return reach / 2 / l, NotEasy
	case leap.Beyond(l, reach):
		return reach / l, Beyond
	case l < reach/4:
		return 0.7, Plateau
	}
	return 1, Within
}

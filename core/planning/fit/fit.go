// Package fit ranks what could come next by how ready the student is for it and
// how well it suits, with the reasons.
//
//	fit.go      the ranking
//	blocked.go  what blocks a material, and the shortest way to it
package fit

import (
	"fmt"
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
	Reasons                     []string
}

// The weights of the parts of the score (default).
const (
	readyWeight   = 2
	sizeWeight    = 1.5
	tasteWeight   = 0.75
	balanceWeight = 0.4
)

// Rank sorts the candidates, best first: those that nothing blocks by their
// score, then those that are blocked, however well they would suit.
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
	var size string
	c.Size, size = in.size(c.Leap.Size)
	var like taste.Liking
	c.Taste, like = in.Taste.Fit(m)
	if in.Idle[m.Strand] {
		c.Balance = 1
	}
	c.Score = readyWeight*c.Ready + sizeWeight*c.Size + tasteWeight*c.Taste + balanceWeight*c.Balance
	c.Reasons = append(c.Reasons, fmt.Sprintf("%.0f %% of what it asks for is there", 100*c.Ready), size)
	if like.Signs > 0 && like.Score != 0 {
		word := "likes"
		if like.Score < 0 {
			word = "does not take to"
		}
		c.Reasons = append(c.Reasons, fmt.Sprintf("%s what is %s (%s)", word, like.Tag, like.Why))
	}
	if c.Balance > 0 {
		c.Reasons = append(c.Reasons, "nothing is in work on its strand")
	}
	return c
}

// size says how well a leap fits: best between a quarter of the reach and the
// reach; after a large leap best under half of it.
func (in Input) size(l float64) (float64, string) {
	reach := in.Reach.Size
	switch {
	case in.Ease && l < reach/2:
		return 1, fmt.Sprintf("a leap of %.1f, the easy one that is wanted after a large one", l)
	case in.Ease:
		return reach / 2 / l, fmt.Sprintf("a leap of %.1f, where an easy one under %.1f is wanted", l, reach/2)
	case l > reach:
		return reach / l, fmt.Sprintf("a leap of %.1f, over the comfortable %.1f", l, reach)
	case l < reach/4:
		return 0.7, fmt.Sprintf("a leap of %.1f, a plateau", l)
	}
	return 1, fmt.Sprintf("a leap of %.1f, within the comfortable %.1f", l, reach)
}

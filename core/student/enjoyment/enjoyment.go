// Package enjoyment sets practice against enjoyment, for the teacher's eyes
// only. It prompts a talk; it is no judgement of a child.
package enjoyment

import (
	"gonum.org/v1/gonum/stat/distuv"
)

// Evidence is what the last weeks say of one student.
type Evidence struct {
	// Set are the days on which practice was set and which have passed; Practised
	// are those of them on which something was reported.
	Set, Practised int
	// Joyful, Fine and Hard count how practice felt.
	Joyful, Fine, Hard int
	// Liked counts pieces played first, asked for, practised unasked or liked; Disliked those disliked.
	Liked, Disliked int
}

// Share is a share from 0 to 1; four times of five it lies between Low and High.
type Share struct{ Low, Middle, High float64 }

// Kind says where a student stands.
type Kind string

// The kinds. Quiet is the one to notice: practises, and does not seem to enjoy it.
const (
	Unknown Kind = "unknown" // too little is known
	Quiet   Kind = "quiet"   // practises, little joy
	Glowing Kind = "glowing" // practises, with joy
	Playing Kind = "playing" // joy, little practice
	Away    Kind = "away"    // little of both
	Between Kind = "between" // in the middle
)

// The lines and how sure one must be (defaults of ours).
const (
	practises = 0.6
	enjoys    = 0.5
	sure      = 0.8
)

// Balance is practice against enjoyment.
type Balance struct {
	Practice, Enjoyment Share
	Kind                Kind
	// From is what it was weighed from.
	From Evidence
}

// Notice ranks the kinds by how much they ask to be noticed: the quiet one before the one who
// drifts away, and both before all others.
func (k Kind) Notice() int {
	switch k {
	case Quiet:
		return 2
	case Away:
		return 1
	}
	return 0
}

// Of weighs the evidence: each axis is a share with a uniform prior, so that
// its posterior after k of n is Beta(1+k, 1+n-k) (Gelman et al., Bayesian Data
// Analysis, section 2.4). What felt fine counts half for joy.
func Of(e Evidence) Balance {
	practice := posterior(float64(e.Practised), float64(e.Set-e.Practised))
	joy := float64(e.Joyful) + float64(e.Liked) + float64(e.Fine)/2
	enjoyment := posterior(joy, float64(e.Hard)+float64(e.Disliked)+float64(e.Fine)/2)
	b := Balance{Practice: share(practice), Enjoyment: share(enjoyment), From: e}
	b.Kind = kind(1-practice.CDF(practises), 1-enjoyment.CDF(enjoys))
	return b
}

// posterior is that of a share under a uniform prior, after so many for and against it.
func posterior(pro, con float64) distuv.Beta {
	return distuv.Beta{Alpha: 1 + pro, Beta: 1 + max(0, con)}
}

func share(b distuv.Beta) Share {
	return Share{Low: b.Quantile(0.1), Middle: b.Mean(), High: b.Quantile(0.9)}
}

// kind takes the chances that a student practises and enjoys more than the lines.
func kind(p, e float64) Kind {
	much, little := func(x float64) bool { return x >= sure }, func(x float64) bool { return x <= 1-sure }
	switch {
	case much(p) && little(e):
		return Quiet
	case much(p) && much(e):
		return Glowing
	case little(p) && much(e):
		return Playing
	case little(p) && little(e):
		return Away
	case (much(p) || little(p)) && (e > 0.35 && e < 0.65) || (much(e) || little(e)) && (p > 0.35 && p < 0.65):
		return Between
	}
	return Unknown
}

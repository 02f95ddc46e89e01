// Package leap says what is new in a material for one student, and how big
// the leap is:
//
//	leap = Σ weight × novelty + length + tempo
//
// The length part is LengthWeight × log2(distinct bars ÷ the longest cleared
// piece), the tempo part TempoWeight × log2(tempo ÷ highest secure tempo in
// that texture); both count only where they are above zero and where there is
// something to compare with.
package leap

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"sort"
	"strings"

	"patientladder/core/material"
)

// Part is one reason for the leap.
type Part struct {
	// Skill is the skill id; empty for the parts "length" and "tempo".
	Skill string `json:"skill,omitempty"`
	// Kind is "skill", "length" or "tempo".
	Kind    string  `json:"kind"`
	Level   Level   `json:"level,omitempty"`
	Weight  float64 `json:"weight"`
	Novelty float64 `json:"novelty"`
	// Amount is what the part adds to the leap.
	Amount float64 `json:"amount"`
	// Bars are the positions from 1 where it happens; empty for the whole piece.
	Bars []int `json:"bars,omitempty"`
	// Why says what the level or amount rests on.
	Why string `json:"why"`
}

// Leap is how much a material asks of a student that is new, with its parts,
// largest first. Secure skills are among the parts with an amount of 0.
type Leap struct {
	Size  float64 `json:"size"`
	Parts []Part  `json:"parts"`
	// Ready is the share of the weighted demands that are secure, rusty or planted by half, 0 to 1.
	Ready float64 `json:"ready"`
}

// Of computes the leap of a material for a student.
func (p Policy) Of(m material.Material, a Ability) Leap {
	has := make([]Evidence, len(m.Demands))
	for i, d := range m.Demands {
		has[i] = a.Skills[d.Skill]
	}
	return p.Over(&m, has, a.LongestBars, a.Tempo[m.Texture])
}

// Over computes the leap of a material from the evidence for each of its
// demands, in their order, the distinct bars of the longest cleared piece, and
// the quickest secure tempo in its texture (0 for none).
func (p Policy) Over(m *material.Material, has []Evidence, longest int, tempo float64) Leap {
	l := Leap{Ready: 1, Parts: make([]Part, 0, len(has)+2)}
	var weight, ready float64
	for i, d := range m.Demands {
		e := has[i]
		n := p.Novelty(e)
		l.Parts = append(l.Parts, Part{
			Skill: d.Skill, Kind: "skill", Level: p.Level(e), Weight: d.Weight, Novelty: n,
			Amount: d.Weight * n, Bars: d.Bars, Why: p.Reason(e),
		})
		weight += d.Weight
		if n <= 0.7 {
			ready += d.Weight
		}
	}
	if weight > 0 {
		l.Ready = ready / weight
	}
	if longest > 0 && m.DistinctBars > longest {
		l.add(Part{Kind: "length", Weight: p.LengthWeight, Novelty: math.Log2(float64(m.DistinctBars) / float64(longest)),
			Why: fmt.Sprintf("%d different bars to learn; the longest cleared piece had %d", m.DistinctBars, longest)})
	}
	if tempo > 0 && m.Tempo > tempo {
		l.add(Part{Kind: "tempo", Weight: p.TempoWeight, Novelty: math.Log2(m.Tempo / tempo),
			Why: fmt.Sprintf("%.0f crotchets a minute; the quickest cleared piece with %s went at %.0f", m.Tempo, m.Texture, tempo)})
	}
	slices.SortStableFunc(l.Parts, func(x, y Part) int {
		if c := cmp.Compare(y.Amount, x.Amount); c != 0 {
			return c
		}
		return strings.Compare(x.Skill, y.Skill)
	})
	for _, part := range l.Parts {
		l.Size += part.Amount
	}
	return l
}

func (l *Leap) add(p Part) {
	p.Amount = p.Weight * p.Novelty
	l.Parts = append(l.Parts, p)
}

// Reach is the leap a student takes in stride, and what that rests on.
type Reach struct {
	Size float64 `json:"size"`
	Why  string  `json:"why"`
}

// Reach returns the comfortable leap. With five cleared pieces or more it is
// the 70th percentile of the leaps that the student has taken (nearest rank),
// never under a third of the default; before that the default.
func (p Policy) Reach(taken []float64) Reach {
	const enough = 5
	if len(taken) < enough {
		return Reach{p.Comfortable, fmt.Sprintf("the studio's default, until %d pieces are cleared", enough)}
	}
	sorted := append([]float64(nil), taken...)
	sort.Float64s(sorted)
	rank := int(math.Ceil(0.7*float64(len(sorted)))) - 1
	size := max(sorted[rank], p.Comfortable/3)
	return Reach{size, fmt.Sprintf("seven of ten of the %d pieces cleared so far asked for no more", len(taken))}
}

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

	"patientladder/core/library/material"
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
func (p Policy) Of(m material.Material, a Ability) Leap { return p.Over(&m, BroughtTo(&m, a)) }

// Brought is what a student brings to one material: all that its leap depends on.
type Brought struct {
	// Skills is the evidence for each demand of the material, in their order.
	Skills []Evidence `json:"skills"`
	// LongestBars and Tempo are the distinct bars of the longest cleared piece and
	// the quickest secure tempo in the material's texture; 0 for none.
	LongestBars int     `json:"longestBars"`
	Tempo       float64 `json:"tempo"`
}

// BroughtTo takes from an ability what concerns a material.
func BroughtTo(m *material.Material, a Ability) Brought {
	b := Brought{Skills: make([]Evidence, len(m.Demands)), LongestBars: a.LongestBars, Tempo: a.Tempo[m.Texture]}
	for i, d := range m.Demands {
		b.Skills[i] = a.Skills[d.Skill]
	}
	return b
}

// Size is the size of the leap alone.
func (p Policy) Size(m *material.Material, b Brought) float64 {
	size := p.length(m, b)*p.LengthWeight + p.tempo(m, b)*p.TempoWeight
	for i, d := range m.Demands {
		size += d.Weight * p.Novelty(b.Skills[i])
	}
	return size
}

// length and tempo are by how many doublings a material is longer or quicker than what was cleared.
func (p Policy) length(m *material.Material, b Brought) float64 {
	if b.LongestBars == 0 || m.DistinctBars <= b.LongestBars {
		return 0
	}
	return math.Log2(float64(m.DistinctBars) / float64(b.LongestBars))
}

func (p Policy) tempo(m *material.Material, b Brought) float64 {
	if b.Tempo == 0 || m.Tempo <= b.Tempo {
		return 0
	}
	return math.Log2(m.Tempo / b.Tempo)
}

// Over computes the leap of a material from what a student brings to it.
func (p Policy) Over(m *material.Material, b Brought) Leap {
	l := Leap{Ready: 1, Parts: make([]Part, 0, len(m.Demands)+2)}
	var weight, ready float64
	for i, d := range m.Demands {
		e := b.Skills[i]
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
	if n := p.length(m, b); n > 0 {
		l.add(Part{Kind: "length", Weight: p.LengthWeight, Novelty: n,
			Why: fmt.Sprintf("%d different bars to learn; the longest cleared piece had %d", m.DistinctBars, b.LongestBars)})
	}
	if n := p.tempo(m, b); n > 0 {
		l.add(Part{Kind: "tempo", Weight: p.TempoWeight, Novelty: n,
			Why: fmt.Sprintf("%.0f crotchets a minute; the quickest cleared piece with %s went at %.0f", m.Tempo, m.Texture, b.Tempo)})
	}
	slices.SortStableFunc(l.Parts, func(x, y Part) int {
		return cmp.Or(cmp.Compare(y.Amount, x.Amount), strings.Compare(x.Skill, y.Skill))
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

// Package leap says what is new in a material for one student, and how big
// the leap is:
//
//	leap = Σ weight × novelty + length + loads
//
// The length part is LengthWeight × log2(distinct bars ÷ the longest cleared
// piece). The loads are those dimensions in which the material lies above what is secure (see package dimension): LoadWeight ×
// weight × log2((base + load) ÷ (base + secure)). Where no load is known of either side, the tempo stands for them:
// TempoWeight × log2(tempo ÷ highest secure tempo in that texture). All count only where they are above zero and where there
// is something to compare with.
package leap

import (
	"cmp"
	"math"
	"slices"
	"sort"
	"strings"

	"patientladder/core/library/dimension"
	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
)

// Kind is what a part of a leap is about.
type Kind string

// The kinds of parts.
const (
	OfSkill  Kind = "skill"
	OfLength Kind = "length"
	OfTempo  Kind = "tempo"
	OfLoad   Kind = "load"
)

// Part is one reason for the leap.
type Part struct {
	// Skill is the skill id; empty for length, tempo and loads.
	Skill string `json:"skill,omitempty"`
	// Dimension and Load are of a part that is about one.
	Dimension dimension.ID `json:"dimension,omitempty"`
	Load      float64      `json:"load,omitempty"`

	Kind    Kind    `json:"kind"`
	Level   Level   `json:"level,omitempty"`
	Weight  float64 `json:"weight"`
	Novelty float64 `json:"novelty"`
	// Amount is what the part adds to the leap.
	Amount float64 `json:"amount"`
	// Bars are the positions from 1 where it happens; empty for the whole piece.
	Bars []int `json:"bars,omitempty"`
	// Evidence is what the level of a skill rests on.
	Evidence Evidence `json:"evidence"`
	// Best are the distinct bars of the longest cleared piece, the quickest tempo cleared in the texture, or the secure load.
	Best float64 `json:"best,omitempty"`
}

// Leap is how much a material asks of a student that is new, with its parts,
// largest first. Secure skills are among the parts with an amount of 0.
type Leap struct {
	Size  float64 `json:"size"`
	Parts []Part  `json:"parts"`
	// Ready is the share of the weighted demands that are secure, rusty or planted by half, 0 to 1; 0 where they are unknown.
	Ready float64 `json:"ready"`
	// Unknown says that nobody knows what the material asks for: the size is a guess that lies from Low to High.
	Unknown   bool    `json:"unknown,omitempty"`
	Low, High float64 `json:"-"`
}

// Unknown is the leap of a material that nobody knows, guessed from its neighbours: the middle one of theirs, and a range
// from the smallest to the largest of them. Without neighbours it is a comfortable leap, from a third of it to twice as much.
func (p Policy) Unknown(neighbours ...float64) Leap {
	l := Leap{Size: p.Comfortable, Unknown: true, Low: p.Comfortable / 3, High: 2 * p.Comfortable, Parts: []Part{}}
	if len(neighbours) > 0 {
		sorted := slices.Sorted(slices.Values(neighbours))
		l.Size, l.Low, l.High = sorted[(len(sorted)-1)/2], min(l.Low, sorted[0]), max(l.High, sorted[len(sorted)-1])
	}
	return l
}

// Fresh are the parts that are new to the student, planted or not, in their order.
func (l Leap) Fresh() []Part {
	var out []Part
	for _, p := range l.Parts {
		if p.Level == New || p.Level == Planted {
			out = append(out, p)
		}
	}
	return out
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
	// Loads are the secure loads for the loads of the material, in their order; nil where none is known.
	Loads []float64 `json:"loads,omitempty"`
}

// BroughtTo takes from an ability what concerns a material.
func BroughtTo(m *material.Material, a Ability) Brought {
	b := Brought{Skills: make([]Evidence, len(m.Demands)), LongestBars: a.LongestBars, Tempo: a.Tempo[m.Texture]}
	for i, d := range m.Demands {
		b.Skills[i] = a.Skills[d.Skill]
	}
	if len(a.Loads) > 0 && len(m.Loads) > 0 {
		b.Loads = make([]float64, len(m.Loads))
		for i, l := range m.Loads {
			b.Loads[i] = a.Loads[l.Dimension].Secure()
		}
	}
	return b
}

// Size is the size of the leap alone.
func (p Policy) Size(m *material.Material, b Brought) float64 {
	if m.Unknown() {
		return p.Comfortable
	}
	size := p.length(m, b)*p.LengthWeight + p.tempo(m, b)*p.TempoWeight
	for i, l := range m.Loads {
		if n, weight := p.load(m, l, b, i); weight > 0 {
			size += n * weight
		}
	}
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
	if b.Tempo == 0 || m.Tempo <= b.Tempo || b.Loads != nil {
		return 0
	}
	return math.Log2(m.Tempo / b.Tempo)
}

// leastLoad is how much a load must add to the leap to be a part of it (default): less is felt by nobody.
const leastLoad = 0.05

// load is by how many doublings the i-th load of a material lies above what is secure, and what each is worth; no weight where
// it is not above, where too little is, and where nothing is known.
func (p Policy) load(m *material.Material, l material.Load, b Brought, i int) (doublings, weight float64) {
	if i >= len(b.Loads) {
		return 0, 0
	}
	family, _ := instrument.FamilyOf(m.Instrument)
	d, ok := dimension.By(family, l.Dimension)
	if !ok {
		return 0, 0
	}
	n, w := math.Log2((d.Base+l.Value)/(d.Base+max(d.Start, b.Loads[i]))), p.LoadWeight*d.Weight
	if n*w < leastLoad {
		return 0, 0
	}
	return n, w
}

// Over computes the leap of a material from what a student brings to it.
func (p Policy) Over(m *material.Material, b Brought) Leap {
	if m.Unknown() {
		return p.Unknown()
	}
	l := Leap{Ready: 1, Parts: make([]Part, 0, len(m.Demands)+2)}
	var weight, ready float64
	for i, d := range m.Demands {
		e := b.Skills[i]
		if p.Level(e) == Unread {
			continue
		}
		n := p.Novelty(e)
		l.Parts = append(l.Parts, Part{
			Skill: d.Skill, Kind: OfSkill, Level: p.Level(e), Weight: d.Weight, Novelty: n,
			Amount: d.Weight * n, Bars: d.Bars, Evidence: e,
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
		l.add(Part{Kind: OfLength, Weight: p.LengthWeight, Novelty: n, Best: float64(b.LongestBars)})
	}
	if n := p.tempo(m, b); n > 0 {
		l.add(Part{Kind: OfTempo, Weight: p.TempoWeight, Novelty: n, Best: b.Tempo})
	}
	for i, x := range m.Loads {
		if n, w := p.load(m, x, b, i); w > 0 {
			l.add(Part{Kind: OfLoad, Dimension: x.Dimension, Load: x.Value, Best: b.Loads[i], Weight: w, Novelty: n, Bars: x.Bars})
		}
	}
	slices.SortStableFunc(l.Parts, func(x, y Part) int {
		return cmp.Or(cmp.Compare(y.Amount, x.Amount), strings.Compare(x.Skill, y.Skill), strings.Compare(string(x.Dimension), string(y.Dimension)))
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

// Reach is the leap a student takes in stride.
type Reach struct {
	Size float64 `json:"size"`
	// From counts the cleared pieces that it rests on; 0 for the studio's default.
	From int `json:"from"`
}

// EnoughCleared is from how many cleared pieces on a student's own leaps tell the reach (default).
const EnoughCleared = 5

// Beyond says that a leap is over the comfortable one, as both are said: in tenths. What is written the same is no big jump.
func Beyond(size, reach float64) bool { return math.Round(10*size) > math.Round(10*reach) }

// ofDefault is how many cleared pieces the studio's default is worth in the reach of a student (default): small steps that were
// taken do not tell that a larger one would have been too much.
const ofDefault = 5

// Reach returns the comfortable leap. With five cleared pieces or more it is
// the 70th percentile of the leaps that the student has taken (nearest rank), drawn
// towards the default; before that the default.
func (p Policy) Reach(taken []float64) Reach {
	if len(taken) < EnoughCleared {
		return Reach{Size: p.Comfortable}
	}
	sorted := append([]float64(nil), taken...)
	sort.Float64s(sorted)
	rank := int(math.Ceil(0.7*float64(len(sorted)))) - 1
	n := float64(len(taken))
	return Reach{Size: (n*sorted[rank] + ofDefault*p.Comfortable) / (n + ofDefault), From: len(taken)}
}

package learning

import (
	"cmp"
	"math"
	"slices"
	"strings"
	"time"

	"patientladder/core/library/material"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/leap"
	"patientladder/core/student/memory"
)

// Used is what a studio uses of what it has learned. The zero value uses the table and the published memory.
type Used struct {
	// Factors are how many times the table's weight each skill asks for; those that are not named ask for the table's.
	Factors map[string]float64
	// Scale is that of the memory; 0 for the published one.
	Scale float64
	// At is since when.
	At time.Time
}

// Memory are the parameters that are used.
func (u Used) Memory() memory.Params {
	if p := memory.DefaultParams(); u.Scale > 0 {
		return p.Scaled(u.Scale)
	}
	return memory.DefaultParams()
}

// Any says that something is used.
func (u Used) Any() bool { return len(u.Factors) > 0 || u.Scale != 0 }

// Offer is what would be used: only what foretells better what it had not seen.
func Offer(s Skills, f Fade, at time.Time) Used {
	out := Used{At: at}
	if s.Better {
		out.Factors = map[string]float64{}
		for _, w := range s.Weights {
			out.Factors[w.Skill] = w.Factor
		}
	}
	if f.Better {
		out.Scale = f.Scale
	}
	return out
}

// Over are the materials with the weights that are used; those set by hand stay. The library itself is not changed.
func (u Used) Over(lib material.Library) material.Library {
	if len(u.Factors) == 0 {
		return lib
	}
	out := make(material.Library, len(lib))
	for id, m := range lib {
		demands := slices.Clone(m.Demands)
		for i, d := range demands {
			if f, learned := u.Factors[d.Skill]; learned && !byHand(m, d) {
				demands[i].Weight = d.Weight * f
			}
		}
		m.Demands = demands
		out[id] = m
	}
	return out
}

// table takes the used weights out of what a skill added.
func (u Used) table(skill string, added float64) float64 {
	if f, used := u.Factors[skill]; used && f > 0 {
		return added / f
	}
	return added
}

// Move is a piece whose leap would become another one.
type Move struct {
	Ladder, Name, Material string
	Before, After          float64
}

const (
	// leastMove is the smallest change of a leap that is told, mostMoves how many are (defaults).
	leastMove, mostMoves = 0.1, 8
)

// Moves are the pieces in work and next on their strands whose leaps would become others, the largest change first.
func (u Used) Moves(students []studentplan.StudentOutlook, now Used) []Move {
	var out []Move
	for _, a := range students {
		for _, rail := range a.View.Rails {
			next := true
			for _, r := range rail.Rungs {
				if r.Layer == ladder.Review || r.Aside != "" || r.Leap.Unknown {
					continue
				}
				if r.Layer != ladder.Now {
					if !next {
						continue
					}
					next = false
				}
				by := 0.0
				for _, p := range r.Leap.Parts {
					if p.Kind != leap.OfSkill {
						continue
					}
					f, used := u.Factors[p.Skill]
					if !used {
						f = 1
					}
					by += now.table(p.Skill, p.Amount)*f - p.Amount
				}
				if math.Abs(by) >= leastMove {
					out = append(out, Move{Ladder: a.Ladder, Name: a.Name, Material: r.Material.ID, Before: r.Leap.Size, After: r.Leap.Size + by})
				}
			}
		}
	}
	slices.SortFunc(out, func(a, b Move) int {
		return cmp.Or(
			cmp.Compare(math.Abs(b.After-b.Before), math.Abs(a.After-a.Before)),
			strings.Compare(a.Ladder+a.Material, b.Ladder+b.Material),
		)
	})
	return out[:min(len(out), mostMoves)]
}

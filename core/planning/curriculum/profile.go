package curriculum

import (
	"patientladder/core/library/material"
	"patientladder/core/student/leap"
)

// Line is one material of a profile.
type Line struct {
	Material material.Material
	Leap     leap.Leap
	// Cliff and Plateau as on a ladder.
	Cliff, Plateau bool
	// Enters are the skills that the book asks for first here and that the student
	// does not bring; Again those asked for before in it.
	Enters, Again []string
}

// Use is where a skill stands in a book.
type Use struct {
	Skill string
	// At are the places in the book that ask for it, from 0.
	At []int
	// Brought says that the student had it before.
	Brought bool
}

// Gradation is a book as a path.
type Gradation struct {
	Lines []Line
	Reach leap.Reach
	// Skills in the order in which they enter.
	Skills []Use
	// Once are the skills that are asked for once and never again.
	Once []string
}

// Profile plays a book in its order for a student who brings an ability: the
// leap of each material with everything before it cleared.
func Profile(book []material.Material, brings leap.Ability, p leap.Policy) Gradation {
	g := Gradation{Lines: make([]Line, len(book))}
	ability := brings.Copy()
	at := map[string]int{}
	var sizes []float64
	for i, m := range book {
		l := Line{Material: m, Leap: p.Of(m, ability)}
		for _, d := range m.Demands {
			k, seen := at[d.Skill]
			if !seen {
				k = len(g.Skills)
				at[d.Skill] = k
				level := p.Level(brings.Skills[d.Skill])
				g.Skills = append(g.Skills, Use{Skill: d.Skill, Brought: level == leap.Secure || level == leap.Rusty})
				if !g.Skills[k].Brought {
					l.Enters = append(l.Enters, d.Skill)
				}
			} else {
				l.Again = append(l.Again, d.Skill)
			}
			g.Skills[k].At = append(g.Skills[k].At, i)
		}
		if !l.Leap.Unknown || i == 0 {
			sizes = append(sizes, l.Leap.Size)
		}
		ability.Clear(m)
		g.Lines[i] = l
	}
	// The first piece of a book is a beginning and tells nothing about its steps.
	g.Reach = p.Reach(sizes[min(1, len(sizes)):])
	for i := range g.Lines {
		if g.Lines[i].Leap.Unknown {
			g.Lines[i].Leap = p.Unknown(g.neighbours(i)...)
			continue // nobody knows whether it is a cliff
		}
		g.Lines[i].Cliff = leap.Beyond(g.Lines[i].Leap.Size, g.Reach.Size)
		g.Lines[i].Plateau = g.Lines[i].Leap.Size < g.Reach.Size/4
	}
	for _, u := range g.Skills {
		if len(u.At) == 1 && !u.Brought {
			g.Once = append(g.Once, u.Skill)
		}
	}
	return g
}

// nearby is how many places away a neighbour may lie (default).
const nearby = 3

// neighbours are the known leaps near a line.
func (g Gradation) neighbours(i int) []float64 {
	var out []float64
	for k := max(0, i-nearby); k <= min(len(g.Lines)-1, i+nearby); k++ {
		if l := g.Lines[k].Leap; !l.Unknown {
			out = append(out, l.Size)
		}
	}
	return out
}

// Typical is what a typical student of an instrument brings to a book: of every
// skill as many cleared pieces as the middle one of the students has cleared
// outside the book, and likewise the length and the tempi.
func Typical(students []leap.Ability) leap.Ability {
	out := leap.Ability{Skills: map[string]leap.Evidence{}, Tempo: map[material.Texture]float64{}}
	if len(students) == 0 {
		return out
	}
	cleared, shown := map[string][]float64{}, map[string]int{}
	tempo := map[material.Texture][]float64{}
	var longest []float64
	for _, a := range students {
		for id, e := range a.Skills {
			cleared[id] = append(cleared[id], float64(e.Cleared))
			if e.Shown {
				shown[id]++
			}
		}
		for t, bpm := range a.Tempo {
			tempo[t] = append(tempo[t], bpm)
		}
		longest = append(longest, float64(a.LongestBars))
	}
	n := len(students)
	for id, counts := range cleared {
		if e := (leap.Evidence{Cleared: int(middle(counts, n)), Shown: 2*shown[id] >= n}); e.Cleared > 0 || e.Shown {
			out.Skills[id] = e
		}
	}
	for t, list := range tempo {
		if bpm := middle(list, n); bpm > 0 {
			out.Tempo[t] = bpm
		}
	}
	out.LongestBars = int(middle(longest, n))
	return out
}

// middle is the lower median of n values, of which those not listed are 0.
func middle(listed []float64, n int) float64 {
	values := make([]float64, n)
	copy(values, listed)
	for i := range values { // few values: insertion keeps it plain
		for j := i; j > 0 && values[j] < values[j-1]; j-- {
			values[j], values[j-1] = values[j-1], values[j]
		}
	}
	return values[(n-1)/2]
}

// Jumps are the pieces after the first that lie beyond a comfortable leap, in their order; the first of a
// book is no jump, as every beginning is large.
func (g Gradation) Jumps() []Line {
	var out []Line
	for i, l := range g.Lines {
		if i > 0 && l.Cliff {
			out = append(out, l)
		}
	}
	return out
}

package curriculum

import (
	"cmp"
	"slices"

	"patientladder/core/library/material"
)

// Requirement is a skill that a book takes for granted when it begins.
type Requirement struct {
	Skill string
	// Pieces of the first unit ask for it; Weight adds up how strongly.
	Pieces []material.Material
	Weight float64
	// Taught says that the book before teaches it.
	Taught bool
}

const (
	// unitPieces is how many pieces make the first unit where the book names none, mostUnit how many count at the most.
	unitPieces, mostUnit = 4, 8
	// granted is in how many pieces of the first unit a skill must come so that it is taken for granted where no book before
	// teaches it: what comes once is what the book itself begins with (default).
	granted = 2
)

// FirstUnit are the pieces with which a book begins: those of its first unit.
func FirstUnit(book []material.Material) []material.Material {
	n := 0
	for n < len(book) && n < mostUnit && book[n].Unit != "" && book[n].Unit == book[0].Unit {
		n++
	}
	if n == 0 {
		n = min(len(book), unitPieces)
	}
	return book[:n]
}

// Requirements are what the first unit of a book asks for and a book before it taught, or what comes again and again in it;
// the ones that are asked for most first. Before is the book that comes before; nil for none.
func Requirements(book, before []material.Material) []Requirement {
	taught := map[string]bool{}
	for _, m := range before {
		for _, d := range m.Demands {
			taught[d.Skill] = true
		}
	}
	at := map[string]int{}
	var out []Requirement
	for _, m := range FirstUnit(book) {
		for _, d := range m.Demands {
			i, there := at[d.Skill]
			if !there {
				i = len(out)
				at[d.Skill] = i
				out = append(out, Requirement{Skill: d.Skill, Taught: taught[d.Skill]})
			}
			out[i].Pieces, out[i].Weight = append(out[i].Pieces, m), out[i].Weight+d.Weight
		}
	}
	out = slices.DeleteFunc(out, func(r Requirement) bool { return !r.Taught && len(r.Pieces) < granted })
	slices.SortStableFunc(out, func(a, b Requirement) int { return cmp.Compare(b.Weight, a.Weight) })
	return out
}

// Forerunner is the place of the book, among others, that teaches most of what the first unit of a book asks for without asking
// for more than that book does; −1 for none.
func Forerunner(book []material.Material, others [][]material.Material) int {
	first, all := map[string]bool{}, map[string]bool{}
	for _, m := range FirstUnit(book) {
		for _, d := range m.Demands {
			first[d.Skill] = true
		}
	}
	for _, m := range book {
		for _, d := range m.Demands {
			all[d.Skill] = true
		}
	}
	best, most := -1, 0
	for i, other := range others {
		shared, beyond := map[string]bool{}, map[string]bool{}
		for _, m := range other {
			for _, d := range m.Demands {
				if first[d.Skill] {
					shared[d.Skill] = true
				}
				if !all[d.Skill] {
					beyond[d.Skill] = true
				}
			}
		}
		if len(shared) > most && len(beyond) < len(shared) {
			best, most = i, len(shared)
		}
	}
	return best
}

package curriculum

import (
	"cmp"
	"fmt"
	"slices"

	"patientladder/core/library/material"
	"patientladder/core/library/skill"
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
	out := slices.DeleteFunc(asked(book, before), func(r Requirement) bool { return !r.Taught && len(r.Pieces) < granted })
	slices.SortStableFunc(out, func(a, b Requirement) int { return cmp.Compare(b.Weight, a.Weight) })
	return out
}

// asked is everything that the first unit of a book asks for, in the order in which it comes.
func asked(book, before []material.Material) []Requirement {
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
	return out
}

// Needs are what a book takes for granted.
type Needs struct {
	// Forerunner is the title of the book that comes before it; empty for none.
	Forerunner string
	// First is how many pieces make its first unit.
	First int
	List  []Requirement
	// Own says that the teacher wrote the list.
	Own bool
}

// NeedsOf are what a book takes for granted: what its teacher wrote, or what is proposed from its first unit and from the
// one of the other books that comes before it.
func NeedsOf(lib material.Library, src Source, books []Source) Needs {
	book := Book(lib, src.ID)
	var others [][]material.Material
	var titles []string
	for _, o := range books {
		if o.ID != src.ID && !o.Retired && o.Instrument == src.Instrument {
			others, titles = append(others, Book(lib, o.ID)), append(titles, o.Title)
		}
	}
	out := Needs{First: len(FirstUnit(book)), Own: src.Requires != nil}
	var before []material.Material
	if i := Forerunner(book, others); i >= 0 {
		before, out.Forerunner = others[i], titles[i]
	}
	if !out.Own {
		out.List = Requirements(book, before)
		return out
	}
	all := asked(book, before)
	for _, id := range src.Requires {
		r := Requirement{Skill: id}
		if i := slices.IndexFunc(all, func(x Requirement) bool { return x.Skill == id }); i >= 0 {
			r = all[i]
		}
		out.List = append(out.List, r)
	}
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

// Written is a teacher's list of skills, each once; an error names one that there is not.
func Written(list []string, skills skill.Catalogue) ([]string, error) {
	out := []string{}
	for _, id := range list {
		if _, known := skills.Get(id); !known {
			return nil, fmt.Errorf("“%s”", id)
		}
		if !slices.Contains(out, id) {
			out = append(out, id)
		}
	}
	return out, nil
}

// Units are the names of the units of a book, in order.
func Units(book []material.Material) (out []string) {
	for _, m := range book {
		if m.Unit != "" && !slices.Contains(out, m.Unit) {
			out = append(out, m.Unit)
		}
	}
	return out
}

// Review is what is gone through once more before a unit begins: what its pieces ask for and the units before it taught, by
// family of skills, within a family what is asked for most first. The first unit has nothing to review.
func Review(book []material.Material, unit string, skills skill.Catalogue) []Requirement {
	at := slices.IndexFunc(book, func(m material.Material) bool { return m.Unit == unit })
	if at < 0 {
		return nil
	}
	out := slices.DeleteFunc(asked(book[at:], book[:at]), func(r Requirement) bool { return !r.Taught })
	family := func(id string) skill.Family {
		x, _ := skills.Get(id)
		return x.Family
	}
	slices.SortStableFunc(out, func(a, b Requirement) int {
		return cmp.Or(cmp.Compare(family(a.Skill), family(b.Skill)), cmp.Compare(b.Weight, a.Weight))
	})
	return out
}

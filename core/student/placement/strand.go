package placement

import "slices"

// strand is the skills of one strand with the tree in which sums over them are taken.
type strand struct {
	name string
	// skills are indices into all skills; needs, for each, those of the strand that it needs, as places in skills.
	skills []int
	levels []float64
	ids    []string
	raw    [][]string
	needs  [][]int
	// cliques in the order in which their first skill is summed out.
	cliques []clique
	// home is the clique of each skill, which holds it first.
	home []int
}

// clique is a set of skills; the first is summed out in it.
type clique struct {
	vars []int
	// up is the clique to which it sends what is left; −1 for a last one. bits say where its other skills stand there.
	up   int
	bits []int
	// tables are the skills whose own table (a skill given its needs) is multiplied in here.
	tables []int
}

// widest is how many skills a clique may hold. A need that would make a wider one is left out of the sums: it still tells by its level.
const widest = 14

func (s *strand) add(index int, x Skill) {
	s.skills = append(s.skills, index)
	s.ids = append(s.ids, x.ID)
	s.raw = append(s.raw, x.Needs)
	s.levels = append(s.levels, x.Level)
}

// build finds the needs within the strand and an order of elimination.
func (s *strand) build(_ map[string]int) {
	place := map[string]int{}
	for i, id := range s.ids {
		place[id] = i
	}
	n := len(s.skills)
	s.needs = make([][]int, n)
	for i, list := range s.raw {
		for _, id := range list {
			if k, there := place[id]; there && k != i && len(s.needs[i]) < widest-1 {
				s.needs[i] = append(s.needs[i], k)
			}
		}
	}
	for !s.tree() { // the widest clique loses a need
		worst := 0
		for i := range s.needs {
			if len(s.needs[i]) > len(s.needs[worst]) {
				worst = i
			}
		}
		s.needs[worst] = s.needs[worst][:len(s.needs[worst])-1]
	}
}

// tree eliminates the skill with the fewest neighbours first; false where a clique would be too wide.
func (s *strand) tree() bool {
	n := len(s.skills)
	near := make([]map[int]bool, n)
	for i := range near {
		near[i] = map[int]bool{}
	}
	join := func(list []int) {
		for _, a := range list {
			for _, b := range list {
				if a != b {
					near[a][b] = true
				}
			}
		}
	}
	for i, list := range s.needs {
		join(append([]int{i}, list...))
	}
	s.cliques, s.home = nil, make([]int, n)
	at := make([]int, n) // when a skill is summed out
	gone := make([]bool, n)
	for range n {
		v := -1
		for i := range n {
			if !gone[i] && (v < 0 || len(near[i]) < len(near[v])) {
				v = i
			}
		}
		var rest []int
		for k := range near[v] {
			rest = append(rest, k)
		}
		slices.Sort(rest)
		if len(rest)+1 > widest {
			return false
		}
		at[v], gone[v] = len(s.cliques), true
		s.home[v] = len(s.cliques)
		s.cliques = append(s.cliques, clique{vars: append([]int{v}, rest...), up: -1})
		join(rest)
		for _, k := range rest {
			delete(near[k], v)
		}
	}
	for c := range s.cliques {
		x := &s.cliques[c]
		for _, k := range x.vars[1:] {
			if x.up < 0 || at[k] < x.up {
				x.up = at[k]
			}
		}
		for _, k := range x.vars[1:] {
			x.bits = append(x.bits, slices.Index(s.cliques[x.up].vars, k))
		}
	}
	for i, list := range s.needs {
		first := at[i]
		for _, k := range list {
			first = min(first, at[k])
		}
		s.cliques[first].tables = append(s.cliques[first].tables, i)
	}
	return true
}

// sums are the weights of a strand for each level of the grid.
func (s *strand) sums(p Policy, likelihood func(skill int) (there, missing float64)) sums {
	n := len(s.skills)
	out := sums{share: make([][grid]float64, n)}
	there, missing := make([]float64, n), make([]float64, n)
	for i, skill := range s.skills {
		there[i], missing[i] = likelihood(skill)
	}
	pot := make([][]float64, len(s.cliques))
	sent := make([][]float64, len(s.cliques))
	for t := range grid {
		for c, x := range s.cliques {
			pot[c] = s.own(p, x, t, there, missing)
		}
		// Upwards: each clique sums out its first skill and sends the rest on.
		whole := 1.0
		for c, x := range s.cliques {
			sent[c] = make([]float64, len(pot[c])/2)
			for r := range sent[c] {
				sent[c][r] = pot[c][2*r] + pot[c][2*r+1]
			}
			if x.up < 0 {
				whole *= sent[c][0]
				continue
			}
			for m := range pot[x.up] {
				pot[x.up][m] *= sent[c][x.gather(m)]
			}
		}
		out.whole[t] = whole
		// Downwards: each clique takes what all others say.
		for c := len(s.cliques) - 1; c >= 0; c-- {
			x := s.cliques[c]
			if x.up >= 0 {
				from := make([]float64, len(sent[c]))
				for m, w := range pot[x.up] {
					from[x.gather(m)] += w
				}
				for m := range pot[c] {
					if w := sent[c][m>>1]; w > 0 {
						pot[c][m] *= from[m>>1] / w
					}
				}
			}
			yes, all := 0.0, 0.0
			for m, w := range pot[c] {
				all += w
				if m&1 == 1 {
					yes += w
				}
			}
			if all > 0 {
				out.share[x.vars[0]][t] = yes / all
			}
		}
	}
	return out
}

// gather is the row of what a clique sends that belongs to a row of the clique that takes it.
func (x clique) gather(m int) int {
	r := 0
	for i, bit := range x.bits {
		r |= (m >> bit & 1) << i
	}
	return r
}

// own are the tables of the skills of a clique multiplied: how likely each is there, given those it needs, with what was answered.
func (s *strand) own(p Policy, x clique, t int, there, missing []float64) []float64 {
	out := make([]float64, 1<<len(x.vars))
	for m := range out {
		w := 1.0
		for _, skill := range x.tables {
			has := func(v int) bool { return m>>slices.Index(x.vars, v)&1 == 1 }
			q := p.at(s.levels[skill], t)
			for _, need := range s.needs[skill] {
				if !has(need) {
					q = unlikely
				}
			}
			if has(skill) {
				w *= q * there[skill]
			} else {
				w *= (1 - q) * missing[skill]
			}
		}
		out[m] = w
	}
	return out
}

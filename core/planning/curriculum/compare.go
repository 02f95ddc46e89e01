package curriculum

import "sort"

// Both is where a skill enters two books; −1 where it never does.
type Both struct {
	Skill string
	A, B  int
	// Times that each book asks for it.
	TimesA, TimesB int
}

// Comparison is two books as paths through the same skills.
type Comparison struct {
	A, B Gradation
	// Shared skills in the order of A, then those of A alone, then of B alone.
	Shared, OnlyA, OnlyB []Both
	// Crossed counts the pairs of shared skills that come in another order in B.
	Crossed int
	// Agreement is Kendall's tau over the shared skills that do not enter together:
	// 1 the same order, −1 the reverse; 0 without such pairs.
	Agreement float64
}

// Compare lays two gradations side by side.
func Compare(a, b Gradation) Comparison {
	c := Comparison{A: a, B: b}
	in := map[string]Use{}
	for _, u := range b.Skills {
		in[u.Skill] = u
	}
	shared := map[string]bool{}
	for _, u := range a.Skills {
		if v, both := in[u.Skill]; both {
			shared[u.Skill] = true
			c.Shared = append(c.Shared, Both{u.Skill, u.At[0], v.At[0], len(u.At), len(v.At)})
		} else {
			c.OnlyA = append(c.OnlyA, Both{u.Skill, u.At[0], -1, len(u.At), 0})
		}
	}
	for _, v := range b.Skills {
		if !shared[v.Skill] {
			c.OnlyB = append(c.OnlyB, Both{v.Skill, -1, v.At[0], 0, len(v.At)})
		}
	}
	sort.SliceStable(c.Shared, func(i, k int) bool { return c.Shared[i].A < c.Shared[k].A })
	same, crossed := 0, 0
	for i, x := range c.Shared {
		for _, y := range c.Shared[i+1:] {
			switch d := (x.A - y.A) * (x.B - y.B); {
			case d > 0:
				same++
			case d < 0:
				crossed++
			}
		}
	}
	c.Crossed = crossed
	if same+crossed > 0 {
		c.Agreement = float64(same-crossed) / float64(same+crossed)
	}
	return c
}

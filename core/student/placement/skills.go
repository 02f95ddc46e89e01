package placement

import (
	"cmp"
	"slices"

	"patientladder/core/library/skill"
)

// Of are the skills of a family of instruments that can be asked for. First says where a skill comes first among the books of
// the studio, 0 for their beginning and 1 for their end; a skill that no book asks for lies as deep as its needs put it.
func Of(c skill.Catalogue, family string, first map[string]float64) []Skill {
	depth := map[string]int{}
	var deep func(id string, guard int) int
	deep = func(id string, guard int) int {
		if d, known := depth[id]; known || guard > 64 {
			return d
		}
		s, there := c.Get(id)
		if !there {
			return 0
		}
		d := 0
		for _, need := range s.Needs {
			d = max(d, 1+deep(need, guard+1))
		}
		depth[id] = d
		return d
	}
	var out []Skill
	deepest := 1
	for _, s := range c.All() {
		if len(s.Instruments) > 0 && !slices.Contains(s.Instruments, family) {
			continue
		}
		deepest = max(deepest, deep(s.ID, 0))
		out = append(out, Skill{ID: s.ID, Strand: string(s.Family), Needs: s.Needs})
	}
	level := map[string]float64{}
	for i := range out {
		out[i].Level = 0.08 + 0.84*float64(depth[out[i].ID])/float64(deepest)
		if at, asked := first[out[i].ID]; asked {
			out[i].Level = 0.08 + 0.84*at
		} else if len(first) > 0 {
			out[i].Wanted = unwanted
		}
		level[out[i].ID] = out[i].Level
	}
	// What needs something lies above it, whatever books say.
	for range deepest {
		for i, s := range out {
			for _, need := range s.Needs {
				if at, there := level[need]; there && out[i].Level < at+0.02 {
					out[i].Level = min(1, at+0.02)
					level[s.ID] = out[i].Level
				}
			}
		}
	}
	return ranked(out)
}

// ranked spreads levels evenly by rank among the wanted skills, so that of a student of whom nothing is known it is as likely
// as not that half of what the studio teaches is there. Equal levels stay equal.
func ranked(skills []Skill) []Skill {
	var wanted []float64
	for _, s := range skills {
		if s.Wanted == 0 {
			wanted = append(wanted, s.Level)
		}
	}
	slices.Sort(wanted)
	for i := range skills {
		below, _ := slices.BinarySearch(wanted, skills[i].Level)
		upTo, _ := slices.BinarySearch(wanted, skills[i].Level+1e-12)
		skills[i].Level = (float64(below) + float64(upTo)) / 2 / float64(max(1, len(wanted)))
	}
	return skills
}

// unwanted is how much a skill matters that no book of the studio asks for (default).
const unwanted = 0.35

// byLevel are the skills from the first to the last.
func byLevel(skills []Skill) []Skill {
	out := slices.Clone(skills)
	slices.SortStableFunc(out, func(a, b Skill) int { return cmp.Compare(a.Level, b.Level) })
	return out
}

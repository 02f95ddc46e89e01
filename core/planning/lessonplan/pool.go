package lessonplan

import (
	_ "embed"
	"encoding/json"
	"fmt"
	"slices"
	"sync"

	"patientladder/core/library/instrument"
)

// Goal is something that can be practised in several ways, which take turns.
type Goal struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	// From and To are the ages that it is for.
	From int `json:"from"`
	To   int `json:"to"`
	// Families of instruments; empty for all.
	Families []instrument.Family `json:"families,omitempty"`
	Options  []string            `json:"options"`
}

//go:embed pool.json
var poolText []byte

// Pool returns the goals that ship (common practice for the very young and for the ear).
var Pool = sync.OnceValue(func() []Goal {
	var goals []Goal
	if err := json.Unmarshal(poolText, &goals); err != nil {
		panic("lessonplan: pool.json is damaged: " + err.Error())
	}
	return goals
})

// GoalOf returns a goal of the pool.
func GoalOf(id string) (Goal, bool) {
	for _, g := range Pool() {
		if g.ID == id {
			return g, true
		}
	}
	return Goal{}, false
}

// Known says whether a goal of the pool has an option of that number.
func Known(goal string, option int) bool {
	return slices.ContainsFunc(Pool(), func(g Goal) bool { return g.ID == goal && option >= 1 && option <= len(g.Options) })
}

// Used counts how often each option of each goal was done: by goal, then option from 1.
type Used map[string]map[int]int

// times is how often a goal was done at all.
func (u Used) times(goal string) (n int) {
	for _, k := range u[goal] {
		n += k
	}
	return n
}

// turns are the options of a goal, from 1, the one done least first: none comes
// again before all were used.
func (g Goal) turns(u Used) []int {
	out := make([]int, len(g.Options))
	for k := range out {
		out[k] = k + 1
	}
	slices.SortStableFunc(out, func(a, b int) int { return u[g.ID][a] - u[g.ID][b] })
	return out
}

// veryYoung is the age below which a lesson goes through many short activities (default).
const veryYoung = 5

// Activities are segments for the goals that suit an instrument and an age, the
// goal that was done least first. The very young get every option, a minute or
// two each, goal by goal in turn; older students the next option of each goal.
func Activities(player string, age int, u Used) []Segment {
	family, _ := instrument.FamilyOf(player)
	var goals []Goal
	for _, g := range Pool() {
		if age >= g.From && age <= g.To && (len(g.Families) == 0 || slices.Contains(g.Families, family)) {
			goals = append(goals, g)
		}
	}
	slices.SortStableFunc(goals, func(a, b Goal) int { return u.times(a.ID) - u.times(b.ID) })
	rounds, most := 1, 3
	if age < veryYoung {
		rounds, most = 3, 2
	}
	var out []Segment
	for round := range rounds {
		for _, g := range goals {
			if round >= len(g.Options) {
				continue
			}
			k := g.turns(u)[round]
			why := Reason{Kind: OneOfSeveral, Of: len(g.Options)}
			if n := u[g.ID][k]; n > 0 {
				why = Reason{Kind: InTurn, Count: n}
			}
			out = append(out, Segment{
				ID: ActivityID(g.ID, k), Kind: Activity, Layer: Planted, Goal: g.ID, Option: k, Least: 1, Usual: min(2, most), Most: most, Why: []Reason{why},
				Value: 0.5 / (1 + 0.1*float64(len(out)) + 0.5*float64(u[g.ID][k])),
			})
		}
	}
	return out
}

// ActivityID names the segment of an option of a goal.
func ActivityID(goal string, option int) string { return fmt.Sprintf("activity %s %d", goal, option) }

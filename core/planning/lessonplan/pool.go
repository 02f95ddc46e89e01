package lessonplan

import (
	"cmp"
	_ "embed"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"strings"
	"sync"
	"unicode/utf8"

	"patientladder/core/base/sorting"
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
	// Home says to the parent how it is done at home; {name} stands for the student.
	Home string `json:"home"`
	// Behind are skills of which any shows that nobody needs this any more.
	Behind []string `json:"behind,omitempty"`
	// Cue is the word at which something is done, in large letters; Keys are those of a keyboard that are looked for, Sound
	// what is to be heard, note by note, both as MIDI pitches; Beats are so many slow ones. They ship with it.
	Cue   string `json:"cue,omitempty"`
	Keys  []int  `json:"keys,omitempty"`
	Sound []int  `json:"sound,omitempty"`
	Beats int    `json:"beats,omitempty"`
	// Off says that the studio does not use it.
	Off bool `json:"off,omitempty"`
}

// AtHome says to the parent of a student, who is called so, how it is done at home.
func (g Goal) AtHome(name string) string { return strings.ReplaceAll(g.Home, "{name}", name) }

//go:embed pool.json
var poolText []byte

// Pool are the goals of a studio.
type Pool []Goal

// Shipped returns the goals that ship (common practice for the very young and for the ear).
var Shipped = sync.OnceValue(func() Pool {
	var goals Pool
	if err := json.Unmarshal(poolText, &goals); err != nil {
		panic("lessonplan: pool.json is damaged: " + err.Error())
	}
	return goals
})

// Over returns the pool with the studio's own goals in it: one whose id is there takes its place, another is added at the
// end. Families of a goal that ships stay, and what of it is seen and heard.
func (p Pool) Over(own []Goal) Pool {
	out := slices.Clone(p)
	for _, g := range own {
		if i := slices.IndexFunc(out, func(x Goal) bool { return x.ID == g.ID }); i >= 0 {
			x := out[i]
			g.Families, g.Behind, g.Cue, g.Keys, g.Sound, g.Beats = x.Families, x.Behind, x.Cue, x.Keys, x.Sound, x.Beats
			out[i] = g
		} else {
			out = append(out, g)
		}
	}
	return out
}

// Beyond returns the goals that somebody with some skills still needs.
func (p Pool) Beyond(has func(skill string) bool) Pool {
	return slices.DeleteFunc(slices.Clone(p), func(g Goal) bool { return slices.ContainsFunc(g.Behind, has) })
}

// Get returns a goal of the pool.
func (p Pool) Get(id string) (Goal, bool) {
	for _, g := range p {
		if g.ID == id {
			return g, true
		}
	}
	return Goal{}, false
}

// Has says whether a goal of the pool has an option of that number.
func (p Pool) Has(goal string, option int) bool {
	g, known := p.Get(goal)
	return known && option >= 1 && option <= len(g.Options)
}

const (
	// mostOptions is how many ways a goal may have, longestOption how many letters one.
	mostOptions, longestOption = 9, 300
	oldest                     = 120
)

// Check says in a sentence what is wrong with a goal, or returns nil.
func (g Goal) Check() error {
	switch {
	case strings.TrimSpace(g.Name) == "" || utf8.RuneCountInString(g.Name) > 80:
		return errors.New("a goal needs a name of at most 80 letters")
	case g.From < 0 || g.To > oldest || g.From > g.To:
		return fmt.Errorf("the ages must lie between 0 and %d, the first not above the last", oldest)
	case len(g.Options) == 0 || len(g.Options) > mostOptions:
		return fmt.Errorf("a goal needs 1 to %d ways", mostOptions)
	case utf8.RuneCountInString(g.Home) > longestOption:
		return fmt.Errorf("the words for home are longer than %d letters", longestOption)
	}
	for _, o := range g.Options {
		if strings.TrimSpace(o) == "" || utf8.RuneCountInString(o) > longestOption {
			return fmt.Errorf("a way needs words of at most %d letters", longestOption)
		}
	}
	return nil
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

// least is how often the way of a goal was done that was done least.
func (u Used) least(g Goal) int {
	out := u[g.ID][1]
	for k := range g.Options {
		out = min(out, u[g.ID][k+1])
	}
	return out
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

// VeryYoung says that lessons and practice at an age are made of many short things.
func VeryYoung(age int) bool { return age < veryYoung }

// OwnTune is the goal that comes last in a lesson: a tune of one's own (common practice).
const OwnTune = "made-up-tune"

const (
	// goalsYoung is how many goals a lesson of the very young goes through, each in up to three ways, and goalsOlder how
	// many the lessons of the others have beside the pieces (defaults).
	goalsYoung, goalsOlder = 5, 2
	waysYoung              = 3
)

// For are the goals that suit an instrument and an age: first those of which some ways were done and others not, then
// those not done at all, then those done least.
func (p Pool) For(player string, age int, u Used) []Goal {
	family, _ := instrument.FamilyOf(player)
	var goals []Goal
	for _, g := range p {
		if !g.Off && age >= g.From && age <= g.To && (len(g.Families) == 0 || slices.Contains(g.Families, family)) {
			goals = append(goals, g)
		}
	}
	slices.SortStableFunc(goals, func(a, b Goal) int {
		return cmp.Or(u.least(a)-u.least(b), sorting.FalseFirst(u.times(a.ID) == 0, u.times(b.ID) == 0), u.times(a.ID)-u.times(b.ID))
	})
	return goals
}

// Activities are segments for the goals that suit an instrument and an age. The very young go through five goals,
// each in three ways of a minute or two, goal by goal; what was not used before comes first, and a tune of
// one's own comes last. Older students get the next way of two goals.
func (p Pool) Activities(player string, age int, u Used) []Segment {
	goals := p.For(player, age, u)
	young := age < veryYoung
	most, ways, longest := goalsOlder, 1, 3
	if young {
		most, ways, longest = goalsYoung, waysYoung, 2
		if i := slices.IndexFunc(goals, func(g Goal) bool { return g.ID == OwnTune }); i >= 0 { // beside the five
			tune := goals[i]
			goals = append(slices.Delete(goals, i, i+1)[:min(most, len(goals)-1)], tune)
			most++
		}
	}
	var out []Segment
	for i, g := range goals[:min(most, len(goals))] {
		for round, k := range g.turns(u) {
			if round == ways || g.ID == OwnTune && round == 1 {
				break
			}
			why := Reason{Kind: OneOfSeveral, Of: len(g.Options)}
			if n := u[g.ID][k]; n > 0 {
				why = Reason{Kind: InTurn, Count: n}
			}
			out = append(out, Segment{
				ID: ActivityID(g.ID, k), Kind: Activity, Layer: Planted, Goal: g.ID, Option: k, Options: len(g.Options), Lead: young && round == 2,
				Least: 1, Usual: min(2, longest), Most: longest, Why: []Reason{why},
				// Each goal once before any twice; what was done before gives way.
				Value: 0.5 / (1 + 0.1*float64(i) + 0.6*float64(round) + 0.5*float64(u[g.ID][k])),
			})
		}
	}
	return out
}

// ActivityID names the segment of an option of a goal.
func ActivityID(goal string, option int) string { return fmt.Sprintf("activity %s %d", goal, option) }

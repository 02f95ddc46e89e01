package preview

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// forest draws needs in which no skill comes before two others.
func forest(t *rapid.T, most int) []Need {
	n := rapid.IntRange(1, most).Draw(t, "needs")
	needs := make([]Need, n)
	for i := range needs {
		of := rapid.IntRange(1, 3).Draw(t, "of")
		needs[i] = Need{Skill: fmt.Sprint("s", i), Of: of, Done: rapid.IntRange(0, of-1).Draw(t, "done"), By: rapid.IntRange(0, 8).Draw(t, "by")}
		if to := rapid.IntRange(-2, n-1).Draw(t, "before"); to > i {
			needs[i].For = fmt.Sprint("s", to) // remembered here until the one after it is drawn
		}
	}
	for i := range needs {
		for j := range needs {
			if needs[i].For == needs[j].Skill {
				needs[j].After = append(needs[j].After, needs[i].Skill)
			}
		}
	}
	return needs
}

// search tries every choice of every lesson and returns the least largest lateness.
func search(needs []Need, perLesson int) int {
	done := make([]int, len(needs))
	last := make([]int, len(needs))
	best := math.MaxInt
	var lesson func(at, worst int)
	lesson = func(at, worst int) {
		left := 0
		for i, n := range needs {
			if n.Done+done[i] < n.Of {
				left++
				worst = max(worst, at-(n.By-1)) // its last step comes in this lesson at the earliest
			}
		}
		if worst >= best {
			return
		}
		if left == 0 {
			best = worst
			return
		}
		var open []int
		for i, n := range needs {
			ok := n.Done+done[i] < n.Of && (at > 0 || !n.Rests)
			for _, a := range n.After {
				for j, m := range needs {
					ok = ok && (m.Skill != a || m.Done+done[j] == m.Of && last[j] < at)
				}
			}
			if ok {
				open = append(open, i)
			}
		}
		for set := 0; set < 1<<len(open); set++ {
			var chosen []int
			for b, i := range open {
				if set>>b&1 == 1 {
					chosen = append(chosen, i)
				}
			}
			if len(chosen) > perLesson || len(open) > 0 && len(chosen) == 0 {
				continue // waiting on purpose never helps with unit steps
			}
			before := append([]int(nil), last...)
			for _, i := range chosen {
				done[i]++
				last[i] = at
			}
			lesson(at+1, worst)
			for _, i := range chosen {
				done[i]--
			}
			copy(last, before)
		}
	}
	lesson(0, math.MinInt)
	return best
}

func worst(p Plan) int {
	out := math.MinInt
	for _, o := range p.Outcomes {
		out = max(out, -o.Slack)
	}
	return out
}

// The largest lateness is as small as an exhaustive search can make it, with
// chains of steps, skills that come before others, and one or two bites a lesson.
func TestTheScheduleIsAsGoodAsTryingEverything(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		needs := forest(t, 4)
		per := rapid.IntRange(1, 2).Draw(t, "bites")
		require.Equal(t, search(needs, per), worst(Schedule(needs, per)))
	})
}

// A step within the week makes a chain wait for one lesson.
func TestRestingSkillsStillComeOutBest(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		needs := forest(t, 4)
		for i := range needs {
			needs[i].After, needs[i].Rests = nil, rapid.Bool().Draw(t, "rests")
		}
		require.Equal(t, search(needs, 1), worst(Schedule(needs, 1)))
	})
}

// The rules of a schedule hold for any needs, circles of skills included.
func TestAScheduleKeepsItsRules(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		needs := forest(t, 8)
		for i := range needs { // skills may come before several others here
			if j := rapid.IntRange(0, len(needs)-1).Draw(t, "after"); j < i {
				needs[i].After = append(needs[i].After, needs[j].Skill)
			}
			needs[i].Rests = rapid.Bool().Draw(t, "rests")
		}
		per := rapid.IntRange(1, 3).Draw(t, "bites")
		plan := Schedule(needs, per)
		perLesson, next, seen, steps := map[int]int{}, map[string]int{}, map[string]bool{}, 0
		for _, n := range needs {
			next[n.Skill] = n.Done + 1
			steps += n.Of - n.Done
		}
		require.Len(t, plan.Steps, steps)
		ready := map[string]int{}
		for _, o := range plan.Outcomes {
			ready[o.Skill] = o.Ready
		}
		for _, s := range plan.Steps {
			perLesson[s.Lesson]++
			require.LessOrEqual(t, perLesson[s.Lesson], per)
			require.Equal(t, next[s.Skill], s.Step, "in order")
			next[s.Skill]++
			key := fmt.Sprint(s.Lesson, s.Skill)
			require.False(t, seen[key], "two of one skill in a lesson")
			seen[key] = true
			for _, n := range needs {
				if n.Skill == s.Skill {
					require.False(t, n.Rests && s.Lesson == 0)
					for _, a := range n.After {
						require.Less(t, ready[a], s.Lesson)
					}
				}
			}
		}
	})
}

// A later deadline never makes a preview earlier than an earlier one would.
func TestALaterDeadlineNeverHastens(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		needs := forest(t, 7)
		for i := range needs {
			needs[i].After, needs[i].Rests = nil, rapid.Bool().Draw(t, "rests")
		}
		per := rapid.IntRange(1, 3).Draw(t, "bites")
		which := rapid.IntRange(0, len(needs)-1).Draw(t, "which")
		lessons := func() (out []int) {
			for _, s := range Schedule(needs, per).Steps {
				if s.Skill == needs[which].Skill {
					out = append(out, s.Lesson)
				}
			}
			return out
		}
		before := lessons()
		needs[which].By += rapid.IntRange(1, 5).Draw(t, "later")
		for k, at := range lessons() {
			require.GreaterOrEqual(t, at, before[k])
		}
	})
}

func TestMends(t *testing.T) {
	needs := []Need{{Skill: "a", Of: 3, By: 3, For: "x"}, {Skill: "b", Of: 2, By: 2, For: "x"}}
	require.Empty(t, Mends(needs, 2, 0, nil), "in time")
	mends := Mends(needs, 1, 0, []Rung{{Material: piece("y", "a")}, {Material: piece("z", "b")}, {Material: piece("w", "c")}})
	require.Equal(t, []Mend{{Kind: "move", Lessons: 2}, {Kind: "bites"}, {Kind: "substitute", Material: "w"}}, mends)
	needs[0].By, needs[1].By = 1, 9
	require.Equal(t, []Mend{{Kind: "move", Lessons: 2}}, Mends(needs, 2, 0, nil), "one skill has one step a lesson, whatever else")
}

func TestAScheduleToTheValue(t *testing.T) {
	a := Need{Skill: "a", Of: 3, By: 4}
	b := Need{Skill: "b", Of: 2, By: 3}
	c := Need{Skill: "c", Of: 2, Done: 1, By: 5, After: []string{"a", "elsewhere"}}
	plan := Schedule([]Need{a, b, c}, 2)
	require.Equal(t, []Step{
		{Skill: "a", Step: 1, Lesson: 0, Due: 1}, {Skill: "b", Step: 1, Lesson: 0, Due: 1}, // as due: in the order of the needs
		{Skill: "a", Step: 2, Lesson: 1, Due: 2}, {Skill: "b", Step: 2, Lesson: 1, Due: 2},
		{Skill: "a", Step: 3, Lesson: 2, Due: 3},
		{Skill: "c", Step: 2, Lesson: 3, Due: 4},
	}, plan.Steps)
	require.Equal(t, []Outcome{{Need: a, Ready: 2, Slack: 1}, {Need: b, Ready: 1, Slack: 1}, {Need: c, Ready: 3, Slack: 1}}, plan.Outcomes)

	// What comes before must be ready before the first step of what follows, so it is due sooner.
	c.By = 3
	plan = Schedule([]Need{b, a, c}, 1)
	require.Equal(t, []Step{
		{Skill: "a", Step: 1, Lesson: 0, Due: -1}, {Skill: "a", Step: 2, Lesson: 1, Due: 0},
		{Skill: "b", Step: 1, Lesson: 2, Due: 1}, {Skill: "a", Step: 3, Lesson: 3, Due: 1},
		{Skill: "b", Step: 2, Lesson: 4, Due: 2}, {Skill: "c", Step: 2, Lesson: 5, Due: 2},
	}, plan.Steps)
	require.Equal(t, []int{2, 0, 3}, []int{plan.Outcomes[0].Late(), plan.Outcomes[1].Late(), plan.Outcomes[2].Late()})

	// A step within the week lets the next one wait for a lesson; none at once is still one.
	plan = Schedule([]Need{{Skill: "a", Of: 1, By: 4, Rests: true}}, 0)
	require.Equal(t, []Step{{Skill: "a", Step: 1, Lesson: 1, Due: 3}}, plan.Steps)
	// Skills that wait for each other never come, and it ends.
	require.Empty(
		t,
		Schedule([]Need{{Skill: "a", Of: 1, By: 4, After: []string{"b"}}, {Skill: "b", Of: 1, By: 4, After: []string{"a"}}}, 2).Steps,
	)
}

package preview

import "sort"

// Need is a skill that something ahead asks for and that is to be planted first.
type Need struct {
	Skill string
	// Done of Of preview steps are done; Of is above Done.
	Done, Of int
	// For is the material that needs it first.
	For string
	// By is the lesson, from 0 for the next one, in which For is expected to
	// begin: the last step is due in the lesson before.
	By int
	// After names skills of the same schedule that are planted before this one.
	After []string
	// Rests says that a step was done within the week, so that the next one waits
	// for the lesson after the next.
	Rests bool
}

// Step is one bite with its lesson.
type Step struct {
	Skill string
	// Step counts from 1.
	Step   int
	Lesson int
	// Due is the last lesson in which this step leaves room for those after it.
	Due int
}

// Outcome is how one need comes out.
type Outcome struct {
	Need
	// Ready is the lesson of the last step.
	Ready int
	// Slack is how many lessons lie between the last step and the last lesson for it; below 0 it is late by as many.
	Slack int
}

// Late is by how many lessons the skill is not ready in time; 0 when it is.
func (o Outcome) Late() int { return max(0, -o.Slack) }

// Plan is the schedule of all bites.
type Plan struct {
	// Steps in the order of their lessons, the most urgent first within one.
	Steps []Step
	// Outcomes in the order of the needs.
	Outcomes []Outcome
}

// Schedule lays the bites out: at most perLesson (at least 1) in a lesson,
// never two of one skill in one lesson, in order, the earliest due first.
//
// With unit steps on so many equal places, where no skill must come before two
// others, the earliest modified due date first leaves the largest lateness as
// small as it can be (Brucker, Garey and Johnson 1977, for in-trees, from
// memory; the tests compare with an exhaustive search). Every due date is
// first moved ahead of what follows it.
func Schedule(needs []Need, perLesson int) Plan {
	s := newSchedule(needs)
	perLesson = max(1, perLesson)
	var plan Plan
	idle := 0
	for lesson := 0; s.left > 0 && idle < 3; lesson++ {
		idle++ // skills that wait for each other in a circle never come
		for _, i := range s.open(lesson, perLesson) {
			idle = 0
			n := needs[i]
			s.done[i]++
			s.last[i] = lesson
			s.left--
			plan.Steps = append(plan.Steps, Step{Skill: n.Skill, Step: n.Done + s.done[i], Lesson: lesson, Due: s.due(i, s.done[i])})
		}
	}
	for i, n := range needs {
		ready := s.last[i]
		plan.Outcomes = append(plan.Outcomes, Outcome{Need: n, Ready: ready, Slack: n.By - 1 - ready})
	}
	return plan
}

// schedule is a schedule in the making.
type schedule struct {
	needs []Need
	// end is the last lesson for the last step of each need, by its own piece and by what follows it.
	end    []int
	before [][]int
	done   []int
	last   []int
	left   int
}

func newSchedule(needs []Need) *schedule {
	s := &schedule{
		needs:  needs,
		end:    make([]int, len(needs)),
		before: make([][]int, len(needs)),
		done:   make([]int, len(needs)),
		last:   make([]int, len(needs)),
	}
	at := map[string]int{}
	for i, n := range needs {
		at[n.Skill] = i
		s.end[i] = n.By - 1
		s.left += n.Of - n.Done
	}
	for i, n := range needs {
		for _, skill := range n.After {
			if j, here := at[skill]; here && j != i {
				s.before[i] = append(s.before[i], j)
			}
		}
	}
	// A skill must be ready before the first step of what is planted after it.
	// Chains of skills are as long as the list at the most.
	for range needs {
		moved := false
		for i, n := range needs {
			first := s.end[i] - (n.Of - n.Done)
			for _, j := range s.before[i] {
				if s.end[j] > first {
					s.end[j], moved = first, true
				}
			}
		}
		if !moved {
			break
		}
	}
	return s
}

// due is the last lesson for the kth of the steps left, from 1.
func (s *schedule) due(i, k int) int { return s.end[i] - (s.needs[i].Of - s.needs[i].Done - k) }

// open chooses the needs that get a step in a lesson.
func (s *schedule) open(lesson, most int) []int {
	var out []int
	for i, n := range s.needs {
		if s.done[i] < n.Of-n.Done && (lesson > 0 || !n.Rests) && s.planted(i, lesson) {
			out = append(out, i)
		}
	}
	sort.SliceStable(out, func(a, b int) bool {
		return s.due(out[a], s.done[out[a]]+1) < s.due(out[b], s.done[out[b]]+1)
	})
	return out[:min(len(out), most)]
}

// planted says that what comes before a need was ready in an earlier lesson.
func (s *schedule) planted(i, lesson int) bool {
	for _, j := range s.before[i] {
		if s.done[j] < s.needs[j].Of-s.needs[j].Done || s.last[j] >= lesson {
			return false
		}
	}
	return true
}

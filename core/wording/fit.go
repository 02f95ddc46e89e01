package wording

import (
	"fmt"
	"strings"

	"patientladder/core/planning/fit"
	"patientladder/core/student/studentlog"
	"patientladder/core/student/taste"
)

// Fit says one reason for the rank of what could come next, without a full stop.
func Fit(r fit.Reason) string {
	switch r.Kind {
	case fit.Known:
		return fmt.Sprintf("%s of what it needs is there", Percent(r.Share))
	case fit.EasyWanted:
		return fmt.Sprintf("a jump of %.1f, the easy one that is wanted after a stretch", r.Leap)
	case fit.NotEasy:
		return fmt.Sprintf("a jump of %.1f, where an easy one under %.1f is wanted", r.Leap, r.Reach/2)
	case fit.Beyond:
		return "a big jump: " + over(r.Leap, r.Reach)
	case fit.Plateau:
		return fmt.Sprintf("a small jump: %.1f", r.Leap)
	case fit.NotKnown:
		return "nobody has said what it needs"
	case fit.Within:
		return fmt.Sprintf("a jump of %.1f, within the comfortable %.1f", r.Leap, r.Reach)
	case fit.Liked:
		word := "likes"
		if r.Liking.Score < 0 {
			word = "does not take to"
		}
		return fmt.Sprintf("%s what is %s (%s)", word, r.Liking.Tag, Liking(r.Liking))
	case fit.IdleStrand:
		return "nothing is in work on its strand"
	}
	return ""
}

// signsOfLiking are the signs in words, in the order in which they are said.
var signsOfLiking = []struct {
	sign  studentlog.Reaction
	words string
}{
	{studentlog.PlayedFirst, "played first"}, {studentlog.AskedFor, "asked for"}, {studentlog.Unasked, "practised unasked"},
	{studentlog.Liked, "liked"}, {studentlog.Disliked, "not liked"},
}

// Liking says what a liking rests on.
func Liking(l taste.Liking) string {
	var parts []string
	for _, s := range signsOfLiking {
		if n := l.By[s.sign]; n == 1 {
			parts = append(parts, s.words+" once")
		} else if n > 1 {
			parts = append(parts, s.words+" "+Figures(n, "time"))
		}
	}
	if len(parts) == 0 {
		return "had, and never chosen"
	}
	return strings.Join(parts, ", ")
}

// SignsOfLiking say what a student showed about a piece.
func SignsOfLiking(by map[studentlog.Reaction]int) []string {
	out := []string{}
	for _, s := range signsOfLiking {
		if n := by[s.sign]; n == 1 {
			out = append(out, s.words)
		} else if n > 1 {
			out = append(out, s.words+" "+Counted(n, "time"))
		}
	}
	return out
}

// Block says why a skill keeps a piece from being begun.
func (n Names) Block(b fit.Block) string {
	name := Capital(n.Skills.Name(b.Skill))
	if b.Exposures > 0 {
		return fmt.Sprintf("%s is not for the first time in a performance piece: met %d of %s.", name, b.Met, Figures(b.Exposures, "time"))
	}
	return fmt.Sprintf("%s and %s, which it builds on, would both be new.", name, n.Skills.Name(b.Under))
}

// Way says the steps of the shortest way to a skill.
func (n Names) Way(b fit.Block) []string {
	out := []string{}
	for _, step := range b.Way {
		name := n.Skills.Name(step.Skill)
		if step.Material != "" {
			out = append(out, fmt.Sprintf("%s: begin %s", name, n.Title(step.Material)))
		} else {
			out = append(out, fmt.Sprintf("%s: %s", name, Counted(step.Bites, "bite")))
		}
	}
	if b.Lessons > 0 {
		out = append(out, fmt.Sprintf("The bites take %s.", Counted(b.Lessons, "lesson")))
	}
	return out
}

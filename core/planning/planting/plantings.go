// Package planting says what is planted for what, ahead of the pieces that will ask for it: the bites of a lesson and of a week, and by
// when each has to come. How far is looked ahead is decided in core/planning/preview.
package planting

import (
	"slices"
	"strings"
	"time"

	"patientladder/core/library/material"
	"patientladder/core/planning/preview"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
	"patientladder/core/technique/exercise"
)

// Planting is a skill that is planted for a piece ahead.
type Planting struct {
	preview.Outcome
	// Needed is about when its piece begins, Ready the day of the last step.
	Needed, Ready time.Time
	Steps         []PlantingStep
	// PerLesson is the most bites of a lesson, all skills together.
	PerLesson int
	// Mends say what would help where it is late.
	Mends []preview.Mend
}

// PlantingStep is a bite with its lesson.
type PlantingStep struct {
	// Step counts from 1.
	Step int
	Day  time.Time
	// Due is the last day that leaves room for what follows, where the step comes after it; zero where it comes in time, and
	// where that day has passed: nobody can plan by it.
	Due time.Time
}

// Of are the skills that are planted for what lies ahead, the one with the fewest lessons in hand first.
func Of(a *studentplan.StudentOutlook) []Planting {
	var out []Planting
	for i, o := range a.Plan.Outcomes {
		p := Planting{Outcome: o, Needed: a.Lessons.Day(o.By), Ready: a.Lessons.Day(o.Ready), PerLesson: a.Policy.Preview.PerLesson}
		if o.Slack < 0 {
			p.Mends = a.Mends(i)
		}
		for _, step := range a.Plan.Steps {
			if step.Skill == o.Skill {
				p.Steps = append(p.Steps, PlantingStep{Step: step.Step, Day: a.Lessons.Day(step.Lesson), Due: DueOn(a, step)})
			}
		}
		out = append(out, p)
	}
	slices.SortStableFunc(out, func(a, b Planting) int { return a.Slack - b.Slack })
	return out
}

// DueOn is the last day for a step that comes after it; zero where it comes in time, or where the day has passed.
func DueOn(a *studentplan.StudentOutlook, s preview.Step) time.Time {
	if s.Due < 0 || s.Lesson <= s.Due {
		return time.Time{}
	}
	return a.Lessons.Day(s.Due)
}

// Bite is a preview step of a lesson.
type Bite struct {
	Skill string
	// Step counts from 1.
	Step int
	// For is the piece that will need it, Slack the lessons in hand.
	For   string
	Slack int
	// Exercise is the one by which it is planted, on the string and in the key in which the piece
	// will need it; nil for none.
	Exercise *exercise.Exercise
}

// Bites are the preview steps that are left for the next lesson. In the lesson itself those
// done today count among the most that it holds.
func Bites(a *studentplan.StudentOutlook) []Bite {
	left := a.Policy.Preview.PerLesson
	if a.Lessons.Day(0).Equal(a.Today) {
		left -= plantedToday(a)
	}
	var out []Bite
	for _, step := range a.NextBites() {
		if len(out) >= left {
			break
		}
		b := Bite{Skill: step.Skill, Step: step.Step}
		for _, o := range a.Plan.Outcomes {
			if o.Skill == step.Skill {
				b.For, b.Slack, b.Exercise = o.For, o.Slack, biteExercise(a.Student, step.Skill, step.Step, o.For)
			}
		}
		out = append(out, b)
	}
	return out
}

func plantedToday(a *studentplan.StudentOutlook) (n int) {
	for _, at := range a.Standing.Planted {
		if a.Local(at).Equal(a.Today) {
			n++
		}
	}
	return n
}

func biteExercise(s studentplan.Student, skill string, step int, piece string) *exercise.Exercise {
	if e, ok := exercise.ForBite(s.OnInstrument(), skill, step, s.Library[piece].Notes); ok {
		return &e
	}
	return nil
}

// PlantedBites are the preview steps of the last lesson, to be done again at home, by skill.
func PlantedBites(a *studentplan.StudentOutlook) []week.Bite {
	var out []week.Bite
	last := a.Local(a.Standing.LastLesson)
	for id, at := range a.Standing.Planted {
		skill, known := a.Skills.Get(id)
		step := a.Standing.Ability.Skills[id].StepsDone
		if !known || step < 1 || step > len(skill.Steps) || !a.Local(at).Equal(last) {
			continue
		}
		b := week.Bite{Skill: id, Name: skill.Name, Words: skill.Steps[step-1]}
		if e := biteExercise(a.Student, id, step, Needing(a, id)); e != nil {
			b.Exercise, b.ExerciseID = e.Title(a.Words), e.ID()
		}
		out = append(out, b)
	}
	slices.SortFunc(out, func(a, b week.Bite) int { return strings.Compare(a.Skill, b.Skill) })
	return out
}

// Needing is the first piece ahead that asks for a skill; empty for none.
func Needing(a *studentplan.StudentOutlook, skill string) string {
	for _, p := range a.Placed {
		asks := func(d material.Demand) bool { return d.Skill == skill }
		if !a.Begun(p.Material) && slices.ContainsFunc(a.Library[p.Material].Demands, asks) {
			return p.Material
		}
	}
	return ""
}

package wording

import (
	"fmt"
	"strings"

	"patientladder/core/planning/signs"
)

// Due says one thing that is due, without a full stop.
func (n Names) Due(s signs.Sign) string {
	r, known := signs.Of(s.Kind)
	if !known {
		return ""
	}
	return r.Says(s, speech{n})
}

// speech gives signs their words.
type speech struct{ Names }

func (x speech) SkillFirst(id string) string     { return Capital(x.Skills.Name(id)) }
func (speech) Counted(n int, what string) string { return Counted(n, what) }
func (speech) Figures(n int, what string) string { return Figures(n, what) }
func (speech) Over(leap, reach float64) string   { return over(leap, reach) }

// Pupil is a student in the sentence of a day or a studio.
type Pupil struct {
	// First is how the student is called.
	First string
	Signs []signs.Sign
	// Starved says that learned pieces were not played for too long.
	Starved bool
}

// Today says the lessons of a day and who needs what.
func Today(lessons []Pupil, today bool) string {
	when := "on this day"
	if today {
		when = "today"
	}
	if len(lessons) == 0 {
		return "No lessons " + when + "."
	}
	parts := []string{Capital(Counted(len(lessons), "lesson")) + " " + when}
	for _, group := range signs.Rules() {
		if !group.OnToday {
			continue
		}
		var names []string
		for _, l := range lessons {
			if signs.Has(l.Signs, group.Kind) {
				names = append(names, l.First)
			}
		}
		switch len(names) {
		case 0:
		case 1:
			parts = append(parts, names[0]+" "+group.One)
		default:
			parts = append(parts, namesOf(names)+" "+group.Many)
		}
	}
	return strings.Join(parts, "; ") + "."
}

// mostNames is how many students a sentence names before it counts the rest.
const mostNames = 3

func namesOf(names []string) string {
	if len(names) <= mostNames {
		return List(names)
	}
	return fmt.Sprintf("%s and %d more", strings.Join(names[:mostNames], ", "), len(names)-mostNames)
}

// Studio says who of all students needs something.
func Studio(students []Pupil) string {
	if len(students) == 0 {
		return "No students yet. Add the first one."
	}
	var parts []string
	say := func(n int, one, many string) {
		switch {
		case n == 1:
			parts = append(parts, "1 "+one)
		case n > 1:
			parts = append(parts, fmt.Sprintf("%d %s", n, many))
		}
	}
	for _, r := range signs.Rules() {
		n := 0
		for _, s := range students {
			if r.Kind == signs.Review && s.Starved || r.Kind != signs.Review && signs.Has(s.Signs, r.Kind) {
				n++
			}
		}
		if r.InStudio {
			say(n, r.One, r.Many)
		}
	}
	if len(parts) == 0 {
		return Capital(Counted(len(students), "student")) + "; nothing needs attention."
	}
	return fmt.Sprintf("Of %s: %s.", Counted(len(students), "student"), strings.Join(parts, ", "))
}

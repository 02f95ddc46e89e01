package wording

import (
	"fmt"
	"strings"

	"patientladder/core/planning/signs"
)

// Due says one thing that is due, without a full stop.
func (n Names) Due(s signs.Sign) string {
	title := n.Title(s.Material)
	switch s.Kind {
	case signs.Run:
		return title + " is ready for a run"
	case signs.Stuck:
		if s.Lessons > 0 {
			return fmt.Sprintf("No new mark for %s in %s", title, Counted(s.Lessons, "lesson"))
		}
		return fmt.Sprintf("%s takes longer than usual: 9 of 10 pieces like this are done within %s", title, Counted(s.Weeks, "week"))
	case signs.Choose:
		return "No working piece: choose the next one"
	case signs.Late:
		return fmt.Sprintf("%s should come %s earlier for %s", Capital(n.Skills.Name(s.Skill)), Counted(s.Lessons, "lesson"), title)
	case signs.Cliff:
		return fmt.Sprintf("A big jump to %s: %s", title, over(s.Leap, s.Reach))
	case signs.Spot:
		return fmt.Sprintf("%s in %s", Figures(s.Count, "hard spot"), title)
	case signs.Bench:
		if s.Measured {
			return "Measure the bench and the feet again"
		}
		return "Measure the bench and the feet"
	case signs.Review:
		out := fmt.Sprintf("%s not played for %s", title, Counted(s.Weeks, "week"))
		if s.Count > 0 {
			out += fmt.Sprintf(", and %d more", s.Count)
		}
		return out
	}
	return ""
}

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
	for _, group := range []struct {
		kind      signs.Kind
		one, many string
	}{
		{signs.Run, "is ready for a run", "are ready for a run"}, {signs.Stuck, "is stuck", "are stuck"}, {signs.Choose, "needs a new piece", "need a new piece"},
	} {
		var names []string
		for _, l := range lessons {
			if signs.Has(l.Signs, group.kind) {
				names = append(names, l.First)
			}
		}
		switch len(names) {
		case 0:
		case 1:
			parts = append(parts, names[0]+" "+group.one)
		default:
			parts = append(parts, namesOf(names)+" "+group.many)
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
	count := func(k signs.Kind) (n int) {
		for _, s := range students {
			if signs.Has(s.Signs, k) {
				n++
			}
		}
		return n
	}
	starved := 0
	for _, s := range students {
		if s.Starved {
			starved++
		}
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
	say(count(signs.Run), "is ready for a run", "are ready for a run")
	say(count(signs.Stuck), "is stuck", "are stuck")
	say(count(signs.Cliff), "has a big jump ahead", "have a big jump ahead")
	say(count(signs.Late), "has a late preview", "have a late preview")
	say(starved, "needs review", "need review")
	if len(parts) == 0 {
		return Capital(Counted(len(students), "student")) + "; nothing needs attention."
	}
	return fmt.Sprintf("Of %s: %s.", Counted(len(students), "student"), strings.Join(parts, ", "))
}

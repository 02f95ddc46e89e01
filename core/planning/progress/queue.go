package progress

import (
	"slices"
	"time"

	"patientladder/core/planning/studentplan"
)

// State is how far the report of this term is.
type State string

// The states, in the order in which they ask for work.
const (
	NoReport State = "none"
	Draft    State = "draft"
	Sent     State = "published"
)

// Made is a report that there is.
type Made struct {
	ID, Ladder string
	// To is the last day that it looks at.
	To        time.Time
	Published bool
}

// Queued is a student with the report of this term.
type Queued struct {
	studentplan.Student
	// Report is its id; empty for none.
	Report string
	State  State
}

// Queue are the students who have had a lesson, with the latest report that looks at this term: first those without one,
// then the drafts, then what was published; among them in the order of their lessons.
func Queue(students []studentplan.Student, made []Made) []Queued {
	var out []Queued
	for _, s := range students {
		if s.Standing.FirstLesson.IsZero() {
			continue
		}
		q := Queued{Student: s, State: NoReport}
		term := Term(s.Today, s.Timetable().Breaks())
		for _, m := range made {
			if m.Ladder != s.Ladder || m.To.Before(term.From) {
				continue
			}
			if q.Report, q.State = m.ID, Draft; m.Published {
				q.State = Sent
			}
		}
		out = append(out, q)
	}
	rank := []State{NoReport, Draft, Sent}
	slices.SortStableFunc(out, func(a, b Queued) int { return slices.Index(rank, a.State) - slices.Index(rank, b.State) })
	return out
}

package proposing

import (
	"cmp"
	"slices"

	"patientladder/core/library/material"
	"patientladder/core/planning/next"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/leap"
	"patientladder/core/student/standing"
)

// Readiness says whether a piece can come now.
type Readiness string

// The kinds, in the order in which they are shown.
const (
	ReadyNow Readiness = "ready"   // nothing blocks it, and the leap is within reach
	Reaching Readiness = "reach"   // nothing blocks it, and the leap is beyond the comfortable one
	NotKnown Readiness = "unknown" // nobody has said what it needs
	Blocked  Readiness = "blocked" // something comes first
	HasBegun Readiness = "begun"   // the student has begun it, or knows it
)

var readinessOrder = []Readiness{ReadyNow, Reaching, NotKnown, Blocked, HasBegun}

// Ready says how ready a student is for a piece.
type Ready struct {
	Ladder, Name string
	// Called is how the student is called.
	Called string
	Kind   Readiness
	Leap   leap.Leap
	// Reach is the student's comfortable leap.
	Reach float64
	// First are the skills that come first, at most two.
	First []string
	// Cleared says that the student has cleared it.
	Cleared bool
}

// mostFirst is how many blocking skills are named (default).
const mostFirst = 2

// ReadyFor says how ready the student is for a piece.
func ReadyFor(s studentplan.Student, m material.Material) Ready {
	p := s.Policy.Standing.Leap
	out := Ready{
		Ladder: s.Ladder,
		Name:   s.Name,
		Called: s.First(),
		Leap:   p.Of(m, s.Standing.Ability),
		Reach:  s.Standing.Reach(s.Library, m.Strand, p).Size,
	}
	blocked := next.Blocked(m, next.Input{Ability: s.Standing.Ability, Policy: p, Skills: s.Skills})
	switch ms := s.Standing.Materials[m.ID]; {
	case ms != nil:
		out.Kind, out.Cleared = HasBegun, ms.State == standing.Cleared || ms.State == standing.Polished
	case out.Leap.Unknown:
		out.Kind = NotKnown
	case len(blocked) > 0:
		out.Kind, out.First = Blocked, blocked[:min(len(blocked), mostFirst)]
	case !leap.Beyond(out.Leap.Size, out.Reach):
		out.Kind = ReadyNow
	default:
		out.Kind = Reaching
	}
	return out
}

// WhoIsReady says it of every student: those who are ready first, by the size of the leap.
func WhoIsReady(students []studentplan.Student, m material.Material) []Ready {
	out := make([]Ready, len(students))
	for i, s := range students {
		out[i] = ReadyFor(s, m)
	}
	slices.SortStableFunc(out, func(a, b Ready) int {
		return cmp.Or(slices.Index(readinessOrder, a.Kind)-slices.Index(readinessOrder, b.Kind), cmp.Compare(a.Leap.Size, b.Leap.Size))
	})
	return out
}

// Outside is what a student has cleared outside some books, by their ids, and what was shown.
func Outside(s studentplan.Student, books []string) leap.Ability {
	a := leap.Ability{}.Copy()
	for id, e := range s.Standing.Ability.Skills {
		if e.Shown {
			a.Skills[id] = leap.Evidence{Shown: true}
		}
	}
	for _, id := range s.Standing.In(standing.Cleared, standing.Polished) {
		if m := s.Library[id]; !slices.Contains(books, m.SourceID) {
			a.Clear(m)
		}
	}
	return a
}

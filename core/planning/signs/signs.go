// Package signs finds what is due in the next lesson of a student, and says it. Each kind of sign is a file: what finds it, how
// urgent it is, and its words. A new kind is a new file and its line in rules; a test walks them all.
//
//	signs.go    what a sign is, and the rules
//	urgency.go  which sign and which student comes first
package signs

import (
	"math"
	"slices"
	"time"

	"patientladder/core/library/material"
	"patientladder/core/student/standing"
)

// Kind is what a sign is about.
type Kind string

// Sign is one thing that is due. Which fields are set follows from the kind.
type Sign struct {
	Kind     Kind
	Material string
	// Skill that will be late.
	Skill string
	// Strand that is empty.
	Strand material.Strand
	// Lessons without a new mark (stuck; 0 when it is in work for too long), or by which a preview is late.
	Lessons int
	// Weeks within which nine of ten such pieces are cleared (stuck), or since a learned piece was played.
	Weeks int
	// Count of open spots, or of other learned pieces that were not played for too long.
	Count int
	// Leap and Reach are those of a cliff.
	Leap, Reach float64
	// Measured says that bench and feet were measured before.
	Measured bool
}

// Policy holds the numbers behind the signs.
type Policy struct {
	// StuckLessons without a new mark make a working piece stuck. Default 3 (rule of the studio).
	StuckLessons int
	// ReviewWeeks is how long a review piece may go unheard. Default 6.
	ReviewWeeks int
}

// DefaultPolicy returns the defaults.
func DefaultPolicy() Policy { return Policy{StuckLessons: 3, ReviewWeeks: 6} }

// Seen is what signs are found in.
type Seen struct {
	Standing *standing.Standing
	Library  material.Library
	Policy   Policy
	Day      time.Time
	// Kept says which learned materials are kept in review, by id; nil for all of them.
	Kept map[string]bool
	// Long holds the working pieces that take longer than nine of ten such pieces do, with that length in weeks; nil when it
	// was not forecast.
	Long map[string]float64
	// Late is the preview that comes too late, the worst of several; Cliffs the next rungs beyond a comfortable leap.
	Late   *Sign
	Cliffs []Sign
	// Dry are the strands that are empty and were not.
	Dry []material.Strand
	// Measure says that bench and feet are asked for, Measured that they were measured before.
	Measure, Measured bool
}

// working are the pieces and exercises in work, by id.
func (s Seen) working() map[string]*standing.MaterialStanding {
	out := map[string]*standing.MaterialStanding{}
	for id, m := range s.Standing.Materials {
		if m.State == standing.Working {
			out[id] = m
		}
	}
	return out
}

// unplayed says that a learned piece was not played for too long.
func (s Seen) unplayed(m *standing.MaterialStanding) bool {
	return m.Played() && s.daysSince(m) > 7*s.Policy.ReviewWeeks
}

// daysSince is for how many days a piece was not played, in a lesson or at home.
func (s Seen) daysSince(m *standing.MaterialStanding) int {
	return m.Unplayed(s.Standing, s.Day)
}

// Speech gives a sign its words.
type Speech interface {
	// Title is a material's in quotation marks, Skill the name of a skill as a sentence begins with it.
	Title(material string) string
	SkillFirst(skill string) string
	// Counted and Figures count things, in words and in figures; Over says a jump beside the comfortable one.
	Counted(n int, what string) string
	Figures(n int, what string) string
	Over(leap, reach float64) string
}

// Rule is all that a kind of sign is.
type Rule struct {
	Kind Kind
	// Weight is what a sign adds to the urgency of a student (default); one that CanWait adds nothing.
	Weight  int
	CanWait bool
	// Find finds the signs of the kind, in any order.
	Find func(Seen) []Sign
	// Says says one, without a full stop.
	Says func(Sign, Speech) string
	// One and Many say it of students: “is stuck”, “are stuck”. OnToday and InStudio name those whom it concerns at the head
	// of the page.
	One, Many         string
	OnToday, InStudio bool
}

// rules are all kinds, the most urgent within a student first.
var rules = []Rule{run, stuck, choose, late, cliff, dry, spot, bench, review}

// Rules returns all kinds, the most urgent within a student first.
func Rules() []Rule { return slices.Clone(rules) }

// Of is the rule of a kind; ok is false for one that there is not.
func Of(k Kind) (r Rule, ok bool) {
	i := slices.IndexFunc(rules, func(r Rule) bool { return r.Kind == k })
	if i < 0 {
		return r, false
	}
	return rules[i], true
}

// Find returns the signs, sorted (see Sort).
func Find(s Seen) []Sign {
	var found []Sign
	for _, r := range rules {
		found = append(found, r.Find(s)...)
	}
	Sort(found, s.Library)
	return found
}

func ceil(weeks float64) int { return int(math.Ceil(weeks)) }

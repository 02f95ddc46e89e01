// Package signs finds what is due in the next lesson of a student, as facts.
//
//	signs.go    what a standing shows
//	urgency.go  which sign and which student comes first
package signs

import (
	"time"

	"patientladder/core/base/civil"
	"patientladder/core/library/material"
	"patientladder/core/student/standing"
)

// Kind is what a sign is about.
type Kind string

// The kinds, the most urgent first.
const (
	Run    Kind = "run"    // every point has its mark: a run is due
	Stuck  Kind = "stuck"  // no new mark for too long, or in work for too long
	Choose Kind = "choose" // nothing is in work
	Late   Kind = "late"   // a preview will not be ready in time
	Cliff  Kind = "cliff"  // the next rung lies beyond a comfortable leap
	Spot   Kind = "spot"   // hard spots are open
	Bench  Kind = "bench"  // bench and feet are to be measured
	Review Kind = "review" // a learned piece was not played for too long
)

// Sign is one thing that is due. Which fields are set follows from the kind.
type Sign struct {
	Kind     Kind
	Material string
	// Skill that will be late.
	Skill string
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

// Known is what is known beyond the standing.
type Known struct {
	// Kept says which learned materials are kept in review, by id; nil for all of them.
	Kept map[string]bool
	// Long holds the working pieces that take longer than nine of ten such pieces
	// do, with that length in weeks; nil when it was not forecast.
	Long map[string]float64
}

// Find returns the signs of a standing on a day, sorted (see Sort). Of the learned pieces only the
// one that was left longest is named, with the number of others.
func Find(s *standing.Standing, lib material.Library, p Policy, k Known, day time.Time) []Sign {
	var found []Sign
	working := 0
	oldest, fading := "", 0
	for id, m := range s.Materials {
		switch m.State {
		case standing.Working:
			if lib[id].Exercise == "" { // a scale alone is no piece to work at
				working++
			}
			found = append(found, p.ofWork(id, m, k)...)
		case standing.Cleared, standing.Polished:
			if (k.Kept == nil || k.Kept[id]) && p.unheard(s, m, day) {
				fading++
				if oldest == "" || m.LastPlayed.Before(s.Materials[oldest].LastPlayed) ||
					m.LastPlayed.Equal(s.Materials[oldest].LastPlayed) && id < oldest {
					oldest = id
				}
			}
		}
	}
	if working == 0 {
		found = append(found, Sign{Kind: Choose})
	}
	if oldest != "" {
		weeks := int(civil.On(day)-s.Day(s.Materials[oldest].LastPlayed)) / 7
		found = append(found, Sign{Kind: Review, Material: oldest, Weeks: weeks, Count: fading - 1})
	}
	Sort(found, lib)
	return found
}

func (p Policy) unheard(s *standing.Standing, m *standing.MaterialStanding, day time.Time) bool {
	return m.Played() && int(civil.On(day)-s.Day(m.LastPlayed)) > 7*p.ReviewWeeks
}

// ofWork are the signs of a piece in work. One that is ready for a run is not stuck, however long it took.
func (p Policy) ofWork(id string, m *standing.MaterialStanding, k Known) (found []Sign) {
	if m.RunDue {
		found = append(found, Sign{Kind: Run, Material: id})
	}
	usual, long := k.Long[id]
	switch {
	case m.RunDue:
	case m.SinceMark >= p.StuckLessons:
		found = append(found, Sign{Kind: Stuck, Material: id, Lessons: m.SinceMark})
	case long:
		found = append(found, Sign{Kind: Stuck, Material: id, Weeks: ceil(usual)})
	}
	if open := m.OpenSpots(); open > 0 {
		found = append(found, Sign{Kind: Spot, Material: id, Count: open})
	}
	return found
}

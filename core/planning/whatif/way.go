package whatif

import (
	"math"

	"patientladder/core/planning/inweek"
	"patientladder/core/planning/signs"
	"patientladder/core/planning/studentplan"
	"patientladder/core/reading/naming"
)

// WayEffect is what kind of thing another way of teaching changes for one student.
type WayEffect string

// The kinds, in the order in which they are said.
const (
	ReviewMinutes WayEffect = "reviewMinutes" // minutes of review in the week
	ReviewPieces  WayEffect = "reviewPieces"  // learned pieces picked for the week
	FirstView     WayEffect = "firstView"     // what a piece opens with
	HowReading    WayEffect = "approach"      // how notes are found on the page
	FirstChunks   WayEffect = "firstChunks"   // bars of the smallest chunks
	LessonBites   WayEffect = "bites"         // preview bites in the next lesson
	LatePreviews  WayEffect = "late"          // previews that come too late
	CliffsAhead   WayEffect = "cliffs"        // rungs ahead beyond a comfortable leap
	StuckPieces   WayEffect = "stuck"         // pieces that count as stuck
)

// WayChange is one effect; From and To count, but for how a piece opens and is read.
type WayChange struct {
	Kind     WayEffect
	From, To int
	// HearFirst and Approach are those of the new way.
	HearFirst bool
	Approach  naming.Approach
}

// Glance is a student with the coming week, under one way of teaching.
type Glance struct {
	*studentplan.StudentOutlook
	Week inweek.Week
}

// WayChanges says what another way of teaching does to one student; nothing where it does nothing.
func WayChanges(previous, then Glance) []WayChange {
	var out []WayChange
	count := func(kind WayEffect, of func(Glance) int) {
		if x, y := of(previous), of(then); x != y {
			out = append(out, WayChange{Kind: kind, From: x, To: y})
		}
	}
	count(ReviewMinutes, Glance.reviewMinutes)
	count(ReviewPieces, func(g Glance) int { return len(g.Week.Picked) })
	if previous.Policy.HearFirst != then.Policy.HearFirst {
		out = append(out, WayChange{Kind: FirstView, HearFirst: then.Policy.HearFirst})
	}
	if previous.Policy.Approach != then.Policy.Approach {
		out = append(out, WayChange{Kind: HowReading, Approach: then.Policy.Approach})
	}
	count(FirstChunks, func(g Glance) int { return g.LeafBars() })
	count(LessonBites, func(g Glance) int { return len(g.NextBites()) })
	count(LatePreviews, Glance.latePreviews)
	count(CliffsAhead, Glance.cliffsAhead)
	count(StuckPieces, func(g Glance) int { return signs.Count(g.Due(g.Today), signs.Stuck) })
	return out
}

func (g Glance) reviewMinutes() int {
	review, _, _ := g.Week.Plan.Reviewed()
	return int(math.Round(review))
}

func (g Glance) latePreviews() (n int) {
	for _, o := range g.Plan.Outcomes {
		if o.Late() > 0 {
			n++
		}
	}
	return n
}

func (g Glance) cliffsAhead() (n int) {
	for _, rail := range g.View.Rails {
		for _, r := range rail.Rungs {
			if r.Cliff && r.IsAhead() {
				n++
			}
		}
	}
	return n
}

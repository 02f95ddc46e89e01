package inweek

import (
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
)

// ReviewState says how learned pieces are kept.
type ReviewState struct {
	// Pieces are kept in review; Fading of them are less than 80 % sure, Starved were not played for Weeks, and of these the
	// coming week holds Held.
	Pieces, Fading, Starved, Held, Weeks int
	// Share of the planned minutes of the coming week is review, Aim what the way asks for, 0 to 1.
	Share, Aim float64
	// All says that the coming week has every piece that is kept on each of its days: there is nothing more to play.
	All bool
	// Planned says that the coming week holds anything at all; without it there is no share.
	Planned bool
}

// short is by how much the share must miss the aim to be called short (default).
const short = 0.1

// Short says that review gets clearly less than its aim.
func (r ReviewState) Short() bool { return r.Planned && !r.All && r.Share < r.Aim-short }

// ReviewOf says how learned pieces are kept, in a week with such a share of review.
func ReviewOf(s studentplan.Student, w Week) ReviewState {
	out := ReviewState{Aim: s.Policy.ReviewShare, Weeks: s.StarvedAfter() / 7}
	out.Share, out.Planned = w.Plan.ReviewShare()
	reviewed, played, days := map[string]bool{}, 0, 0
	for _, d := range w.Plan.Days {
		if !d.Rest {
			days++
		}
		for _, it := range d.Items {
			if it.Kind == week.Review {
				reviewed[it.Material] = true
				played++
			}
		}
	}
	learned := s.Learned()
	out.All = len(learned) > 0 && played >= len(learned)*days
	for _, id := range learned {
		out.Pieces++
		if s.Recall(id) < studentplan.Fading {
			out.Fading++
		}
		if s.LeftTooLong(id) {
			out.Starved++
			if reviewed[id] {
				out.Held++
			}
		}
	}
	return out
}

package signs

import (
	"fmt"

	"patientladder/core/student/standing"
)

// Review is due where a learned piece was not played for too long. Only the one that was left longest is named, of several of
// the same day the first id, with the number of others.
const Review Kind = "review"

var review = Rule{
	Kind: Review, Weight: 2, One: "needs review", Many: "need review", InStudio: true,
	Find: func(s Seen) []Sign {
		oldest, left := "", 0
		for id, m := range s.Standing.Materials {
			if m.State != standing.Cleared && m.State != standing.Polished || s.Kept != nil && !s.Kept[id] || !s.unplayed(m) {
				continue
			}
			left++
			if o := s.Standing.Materials[oldest]; o == nil || s.daysSince(m) > s.daysSince(o) || s.daysSince(m) == s.daysSince(o) && id < oldest {
				oldest = id
			}
		}
		if left == 0 {
			return nil
		}
		return []Sign{{Kind: Review, Material: oldest, Weeks: s.daysSince(s.Standing.Materials[oldest]) / 7, Count: left - 1}}
	},
	Says: func(s Sign, t Speech) string {
		out := t.Title(s.Material) + " not played for " + t.Counted(s.Weeks, "week")
		if s.Count > 0 {
			out += fmt.Sprintf(", and %d more", s.Count)
		}
		return out
	},
}

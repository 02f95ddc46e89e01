// Package signs finds what is due in the next lesson of a student.
package signs

import (
	"fmt"
	"math"
	"sort"
	"time"

	"patientladder/core/library/material"
	"patientladder/core/student/standing"
)

// Sign is one thing that is ripe, the most urgent kinds first.
type Sign struct {
	// Kind is "run", "stuck", "choose", "late" (a preview), "cliff", "spot", "bench" or "review".
	Kind     string
	Material string
	// Text is a short sentence.
	Text string
}

// Policy holds the numbers behind the signs.
type Policy struct {
	// StuckLessons without a new mark make a working piece stuck. Default 3 (rule of the studio).
	StuckLessons int
	// Kept says which learned materials are kept in review, by id; nil for all of them.
	Kept map[string]bool
	// ReviewWeeks is how long a review piece may go unheard. Default 6.
	ReviewWeeks int
	// Long holds the working pieces that take longer than nine of ten such pieces
	// do, with that length in weeks; nil when it was not forecast.
	Long map[string]float64
}

// DefaultPolicy returns the defaults.
func DefaultPolicy() Policy { return Policy{StuckLessons: 3, ReviewWeeks: 6} }

// Find returns the signs of a standing on a day, in the order run, stuck,
// choose, spot, review; within a kind by title. Of the review pieces only the
// one that was left longest is named, with the number of others.
func Find(s *standing.Standing, lib material.Library, p Policy, day time.Time) []Sign {
	var signs []Sign
	working := 0
	oldest, fading := "", 0
	for id, m := range s.Materials {
		title := lib[id].Title
		switch m.State {
		case standing.Working:
			if lib[id].Exercise == "" { // a scale alone is no piece to work at
				working++
			}
			if m.RunDue {
				signs = append(signs, Sign{"run", id, fmt.Sprintf("“%s” is ready for a run", title)})
			}
			if m.SinceMark >= p.StuckLessons {
				signs = append(signs, Sign{"stuck", id, fmt.Sprintf("“%s” has had no new mark for %d lessons", title, m.SinceMark)})
			}
			if usual, long := p.Long[id]; long && m.SinceMark < p.StuckLessons {
				signs = append(signs, Sign{"stuck", id, fmt.Sprintf("“%s” takes longer than the %.0f weeks within which nine of ten such pieces are cleared", title, math.Ceil(usual))})
			}
			if open := openSpots(m); open > 0 {
				signs = append(signs, Sign{"spot", id, fmt.Sprintf("%s in “%s”", plural(open, "open spot"), title)})
			}
		case standing.Cleared, standing.Polished:
			if (p.Kept == nil || p.Kept[id]) && day.Sub(m.LastPlayed) > time.Duration(p.ReviewWeeks)*7*24*time.Hour {
				fading++
				if oldest == "" || m.LastPlayed.Before(s.Materials[oldest].LastPlayed) ||
					m.LastPlayed.Equal(s.Materials[oldest].LastPlayed) && id < oldest {
					oldest = id
				}
			}
		}
	}
	if working == 0 {
		signs = append(signs, Sign{"choose", "", "No working piece: choose the next rung"})
	}
	if oldest != "" {
		weeks := int(day.Sub(s.Materials[oldest].LastPlayed).Hours() / 24 / 7)
		text := fmt.Sprintf("“%s” unheard for %d weeks", lib[oldest].Title, weeks)
		if fading > 1 {
			text += fmt.Sprintf(", and %d more in review", fading-1)
		}
		signs = append(signs, Sign{"review", oldest, text})
	}
	Sort(signs)
	return signs
}

var rank = map[string]int{"run": 0, "stuck": 1, "choose": 2, "late": 3, "cliff": 4, "spot": 5, "bench": 6, "review": 7}

// Sort puts the most urgent kinds first, and orders within a kind by the text.
func Sort(signs []Sign) {
	sort.Slice(signs, func(a, b int) bool {
		if signs[a].Kind != signs[b].Kind {
			return rank[signs[a].Kind] < rank[signs[b].Kind]
		}
		return signs[a].Text < signs[b].Text
	})
}

func openSpots(m *standing.MaterialStanding) int {
	open := 0
	for _, s := range m.Spots {
		if !s.Mended {
			open++
		}
	}
	return open
}

func plural(n int, what string) string {
	if n == 1 {
		return "1 " + what
	}
	return fmt.Sprintf("%d %ss", n, what)
}

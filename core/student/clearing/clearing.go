// Package clearing judges a run against the standard that clears a piece.
//
// The standard is modest: right notes, fingers and rhythm, fair tone and
// pitch, no stop. It opens the next rung; it is not performance-readiness.
package clearing

import (
	"slices"

	"patientladder/core/library/instrument"
)

// Point is one thing a run must have.
type Point struct {
	ID string `json:"id"`
	// Name is what the teacher taps: "right notes".
	Name string `json:"name"`
	// Missing completes the sentence "It stays: …".
	Missing string `json:"missing"`
}

// Level is how much a standard asks for.
type Level string

// The levels. A run remembers the one it was held against, so that a change
// of the standard changes nothing that was cleared.
const (
	Usual  Level = ""       // notes, fingers, rhythm, fair tone and pitch, no stop
	Light  Level = "light"  // notes, rhythm, no stop
	Strict Level = "strict" // the usual, and loud and soft as written
)

// Known says whether there is such a level.
func (l Level) Known() bool { return l == Usual || l == Light || l == Strict }

// Standard returns the points for a family of instruments. Pitch is asked only
// where the player makes it.
func Standard(f instrument.Family, l Level) []Point {
	points := []Point{{"notes", "Right notes", "some notes were wrong"}}
	if l != Light {
		points = append(points, Point{"fingers", "Right fingers", "some fingers were not the ones learned"})
	}
	points = append(points, Point{"rhythm", "Right rhythm", "the rhythm did not hold"})
	if l != Light {
		points = append(points, Point{"tone", "Fair tone", "the tone was not fair yet"})
	}
	if f == instrument.Bowed && l != Light {
		points = append(points, Point{"pitch", "Fair pitch", "the pitch was not fair yet"})
	}
	if l == Strict {
		points = append(points, Point{"dynamics", "Loud and soft", "loud and soft were not as written"})
	}
	return append(points, Point{"flow", "No stop", "it stopped on the way"})
}

// Verdict is the judgement of one run.
type Verdict struct {
	Cleared bool
	// Missed are the points that were not met, in the order of the standard.
	Missed []Point
}

// Judge compares the points that were met with the standard. Points that are
// not in the standard are ignored.
func Judge(standard []Point, met []string) Verdict {
	var v Verdict
	for _, p := range standard {
		if !slices.Contains(met, p.ID) {
			v.Missed = append(v.Missed, p)
		}
	}
	v.Cleared = len(v.Missed) == 0
	return v
}

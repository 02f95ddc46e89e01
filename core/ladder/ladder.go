// Package ladder lays a student's materials out as rails and rungs: what is
// learned below, what is worked at in the middle, what comes above, with the
// distance between two rungs as large as the leap.
package ladder

import (
	"fmt"
	"sort"
	"strings"
	"time"

	"patientladder/core/leap"
	"patientladder/core/material"
	"patientladder/core/standing"
)

// Layer is one of the three layers a teacher works on.
type Layer string

// The layers.
const (
	Review  Layer = "review"
	Now     Layer = "working"
	Ahead   Layer = "ahead"
	Preview Layer = "preview" // ahead, with a new skill of it already planted
)

// Rung is a material placed on a ladder.
type Rung struct {
	Material material.Material
	Layer    Layer
	// Leap is the gap below the rung: as it was when assigned, or as it is
	// projected with everything below it cleared.
	Leap leap.Leap
	// Cliff says that the leap lies beyond the comfortable reach, Plateau that it is under a quarter of it.
	Cliff, Plateau bool
	// Standing is nil for rungs ahead.
	Standing *standing.MaterialStanding
	// Weeks from assignment to clearing, or to today for a working piece; at least 1, 0 ahead.
	Weeks int
	// Aside says that the rung does not count: skipped, put off, or resting.
	Aside Aside
}

// Aside is why a rung does not count for what comes above it.
type Aside string

// The ways of standing aside.
const (
	Skipped Aside = "skipped" // passed over: the student goes on without it
	Paused  Aside = "paused"  // put off until it is taken up again
)

// Known says whether it is one of the ways, or none ("").
func (a Aside) Known() bool { return a == "" || a == Skipped || a == Paused }

// Rail is one strand of the ladder, lowest rung first.
type Rail struct {
	Strand material.Strand
	Rungs  []Rung
}

// View is the whole ladder.
type View struct {
	// Sentence says the most important thing first.
	Sentence string
	Reach    leap.Reach
	Rails    []Rail
}

// Placed is a material put on the ladder by the teacher, in the order of its strand.
type Placed struct {
	Material string
	Strand   material.Strand
	// Aside says that it does not count; only for what was not begun.
	Aside Aside
}

// Draw lays the ladder out. Placed holds the teacher's order of everything on
// the ladder; a material with a standing that was never placed is added to the
// rail of its own strand. Rungs with a standing come in the order in which
// they were assigned, those ahead in the placed order.
func Draw(s *standing.Standing, lib material.Library, placed []Placed, p leap.Policy, day time.Time) View {
	v := View{Reach: p.Reach(s.Taken(lib, ""))}
	for _, strand := range material.Strands() {
		if rungs := rail(s, lib, placed, p, day, strand, v.Reach.Size); len(rungs) > 0 {
			v.Rails = append(v.Rails, Rail{strand, rungs})
		}
	}
	v.Sentence = sentence(v)
	return v
}

func rail(s *standing.Standing, lib material.Library, placed []Placed, p leap.Policy, day time.Time, strand material.Strand, reach float64) []Rung {
	var done, ahead []string
	aside := map[string]Aside{}
	seen := map[string]bool{}
	put := func(id string) {
		if seen[id] {
			return
		}
		seen[id] = true
		if m := s.Materials[id]; m != nil && m.State != standing.Heard {
			done = append(done, id)
		} else {
			ahead = append(ahead, id)
		}
	}
	for _, pl := range placed {
		if _, known := lib[pl.Material]; known && pl.Strand == strand {
			put(pl.Material)
			aside[pl.Material] = pl.Aside
		} else {
			seen[pl.Material] = true // on another rail, or no longer in the library
		}
	}
	for id := range s.Materials {
		if lib[id].Strand == strand && s.Materials[id].State != standing.Heard {
			put(id)
		}
	}
	sort.Slice(done, func(a, b int) bool {
		x, y := s.Materials[done[a]], s.Materials[done[b]]
		if !x.Assigned.Equal(y.Assigned) {
			return x.Assigned.Before(y.Assigned)
		}
		return done[a] < done[b]
	})
	var rungs []Rung
	ability := s.Ability.Copy()
	for _, id := range done {
		rungs = append(rungs, learned(s.Materials[id], lib[id], day))
		if s.Materials[id].State == standing.Working {
			ability.Clear(lib[id])
		}
	}
	for _, id := range ahead {
		r := Rung{Material: lib[id], Layer: Ahead, Leap: p.Of(lib[id], ability), Aside: aside[id]}
		if planted(r.Leap) {
			r.Layer = Preview
		}
		rungs = append(rungs, r)
		if r.Aside == "" {
			ability.Clear(lib[id])
		}
	}
	for i := range rungs {
		rungs[i].Cliff = rungs[i].Leap.Size > reach && rungs[i].Aside != Skipped
		rungs[i].Plateau = rungs[i].Leap.Size < reach/4
	}
	return rungs
}

func learned(m *standing.MaterialStanding, lib material.Material, day time.Time) Rung {
	r := Rung{Material: lib, Layer: Review, Standing: m}
	if m.Before != nil {
		r.Leap = *m.Before
	}
	until := m.ClearedAt
	switch m.State {
	case standing.Working:
		r.Layer, until = Now, day
	case standing.Resting:
		r.Layer, r.Aside, until = Now, Paused, m.PausedAt
	}
	if !m.Assigned.IsZero() {
		r.Weeks = max(1, int((until.Sub(m.Assigned).Hours()/24-float64(m.Rested)+6)/7))
	}
	return r
}

func planted(l leap.Leap) bool {
	for _, part := range l.Parts {
		if part.Level == leap.Planted {
			return true
		}
	}
	return false
}

func sentence(v View) string {
	var due, working, cliffs []string
	for _, rail := range v.Rails {
		for i, r := range rail.Rungs {
			switch {
			case r.Aside != "":
			case r.Layer == Now && r.Standing.RunDue:
				due = append(due, "“"+r.Material.Title+"”")
			case r.Layer == Now:
				working = append(working, "“"+r.Material.Title+"”")
			case r.Cliff && r.Layer != Review && i > 0 && (rail.Rungs[i-1].Layer == Now || rail.Rungs[i-1].Layer == Review):
				cliffs = append(cliffs, "“"+r.Material.Title+"”")
			}
		}
	}
	var parts []string
	if len(due) > 0 {
		parts = append(parts, list(due)+are(due, " is", " are")+" ready for a run")
	}
	if len(working) > 0 {
		parts = append(parts, list(working)+are(working, " is", " are")+" being worked at")
	}
	if len(cliffs) > 0 {
		parts = append(parts, fmt.Sprintf("%s%s beyond a comfortable leap", list(cliffs), are(cliffs, " lies", " lie")))
	}
	if len(parts) == 0 {
		if len(v.Rails) == 0 {
			return "The ladder is empty: put a first piece on it."
		}
		return "Nothing is being worked at: choose the next rung."
	}
	return strings.Join(parts, "; ") + "."
}

func are(of []string, one, many string) string {
	if len(of) == 1 {
		return one
	}
	return many
}

func list(words []string) string {
	if len(words) == 1 {
		return words[0]
	}
	return strings.Join(words[:len(words)-1], ", ") + " and " + words[len(words)-1]
}

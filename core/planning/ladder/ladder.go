// Package ladder lays a student's materials out as rails and rungs: what is
// learned below, what is worked at in the middle, what comes above, with the
// distance between two rungs as large as the leap.
package ladder

import (
	"slices"
	"time"

	"patientladder/core/base/civil"
	"patientladder/core/library/material"
	"patientladder/core/student/leap"
	"patientladder/core/student/standing"
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

// IsAhead says that the rung was not begun.
func (r Rung) IsAhead() bool { return r.Layer == Ahead || r.Layer == Preview }

// Rail is one strand of the ladder, lowest rung first.
type Rail struct {
	Strand material.Strand
	Rungs  []Rung
	// Reach is the comfortable leap on this strand.
	Reach leap.Reach
}

// View is the whole ladder.
type View struct {
	// Reach is the comfortable leap over all strands (see standing.Reach).
	Reach leap.Reach
	Rails []Rail
	on    func(material.Strand) leap.Reach
}

// ReachOn is the comfortable leap on a strand, whether the ladder has it or not.
func (v View) ReachOn(strand material.Strand) leap.Reach {
	if v.on == nil {
		return v.Reach
	}
	return v.on(strand)
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
// they were assigned, those ahead in the placed order. With near above 0 only so
// many of those ahead come on each rail, and of those learned the last.
func Draw(s *standing.Standing, lib material.Library, placed []Placed, p leap.Policy, day time.Time, near int) View {
	v := View{Reach: s.Reach(lib, "", p), on: func(strand material.Strand) leap.Reach { return s.Reach(lib, strand, p) }}
	batches := share(s, lib, placed)
	for _, strand := range material.Strands() {
		if b := batches[strand]; b != nil {
			reach := v.on(strand)
			v.Rails = append(v.Rails, Rail{strand, b.rungs(s, lib, p, day, reach.Size, near), reach})
		}
	}
	return v
}

// batch is what belongs on one rail.
type batch struct {
	done  []string
	ahead []Placed
}

// share gives every material to the rail on which it stands: what was begun in the order in which it was
// begun, what is ahead in the order of the ladder. What the library no longer holds is left out.
func share(s *standing.Standing, lib material.Library, placed []Placed) map[material.Strand]*batch {
	batches := map[material.Strand]*batch{}
	on := func(strand material.Strand) *batch {
		b := batches[strand]
		if b == nil {
			b = &batch{}
			batches[strand] = b
		}
		return b
	}
	strands := make(map[string]material.Strand, len(placed))
	for _, p := range placed {
		if _, twice := strands[p.Material]; twice {
			continue
		}
		strands[p.Material] = p.Strand
		if _, known := lib[p.Material]; !known {
			continue
		}
		if m := s.Materials[p.Material]; m == nil || m.State == standing.Heard {
			b := on(p.Strand)
			b.ahead = append(b.ahead, p)
		}
	}
	for _, id := range s.In(standing.Working, standing.Resting, standing.Cleared, standing.Polished) {
		m, known := lib[id]
		if !known {
			continue
		}
		strand, stands := strands[id]
		if !stands {
			strand = m.Strand
		}
		b := on(strand)
		b.done = append(b.done, id)
	}
	return batches
}

// rungs are those of a rail, with near above 0 only those near. How hard one is of which nobody knows the demands is guessed
// from its neighbours on the whole rail, near or not, so that it is the same in both.
func (b *batch) rungs(s *standing.Standing, lib material.Library, p leap.Policy, day time.Time, reach float64, near int) []Rung {
	seen := b
	if near > 0 {
		seen = b.near(s, near)
	}
	rungs := seen.drawn(s, lib, p, day)
	unknown := func(r Rung) bool { return r.Leap.Unknown }
	if len(rungs) < len(b.done)+len(b.ahead) && slices.ContainsFunc(rungs, unknown) {
		kept := make(map[string]bool, len(rungs))
		for _, r := range rungs {
			kept[r.Material.ID] = true
		}
		rungs = b.drawn(s, lib, p, day)
		guess(rungs, p)
		rungs = slices.DeleteFunc(rungs, func(r Rung) bool { return !kept[r.Material.ID] })
	} else {
		guess(rungs, p)
	}
	for i := range rungs {
		if rungs[i].Leap.Unknown {
			continue // nobody knows whether it is a cliff
		}
		rungs[i].Cliff = leap.Beyond(rungs[i].Leap.Size, reach) && rungs[i].Aside != Skipped
		rungs[i].Plateau = rungs[i].Leap.Size < reach/4
	}
	return rungs
}

// near is what of a rail is in work, the last one that was learned, and the first n of those ahead.
func (b *batch) near(s *standing.Standing, n int) *batch {
	out := &batch{ahead: b.ahead[:min(n, len(b.ahead))]}
	for i, id := range b.done {
		if state := s.Materials[id].State; i == len(b.done)-1 || state == standing.Working || state == standing.Resting {
			out.done = append(out.done, id)
		}
	}
	return out
}

// drawn are the rungs with the leaps that are known.
func (b *batch) drawn(s *standing.Standing, lib material.Library, p leap.Policy, day time.Time) []Rung {
	rungs := make([]Rung, 0, len(b.done)+len(b.ahead))
	ability := s.Ability.Copy()
	for _, id := range b.done {
		rungs = append(rungs, learned(s.Materials[id], lib[id], p, day, s.Day))
		if s.Materials[id].State == standing.Working {
			ability.Clear(lib[id])
		}
	}
	for _, pl := range b.ahead {
		m := lib[pl.Material]
		r := Rung{Material: m, Layer: Ahead, Leap: p.Of(m, ability), Aside: pl.Aside}
		if planted(r.Leap) {
			r.Layer = Preview
		}
		rungs = append(rungs, r)
		if r.Aside == "" {
			ability.Clear(m)
		}
	}
	return rungs
}

// guess gives the rungs of which nobody knows the demands the leap of their neighbours.
func guess(rungs []Rung, p leap.Policy) {
	for i := range rungs {
		if rungs[i].Leap.Unknown {
			rungs[i].Leap = p.Unknown(neighbours(rungs, i)...)
		}
	}
}

// nearby is how many places in a book a neighbour may lie away (default).
const nearby = 3

// neighbours are the leaps of the known rungs near one in its book, those of its rail where the book has none.
func neighbours(rungs []Rung, i int) []float64 {
	var book, rail []float64
	for k, r := range rungs {
		if r.Leap.Unknown || k == i {
			continue
		}
		if away := k - i; away <= nearby && away >= -nearby {
			rail = append(rail, r.Leap.Size)
		}
		m, here := r.Material, rungs[i].Material
		if away := m.Order - here.Order; m.SourceID != "" && m.SourceID == here.SourceID && away <= nearby && away >= -nearby {
			book = append(book, r.Leap.Size)
		}
	}
	if len(book) > 0 {
		return book
	}
	return rail
}

func learned(m *standing.MaterialStanding, lib material.Material, p leap.Policy, day time.Time, on func(time.Time) civil.Day) Rung {
	r := Rung{Material: lib, Layer: Review, Standing: m}
	if m.Before != nil {
		r.Leap = p.Over(&lib, m.Before.Brought)
	} else { // it was never begun here: nobody knows what it was for the student then
		r.Leap = leap.Leap{Unknown: true}
	}
	until := on(m.ClearedAt)
	switch m.State {
	case standing.Working:
		r.Layer, until = Now, civil.On(day)
	case standing.Resting:
		r.Layer, r.Aside, until = Now, Paused, m.PausedOn
	}
	if !m.Assigned.IsZero() {
		r.Weeks = max(1, (int(until-on(m.Assigned))-m.Rested+6)/7)
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

// Summary is what stands out on a ladder, by material in the order of the rails.
type Summary struct {
	// RunDue are the working pieces whose run is due, Working the others.
	RunDue, Working []string
	// Cliffs are the next rungs of their strands that lie beyond a comfortable leap.
	Cliffs []string
	// Empty says that there is nothing on the ladder at all.
	Empty bool
}

// Summary says what stands out. The first rung of a strand is no cliff: every beginning is large.
func (v View) Summary() Summary {
	out := Summary{Empty: len(v.Rails) == 0}
	for _, rail := range v.Rails {
		for i, r := range rail.Rungs {
			id := r.Material.ID
			switch {
			case r.Aside != "":
			case r.Layer == Now && r.Standing.RunDue:
				out.RunDue = append(out.RunDue, id)
			case r.Layer == Now:
				out.Working = append(out.Working, id)
			case r.Cliff && r.IsAhead() && i > 0 && !rail.Rungs[i-1].IsAhead():
				out.Cliffs = append(out.Cliffs, id)
			}
		}
	}
	return out
}

// Whole is a material as it is put onto a ladder: by its sections where it is split.
func Whole(lib material.Library, m material.Material) []Placed {
	out := []Placed{}
	for _, x := range lib.Sections(m.ID) {
		out = append(out, Placed{Material: x.ID, Strand: x.Strand})
	}
	if len(out) == 0 {
		out = append(out, Placed{Material: m.ID, Strand: m.Strand})
	}
	return out
}

// Missing are those of some rungs that do not stand on a ladder.
func Missing(placed, wanted []Placed) []Placed {
	return slices.DeleteFunc(slices.Clone(wanted), func(w Placed) bool {
		return slices.ContainsFunc(placed, func(p Placed) bool { return p.Material == w.Material })
	})
}

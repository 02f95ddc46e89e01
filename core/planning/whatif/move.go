// Package whatif says what something else would do to a student before it is done: another order of the rungs, a date, a break, another
// way of teaching.
package whatif

import (
	"fmt"
	"math"
	"slices"
	"time"

	"patientladder/core/base/calendar"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/outlook"
	"patientladder/core/planning/studentplan"
)

// Refused is why an order of rungs cannot be.
type Refused string

// The reasons.
const (
	Unknown      Refused = "unknown"      // there is no such material
	Twice        Refused = "twice"        // it stands there twice
	OtherPlayer  Refused = "otherPlayer"  // it is for another instrument
	BegunAlready Refused = "begunAlready" // it has been begun; its place is history
)

// OrderError says which rung of a wanted order cannot stand there.
type OrderError struct {
	Kind     Refused
	Material string
	// Place counts from 1.
	Place int
}

func (e OrderError) Error() string {
	return fmt.Sprintf("rung %d, %s: %s", e.Place, e.Material, e.Kind)
}

// Arranged is a new order of the rungs: what was begun as it was, then what is wanted.
func Arranged(a studentplan.StudentOutlook, wanted []ladder.Placed) ([]ladder.Placed, error) {
	var out []ladder.Placed
	for _, p := range a.Placed {
		if a.Begun(p.Material) {
			out = append(out, p)
		}
	}
	seen := map[string]bool{}
	for i, w := range wanted {
		m, known := a.Library[w.Material]
		refuse := func(kind Refused) ([]ladder.Placed, error) { return nil, OrderError{kind, w.Material, i + 1} }
		switch {
		case !known:
			return refuse(Unknown)
		case seen[w.Material]:
			return refuse(Twice)
		case m.Instrument != a.Instrument:
			return refuse(OtherPlayer)
		case a.Begun(w.Material):
			return refuse(BegunAlready)
		}
		seen[w.Material] = true
		out = append(out, w)
	}
	return out, nil
}

// Effect is what kind of thing another order changes.
type Effect string

// The kinds, each for better or for worse but the last.
const (
	LeapChanged    Effect = "leap"    // a rung becomes a cliff, or is none any more
	PreviewChanged Effect = "preview" // a preview turns late, or comes in time
	TargetChanged  Effect = "target"  // the chance of a target changes
	DateChanged    Effect = "date"    // a rung begins at another time
)

// Consequence is one thing that another order changes. Which fields are set follows from the kind.
type Consequence struct {
	Kind     Effect
	Material string
	Worse    bool
	// Before and After are leaps, or chances from 0 to 1.
	Before, After float64
	// Reach is the comfortable leap.
	Reach float64
	// Skill whose preview changes, and by how many lessons it is late now.
	Skill string
	Late  int
	// Target is the name of the target.
	Target string
	// From and To are the days about which a rung begins.
	From, To time.Time
}

// Target is a piece that should be ready on a day.
type Target struct {
	ID, Name string
	Day      time.Time
	Material string
}

// mostConsequences is how many changes are listed (default).
const mostConsequences = 8

// Consequences says what another order changes, what becomes worse first and dates last; at
// most eight.
func Consequences(previous, then *studentplan.StudentOutlook, targets []Target) []Consequence {
	var out []Consequence
	out = append(out, leapsChanged(previous, then)...)
	out = append(out, previewsChanged(previous, then)...)
	for _, t := range targets {
		a, errA := Work(previous, t)
		b, errB := Work(then, t)
		if errA == nil && errB == nil && hundredths(a.Chance) != hundredths(b.Chance) {
			out = append(
				out,
				Consequence{Kind: TargetChanged, Material: t.Material, Worse: b.Chance < a.Chance, Before: a.Chance, After: b.Chance, Target: t.Name},
			)
		}
	}
	out = append(out, datesChanged(previous, then)...)
	slices.SortStableFunc(out, func(a, b Consequence) int { return a.rank() - b.rank() })
	return out[:min(len(out), mostConsequences)]
}

// hundredths is a chance as it is shown.
func hundredths(p float64) int { return int(math.Round(100 * p)) }

// rank puts what is worse first, and dates last.
func (c Consequence) rank() int {
	switch {
	case c.Kind == DateChanged:
		return 2
	case c.Worse:
		return 0
	}
	return 1
}

func leapsChanged(previous, then *studentplan.StudentOutlook) (out []Consequence) {
	before := map[string]ladder.Rung{}
	for _, r := range rungsAhead(previous) {
		before[r.Material.ID] = r
	}
	for _, r := range rungsAhead(then) {
		id := r.Material.ID
		old, there := before[id]
		c := Consequence{Kind: LeapChanged, Material: id, Before: old.Leap.Size, After: r.Leap.Size, Reach: then.View.ReachOn(r.Material.Strand).Size}
		switch {
		case r.Cliff && (!there || !old.Cliff):
			c.Worse = true
			out = append(out, c)
		case there && old.Cliff && !r.Cliff && r.Aside == "":
			out = append(out, c)
		}
	}
	return out
}

func previewsChanged(previous, then *studentplan.StudentOutlook) (out []Consequence) {
	late := map[string]int{}
	for _, o := range previous.Plan.Outcomes {
		late[o.Skill] = o.Late()
	}
	for _, o := range then.Plan.Outcomes {
		c := Consequence{Kind: PreviewChanged, Material: o.For, Skill: o.Skill, Late: o.Late()}
		switch {
		case c.Late > late[o.Skill]:
			c.Worse = true
			out = append(out, c)
		case c.Late == 0 && late[o.Skill] > 0:
			out = append(out, c)
		}
	}
	return out
}

func datesChanged(previous, then *studentplan.StudentOutlook) (out []Consequence) {
	for _, r := range rungsAhead(then) {
		x, had := previous.When[r.Material.ID]
		y, has := then.When[r.Material.ID]
		if had && has && x.Begin.Median != y.Begin.Median {
			out = append(
				out,
				Consequence{
					Kind:     DateChanged,
					Material: r.Material.ID,
					From:     previous.Lessons.Day(x.Begin.Median),
					To:       then.Lessons.Day(y.Begin.Median),
				},
			)
		}
	}
	return out
}

// rungsAhead lists the rungs that were not begun, strand by strand.
func rungsAhead(a *studentplan.StudentOutlook) []ladder.Rung {
	var out []ladder.Rung
	for _, rail := range a.View.Rails {
		for _, r := range rail.Rungs {
			if !a.Begun(r.Material.ID) {
				out = append(out, r)
			}
		}
	}
	return out
}

// Work works a target backwards by the way of teaching.
func Work(a *studentplan.StudentOutlook, t Target) (outlook.Verdict, error) {
	return a.Target(outlook.Target{Material: t.Material, Date: t.Day, Polish: a.Policy.PolishWeeks, Sure: a.Policy.Sure})
}

// mostDrops is how many rungs are named whose leaving out would help a target (default), and
// helps is by how much it must (default).
const (
	mostDrops = 4
	helps     = 0.005
)

// Helpful are the rungs whose leaving out would help a target most, the best first.
func Helpful(v outlook.Verdict) []outlook.Drop {
	drops := slices.Clone(v.Drops[:min(len(v.Drops), mostDrops)])
	return slices.DeleteFunc(drops, func(d outlook.Drop) bool { return d.Chance <= v.Chance+helps })
}

// HolidayLoss is a holiday with the lessons that it takes.
type HolidayLoss struct {
	calendar.Holiday
	Lessons int
}

// HolidayLosses are the holidays that begin by a day and take lessons of the student.
func HolidayLosses(a *studentplan.StudentOutlook, by time.Time) (out []HolidayLoss) {
	table := a.Student.Timetable()
	table.Holidays = nil
	plain := table.From(a.Lessons.Day(0))
	for _, h := range a.Holidays {
		if h.Student != "" && h.Student != a.Profile.Student {
			continue
		}
		lost := plain.Until(h.Last) - plain.Until(h.First.AddDate(0, 0, -1))
		if lost > 0 && !h.First.After(by) {
			out = append(out, HolidayLoss{h, lost})
		}
	}
	return out
}

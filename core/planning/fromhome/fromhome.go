// Package fromhome reads what home showed of what a week had set: what came easily, what was hard or fell short, and what was
// left alone. A tick is evidence, weaker than a teacher's ear. What a family does not say is not known: a week of which nothing
// was reported says nothing of anything.
package fromhome

import (
	"slices"
	"time"

	"patientladder/core/planning/week"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
)

// Outcome is what home showed of one thing.
type Outcome string

// The outcomes, those that a teacher looks at first before the others.
const (
	Hard  Outcome = "hard"  // it was called hard on days enough
	Short Outcome = "short" // far fewer times than were set, on days enough
	Left  Outcome = "left"  // nobody touched it, though other things were done
	Easy  Outcome = "easy"  // done on all its days, in full, and never hard
	Going Outcome = "going" // anything else
)

var order = []Outcome{Hard, Short, Left, Going, Easy}

const (
	// daysEnough is on how many days a thing must be hard, short or set and untouched before that means something (default):
	// one bad day is no evidence.
	daysEnough = 2
	// farUnder is the share of the times that were set under which a count falls short (default).
	farUnder = 0.5
)

// Thing is what home showed of one thing that was set.
type Thing struct {
	// Item as it was set on its first day.
	Item week.Item
	// Days on which it was set and that have passed; Done are those of them on which it was reported, Hard and Short those on
	// which it was called hard, or fell short.
	Days, Done, Hard, Short int
	Outcome                 Outcome
}

// Of reads what the reports say of each thing of a week that was set on days before until, the outcomes that a teacher looks at
// first before the others, within one as the week has them. What is only listened to or looked at is not judged.
func Of(p week.Plan, reports []standing.Report, until time.Time) []Thing {
	said := map[string]standing.Report{}
	for _, r := range reports {
		if r.Item != "" && r.Day != "" {
			said[r.Day+" "+r.Item] = r
		}
	}
	var out []Thing
	at := map[string]int{}
	anything := false
	for _, d := range p.Days {
		if !d.Date.Before(until) {
			continue
		}
		for _, it := range d.Items {
			if it.Kind == week.Listen || it.Kind == week.Look {
				continue
			}
			i, known := at[it.Key]
			if !known {
				i = len(out)
				at[it.Key] = i
				out = append(out, Thing{Item: it})
			}
			x := &out[i]
			x.Days++
			r, done := said[d.Date.Format(time.DateOnly)+" "+it.Key]
			if !done {
				continue
			}
			anything = true
			x.Done++
			if r.Felt == studentlog.Hard {
				x.Hard++
			}
			if r.Times > 0 && float64(r.Times) < farUnder*float64(it.Times) {
				x.Short++
			}
		}
	}
	if !anything {
		return nil
	}
	for i := range out {
		out[i].Outcome = out[i].outcome()
	}
	slices.SortStableFunc(out, func(a, b Thing) int { return slices.Index(order, a.Outcome) - slices.Index(order, b.Outcome) })
	return out
}

func (x Thing) outcome() Outcome {
	switch {
	case x.Hard >= daysEnough:
		return Hard
	case x.Short >= daysEnough:
		return Short
	case x.Done == 0 && x.Days >= daysEnough:
		return Left
	case x.Days >= daysEnough && x.Done == x.Days && x.Hard == 0 && x.Short == 0:
		return Easy
	}
	return Going
}

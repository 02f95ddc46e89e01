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
	// daysEnough is on how many days a thing must be hard, short or untouched before that means something (default): one bad
	// day is no evidence, unless it was the only day.
	daysEnough = 2
	// farUnder is the share of the times that were set under which a count falls short (default).
	farUnder = 0.5
)

// Thing is what home showed of one thing that was set, with the days on which it was begun with again.
type Thing struct {
	// Item as it was set on its first day.
	Item week.Item
	// Days on which it was set and that have passed; Done are those of them on which it was reported, Hard and Short those on
	// which it was called hard, or fell short.
	Days, Done, Hard, Short int
	Outcome                 Outcome
	// Missed are the days on which other things were reported, and not this.
	Missed int
	// well are the days on which it was called fine or joyful, ahead those that have not passed.
	well, ahead int
	// doubtful says that something was hard with it.
	doubtful bool
}

// Of reads what the reports say of each thing of a week that was set on days before until, the outcomes that a teacher looks at
// first before the others, within one as the week has them. What is only listened to or looked at is not judged.
func Of(p week.Plan, reports []standing.Report, until time.Time) []Thing {
	said, days := map[string]standing.Report{}, map[string]bool{}
	for _, r := range reports {
		if r.Item != "" && r.Day != "" {
			said[r.Day+" "+r.Item] = r
		}
	}
	for _, d := range p.Days {
		date := d.Date.Format(time.DateOnly)
		days[date] = slices.ContainsFunc(d.Items, func(it week.Item) bool { _, done := said[date+" "+it.Key]; return judged(it) && done })
	}
	var out []Thing
	anything := false
	for _, d := range p.Days {
		date := d.Date.Format(time.DateOnly)
		passed := d.Date.Before(until)
		on := map[int]*onDay{}
		for _, it := range d.Items {
			if !judged(it) {
				continue
			}
			of := sought(out, it)
			if len(of) == 0 && passed {
				out = append(out, Thing{Item: it})
				of = []int{len(out) - 1}
			}
			r, done := said[date+" "+it.Key]
			wasHard := func(i int) bool { return out[i].Hard > 0 || on[i] != nil && on[i].hard }
			known := slices.ContainsFunc(of, wasHard)
			for _, i := range of {
				own, r := out[i].Item.Key == it.Key, r
				if !own && known && r.Felt == studentlog.Hard && !wasHard(i) {
					r.Felt, out[i].doubtful = "", true // what is hard of several is what was called hard before
				}
				if on[i] == nil {
					on[i] = &onDay{}
				}
				on[i].add(it, r, own, done)
			}
			anything = anything || passed && done
		}
		for i, x := range on {
			if passed {
				out[i].day(*x, days[date])
			} else if x.own {
				out[i].ahead++
			}
		}
	}
	if !anything {
		return nil
	}
	for i := range out {
		out[i].Outcome = out[i].outcome()
	}
	untouched(out)
	alike(out)
	slices.SortStableFunc(out, func(a, b Thing) int { return slices.Index(order, a.Outcome) - slices.Index(order, b.Outcome) })
	return out
}

func judged(it week.Item) bool {
	return it.Kind != week.Listen && it.Kind != week.Look && it.Kind != week.Hear
}

// sought are the things that an item is about: the same one of an earlier day, or the steps that lie in what is begun with again.
func sought(things []Thing, it week.Item) (out []int) {
	for i, x := range things {
		again := it.Kind == week.Again && it.Material == x.Item.Material && it.Hand == x.Item.Hand && x.Item.Kind != week.Again &&
			it.Bars.From <= x.Item.Bars.From && x.Item.Bars.To <= it.Bars.To
		if x.Item.Key == it.Key || again {
			out = append(out, i)
		}
	}
	return out
}

// onDay is what was said of a thing on one day, however often the day had it.
type onDay struct {
	// own says that the thing itself was set, and not only begun with again; done that it was reported.
	own, done         bool
	hard, short, well bool
}

func (x *onDay) add(it week.Item, r standing.Report, own, done bool) {
	x.own, x.done = x.own || own, x.done || done
	if !done {
		return
	}
	switch r.Felt {
	case studentlog.Hard:
		x.hard = true
	case studentlog.Fine, studentlog.Joyful:
		x.well = true
	}
	x.short = x.short || r.Times > 0 && float64(r.Times) < farUnder*float64(it.Times)
}

// day adds a day that has passed; others says that anything at all was reported on it. Beginning with a thing again is no day of its
// own unless it was done.
func (x *Thing) day(d onDay, others bool) {
	if d.own || d.done {
		x.Days++
	}
	if !d.done {
		if others {
			x.Missed++
		}
		return
	}
	x.Done++
	switch {
	case d.hard:
		x.Hard++
	case d.well:
		x.well++
	}
	if d.short {
		x.Short++
	}
}

func (x Thing) outcome() Outcome {
	over := x.ahead == 0
	// Of what went on well after all, two bad days say nothing.
	enough := func(n int) bool { return n > 0 && 2*n >= x.Done && (n >= daysEnough || over && n == x.Days) }
	switch {
	case enough(x.Hard):
		return Hard
	case enough(x.Short):
		return Short
	case x.Done == 0 && x.Missed >= daysEnough:
		return Left
	case over && x.Done == x.Days && x.well > 0 && x.Hard == 0 && x.Short == 0 && !x.doubtful:
		return Easy
	}
	return Going
}

// untouched makes all of a piece left alone of which nothing was done on days enough, though each step had its own day.
func untouched(things []Thing) {
	done, missed := map[string]int{}, map[string]int{}
	for _, x := range things {
		done[x.Item.Material] += x.Done
		missed[x.Item.Material] += x.Missed
	}
	for i := range things {
		if id := things[i].Item.Material; done[id] == 0 && missed[id] >= daysEnough {
			things[i].Outcome = Left
		}
	}
}

// alike lets nothing be easy where everything was reported on all its days, and well: whoever ticks everything alike does not say what
// came easily.
func alike(things []Thing) {
	if slices.ContainsFunc(things, func(x Thing) bool {
		return x.Done < x.Days || x.Missed > 0 || x.Hard > 0 || x.Short > 0 || x.well < x.Done
	}) {
		return
	}
	for i := range things {
		if things[i].Outcome == Easy {
			things[i].Outcome = Going
		}
	}
}

// Narrowed are things as a teacher is told of them: what was hard or fell short of a piece stands once, and of some bars and a part of
// them the part, which is where she looks. A thing without bars is the whole piece.
func Narrowed(things []Thing) (out []Thing) {
	holds := func(x, y Thing) bool {
		a, b := x.Item.Bars, y.Item.Bars
		return a.From == 0 || b.From > 0 && a.From <= b.From && b.To <= a.To
	}
	for i, x := range things {
		told := false
		for k, y := range things {
			same := y.Item.Material == x.Item.Material && y.Outcome == x.Outcome && (x.Outcome == Hard || x.Outcome == Short)
			told = told || k != i && same && holds(x, y) && (k < i || !holds(y, x))
		}
		if !told {
			out = append(out, x)
		}
	}
	return out
}

package outlook

import (
	"fmt"
	"time"

	"patientladder/core/library/material"
	"patientladder/core/planning/forecast"
	"patientladder/core/planning/ladder"
)

// Target is a date by which a piece should be ready to be performed.
type Target struct {
	Material string
	Date     time.Time
	// Polish is how many weeks lie between clearing it and performing it.
	Polish int
	// Sure is the chance that is asked for, 0 to 1.
	Sure float64
}

// Drop is what leaving one rung out would do.
type Drop struct {
	Material string
	Chance   float64
}

// Verdict is a target worked backwards.
type Verdict struct {
	// Lessons up to the date, and what is left of them after the polishing.
	Lessons int
	// Chance of being ready as the ladder stands, 0 to 1.
	Chance float64
	// Begins is when it would begin as the ladder stands; Begun says that it has.
	Begins forecast.Span
	Begun  bool
	// LatestStart is the latest lesson to begin it and still be as sure as asked;
	// Possible is false when even the next lesson is too late.
	LatestStart int
	Possible    bool
	// Straight is the chance when it begins in the next lesson, before everything else on its strand.
	Straight float64
	// Drops are the rungs before it, the one whose leaving out helps most first.
	Drops []Drop
	// WithoutTwo is the chance when the lessons of two more weeks fall out.
	WithoutTwo float64
}

// Target works a date backwards. It refuses a date that lies before the day of
// the outlook, and a material that is not in work or ahead.
func (o *Outlook) Target(t Target) (Verdict, error) {
	m := o.in.Library[t.Material]
	if t.Date.Before(o.in.Day) {
		return Verdict{}, fmt.Errorf("%s is in the past", t.Date.Format("2 January 2006"))
	}
	w, on := o.When[t.Material]
	if !on {
		if s := o.in.Standing.Materials[t.Material]; s != nil && !s.ClearedAt.IsZero() {
			return Verdict{}, fmt.Errorf("“%s” is learned already: keep it in review", m.Title)
		}
		return Verdict{}, fmt.Errorf("“%s” is not ahead on this ladder, or stands aside", m.Title)
	}
	v := Verdict{Lessons: o.in.Lessons.Until(t.Date), Begins: w.Begin}
	by := v.Lessons - 1 // the last lesson before the day, counted from 0
	v.Chance = forecast.Ready(w.Course.Clear, t.Polish, by)
	v.WithoutTwo = forecast.Ready(w.Course.Clear, t.Polish, by-2)
	before := o.before(t.Material)
	if s := o.in.Standing.Materials[t.Material]; s != nil && !s.Assigned.IsZero() {
		v.Begun, v.Possible, v.Straight = true, true, v.Chance
		return v, nil
	}
	straight := o.without(before, t.Material, false)
	v.Straight = forecast.Ready(straight.Course.Clear, t.Polish, by)
	v.LatestStart, v.Possible = forecast.LatestStart(straight.Course, t.Polish, by, t.Sure)
	for _, id := range before {
		d := Drop{id, forecast.Ready(o.without([]string{id}, t.Material, true).Course.Clear, t.Polish, by)}
		at := len(v.Drops)
		for at > 0 && v.Drops[at-1].Chance < d.Chance {
			at--
		}
		v.Drops = append(v.Drops[:at], append([]Drop{d}, v.Drops[at:]...)...)
	}
	return v, nil
}

// before lists the rungs ahead that come before a material on its strand.
func (o *Outlook) before(id string) []string {
	for _, rail := range o.View.Rails {
		var out []string
		for _, r := range rail.Rungs {
			if r.Material.ID == id {
				return out
			}
			if (r.Layer == ladder.Ahead || r.Layer == ladder.Preview) && r.Aside == "" {
				out = append(out, r.Material.ID)
			}
		}
	}
	return nil
}

// without is when a material comes when other rungs of its strand are skipped;
// what they would have taught is then new in it. Planted says that an idle strand
// waits for its previews, as it does on the ladder.
func (o *Outlook) without(skip []string, id string, planted bool) When {
	in := o.in
	in.Placed = append([]ladder.Placed(nil), in.Placed...)
	gone := map[string]bool{}
	for _, s := range skip {
		gone[s] = true
	}
	var strand material.Strand
	for i, p := range in.Placed {
		if gone[p.Material] {
			in.Placed[i].Aside = ladder.Skipped
		}
		if p.Material == id {
			strand = p.Strand
		}
	}
	other := in.drawn()
	rails := other.View.Rails
	for _, rail := range rails {
		if rail.Strand == strand {
			other.View.Rails = []ladder.Rail{rail}
		}
	}
	other.dates()
	if planted {
		other.settle()
	}
	return other.When[id]
}

// HasToBegin is the lesson in which a piece must be begun at the latest; not for one that is begun, nor where even the next
// lesson is too late.
func (v Verdict) HasToBegin() (lesson int, ok bool) {
	return v.LatestStart, !v.Begun && v.Possible
}

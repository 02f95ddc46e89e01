package inweek

import (
	"slices"
	"time"

	"patientladder/core/base/civil"
	"patientladder/core/planning/fromhome"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
	"patientladder/core/student/standing"
)

// Before is what the week before one left: what home showed of each thing that was set in it, and the steps that had come
// easily in the weeks before that.
type Before struct {
	Shown []fromhome.Thing
	There []week.Step
	// Resting are the materials that rest until the teacher has answered a note that may be about pain.
	Resting map[string]time.Time
}

// BeforeOf is what the latest week before a day left; nothing where that one was over a week before the day.
func BeforeOf(s studentplan.Student, weeks []studentplan.SetWeek, reports []standing.Report, day time.Time) Before {
	w, ok := weekBefore(s, weeks, day)
	if !ok {
		return Before{}
	}
	return Before{Shown: showed(s, w, reports, day), There: w.Plan.There}
}

// weekBefore is the latest week before a day.
func weekBefore(s studentplan.Student, weeks []studentplan.SetWeek, day time.Time) (studentplan.SetWeek, bool) {
	of := -1
	for i, w := range weeks {
		if w.Start.Before(day) && (of < 0 || w.Start.After(weeks[of].Start)) {
			of = i
		}
	}
	if of < 0 || civil.Between(weeks[of].Start, day) > s.WeekDays(weeks[of].Start)+week.Days {
		return studentplan.SetWeek{}, false
	}
	return weeks[of], true
}

func showed(s studentplan.Student, w studentplan.SetWeek, reports []standing.Report, day time.Time) []fromhome.Thing {
	until := day
	if tomorrow := s.Today.AddDate(0, 0, 1); until.After(tomorrow) {
		until = tomorrow
	}
	home := slices.DeleteFunc(slices.Clone(reports), func(r standing.Report) bool { return !r.FromHome })
	return fromhome.Of(w.Plan, home, until)
}

// HomeEffect is what comes of something that home showed.
type HomeEffect string

// The effects.
const (
	LeftOutOfWeek HomeEffect = "left-out" // it came easily and is not set again
	InHalves      HomeEffect = "halves"   // it was hard: first, in halves and a mark slower
	OneMarkSlower HomeEffect = "slower"   // it was hard and is one bar: first, and a mark slower
)

// AfterHome is something that home showed and what comes of it in the week after.
type AfterHome struct {
	fromhome.Thing
	Effect HomeEffect
	// Slower is how many marks of the metronome below the usual it is practised now, where it was hard.
	Slower int
	// Aside says that the teacher does not let it count this week.
	Aside bool
}

var outcomes = map[fromhome.Outcome]week.Outcome{
	fromhome.Easy: week.CameEasily, fromhome.Hard: week.WasHard, fromhome.Short: week.WasHard,
}

// shown is what counts for the steps of a piece; what is set aside by hand does not.
func (b Before) shown(id string, h week.Hand) (out []week.Shown) {
	for _, x := range b.Shown {
		if to, changes := outcomes[x.Outcome]; changes && x.Item.Material == id && !slices.Contains(h.Aside, x.Item.Key) {
			out = append(out, week.Shown{Bars: x.Item.Bars, Hand: x.Item.Hand, Outcome: to, Slower: x.Item.Slower})
		}
	}
	for _, s := range b.There {
		if s.Material == id && !slices.ContainsFunc(out, func(x week.Shown) bool { return x.Bars == s.Bars && x.Hand == s.Hand }) {
			out = append(out, week.Shown{Bars: s.Bars, Hand: s.Hand, Outcome: week.CameEasily})
		}
	}
	return out
}

// consequences are what comes of what home showed of a working piece that is learned step by step.
func (b Before) consequences(in week.Input, w week.Work, h week.Hand) (out []AfterHome) {
	if w.Tree == nil || w.RunDue {
		return nil
	}
	for _, x := range b.Shown {
		to, changes := outcomes[x.Outcome]
		aside := slices.Contains(h.Aside, x.Item.Key)
		switch {
		case !changes || x.Item.Material != w.Material.ID || x.Item.Bars.From == 0:
			continue
		case to == week.CameEasily && (x.Item.Kind == week.Again || !in.Step(w, x.Item)):
			continue // another hand plays now
		case to == week.WasHard && !aside && !in.Hard(w, x.Item):
			continue
		}
		a := AfterHome{Thing: x, Effect: LeftOutOfWeek, Slower: x.Item.Slower + 1, Aside: aside}
		if to == week.WasHard {
			if a.Effect = OneMarkSlower; x.Item.Bars.Halved() {
				a.Effect = InHalves
			}
		}
		out = append(out, a)
	}
	return out
}

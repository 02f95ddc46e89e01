package withfamily

import (
	"slices"
	"time"

	"patientladder/core/base/civil"
	"patientladder/core/planning/fromhome"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
	"patientladder/core/student/enjoyment"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
)

// SetDays are the days on which practice was set in published weeks, as they fall now: where a lesson fell out, its week went on.
func SetDays(s studentplan.Student, weeks []week.SetDays) []week.SetDays {
	out := make([]week.SetDays, len(weeks))
	for i, w := range weeks {
		out[i] = w.Stretched(s.WeekDays(w.Start))
	}
	return out
}

// PractisedOn is the day, as 2026-05-05, on which a report says that there was practice; empty for none. What a family
// says was played first was practised.
func PractisedOn(s studentplan.Studio, r standing.Report) string {
	if r.FromHome && r.Sign == studentlog.PlayedFirst {
		return s.Local(r.At).Format(time.DateOnly)
	}
	return r.Day
}

// WasSet are the materials that the latest week before the day of a lesson had set, in the order in which they come in it.
func WasSet(weeks []studentplan.SetWeek, day time.Time) (out []string) {
	var of studentplan.SetWeek
	for _, w := range weeks {
		if w.Start.Before(day) {
			of = w
		}
	}
	for _, d := range of.Plan.Days {
		for _, it := range d.Items {
			if it.Material != "" && !slices.Contains(out, it.Material) {
				out = append(out, it.Material)
			}
		}
	}
	return out
}

// Evidence counts what came from home, and was shown of liking, in the last eight weeks.
func Evidence(s studentplan.Student, weeks []week.SetDays) enjoyment.Evidence {
	set := week.DaysSet(SetDays(s, weeks), s.Today.AddDate(0, 0, -standing.HomeDays), s.Today.AddDate(0, 0, -1))
	e := enjoyment.Evidence{Set: len(set)}
	practised := map[string]bool{}
	for _, h := range s.Standing.Home {
		switch h.Sign {
		case studentlog.PlayedFirst, studentlog.AskedFor, studentlog.Unasked, studentlog.Liked:
			e.Liked++
		case studentlog.Disliked:
			e.Disliked++
		}
		switch h.Felt {
		case studentlog.Joyful:
			e.Joyful++
		case studentlog.Fine:
			e.Fine++
		case studentlog.Hard:
			e.Hard++
		}
		if day := PractisedOn(s.Studio, h); set[day] {
			practised[day] = true
		}
	}
	e.Practised = len(practised)
	return e
}

// Balanced is a student's practice against enjoyment.
type Balanced struct {
	Ladder, Name string
	enjoyment.Balance
}

// Balance sets practice against enjoyment for every student of whom anything is known, the quiet ones
// first, then those who drift away; the others keep their order.
func Balance(students []studentplan.Student, weeks map[string][]week.SetDays) []Balanced {
	var out []Balanced
	for _, s := range students {
		if e := Evidence(s, weeks[s.Ladder]); e != (enjoyment.Evidence{}) {
			out = append(out, Balanced{s.Ladder, s.Name, enjoyment.Of(e)})
		}
	}
	slices.SortStableFunc(out, func(a, b Balanced) int { return b.Kind.Notice() - a.Kind.Notice() })
	return out
}

// Home is what came from home since a week was set.
type Home struct {
	// Days on which practice was set and that have come; Practised are those on which something was reported.
	Days, Practised int
	// More are the days on which nothing was set and something was reported.
	More int
	// Joyful, Fine and Hard count how it felt.
	Joyful, Fine, Hard int
	// First are the materials that were played first, in order and once each.
	First []string
	// Shown is what home showed of each thing that was set.
	Shown []fromhome.Thing
	// Hurts are the notes that may be about pain and are not answered.
	Hurts []string
	// Also is what was played beside what was set, Asked are questions and wishes that wait for the teacher.
	Also  []string
	Asked []Note
}

// HomeOf says of reports and notes what came from home before a day, since the latest week that was published before
// it; ok is false where that one was over a week before the day, and nothing waits.
func HomeOf(s studentplan.Student, reports []standing.Report, weeks []week.SetDays, notes []Note, day time.Time) (out Home, ok bool) {
	for _, n := range notes {
		switch {
		case n.Open() && n.Hurts():
			out.Hurts = append(out.Hurts, n.Text)
		case n.Open():
			out.Asked = append(out.Asked, n)
		}
	}
	from := time.Time{}
	for _, w := range weeks {
		if w.Start.Before(day) {
			from = w.Start
		}
	}
	if from.IsZero() || civil.Between(from, day) > s.WeekDays(from)+week.Days {
		return out, len(out.Asked)+len(out.Hurts) > 0
	}
	for _, n := range notes {
		if n.Kind == AlsoPlayed && !n.Day.Before(from) && !n.Day.After(day) {
			if !n.Open() { // what may be about pain is told above
				out.Also = append(out.Also, n.Text)
			}
		}
	}
	last := day.AddDate(0, 0, -1)
	if last.After(s.Today) {
		last = s.Today
	}
	set := week.DaysSet(SetDays(s, weeks), from, last)
	out.Days = len(set)
	practised := map[string]bool{}
	for _, h := range reports {
		if !h.FromHome || s.Local(h.At).Before(from) {
			continue
		}
		if day := PractisedOn(s.Studio, h); day != "" {
			practised[day] = true
		}
		if h.Sign == studentlog.PlayedFirst {
			if !slices.Contains(out.First, h.Material) {
				out.First = append(out.First, h.Material)
			}
			continue
		}
		switch h.Felt {
		case studentlog.Joyful:
			out.Joyful++
		case studentlog.Fine:
			out.Fine++
		case studentlog.Hard:
			out.Hard++
		}
	}
	for day := range practised {
		if set[day] {
			out.Practised++
		} else {
			out.More++
		}
	}
	return out, true
}

// HomeTick is one thing that a family ticked: done, or chosen to be played first.
type HomeTick struct {
	ID string
	At time.Time
	// Day is that of practice, zero where it was not said.
	Day time.Time
	// Item is the key of what was done, or the material that was played first.
	Item  string
	First bool
	Times int
	Felt  studentlog.Feeling
}

// Ticks are what a family ticked in the last weeks, in order. What the teacher saw of liking is not among them.
func Ticks(s studentplan.Student) (out []HomeTick) {
	for _, h := range s.Standing.Home {
		if !h.FromHome {
			continue
		}
		t := HomeTick{ID: h.ID, At: h.At, Item: h.Item, Times: h.Times, Felt: h.Felt}
		switch h.Sign {
		case "":
			t.Day, _ = time.Parse(time.DateOnly, h.Day)
		case studentlog.PlayedFirst:
			t.First, t.Day, t.Item = true, s.Local(h.At), h.Material
		default:
			continue
		}
		out = append(out, t)
	}
	return out
}

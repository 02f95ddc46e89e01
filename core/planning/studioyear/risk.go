package studioyear

import (
	"cmp"
	"slices"
	"time"

	"patientladder/core/base/calendar"
	"patientladder/core/base/civil"
	"patientladder/core/planning/progress"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/withfamily"
	"patientladder/core/student/enjoyment"
	"patientladder/core/student/standing"
)

// Why is the kind of a reason to talk.
type Why string

// The kinds, the gravest first.
const (
	Gone     Why = "gone"     // no lesson was entered for some weeks in which there were lessons
	Missed   Why = "missed"   // many lessons fell out
	Stuck    Why = "stuck"    // a piece takes longer than nine of ten do
	Unplayed Why = "practice" // few of the days that were set were practised
	Joyless  Why = "joy"      // little of what came from home was joyful
)

// Reason is one of them with its figures.
type Reason struct {
	Why Why
	// N goes with it: the weeks without a lesson, the lessons that fell out, the weeks of the piece, the practised days; Of
	// is what it is held against: the lessons there were, the days that were set.
	N, Of int
	// Material is the piece that is stuck.
	Material string
}

// Risk is a student to talk to.
type Risk struct {
	Ladder, Name string
	Reasons      []Reason
	// Weeks since the last lesson that was entered, holidays taken out.
	Weeks int
	// Thin says that little came from home, so that it is known from the lessons alone.
	Thin bool
}

const (
	// riskWeeks is how far is looked back, quietWeeks how many weeks without a lesson are a reason, goneWeeks how many are
	// one by themselves (defaults).
	riskWeeks, quietWeeks, goneWeeks = 8, 3, 6
	// riskLessons is from how many lessons on those that fell out are counted, riskMissed the share that is a reason (defaults).
	riskLessons, riskMissed = 4, 0.34
	// leastReasons make a student one to talk to (default): one thing alone happens to everyone.
	leastReasons = 2
	// thinSet is how many days set and reported on are little to go by (default).
	thinSet = 10
)

// talk are the students to talk to.
func (in Input) talk() []Risk {
	var out []Risk
	for _, s := range in.Students {
		if r := in.risk(s); len(r.Reasons) >= leastReasons || len(r.Reasons) > 0 && r.Reasons[0].Why == Gone && r.Reasons[0].N >= goneWeeks {
			out = append(out, r)
		}
	}
	slices.SortStableFunc(out, func(a, b Risk) int { return cmp.Or(len(b.Reasons)-len(a.Reasons), b.Weeks-a.Weeks) })
	return out
}

// risk weighs one student.
func (in Input) risk(s studentplan.Student) Risk {
	r := Risk{Ladder: s.Ladder, Name: s.Name}
	table := s.Timetable()
	if s.Standing.FirstLesson.IsZero() || s.Paused(in.Today) {
		return r
	}
	if last := s.Standing.LastLesson; !last.IsZero() {
		day := s.Local(last)
		r.Weeks = max(0, civil.Between(day, in.Today)/7-calendar.WeeksOff(day, in.Today, table.Breaks()))
		if r.Weeks >= quietWeeks {
			r.Reasons = append(r.Reasons, Reason{Why: Gone, N: r.Weeks})
		}
	}
	from := in.Today.AddDate(0, 0, -7*riskWeeks)
	planned, missed := 0, 0
	for _, l := range table.Between(from, in.Today.AddDate(0, 0, -1)) {
		fell := l.State == calendar.Cancelled || slices.Contains(s.Standing.Missed, l.Day.Format(time.DateOnly))
		if l.Held() || fell {
			planned++
		}
		if fell {
			missed++
		}
	}
	if planned >= riskLessons && float64(missed) >= riskMissed*float64(planned) {
		r.Reasons = append(r.Reasons, Reason{Why: Missed, N: missed, Of: planned})
	}
	for _, p := range progress.Way(s) {
		if p.State != standing.Working || p.Unknown || p.From.IsZero() {
			continue
		}
		if f := in.Model.Weeks(s.Ladder, p.Leap, s.Library[p.Material].DistinctBars); !f.Early() && p.Weeks > f.High {
			r.Reasons = append(r.Reasons, Reason{Why: Stuck, N: int(p.Weeks), Material: p.Material})
			break
		}
	}
	home := withfamily.Evidence(s, in.Weeks[s.Ladder])
	r.Thin = home.Set < thinSet
	b := enjoyment.Of(home)
	if home.Set > 0 && b.Practice.High < 0.5 {
		r.Reasons = append(r.Reasons, Reason{Why: Unplayed, N: home.Practised, Of: home.Set})
	}
	if b.Kind == enjoyment.Quiet || b.Kind == enjoyment.Away {
		r.Reasons = append(
			r.Reasons,
			Reason{Why: Joyless, N: home.Hard + home.Disliked, Of: home.Joyful + home.Fine + home.Hard + home.Liked + home.Disliked},
		)
	}
	return r
}

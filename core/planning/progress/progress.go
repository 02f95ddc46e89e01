// Package progress looks back: what was achieved in a span of days and when, how the pace was against what
// had been forecast, practice against what was set, and what of it grew or needs care. All of it follows from the log.
//
//	progress.go  the whole
//	span.go      the days that are looked at, and which are worth offering
//	way.go       every piece from its beginning on, for a picture
//	pace.go      ranges as they were when a piece was begun, and whether they held
//	skill.go     skills that became secure, and previews that paid
//	summary.go   what grew, what needs care
//	report.go    a report: what it says of all that, and what the teacher made of it
//	queue.go     who has a report for this term
//	achieved.go  the repertoire, and books and staircases gone through
//	programme.go a recital
package progress

import (
	"cmp"
	"slices"
	"time"

	"patientladder/core/base/calendar"
	"patientladder/core/library/material"
	"patientladder/core/planning/forecast"
	"patientladder/core/planning/inlesson"
	"patientladder/core/planning/lookback"
	"patientladder/core/planning/meeting"
	"patientladder/core/planning/outlook"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
	"patientladder/core/planning/whatif"
	"patientladder/core/planning/withfamily"
	"patientladder/core/student/memory"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
)

// Input is what a look back is made from.
type Input struct {
	studentplan.Student
	// Live is the log as it counts.
	Live []*studentlog.Entry
	// Weeks are the published ones, in order.
	Weeks []week.SetDays
	// Seen is what was cleared in the whole studio, each with the day on which it was.
	Seen []Seen
	// Targets are the dates to be ready for.
	Targets []whatif.Target
	Span    Span
}

// Progress is what was achieved in a span.
type Progress struct {
	Span Span
	// Lessons are the days of lessons in which something was recorded; Missed those that fell out and were not made up.
	Lessons []time.Time
	Missed  int
	// Way are the pieces that were in hand in the span, in the order in which they were begun.
	Way []Piece
	// Cleared and Polished are the materials that became so in the span, by day.
	Cleared, Polished []Piece
	// Secure are the skills that became so, by day.
	Secure []Gain
	// Plantings are the skills that were planted before a piece of the span needed them, by the day of its beginning.
	Plantings []Planting
	// Ear are the stairs of ear and rhythm that were climbed.
	Ear []meeting.Climbed
	// Habits are the travelling focus points that became one in the span.
	Habits []Habit
	Review Review
	// Practice at home against what was set.
	Practice Practice
	// Pace are the last twenty ranges until the end of the span.
	Pace Pace
	// Stays are the pieces that took longest, with the reasons.
	Stays []Stay
	// Plans are the dates to be ready for that lay in the span.
	Plans []Plan
}

// Habit is a focus point that was given to a student and needs no word any more.
type Habit struct {
	Text string
	Day  time.Time
	// Entry is the mark with which it became one.
	Entry string
}

// Review counts the learned pieces and how they were kept.
type Review struct {
	// Heard counts the hearings in the span, Solid those rated solid or better; Entries are theirs.
	Heard, Solid int
	Entries      []string
	// Hearings are those of the span with their pieces, in their order.
	Hearings []Hearing
	// Learned pieces at the end of the span that were heard here, and how many of them were surely there still; Unheard are
	// those that were learned elsewhere and never heard here.
	Learned, Alive, Unheard int
}

// Hearing is one learned piece that was heard.
type Hearing struct {
	Material string
	Day      time.Time
	// Solid says that it was rated solid or better.
	Solid bool
}

// Practice is what was done at home.
type Practice struct {
	// Set are the days on which practice was set, Practised those of them on which something was reported.
	Set, Practised int
	// Minutes that were reported; 0 where none were.
	Minutes int
	// Joyful, Fine and Hard count how it felt.
	Joyful, Fine, Hard int
	Entries            []string
}

// Plan is a date to be ready for, and what became of it.
type Plan struct {
	whatif.Target
	// Ready says that the piece was polished by the day, Cleared that it was cleared.
	Ready, Cleared bool
	// Over says that the day is behind.
	Over bool
}

// Of looks back. The same log gives the same in whatever order it arrived.
func Of(in Input) Progress {
	p := Progress{Span: in.Span}
	then := in.at(in.Span.To)
	pieces := in.way()
	for _, d := range lookback.LessonDays(in.Student, in.Live) {
		if in.Span.Has(d) {
			p.Lessons = append(p.Lessons, d)
		}
	}
	p.Missed = in.missed()
	for _, x := range pieces {
		begun := !x.From.IsZero() && !x.From.After(in.Span.To)
		if begun && (x.To.IsZero() || !x.To.Before(in.Span.From)) {
			p.Way = append(p.Way, x)
		}
		if !x.To.IsZero() && in.Span.Has(x.To) {
			p.Cleared = append(p.Cleared, x)
		}
		if !x.Polished.IsZero() && in.Span.Has(x.Polished) {
			p.Polished = append(p.Polished, x)
		}
	}
	slices.SortStableFunc(p.Cleared, func(a, b Piece) int { return a.To.Compare(b.To) })
	slices.SortStableFunc(p.Polished, func(a, b Piece) int { return a.Polished.Compare(b.Polished) })
	p.Secure = in.secure()
	p.Ear = inlesson.EarClimbed(in.Student, in.Span.From, in.Span.To)
	answered, long := in.answered(pieces), in.long(pieces)
	p.Plantings = in.plantings(pieces)
	looked := slices.Concat(answered, long)
	for _, x := range p.Plantings {
		looked = append(looked, pieces[slices.IndexFunc(pieces, func(p Piece) bool { return p.Material == x.For })])
	}
	expected := in.expectations(looked)
	pay(p.Plantings, pieces, expected)
	p.Habits = in.habits()
	p.Review = in.review(then)
	p.Practice = in.practice()
	p.Pace = pace(answered, expected)
	p.Stays = in.stays(long, pieces, expected)
	p.Plans = in.plans(pieces)
	return p
}

// at is the standing at the end of a day; that of today is there.
func (in Input) at(day time.Time) *standing.Standing {
	if !day.Before(in.Today) {
		return in.Standing
	}
	var entries []studentlog.Entry
	for _, e := range in.Live {
		if !in.Local(e.At).After(day) {
			entries = append(entries, *e)
		}
	}
	return standing.Fold(
		entries,
		standing.Context{Library: in.Library, Skills: in.Skills, Family: in.Family(), Policy: in.Policy.Standing, Day: day, Zone: in.Zone},
	)
}

// missed counts the lessons of the span that fell out: cancelled and not made up, or noted as missed.
func (in Input) missed() (n int) {
	to := in.Span.To
	if to.After(in.Today) {
		to = in.Today
	}
	seen := map[string]bool{}
	for _, d := range in.Standing.Missed {
		if day, err := time.Parse(time.DateOnly, d); err == nil && in.Span.Has(day) && !day.After(to) {
			seen[d] = true
		}
	}
	for _, l := range in.Timetable().Between(in.Span.From, to) {
		if l.State == calendar.Cancelled && !l.Day.After(to) {
			seen[l.Day.Format(time.DateOnly)] = true
		}
	}
	return len(seen)
}

// fading is the chance under which a learned piece is not surely there (the one of the ladder).
const fading = studentplan.Fading

func (in Input) review(then *standing.Standing) Review {
	var r Review
	for _, e := range in.Live {
		if e.Kind == studentlog.Hearing && in.Span.Has(in.Local(e.At)) {
			r.Heard++
			if memory.Rating(e.Rating) >= memory.Solid {
				r.Solid++
			}
			r.Entries = append(r.Entries, e.ID)
			r.Hearings = append(r.Hearings, Hearing{Material: e.Material, Day: in.Local(e.At), Solid: memory.Rating(e.Rating) >= memory.Solid})
		}
	}
	day := in.Span.To
	if day.After(in.Today) {
		day = in.Today
	}
	for _, id := range then.In(standing.Cleared, standing.Polished) {
		if in.Library[id].Exercise != "" {
			continue // scales are kept by going round
		}
		if then.Materials[id].Elsewhere() {
			r.Unheard++ // how well it goes nobody knows
			continue
		}
		r.Learned++
		if then.Materials[id].Recall(day, in.Policy.Standing.Memory) >= fading {
			r.Alive++
		}
	}
	return r
}

func (in Input) practice() Practice {
	last := in.Span.To
	if yesterday := in.Today.AddDate(0, 0, -1); last.After(yesterday) {
		last = yesterday
	}
	set := week.DaysSet(withfamily.SetDays(in.Student, in.Weeks), in.Span.From, last)
	p := Practice{Set: len(set)}
	days := map[string]bool{}
	// One answer for each thing and day, from however many phones: the last one holds.
	answer := map[[2]string]string{}
	for _, e := range in.Live {
		if e.Kind == studentlog.Practised && e.Item != "" && e.Actor == studentlog.Family {
			answer[[2]string{e.Day, e.Item}] = e.ID
		}
	}
	for _, e := range in.Live {
		if e.Kind == studentlog.Liking && e.Actor == studentlog.Family && e.Sign == studentlog.PlayedFirst {
			// What was played first was practised.
			if day := in.Local(e.At).Format(time.DateOnly); set[day] {
				days[day] = true
				p.Entries = append(p.Entries, e.ID)
			}
			continue
		}
		if last, several := answer[[2]string{e.Day, e.Item}]; e.Kind != studentlog.Practised ||
			several && e.Actor == studentlog.Family && last != e.ID {
			continue
		}
		day := cmp.Or(e.Day, in.Local(e.At).Format(time.DateOnly))
		when, err := time.Parse(time.DateOnly, day)
		if err != nil || !in.Span.Has(when) {
			continue
		}
		p.Entries = append(p.Entries, e.ID)
		p.Minutes += e.Minutes
		switch e.Felt {
		case studentlog.Joyful:
			p.Joyful++
		case studentlog.Fine:
			p.Fine++
		case studentlog.Hard:
			p.Hard++
		}
		if set[day] {
			days[day] = true
		}
	}
	p.Practised = len(days)
	return p
}

// habits are the focus points of the student that got their last full mark in a row in the span.
func (in Input) habits() (out []Habit) {
	for _, f := range in.Standing.Focus {
		if !f.Habit {
			continue
		}
		for _, e := range slices.Backward(in.Live) {
			if e.Kind == studentlog.MarkGiven && e.Focus == f.ID {
				if day := in.Local(e.At); e.Mark == studentlog.Full && in.Span.Has(day) {
					out = append(out, Habit{Text: f.Text, Day: day, Entry: e.ID})
				}
				break
			}
		}
	}
	slices.SortStableFunc(out, func(a, b Habit) int { return a.Day.Compare(b.Day) })
	return out
}

func (in Input) plans(pieces []Piece) (out []Plan) {
	for _, t := range in.Targets {
		if !in.Span.Has(t.Day) {
			continue
		}
		plan := Plan{Target: t, Over: t.Day.Before(in.Today)}
		if i := slices.IndexFunc(pieces, func(p Piece) bool { return p.Material == t.Material }); i >= 0 {
			plan.Cleared = !pieces[i].To.IsZero() && !pieces[i].To.After(t.Day)
			plan.Ready = !pieces[i].Polished.IsZero() && !pieces[i].Polished.After(t.Day)
		}
		out = append(out, plan)
	}
	slices.SortStableFunc(out, func(a, b Plan) int { return a.Day.Compare(b.Day) })
	return out
}

// strandOf is the place of a material's strand in drawing order.
func (in Input) strandOf(id string) int {
	return slices.Index(material.Strands(), in.Library[id].Strand)
}

// Seen is a piece that was cleared somewhere in the studio.
type Seen struct {
	forecast.Observation
	// Day on which it was cleared.
	Day time.Time
}

// SeenOf are the pieces that a student cleared.
func SeenOf(s studentplan.Student) []Seen {
	cleared := s.Standing.Clearings()
	observed := outlook.Observed(s.Ladder, cleared, s.Library, s.Timetable().Breaks(), s.Local)
	out := make([]Seen, len(cleared))
	for i, c := range cleared {
		out[i] = Seen{observed[i], s.Local(c.To)}
	}
	return out
}

// Package studioyear looks back at a whole studio: which pieces stall and for whom, which skills no book comes back to,
// whether previews paid, who may be about to stop, how lessons lie over the week, and how the pace changes. It is for the
// teacher's eyes; whom to talk to is said with reasons and with doubt.
//
//	studioyear.go  the whole
//	risk.go        whom to talk to
package studioyear

import (
	"cmp"
	"math"
	"slices"
	"strings"
	"time"

	"patientladder/core/base/calendar"
	"patientladder/core/library/material"
	"patientladder/core/planning/forecast"
	"patientladder/core/planning/progress"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
	"patientladder/core/student/leap"
)

// Input is what the look back is made from.
type Input struct {
	// Students are those who have lessons, in the order of their lessons.
	Students []studentplan.Student
	// Model is what the forecasts have learned.
	Model *forecast.Model
	// Weeks are the published ones, by ladder.
	Weeks map[string][]week.SetDays
	// Gone are those who left or stopped an instrument; who is among the students again, or on another instrument, is not gone.
	Gone  []studentplan.Profile
	Today time.Time
}

// Year is what is seen.
type Year struct {
	// Stalls are the pieces that take longer than expected, the worst first.
	Stalls []Stall
	// Once are the skills that only one piece of the library asks for.
	Once []Once
	// Planted and Unplanted compare the pieces whose new skills were planted with those whose were not.
	Planted, Unplanted Against
	// Days are the minutes of lessons by weekday, Sunday is 0.
	Days [7]Load
	// Talk are the students to talk to, the ones with most reasons first.
	Talk []Risk
	// Pace is that of the last year, Before that of the year before it.
	Pace, Before Pace
	// Now counts the students, Joined and Went those who began and who left within the year.
	Now, Joined, Went int
}

// Stall is a piece that takes longer than expected.
type Stall struct {
	Material string
	// Ratio is how many times the middle of what is expected it takes, over the students who had it (geometric mean).
	Ratio float64
	// Had are the names of the students who had it, each with the weeks.
	Had []Had
}

// Had is a student with a piece.
type Had struct {
	Ladder, Name string
	Weeks        float64
	// Open says that it is in work still.
	Open bool
}

// Once is a skill that only one piece of an instrument asks for: it cannot become secure by pieces.
type Once struct {
	Skill, Instrument, Material string
	Weight                      float64
}

// Against is how long some pieces took against the middle of what was expected.
type Against struct {
	// N pieces took Took weeks where Expected were, on average.
	N              int
	Took, Expected float64
}

// Load is what a weekday holds.
type Load struct {
	// Lessons a week; one that comes every second week counts half. Minutes are theirs.
	Lessons, Minutes float64
}

// Pace is how many weeks the pieces of a year took.
type Pace struct {
	// Pieces that were cleared, and the middle one of the weeks that they took.
	Pieces int
	Weeks  float64
}

const (
	// stallFrom is how many times the expected weeks make a stall, leastHad how many students must have had the piece,
	// mostStalls how many are told (defaults).
	stallFrom, leastHad, mostStalls = 1.4, 2, 6
	// mostOnce is how many skills are told that come but once (default).
	mostOnce = 10
	// leastAgainst is from how many pieces on a comparison says anything (default).
	leastAgainst = 5
)

// Of looks back.
func Of(in Input) Year {
	y := Year{Talk: in.talk()}
	year := in.Today.AddDate(-1, 0, 0)
	counted, here := map[string]bool{}, map[string]bool{} // each student once, on however many instruments
	for _, s := range in.Students {
		counted[s.Profile.Student] = true
		if in.comes(s) && !here[s.Profile.Student] {
			here[s.Profile.Student] = true
			y.Now++
		}
	}
	for _, p := range in.Gone {
		if p.Until.After(year) && !p.Until.After(in.Today) && !counted[p.Student] {
			counted[p.Student] = true
			y.Went++
		}
	}
	stalls := map[string]*Stall{}
	logs := map[string]float64{}
	var last, before []float64
	for _, s := range in.Students {
		if first := s.Standing.FirstLesson; !first.IsZero() && s.Local(first).After(year) {
			y.Joined++
		}
		for _, slot := range s.Lessons.Slots {
			if slot.Holds(in.Today) && !s.Paused(in.Today) {
				share := 1 / float64(max(1, slot.Every))
				d := &y.Days[slot.Weekday]
				d.Lessons, d.Minutes = d.Lessons+share, d.Minutes+share*float64(slot.Minutes)
			}
		}
		for _, p := range progress.Way(s) {
			m := s.Library[p.Material]
			if p.From.IsZero() || p.Unknown || m.Strand == material.Technique {
				continue
			}
			took := max(1, p.Weeks)
			if !p.To.IsZero() {
				switch {
				case p.To.After(year):
					last = append(last, took)
				case p.To.After(year.AddDate(-1, 0, 0)):
					before = append(before, took)
				}
			}
			r := in.Model.Weeks(s.Ladder, p.Leap, m.DistinctBars)
			if r.Early() {
				continue
			}
			if !p.To.IsZero() {
				y.compare(s, p, took, r.Median)
			}
			if p.To.IsZero() && took < r.Median {
				continue // nobody knows yet
			}
			x := stalls[p.Material]
			if x == nil {
				x = &Stall{Material: p.Material}
				stalls[p.Material] = x
			}
			x.Had = append(x.Had, Had{Ladder: s.Ladder, Name: s.Name, Weeks: took, Open: p.To.IsZero()})
			logs[p.Material] += math.Log(took / r.Median)
		}
	}
	for id, x := range stalls {
		x.Ratio = math.Exp(logs[id] / float64(len(x.Had)))
		if len(x.Had) >= leastHad && x.Ratio >= stallFrom {
			y.Stalls = append(y.Stalls, *x)
		}
	}
	slices.SortFunc(y.Stalls, func(a, b Stall) int {
		return cmp.Or(cmp.Compare(b.Ratio, a.Ratio), strings.Compare(a.Material, b.Material))
	})
	y.Stalls = y.Stalls[:min(len(y.Stalls), mostStalls)]
	y.Planted.mean()
	y.Unplanted.mean()
	y.Pace, y.Before = paceOf(last), paceOf(before)
	y.Once = in.once()
	return y
}

// compare counts a cleared piece among those whose new skills were all planted, or among those of which none was.
func (y *Year) compare(s studentplan.Student, p progress.Piece, took, expected float64) {
	m := s.Standing.Materials[p.Material]
	if m.Before == nil {
		return
	}
	planted, bare := 0, 0
	for i, d := range s.Library[p.Material].Demands {
		if i >= len(m.Before.Brought.Skills) {
			break
		}
		e := m.Before.Brought.Skills[i]
		switch s.Policy.Standing.Leap.Level(e) {
		case leap.Planted:
			if e.StepsDone >= e.Steps {
				planted++
			} else {
				bare++
			}
		case leap.New:
			if known, ok := s.Skills.Get(d.Skill); ok && len(known.Steps) > 0 {
				bare++
			}
		}
	}
	switch {
	case planted > 0 && bare == 0:
		y.Planted.add(took, expected)
	case bare > 0 && planted == 0:
		y.Unplanted.add(took, expected)
	}
}

func (a *Against) add(took, expected float64) {
	a.N++
	a.Took += took
	a.Expected += expected
}

// mean turns sums into means.
func (a *Against) mean() {
	if a.N > 0 {
		a.Took, a.Expected = a.Took/float64(a.N), a.Expected/float64(a.N)
	}
}

// Says reports whether the comparison of what was planted with what was not says anything.
func (y Year) Says() bool { return y.Planted.N >= leastAgainst && y.Unplanted.N >= leastAgainst }

func paceOf(weeks []float64) Pace {
	if len(weeks) == 0 {
		return Pace{}
	}
	slices.Sort(weeks)
	return Pace{Pieces: len(weeks), Weeks: weeks[len(weeks)/2]}
}

// awayWeeks is after how many weeks without a lesson a student without a lesson time does not count as one who comes (default).
const awayWeeks = 8

// comes says that a student has lessons now: not paused, with a lesson time, or with a lesson in the last weeks.
func (in Input) comes(s studentplan.Student) bool {
	if s.Paused(in.Today) {
		return false
	}
	last := s.Standing.LastLesson
	return slices.ContainsFunc(s.Lessons.Slots, func(l calendar.Slot) bool { return l.Holds(in.Today) }) ||
		!last.IsZero() && !s.Local(last).Before(in.Today.AddDate(0, 0, -7*awayWeeks))
}

// once are the skills that one piece alone of an instrument asks for, the weightiest first; of instruments that are taught now.
func (in Input) once() []Once {
	type key struct{ instrument, skill string }
	by := map[key][]Once{}
	taught := map[string]bool{}
	for _, s := range in.Students {
		if in.comes(s) {
			taught[s.Instrument] = true
		}
	}
	if len(in.Students) == 0 {
		return nil
	}
	for id, m := range in.Students[0].Library {
		if m.Strand == material.Technique || m.Exercise != "" || m.PartOf != "" || !taught[m.Instrument] {
			continue
		}
		for _, d := range m.Demands {
			k := key{m.Instrument, d.Skill}
			by[k] = append(by[k], Once{Skill: d.Skill, Instrument: m.Instrument, Material: id, Weight: d.Weight})
		}
	}
	var out []Once
	for _, list := range by {
		if len(list) == 1 {
			out = append(out, list[0])
		}
	}
	slices.SortFunc(out, func(a, b Once) int {
		return cmp.Or(cmp.Compare(b.Weight, a.Weight), strings.Compare(a.Skill, b.Skill), strings.Compare(a.Material, b.Material))
	})
	return out[:min(len(out), mostOnce)]
}

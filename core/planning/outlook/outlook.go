// Package outlook puts together what lies ahead of one student: the ladder, the
// dates along it, and what is planted for it in which lesson.
//
//	outlook.go  the whole
//	target.go   a date to be ready for, worked backwards
//	review.go   what the week keeps alive
//	learn.go    what the forecasts learn from cleared pieces
package outlook

import (
	"maps"
	"math"
	"time"

	"patientladder/core/base/calendar"
	"patientladder/core/base/civil"
	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/planning/forecast"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/preview"
	"patientladder/core/student/leap"
	"patientladder/core/student/standing"
)

// Input is what an outlook is made from.
type Input struct {
	// Student names whose effect the forecast uses.
	Student  string
	Standing *standing.Standing
	Library  material.Library
	Placed   []ladder.Placed
	Skills   skill.Catalogue
	Leap     leap.Policy
	Preview  preview.Policy
	Model    *forecast.Model
	// Lessons are those from the next one on.
	Lessons *calendar.Lessons
	// PerWeek is how many lessons a week there are; 0 for one.
	PerWeek float64
	// Breaks are taken out of the time that a working piece has had.
	Breaks []calendar.Break
	// ReadingFrom is the lesson in which the reading strand may begin; 0 for at once.
	ReadingFrom int
	Day         time.Time
	// Near looks only as far ahead as previews do; the whole ladder otherwise.
	Near bool
	// Draws of the simulation; 0 for the default.
	Draws int
}

// seed of all simulations: the same ladder gives the same dates.
const seed = 20

// When is when a rung begins and is cleared, in lessons from 0 for the next one.
type When struct {
	Begin, Clear forecast.Span
	Course       forecast.Course
	// Elapsed weeks that a working piece has had by the next lesson, breaks and rests taken out.
	Elapsed float64
	// Had are the full weeks that a working piece has had before the day, breaks and rests taken out: today's lesson counts
	// when the day is over, so that it is the same before, in and after the lesson.
	Had float64
	// Long says that it takes longer than nine of ten such pieces do; Usual is that length in weeks.
	Long  bool
	Usual float64
}

// Outlook is what lies ahead.
type Outlook struct {
	View ladder.View
	// When holds the rungs that are in work or ahead, and not aside.
	When map[string]When
	// Needs and Plan are what is planted for them.
	Needs []preview.Need
	Plan  preview.Plan
	in    Input
	// far is how many lessons ahead previews look.
	far int
}

// Of makes an outlook.
func Of(in Input) Outlook {
	if in.Draws == 0 {
		in.Draws = forecast.Draws
	}
	o := in.drawn()
	o.dates()
	o.settle()
	return o
}

// drawn is the ladder, without dates yet.
func (in Input) drawn() Outlook {
	far := in.horizon()
	view := ladder.Draw(in.Standing, in.Library, in.Placed, in.Leap, in.Day, in.most(far))
	rungs := 0
	for _, rail := range view.Rails {
		rungs += len(rail.Rungs)
	}
	return Outlook{View: view, When: make(map[string]When, rungs), in: in, far: far}
}

// Undated is the outlook without dates and without what is planted for them: nobody knows when lessons go on.
func (o Outlook) Undated() Outlook {
	o.When, o.Needs, o.Plan = map[string]When{}, nil, preview.Plan{}
	return o
}

// most is how many rungs of a strand are looked at, 0 for all: every rung takes a
// lesson at least, so that no other can begin within the lessons that previews look at.
func (in Input) most(far int) int {
	if !in.Near {
		return 0
	}
	return max(in.Preview.Rungs, far+1)
}

// horizon is how many lessons ahead previews look: as the policy says, or as far as a skill that stands on the ladder and
// is new has to begin.
func (in Input) horizon() int {
	far := in.Preview.Lessons
	early := in.Skills.Early(far)
	maps.DeleteFunc(early, func(id string, _ int) bool { return in.Leap.Level(in.Standing.Ability.Skills[id]) != leap.New })
	for _, p := range in.Placed {
		if len(early) == 0 {
			break
		}
		for _, d := range in.Library[p.Material].Demands {
			far = max(far, early[d.Skill])
		}
	}
	return far
}

// settle plants for what lies ahead, and puts idle strands off until it is planted.
func (o *Outlook) settle() {
	if o.in.Preview.PerLesson == 0 {
		return
	}
	o.plant()
	for range mostWaits {
		if !o.wait() {
			return
		}
		o.plant()
	}
}

// mostWaits is how often idle strands are put off before the rest is left late.
const mostWaits = 4

// plant lays out the bites for the dates as they are.
func (o *Outlook) plant() {
	ahead, ability := o.ahead()
	o.Needs = preview.Needs(ahead, ability, o.in.Leap, o.in.Skills, o.recent(), o.in.Preview)
	o.Plan = preview.Schedule(o.Needs, o.in.Preview.PerLesson)
}

// wait puts off the strands on which nothing is in work until what their first
// rung asks for is planted: nobody has said when they begin. It says whether any
// strand was put off.
func (o *Outlook) wait() bool {
	late := map[string]int{}
	for _, out := range o.Plan.Outcomes {
		late[out.For] = max(late[out.For], out.Late())
	}
	waits := false
	for _, rail := range o.View.Rails {
		first := firstAhead(rail)
		if first == "" || late[first] == 0 {
			continue
		}
		waits = true
		for _, r := range rail.Rungs {
			if w, on := o.When[r.Material.ID]; on {
				o.When[r.Material.ID] = w.later(late[first])
			}
		}
	}
	return waits
}

// firstAhead is the next rung of a strand on which nothing is in work; "" for none.
func firstAhead(rail ladder.Rail) string {
	first := ""
	for _, r := range rail.Rungs {
		switch {
		case r.Aside != "":
		case r.Layer == ladder.Now:
			return ""
		case first == "" && r.Layer != ladder.Review:
			first = r.Material.ID
		}
	}
	return first
}

// later moves everything by some lessons.
func (w When) later(by int) When {
	w.Begin, w.Clear = later(w.Begin, by), later(w.Clear, by)
	for d := range w.Course.Begin {
		w.Course.Begin[d] += int32(by)
		w.Course.Clear[d] += int32(by)
	}
	return w
}

func later(s forecast.Span, by int) forecast.Span {
	return forecast.Span{Low: s.Low + by, Median: s.Median + by, High: s.High + by}
}

// dates draws the courses of all rungs.
func (o *Outlook) dates() {
	lanes := make([]forecast.Lane, len(o.View.Rails))
	rungs := make([][]*ladder.Rung, len(o.View.Rails))
	for k, rail := range o.View.Rails {
		if rail.Strand == material.Reading {
			lanes[k].From = int(math.Round(float64(o.in.ReadingFrom) / o.in.perWeek()))
		}
		if o.in.Near {
			lanes[k].Stages, lanes[k].Beyond = make([]forecast.Stage, 0, len(rail.Rungs)), o.far
			lanes[k].Least = o.in.Preview.Rungs
		}
		for i := range rail.Rungs {
			r := &rail.Rungs[i]
			if r.Layer == ladder.Review || r.Aside != "" {
				continue
			}
			s := forecast.Stage{ID: r.Material.ID, Leap: r.Leap.Size, DistinctBars: r.Material.DistinctBars}
			if r.Layer == ladder.Now {
				s.Begun, s.Elapsed = true, o.elapsed(*r)
			}
			lanes[k].Stages = append(lanes[k].Stages, s)
			rungs[k] = append(rungs[k], r)
		}
	}
	for k, courses := range o.in.Model.Paths(o.in.Student, lanes, o.in.Draws, seed) {
		for i, c := range courses {
			r := rungs[k][i]
			c = o.in.inLessons(c)
			w := When{Course: c, Begin: forecast.SpanOf(c.Begin), Clear: forecast.SpanOf(c.Clear), Elapsed: lanes[k].Stages[i].Elapsed}
			if r.Layer == ladder.Now {
				w.Usual = o.in.Model.Weeks(o.in.Student, r.Leap.Size, r.Material.DistinctBars).High
				w.Had = o.had(*r)
				w.Long = w.Had > w.Usual
			}
			o.When[r.Material.ID] = w
		}
	}
}

// perWeek is how many lessons a week there are.
func (in Input) perWeek() float64 {
	if in.PerWeek == 0 {
		return 1
	}
	return in.PerWeek
}

// inLessons turns a course of weeks into one of lessons: what takes so many weeks is heard in the first
// lesson after them, and what is begun in a lesson is cleared in the next at the earliest.
func (in Input) inLessons(c forecast.Course) forecast.Course {
	per := in.perWeek()
	if per == 1 {
		return c
	}
	out := forecast.Course{Begin: make([]int32, len(c.Begin)), Clear: make([]int32, len(c.Clear))}
	for d := range c.Begin {
		out.Begin[d] = int32(math.Ceil(float64(c.Begin[d])*per - 1e-9))
	}
	for d := range c.Clear {
		out.Clear[d] = int32(math.Ceil(float64(c.Clear[d])*per - 1e-9))
		if c.Clear[d] > c.Begin[d] {
			out.Clear[d] = max(out.Clear[d], out.Begin[d]+1)
		}
	}
	return out
}

// elapsed is how many weeks a working piece has had by the next lesson.
func (o *Outlook) elapsed(r ladder.Rung) float64 {
	return max(0, math.Floor(o.weeks(r, o.in.Lessons.Day(0))+0.5))
}

// had are the full weeks before the day.
func (o *Outlook) had(r ladder.Rung) float64 { return max(0, math.Ceil(o.weeks(r, o.in.Day))-1) }

// weeks are those from the beginning of a working piece to a day, breaks and rests taken out; below 0 for one begun later.
func (o *Outlook) weeks(r ladder.Rung, to time.Time) float64 {
	from := r.Standing.Assigned
	if from.IsZero() {
		return 0
	}
	from = o.in.Standing.Day(from).Date()
	return to.Sub(from).Hours()/(24*7) - float64(r.Standing.Rested)/7 - float64(calendar.WeeksOff(from, to, o.in.Breaks))
}

// ahead lists the rungs that are not begun with the lesson in which each is
// expected. Where nothing was begun at all, the first rung of a strand is a
// beginning: what it asks for is met there first, so it needs no preview and its
// skills count as being learned.
func (o *Outlook) ahead() ([]preview.Rung, leap.Ability) {
	out := make([]preview.Rung, 0, len(o.When))
	ability, fresh := o.in.Standing.Ability, !o.in.Standing.Begun()
	if fresh {
		ability = ability.Copy()
	}
	for _, rail := range o.View.Rails {
		place, beginning := 0, fresh
		for _, r := range rail.Rungs {
			if r.Layer != ladder.Ahead && r.Layer != ladder.Preview || r.Aside != "" {
				continue
			}
			if beginning {
				beginning = false
				for _, d := range r.Material.Demands {
					e := ability.Skills[d.Skill]
					e.Working++
					ability.Skills[d.Skill] = e
				}
				continue
			}
			if w, near := o.When[r.Material.ID]; near {
				out = append(out, preview.Rung{Material: r.Material, Place: place, Begin: w.Begin.Median})
			}
			place++
		}
	}
	return out, ability
}

// recent are the skills that had a step within the week.
func (o *Outlook) recent() map[string]bool {
	out := map[string]bool{}
	for id, at := range o.in.Standing.Planted {
		if civil.On(o.in.Lessons.Day(0))-o.in.Standing.Day(at) < 7 {
			out[id] = true
		}
	}
	return out
}

// Mends says what would help a need of the plan that comes too late.
func (o *Outlook) Mends(which int) []preview.Mend {
	var above []preview.Rung
	for _, rail := range o.View.Rails {
		found := false
		for _, r := range rail.Rungs {
			if found && r.Aside == "" {
				above = append(above, preview.Rung{Material: r.Material})
			}
			found = found || r.Material.ID == o.Needs[which].For
		}
	}
	return preview.Mends(o.Needs, o.in.Preview.PerLesson, which, above)
}

// NextBites returns the preview steps of the next lesson.
func (o *Outlook) NextBites() []preview.Step {
	n := 0
	for n < len(o.Plan.Steps) && o.Plan.Steps[n].Lesson == 0 {
		n++
	}
	return o.Plan.Steps[:n]
}

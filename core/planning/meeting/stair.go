package meeting

import (
	"slices"
	"time"

	"patientladder/core/student/standing"
)

// Line is one of the two staircases that live in two minutes of a lesson.
type Line string

// The lines.
const (
	Ear  Line = "ear"
	Time Line = "rhythm"
)

// Stair is one stair of a line: levels of an activity, in order.
type Stair struct {
	ID       string
	Activity string
	Levels   []int
}

// lines are the staircases (common practice: one tone before two, singing before finding; a bar before two, rests after,
// writing last).
var lines = map[Line][]Stair{
	Ear: {
		{"match", "echo-pitch", []int{1}}, {"echo-two", "echo-pitch", []int{2, 3}}, {"echo-three", "echo-pitch", []int{4}},
		{"find", "hidden-pitch", []int{1, 2}}, {"sing-back", "echo-pitch", []int{5}},
	},
	Time: {
		{"echo-bar", "echo-rhythm", []int{1, 2, 3, 4, 5}}, {"echo-two-bars", "echo-rhythm", []int{6}}, {"with-rests", "echo-rhythm", []int{7, 8}},
		{"dictate", "dictate-rhythm", []int{2, 3, 5}},
	},
}

// Lines are the two lines in their order.
func Lines() []Line { return []Line{Ear, Time} }

const (
	// sureDays is on how many days a step came well before the next one is tried first: once may be luck (default).
	sureDays = 2
	// lessonTries is how often it is tried in one lesson: two minutes (default).
	lessonTries = 3
)

// Place is where a student stands on a line.
type Place struct {
	Line Line
	// Stairs are those for the age; At is the one that is worked on, len(Stairs) when all came.
	Stairs []Stair
	At     int
	// Activity is what is done next, at Level; Level 0 when it is enough for today or everything came.
	Activity Activity
	Level    int
	// Steps are what follows each outcome on each level in the same lesson.
	Steps []Step
	// Days is on how many days what is tried next came well already, of sureDays.
	Days, Of int
	// Last is when it was tried last; zero for never.
	Last time.Time
	// Today is what came of it today.
	Today []standing.Met
	set   Set
}

// All says that every stair came.
func (p Place) All() bool { return p.At == len(p.Stairs) }

// step is one level of a stair.
type step struct{ stair, level int }

// On is where a student of an age stands on a line after what came, in order. day gives the local day of a moment. What
// came well on two days is climbed, and what is harder shows what is easier; what did not come takes a day away from its
// step and from all above it.
func (set Set) On(line Line, age int, came []standing.Met, today time.Time, day func(time.Time) time.Time) Place {
	p := Place{Line: line, Of: sureDays, set: set}
	for _, s := range lines[line] {
		// The ages of the program: those of a studio are for its first meetings.
		if a, known := Shipped().Of(s.Activity); known && a.fits(age, "") {
			p.Stairs = append(p.Stairs, s)
		}
	}
	var steps []step
	for i, s := range p.Stairs {
		for _, level := range s.Levels {
			steps = append(steps, step{i, level})
		}
	}
	days, last := make([]int, len(steps)), make([]time.Time, len(steps))
	for _, m := range came {
		at := slices.IndexFunc(steps, func(s step) bool { return p.Stairs[s.stair].Activity == m.Activity && s.level == max(1, m.Level) })
		if at < 0 {
			continue
		}
		d := day(m.At)
		if p.Last = d; d.Equal(today) {
			p.Today = append(p.Today, m)
			continue // a lesson ends where it began: what came today counts from the next one on
		}
		if p.good(steps[at], m.Outcome) {
			for i := range days[:at+1] {
				if !last[i].Equal(d) {
					days[i], last[i] = min(sureDays, days[i]+1), d
				}
			}
			continue
		}
		for i := at; i < len(days); i++ {
			days[i], last[i] = max(0, days[i]-1), d
		}
	}
	at := slices.IndexFunc(days, func(n int) bool { return n < sureDays })
	if at < 0 {
		p.At = len(p.Stairs)
		return p
	}
	p.At, p.Days = steps[at].stair, days[at]
	p.Activity, _ = set.Of(p.Stairs[p.At].Activity)
	p.Activity.Minutes = 2
	levels := p.levels()
	p.Level = p.Activity.inLesson(levels, steps[at].level, p.Today)
	for _, level := range levels {
		for _, o := range p.Activity.Outcomes {
			then := append(slices.Clone(p.Today), standing.Met{Activity: p.Activity.ID, Level: level, Outcome: o})
			p.Steps = append(p.Steps, Step{level, o, p.Activity.inLesson(levels, steps[at].level, then)})
		}
	}
	return p
}

func (p Place) good(s step, outcome string) bool {
	a, _ := p.set.Of(p.Stairs[s.stair].Activity)
	return slices.Contains(a.Good, outcome)
}

// levels are those of the activity that is worked on, over all stairs of the line, in order.
func (p Place) levels() (out []int) {
	for _, s := range p.Stairs {
		if s.Activity == p.Activity.ID {
			out = append(out, s.Levels...)
		}
	}
	return out
}

// inLesson is the level of the next try in a lesson that began at a level: one up after what came, one down after what did
// not; 0 where it is enough.
func (a Activity) inLesson(levels []int, from int, today []standing.Met) int {
	at, tries := slices.Index(levels, from), 0
	for _, m := range today {
		i := slices.Index(levels, max(1, m.Level))
		if m.Activity != a.ID || i < 0 {
			continue
		}
		tries++
		if at = i - 1; slices.Contains(a.Good, m.Outcome) {
			at = i + 1
		}
		at = max(0, at)
	}
	if tries >= lessonTries || at >= len(levels) {
		return 0
	}
	return levels[at]
}

// DueLine is the line that is tried in a lesson: the one that was tried longest ago, the ear before the rhythm; none where
// everything came on both.
func DueLine(places []Place) (Place, bool) {
	best := -1
	for i, p := range places {
		if !p.All() && len(p.Stairs) > 0 && (best < 0 || p.Last.Before(places[best].Last)) {
			best = i
		}
	}
	if best < 0 {
		return Place{}, false
	}
	return places[best], true
}

// Goals are the goals of the pool that a line's activities become at home.
func (p Place) Goals() (out []string) {
	for _, s := range p.Stairs {
		if a, known := p.set.Of(s.Activity); known && a.Home != "" && !slices.Contains(out, a.Home) {
			out = append(out, a.Home)
		}
	}
	return out
}

// Climbed is a stair that somebody climbed, with the tries that came well on it.
type Climbed struct {
	Stair   string
	Entries []string
}

// Climbed are the stairs of a line that somebody of an age climbed from the first day to the last of a span, after what came, in
// order. A stair on which no try of the span came well is not among them: what is harder showed it.
func (set Set) Climbed(line Line, age int, came []standing.Met, first, last time.Time, day func(time.Time) time.Time) (out []Climbed) {
	until := func(end time.Time) Place {
		i := 0
		for i < len(came) && day(came[i].At).Before(end) {
			i++
		}
		return set.On(line, age, came[:i], end, day)
	}
	end := last.AddDate(0, 0, 1)
	before, after := until(first), until(end)
	for i := before.At; i < after.At; i++ {
		s := after.Stairs[i]
		c := Climbed{Stair: s.ID}
		for _, m := range came {
			if d := day(m.At); m.Activity == s.Activity && slices.Contains(s.Levels, max(1, m.Level)) && !d.Before(first) && d.Before(end) &&
				after.good(step{stair: i}, m.Outcome) {
				c.Entries = append(c.Entries, m.ID)
			}
		}
		if len(c.Entries) > 0 {
			out = append(out, c)
		}
	}
	return out
}

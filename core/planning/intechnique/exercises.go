// Package intechnique answers what is asked about the exercises of one student: the staircases, the cycle of keys over the lessons, which
// exercise comes next, and which keys are known.
package intechnique

import (
	"cmp"
	"fmt"
	"slices"
	"time"

	"patientladder/core/base/civil"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/studentlog"
	"patientladder/core/technique/exercise"
	"patientladder/core/technique/keycycle"
	"patientladder/core/technique/scale"
)

// Stairs are the staircases of the student's instrument with the key of the week as a wish, and the cycle that is
// kept, nil for none. Broken says why a kept cycle cannot go on; the staircases stand all the same.
func Stairs(a *studentplan.StudentOutlook) (stairs []exercise.Stair, c *Cycle, broken error) {
	stairs = exercise.Climb(a.OnInstrument(), a.Progress(), exercise.Wish{})
	kept := a.Standing.Cycle
	if kept == nil {
		return stairs, nil, nil
	}
	laid, err := CycleOf(a, *kept, stairs)
	if err != nil {
		return stairs, nil, err
	}
	if w, ok := laid.Coming(); ok {
		wish := exercise.Wish{Type: kept.Type, Place: w.Exercise.Place(), Since: w.Day}
		stairs = exercise.Climb(a.OnInstrument(), a.Progress(), wish)
	}
	return stairs, &laid, nil
}

// ExercisesAhead are the exercises that stand on the ladder and were not begun.
func ExercisesAhead(a *studentplan.StudentOutlook) []Placed {
	var out []Placed
	for _, p := range materialsAhead(a) {
		if e, err := exercise.Parse(a.Library[p].Exercise, a.OnInstrument()); err == nil {
			out = append(out, Placed{p, e})
		}
	}
	return out
}

// Placed is an exercise that stands on the ladder as a material.
type Placed struct {
	Material string
	Exercise exercise.Exercise
}

// mostProposed is how many exercises are proposed at once (default).
const mostProposed = 3

// ProposedExercises are the next exercises: that of the cycle first, then those of staircases on
// which the student stands already, then new ones; what stands ahead already is not proposed again.
func ProposedExercises(a *studentplan.StudentOutlook, stairs []exercise.Stair) []exercise.Proposal {
	rank := func(st exercise.Stair) int {
		switch {
		case a.Standing.Cycle != nil && a.Standing.Cycle.Type == st.Type.ID:
			return 0
		case slices.ContainsFunc(st.Steps, func(s exercise.StairStep) bool { return len(s.Cleared) > 0 }):
			return 1
		}
		return 2
	}
	ahead := map[string]bool{}
	for _, p := range ExercisesAhead(a) {
		ahead[p.Exercise.ID()] = true
	}
	var next []exercise.Stair
	for _, st := range stairs {
		if st.Next != nil && !ahead[st.Next.Exercise.ID()] {
			next = append(next, st)
		}
	}
	slices.SortStableFunc(next, func(x, y exercise.Stair) int { return cmp.Compare(rank(x), rank(y)) })
	var out []exercise.Proposal
	for _, st := range next[:min(len(next), mostProposed)] {
		out = append(out, Propose(a, *st.Next))
	}
	return out
}

// Propose adds to a proposal when a break lies between the next lesson and the one that hears it.
func Propose(a *studentplan.StudentOutlook, p exercise.Proposal) exercise.Proposal {
	if heard := a.Lessons.Day(1); civil.Between(a.Lessons.Day(0), heard) > a.Timetable().UsualGap(a.Lessons.Day(0)) {
		p.Reasons = append(slices.Clone(p.Reasons), exercise.Reason{Kind: exercise.HeardLater, Day: heard})
	}
	return p
}

// KeyState says how the key of a week stands.
type KeyState string

// The states of a key in a cycle.
const (
	KeyThrough KeyState = "through" // it has been through this pass
	KeyNow     KeyState = "now"     // it is the key of the week
	KeyBegun   KeyState = "begun"   // it is worked at
	KeyAhead   KeyState = "ahead"   // its week comes
)

// CycleWeek is one key of a cycle.
type CycleWeek struct {
	keycycle.Week
	Exercise exercise.Exercise
	State    KeyState
	// Late says that a break lies between the lesson that begins it and the one that hears it.
	Late bool
	// Missed, Held and Slid are the lessons before it that fell out, that lie right before a break, and that had no
	// room for it; Off counts the weeks of breaks.
	Missed, Held, Slid []time.Time
	Off                int
}

// Cycle is a way through the keys, laid over the lessons of a student.
type Cycle struct {
	Type exercise.Type
	// Pass is the step that is gone through, as an index.
	Pass  int
	Weeks []CycleWeek
	// End is the lesson in which the last key is heard.
	End time.Time
	// Off counts the weeks of breaks, Held the lessons before a break in which no key is begun, Missed those
	// that fell out and Slid those that had no room for their key, by which the end slid.
	Off, Held, Missed, Slid int
}

// On is the key whose lesson is on a day.
func (c Cycle) On(day time.Time) (CycleWeek, bool) {
	for _, w := range c.Weeks {
		if w.Day.Equal(day) {
			return w, true
		}
	}
	return CycleWeek{}, false
}

// Coming is the key of this week, else the first that is to come.
func (c Cycle) Coming() (CycleWeek, bool) {
	if w, ok := c.Now(); ok {
		return w, true
	}
	for _, w := range c.Weeks {
		if w.State == KeyAhead {
			return w, true
		}
	}
	return CycleWeek{}, false
}

// Now is the key of this week.
func (c Cycle) Now() (CycleWeek, bool) {
	for _, w := range c.Weeks {
		if w.State == KeyNow {
			return w, true
		}
	}
	return CycleWeek{}, false
}

// CycleOf lays a cycle over the lessons, the holidays and the lessons that were missed left out.
func CycleOf(a *studentplan.StudentOutlook, c studentlog.Cycle, stairs []exercise.Stair) (Cycle, error) {
	list, err := Round(a.Student, c)
	if err != nil {
		return Cycle{}, err
	}
	from, err := time.Parse(time.DateOnly, c.From)
	if err != nil {
		return Cycle{}, fmt.Errorf("%q is not a day", c.From)
	}
	var keys []scale.Tonic
	for _, e := range list {
		keys = append(keys, e.Key)
	}
	t := list[0].Type
	pass := slices.IndexFunc(t.Steps, func(s exercise.Step) bool { return s.ID == c.Step })
	stair := stairs[slices.IndexFunc(stairs, func(s exercise.Stair) bool { return s.Type.ID == t.ID })]
	// A key that its lesson had no room for slides to the next.
	slides := func(key int, day time.Time) bool {
		through, working := stair.Passed(list[key].Place())
		return through < pass && working < pass && (day.Before(a.Today) || day.Equal(a.Today) && a.GivenToday())
	}
	plan, err := keycycle.Build(keys, from, a.Timetable(), missed(a.Student), c.Before, slides)
	if err != nil {
		return Cycle{}, err
	}
	usual := a.Timetable().UsualGap(from)
	out := Cycle{Type: t, End: plan.End, Held: len(plan.Held), Slid: len(plan.Slid), Pass: pass}
	for i, w := range plan.Weeks {
		week := CycleWeek{Week: w, Exercise: list[i], Late: civil.Between(w.Day, w.Heard) > usual, State: keyState(a.Student, w, stair, list[i], out.Pass)}
		since := func(d time.Time) bool {
			return d.Before(w.Day) && !d.Before(from) && (i == 0 || d.After(plan.Weeks[i-1].Day))
		}
		week.Missed, week.Held, week.Slid = only(plan.Missed, since), only(plan.Held, since), only(plan.Slid, since)
		if i > 0 {
			week.Off = civil.Between(plan.Weeks[i-1].Day, w.Day)/7 - 1 - len(week.Held) - len(week.Slid)
			out.Off += week.Off
		}
		out.Weeks = append(out.Weeks, week)
	}
	out.Missed = len(only(plan.Missed, func(d time.Time) bool { return d.Before(plan.End) }))
	return out, nil
}

func only(days []time.Time, wanted func(time.Time) bool) (out []time.Time) {
	for _, d := range days {
		if wanted(d) {
			out = append(out, d)
		}
	}
	return out
}

// missed are the lessons that did not take place.
func missed(s studentplan.Student) (out []time.Time) {
	for _, d := range s.Standing.Missed {
		if day, err := time.Parse(time.DateOnly, d); err == nil {
			out = append(out, day)
		}
	}
	return out
}

// Round are the exercises of a cycle, or an error that says what of it is not there.
func Round(s studentplan.Student, c studentlog.Cycle) ([]exercise.Exercise, error) {
	x := s.OnInstrument()
	t, ok := exercise.TypeOf(c.Type)
	if !ok || !t.Cycle || !slices.Contains(t.Families, x.Family) {
		return nil, fmt.Errorf("%q is not taken through the keys on the %s", c.Type, s.Instrument)
	}
	step, ok := t.StepOf(c.Step)
	if !ok {
		return nil, fmt.Errorf("there is no pass %q", c.Step)
	}
	kind := scale.Kind(c.Kind)
	if !slices.Contains(t.Kinds, kind) {
		return nil, fmt.Errorf("there is no kind %q to take through the keys", c.Kind)
	}
	// A key may be asked for by the name it has in another kind; it is the same key on the instrument.
	first, err := scale.Parse(c.First, scale.Chromatic)
	if err != nil {
		return nil, err
	}
	return exercise.Round(exercise.Exercise{Type: t, Step: step, Kind: kind, Instrument: x}, first, keycycle.Order(c.Order))
}

func keyState(s studentplan.Student, w keycycle.Week, stair exercise.Stair, e exercise.Exercise, pass int) KeyState {
	through, working := stair.Passed(e.Place())
	switch {
	case through >= pass:
		return KeyThrough
	case !w.Day.After(s.Today) && s.Today.Before(w.Heard):
		return KeyNow
	case working == pass:
		return KeyBegun
	}
	return KeyAhead
}

// WholeCycle fills in what a wish for a cycle leaves out: the type that the family takes through
// the keys, its first pass, major keys, from today on.
func WholeCycle(s studentplan.Student, c studentlog.Cycle) studentlog.Cycle {
	if t, ok := exercise.CycleType(s.OnInstrument()); ok {
		c.Type = cmp.Or(c.Type, t.ID)
	}
	if t, ok := exercise.TypeOf(c.Type); ok && c.Step == "" {
		c.Step = t.Steps[0].ID
	}
	c.Kind = cmp.Or(c.Kind, string(scale.Major))
	c.From = cmp.Or(c.From, s.Today.Format(time.DateOnly))
	return c
}

// KeyCell says how far one key of a student has come.
type KeyCell struct {
	// Through and Working are the passes as indexes, −1 for none.
	Through, Working int
	// Next is the exercise that comes next in the key.
	Next exercise.Exercise
}

// Cells says how far a student has come in each of some keys of a type.
func Cells(s studentplan.Student, t exercise.Type, places []exercise.Exercise) []KeyCell {
	stairs := exercise.Climb(s.OnInstrument(), s.Progress(), exercise.Wish{})
	stair := stairs[slices.IndexFunc(stairs, func(x exercise.Stair) bool { return x.Type.ID == t.ID })]
	out := make([]KeyCell, len(places))
	for i, e := range places {
		through, working := stair.Passed(e.Place())
		step := min(max(through+1, working), len(t.Steps)-1)
		out[i] = KeyCell{through, working, e.At(t.Steps[step])}
	}
	return out
}

// KeysOf counts the students who know any key, and the keys that somebody is through with.
func KeysOf(students [][]KeyCell) (begun, through int) {
	for _, cells := range students {
		known := 0
		for _, c := range cells {
			if c.Through >= 0 {
				through++
			}
			if c.Through >= 0 || c.Working >= 0 {
				known = 1
			}
		}
		begun += known
	}
	return begun, through
}

// materialsAhead are the rungs that were not begun, in the teacher's order.
func materialsAhead(a *studentplan.StudentOutlook) (out []string) {
	for _, p := range a.Placed {
		if !a.Begun(p.Material) {
			out = append(out, p.Material)
		}
	}
	return out
}

package exercise

import (
	"slices"
	"strings"
	"time"

	"patientladder/core/library/instrument"
	"patientladder/core/reading/naming"
)

// Progress is what of the exercises stands on a student's ladder, by id, each list in the
// order in which it came.
type Progress struct {
	Cleared, Working []string
	// Secure says whether a skill is secure from pieces; nil for none.
	Secure func(skill string) bool
}

// knows says that all that a step gives is secure already.
func (p Progress) knows(s Step) bool {
	for skill := range s.Gives {
		if p.Secure == nil || !p.Secure(skill) {
			return false
		}
	}
	return len(s.Gives) > 0
}

// Stair is a type as one student climbs it.
type Stair struct {
	Type  Type
	Steps []StairStep
	// At is the step on which the student stands, as an index; len(Steps) when all are climbed.
	At int
	// Waits is the step that comes before the type; nil when it may be begun.
	Waits *Before
	// Next is proposed; nil while something is being worked at, while it waits, or when all is climbed.
	Next *Proposal
}

// Before is a step of another type.
type Before struct {
	Type Type
	Step Step
}

// StairStep is one step with the places climbed on it.
type StairStep struct {
	Step Step
	// Cleared and Working are the places (keys, strings, rolls) of this step, in order.
	Cleared, Working []Exercise
	// Of is how many are to be climbed before the next step is begun.
	Of int
	// Known says that pieces have made secure already all that the step gives; never of a type
	// that is taken through the keys.
	Known bool
	// Passed says that a later step is climbed, so that this one counts as passed although it was not.
	Passed bool
}

// Proposal is the next exercise with its reasons.
type Proposal struct {
	Exercise Exercise
	Reasons  []Reason
}

// Why is the kind of a reason for an exercise.
type Why string

// The kinds of reasons: first how far the staircase is climbed, then why it is this place.
const (
	SomeThrough Why = "someThrough" // Count of Of places are through Step
	FromPieces  Why = "fromPieces"  // Step is known from pieces
	StepClimbed Why = "stepClimbed" // Step is climbed, all Of places of it
	FirstStep   Why = "firstStep"   // the staircase begins

	KeyOfTheWeek Why = "keyOfTheWeek" // the cycle has it since Day
	FirstBefore  Why = "firstBefore"  // it was the first on the step before
	ByOrder      Why = "byOrder"      // it comes next in the order of the step
	HeardLater   Why = "heardLater"   // it would be heard only on Day, after a break
)

// Reason is one fact behind a proposal. Which fields are set follows from the kind.
type Reason struct {
	Kind Why
	// Step is the one that was climbed; Now is the one that is begun.
	Step, Now Step
	Count, Of int
	Day       time.Time
	// Order is that of the step: "few" sharps or flats first, "fifths", "chords", "strings", or "".
	Order string
}

// Wish names the place that something outside the staircase asks for, such as the key of the
// week in a cycle; the zero value asks for nothing.
type Wish struct {
	Type, Place string
	// Since is the day on which it was begun.
	Since time.Time
}

// Climb returns the staircases of an instrument for one student. A step is climbed when as
// many of its places are cleared as it asks for, or when pieces have made secure what it gives
// (but not where each key has to be gone through); steps below a climbed one count as passed, because what is proven is not
// begun again, unless one of them is being worked at. The next exercise is the next place of the step
// on which the student stands, those climbed on the step before first; a wish goes before. A type that
// comes after a step of another waits until that step has been climbed, unless it was begun
// or is wished for.
func Climb(x instrument.Instrument, p Progress, wish Wish) []Stair {
	climbed := map[string]bool{}
	var out []Stair
	for _, t := range For(x) {
		s := Stair{Type: t}
		begun := false
		for i, step := range t.Steps {
			ss := StairStep{Step: step, Of: min(step.Keys, len(Places(Exercise{Type: t, Step: step, Instrument: x})))}
			ss.Cleared, ss.Working = of(t, step, x, p.Cleared), of(t, step, x, p.Working)
			if step.NewPlaces {
				ss.Of = min(ss.Of, s.newPlaces(step, x))
			}
			begun = begun || len(ss.Cleared)+len(ss.Working) > 0
			// Every key has to be gone through itself: to know the thumb is not to know A flat.
			knows := len(ss.Working) == 0 && p.knows(step)
			ss.Known = knows && !t.Cycle
			s.Steps = append(s.Steps, ss)
			full := len(ss.Cleared) >= ss.Of
			if full || knows {
				climbed[t.ID+"/"+step.ID] = true
			}
			if full || ss.Known {
				s.At = i + 1
			}
		}
		if w := slices.IndexFunc(s.Steps, func(ss StairStep) bool { return len(ss.Working) > 0 }); w >= 0 && w < s.At {
			s.At = w
		}
		for i := range s.Steps[:s.At] {
			climbed[t.ID+"/"+t.Steps[i].ID] = true
			s.Steps[i].Passed = !s.Steps[i].Known && len(s.Steps[i].Cleared) < s.Steps[i].Of
		}
		if t.After != "" && !climbed[t.After] && !begun && wish.Type != t.ID {
			s.Waits = before(t.After)
		}
		s.propose(x, wish)
		out = append(out, s)
	}
	return out
}

// newPlaces counts the places of a step that the student has not had in those before.
func (s *Stair) newPlaces(step Step, x instrument.Instrument) int {
	had := map[string]bool{}
	for _, before := range s.Steps {
		for _, e := range before.Cleared {
			had[e.Place()] = true
		}
	}
	return len(slices.DeleteFunc(Places(Exercise{Type: s.Type, Step: step, Instrument: x}), func(e Exercise) bool { return had[e.Place()] }))
}

// of returns the exercises of a step among ids. Ids that are no exercise (any more) are passed over.
func of(t Type, step Step, x instrument.Instrument, ids []string) []Exercise {
	var out []Exercise
	for _, id := range ids {
		if strings.HasPrefix(id, t.ID+"/"+step.ID+"/") {
			if e, err := read(id, x); err == nil {
				out = append(out, e)
			}
		}
	}
	return out
}

// before is the step that "scale/two" names.
func before(after string) *Before {
	id, step, _ := strings.Cut(after, "/")
	t, _ := TypeOf(id)
	s, _ := t.StepOf(step)
	return &Before{t, s}
}

// propose finds the next exercise.
func (s *Stair) propose(x instrument.Instrument, wish Wish) {
	if s.Waits != nil || s.At == len(s.Steps) {
		return
	}
	for _, step := range s.Steps {
		if len(step.Working) > 0 {
			return
		}
	}
	here := s.Steps[s.At]
	done := map[string]bool{}
	for _, e := range here.Cleared {
		done[e.Place()] = true
	}
	if here.Step.NewPlaces {
		for _, step := range s.Steps[:s.At] {
			for _, e := range step.Cleared {
				done[e.Place()] = true
			}
		}
	}
	var first *Exercise
	var why Reason
	consider := func(e Exercise, reason Reason) {
		if first == nil && !done[e.Place()] {
			first, why = &e, reason
		}
	}
	if wish.Type == s.Type.ID {
		if e, err := Parse(s.Type.ID+"/"+here.Step.ID+"/"+wish.Place, x); err == nil {
			consider(e, Reason{Kind: KeyOfTheWeek, Day: wish.Since})
		}
	}
	if s.At > 0 {
		for _, e := range s.Steps[s.At-1].Cleared {
			if e = e.At(here.Step); e.check() == nil { // a longer one may leave the instrument
				consider(e, Reason{Kind: FirstBefore})
			}
		}
	}
	for _, e := range Places(Exercise{Type: s.Type, Step: here.Step, Instrument: x}) {
		consider(e, Reason{Kind: ByOrder, Order: here.Step.Order})
	}
	if first != nil {
		s.Next = &Proposal{*first, []Reason{s.climbedTo(here), why}}
	}
}

// climbedTo says how the student came to a step.
func (s *Stair) climbedTo(here StairStep) Reason {
	if n := len(here.Cleared); n > 0 {
		return Reason{Kind: SomeThrough, Step: here.Step, Now: here.Step, Count: n, Of: here.Of}
	}
	if s.At == 0 {
		return Reason{Kind: FirstStep, Now: here.Step}
	}
	last := s.Steps[s.At-1]
	if last.Known && len(last.Cleared) < last.Of {
		return Reason{Kind: FromPieces, Step: last.Step, Now: here.Step}
	}
	return Reason{Kind: StepClimbed, Step: last.Step, Now: here.Step, Of: last.Of}
}

// Superseded are the cleared exercises, by id, whose place was taken up again on a later
// step: to play the scale hands together is to keep it hands apart.
func (p Progress) Superseded(x instrument.Instrument) map[string]bool {
	furthest := map[string]int{}
	each := func(ids []string, do func(id, place string, step int)) {
		for _, id := range ids {
			if e, err := read(id, x); err == nil {
				do(id, e.Type.ID+" "+e.Place(), e.Type.step(e.Step.ID))
			}
		}
	}
	note := func(_, place string, step int) { furthest[place] = max(furthest[place], step) }
	each(p.Cleared, note)
	each(p.Working, note)
	out := map[string]bool{}
	each(p.Cleared, func(id, place string, step int) {
		if step < furthest[place] {
			out[id] = true
		}
	})
	return out
}

// PlaceName names what of its type an exercise is: its key, string, roll or chords.
func (e Exercise) PlaceName(words naming.Words) string {
	if e.Type.keyed() && e.Type.What == "" {
		return e.keyName(words)
	}
	return e.Title(words)
}

// Passed is how far one place of a type has come: the index of the highest step on
// which it was cleared, −1 for none, and of the one it is worked at, −1 for none.
func (s Stair) Passed(place string) (cleared, working int) {
	cleared, working = -1, -1
	for i, step := range s.Steps {
		at := func(e Exercise) bool { return e.Place() == place }
		if slices.ContainsFunc(step.Cleared, at) {
			cleared = i
		}
		if slices.ContainsFunc(step.Working, at) {
			working = i
		}
	}
	return cleared, working
}

package exercise

import (
	"fmt"
	"slices"
	"strings"

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
	// Waits names the step that comes before the type, in words; empty when it may be begun.
	Waits string
	// Next is proposed; nil while something is being worked at, while it waits, or when all is climbed.
	Next *Proposal
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
}

// Proposal is the next exercise with its reasons.
type Proposal struct {
	Exercise Exercise
	Reasons  []string
}

// Wish names the place that something outside the staircase asks for, such as the key of the
// week in a cycle; the zero value asks for nothing.
type Wish struct {
	Type, Place string
	// Why is a sentence.
	Why string
}

// Climb returns the staircases of an instrument for one student. A step is climbed when as
// many of its places are cleared as it asks for, or when pieces have made secure what it gives
// (but not where each key has to be gone through); the next exercise is the next place of the step
// on which the student stands, those climbed on the step before first; a wish goes before. A type that
// comes after a step of another waits until that step has been climbed, unless it was begun
// or is wished for.
func Climb(x instrument.Instrument, p Progress, wish Wish, words naming.Words) []Stair {
	climbed := map[string]bool{}
	var out []Stair
	for _, t := range Types(x.Family) {
		s := Stair{Type: t, At: len(t.Steps)}
		begun := false
		for i, step := range t.Steps {
			ss := StairStep{Step: step, Of: min(step.Keys, len(Places(Exercise{Type: t, Step: step, Instrument: x})))}
			ss.Cleared, ss.Working = of(t, step, x, p.Cleared), of(t, step, x, p.Working)
			begun = begun || len(ss.Cleared)+len(ss.Working) > 0
			// Every key has to be gone through itself: to know the thumb is not to know A flat.
			knows := len(ss.Working) == 0 && p.knows(step)
			ss.Known = knows && !t.Cycle
			s.Steps = append(s.Steps, ss)
			full := len(ss.Cleared) >= ss.Of
			if full || knows {
				climbed[t.ID+"/"+step.ID] = true
			}
			if !full && !ss.Known && i < s.At {
				s.At = i
			}
		}
		if t.After != "" && !climbed[t.After] && !begun && wish.Type != t.ID {
			s.Waits = named(t.After)
		}
		s.propose(x, wish, words)
		out = append(out, s)
	}
	return out
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

// named says "Scales, two octaves" for "scale/two".
func named(after string) string {
	id, step, _ := strings.Cut(after, "/")
	t, _ := TypeOf(id)
	s, _ := t.StepOf(step)
	return t.Name + ", " + s.Name
}

// propose finds the next exercise.
func (s *Stair) propose(x instrument.Instrument, wish Wish, words naming.Words) {
	if s.Waits != "" || s.At == len(s.Steps) {
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
	var first *Exercise
	consider := func(e Exercise) {
		if first == nil && !done[e.Place()] {
			first = &e
		}
	}
	var reasons []string
	if wish.Type == s.Type.ID {
		if e, err := Parse(s.Type.ID+"/"+here.Step.ID+"/"+wish.Place, x); err == nil {
			consider(e)
			if first != nil {
				reasons = append(reasons, wish.Why)
			}
		}
	}
	if s.At > 0 && first == nil {
		for _, e := range s.Steps[s.At-1].Cleared {
			consider(e.At(here.Step))
		}
		if first != nil {
			reasons = append(reasons, fmt.Sprintf("%s stood first on the step before.", place(*first, words)))
		}
	}
	if first == nil {
		for _, e := range Places(Exercise{Type: s.Type, Step: here.Step, Instrument: x}) {
			consider(e)
		}
		if first != nil {
			reasons = append(reasons, order(here.Step, *first, words))
		}
	}
	if first == nil {
		return
	}
	switch n := len(here.Cleared); {
	case n > 0:
		reasons = append([]string{fmt.Sprintf("%d of %d are through “%s”.", n, here.Of, here.Step.Name)}, reasons...)
	case s.At > 0 && s.Steps[s.At-1].Known && len(s.Steps[s.At-1].Cleared) < s.Steps[s.At-1].Of:
		reasons = append([]string{fmt.Sprintf("“%s” is known from pieces; now %s.", s.Steps[s.At-1].Step.Name, here.Step.Why)}, reasons...)
	case s.At > 0:
		before := s.Steps[s.At-1]
		all := fmt.Sprintf("all %d are", before.Of)
		if before.Of == 1 {
			all = "one is"
		}
		reasons = append([]string{fmt.Sprintf("“%s” is climbed (%s through); now %s.", before.Step.Name, all, here.Step.Why)}, reasons...)
	default:
		reasons = append([]string{fmt.Sprintf("It begins with %s: %s.", here.Step.Name, here.Step.Why)}, reasons...)
	}
	s.Next = &Proposal{*first, reasons}
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

// place names what of a type an exercise is: its key, string, roll or chords.
func place(e Exercise, words naming.Words) string {
	name := e.Title(words)
	if e.Type.keyed() && e.Type.What == "" {
		name = e.keyName(words)
	}
	return name
}

// order says why a place comes now.
func order(s Step, e Exercise, words naming.Words) string {
	switch s.Order {
	case "few":
		if e.Instrument.Family == instrument.Bowed {
			return fmt.Sprintf("%s asks least of the left hand of those left.", place(e, words))
		}
		return fmt.Sprintf("%s has the fewest sharps or flats of those left.", place(e, words))
	case "fifths":
		return fmt.Sprintf("%s is next by fifths.", place(e, words))
	case "chords":
		return fmt.Sprintf("%s has the fewest fingers to move of those left.", place(e, words))
	case "strings":
		return "The middle strings come first: the bow arm lies easiest there."
	}
	return "It is the next in the order."
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

// Package exercise holds the exercises of technique: their types as staircases of
// steps, the notes of each with fingers, strings and bows, and where a student
// stands.
//
//	types.json    the types, their steps, goals and faults: data
//	types.go      the data read and checked
//	exercise.go   one exercise: a type at a step, in a key or on a string
//	order.go      the keys, strings, rolls and chords of a type, the easiest first
//	build.go      an exercise as notes to hear, to draw and to engrave
//	keyboard.go, voices.go, weight.go   the notes of each family
//	strings.go, frets.go, melody.go, sticks.go
//	written.go    the notes as a score
//	staircase.go  where a student stands, and what comes next
//	near.go       the exercises around one
//	cycle.go      the keys of a type, one after the other
//	bite.go       the exercise that plants a skill of a piece
package exercise

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"patientladder/core/library/instrument"
	"patientladder/core/reading/naming"
	"patientladder/core/technique/plucked"
	"patientladder/core/technique/scale"
)

// Exercise is a type at a step, in a key, on a string, or of a roll or two chords.
type Exercise struct {
	Type Type
	Step Step
	// Key and Kind are empty where the type has no keys.
	Key  scale.Tonic
	Kind scale.Kind
	// What is the string ("2"), the roll ("out-and-back") or the chords ("C-F") of a type
	// that has one; empty otherwise.
	What       string
	Instrument instrument.Instrument
}

// ID names an exercise of an instrument: "scale/apart/Db/major/-".
func (e Exercise) ID() string {
	key, kind, what := "-", "-", e.What
	if e.Type.keyed() {
		key, kind = e.Key.String(), string(e.Kind)
	}
	if what == "" {
		what = "-"
	}
	return strings.Join([]string{e.Type.ID, e.Step.ID, key, kind, what}, "/")
}

// At is the same exercise at another step.
func (e Exercise) At(s Step) Exercise {
	e.Step = s
	return e
}

// Place is what of the type it is: its key and kind, its string, its roll or its
// chords. Steps of a type are climbed place by place.
func (e Exercise) Place() string {
	_, place, _ := strings.Cut(strings.TrimPrefix(e.ID(), e.Type.ID+"/"), "/")
	return place
}

// Parse reads the id of an exercise for an instrument and sees that it can be played there.
func Parse(id string, x instrument.Instrument) (Exercise, error) {
	e, err := read(id, x)
	if err != nil {
		return e, err
	}
	return e, e.check()
}

// read reads an id without trying its notes.
func read(id string, x instrument.Instrument) (Exercise, error) {
	parts := strings.Split(id, "/")
	if len(parts) != 5 {
		return Exercise{}, fmt.Errorf("%q is not an exercise: write type, step, key, kind and string or roll, as in scale/apart/Db/major/-", id)
	}
	t, ok := TypeOf(parts[0])
	if !ok || !slices.Contains(t.Families, x.Family) || slices.Contains(x.Without, t.ID) {
		return Exercise{}, fmt.Errorf("there is no exercise %q for the %s", parts[0], x.ID)
	}
	e := Exercise{Type: t, Instrument: x}
	if e.Step, ok = t.StepOf(parts[1]); !ok {
		return e, fmt.Errorf("%s have no step %q", strings.ToLower(t.Name), parts[1])
	}
	if t.keyed() {
		e.Kind = scale.Kind(parts[3])
		var err error
		if !slices.Contains(t.Kinds, e.Kind) {
			return e, fmt.Errorf("%s have no kind %q", strings.ToLower(t.Name), parts[3])
		}
		if e.Key, err = scale.Parse(parts[2], e.Kind); err != nil {
			return e, err
		}
	}
	if t.What != "" {
		e.What = parts[4]
	}
	return e, nil
}

// check sees that what the exercise names is there.
func (e Exercise) check() error {
	switch e.Type.What {
	case "string":
		if n, err := strconv.Atoi(e.What); err != nil || n < 1 || n > len(e.Instrument.Open) {
			return fmt.Errorf("the %s has strings 1 to %d; there is no string %q", e.Instrument.ID, len(e.Instrument.Open), e.What)
		}
	case "rhythm":
		if _, ok := rhythmOf(e.What); !ok {
			return fmt.Errorf("there is no rhythm %q", e.What)
		}
	case "sticking":
		if _, ok := stickings[e.What]; !ok {
			return fmt.Errorf("there is no sticking %q", e.What)
		}
	case "roll":
		if _, ok := e.roll(); !ok {
			return fmt.Errorf("the %s has no roll %q", e.Instrument.ID, e.What)
		}
	case "chords":
		a, b, two := strings.Cut(e.What, "-")
		if !two {
			return fmt.Errorf("%q are not two chords: write them as in C-F", e.What)
		}
		for _, name := range []string{a, b} {
			if _, err := plucked.Chord(e.Instrument, name); err != nil {
				return err
			}
		}
	}
	_, err := e.Build()
	return err
}

func (e Exercise) roll() (instrument.Roll, bool) {
	for _, r := range e.Instrument.Rolls {
		if r.ID == e.What {
			return r, true
		}
	}
	return instrument.Roll{}, false
}

// Str is the number of the string of an exercise on one string.
func (e Exercise) Str() int {
	n, _ := strconv.Atoi(e.What)
	return n
}

// Title names the exercise without its step, in the words of a studio: "D♭ major scale".
func (e Exercise) Title(words naming.Words) string {
	name := strings.ToLower(e.Type.Name)
	if e.Type.One != "" {
		name = e.Type.One
	}
	switch e.Type.What {
	case "rhythm":
		return e.Type.Name + ", “" + e.Spoken(words) + "”"
	case "roll":
		r, _ := e.roll()
		return r.Name
	case "sticking":
		return stickings[e.What].name
	case "chords":
		return strings.ReplaceAll(e.What, "-", " to ")
	case "string":
		on := fmt.Sprintf("%s string", words.Key(e.Instrument.Open[e.Str()-1].Name()))
		if !e.Type.keyed() {
			return fmt.Sprintf("%s, %s", e.Type.Name, on)
		}
		return fmt.Sprintf("%s: %s of %s", on, name, e.keyName(words))
	}
	switch {
	case !e.Type.keyed():
		return e.Type.Name
	case e.Kind == scale.Chromatic:
		return strings.ToUpper(name[:1]) + name[1:] + " from " + words.Key(e.Key.String())
	case e.Type.Noun:
		return e.keyName(words) + " " + name
	}
	return e.keyName(words) + ", " + name
}

// keyName is "D♭ major", "A harmonic minor"; a chromatic scale has its first note only.
func (e Exercise) keyName(words naming.Words) string {
	kind := string(e.Kind)
	for _, tail := range []string{"-arpeggio", "-broken-chord", "-five-finger"} {
		kind = strings.TrimSuffix(kind, tail)
	}
	switch e.Kind {
	case scale.Chromatic:
		return "From " + words.Key(e.Key.String())
	case scale.Tetrachords:
		kind = "major"
	}
	return words.Key(e.Key.String()) + " " + strings.ReplaceAll(kind, "-", " ")
}

// Full is the title with the step: "D♭ major scale: one octave, hands apart".
func (e Exercise) Full(words naming.Words) string {
	return e.Title(words) + ": " + e.Step.Name
}

package exercise

import (
	"slices"
	"strconv"

	"patientladder/core/library/instrument"
	"patientladder/core/technique/scale"
)

// Choice is one thing in which exercises differ, with the exercises that differ from
// another in it alone.
type Choice struct {
	// Name is "Exercise", "Step", "Key", "Kind", "String", "Rhythm", "Roll", "Chords" or "Sticking".
	Name    string
	Options []Exercise
}

// Near returns the exercises around one: other types, and other steps, keys, kinds and
// strings, rolls or chords of its type. Options that cannot be played are left out.
func Near(e Exercise) []Choice {
	var out []Choice
	add := func(name string, options []Exercise) {
		if len(options) > 1 {
			out = append(out, Choice{name, options})
		}
	}
	var list []Exercise
	try := func(x Exercise) {
		if x.check() == nil {
			list = append(list, x)
		}
	}
	for _, t := range For(e.Instrument) {
		if t.ID == e.Type.ID {
			list = append(list, e)
		} else if x, ok := begin(t, e); ok {
			list = append(list, x)
		}
	}
	add("Exercise", list)
	list = nil
	for _, s := range e.Type.Steps {
		try(e.At(s))
	}
	add("Step", list)
	list = nil
	if e.Type.keyed() {
		for _, k := range Keys("fifths", e.Kind) {
			x := e
			x.Key = k
			try(x)
		}
		add("Key", list)
		list = nil
		for _, k := range e.Type.Kinds {
			x := e
			x.Kind = k
			x.Key = named12(e.Key, k)
			try(x)
		}
		add("Kind", list)
		list = nil
	}
	switch e.Type.What {
	case "string":
		for n := range e.Instrument.Open {
			x := e
			x.What = strconv.Itoa(n + 1)
			try(x)
		}
		add("String", list)
	case "rhythm":
		add("Rhythm", Places(e))
	case "roll":
		for _, r := range e.Instrument.Rolls {
			x := e
			x.What = r.ID
			try(x)
		}
		add("Roll", list)
	case "chords":
		add("Chords", Places(e))
	case "sticking":
		add("Sticking", Places(e))
	}
	return out
}

// named12 is the name that a key has among the twelve of a kind.
func named12(t scale.Tonic, k scale.Kind) scale.Tonic {
	for _, x := range Keys("fifths", k) {
		if x.Class() == t.Class() {
			return x
		}
	}
	return t
}

// begin is the first step of another type, in the same key where it can be.
func begin(t Type, e Exercise) (Exercise, bool) {
	there := Places(Exercise{Type: t, Step: t.Steps[0], Instrument: e.Instrument})
	if len(there) == 0 {
		return Exercise{}, false
	}
	if t.keyed() && e.Type.keyed() {
		if i := slices.IndexFunc(there, func(x Exercise) bool { return x.Key.Class() == e.Key.Class() }); i >= 0 {
			return there[i], true
		}
	}
	return there[0], true
}

// First is the exercise with which an instrument begins; ok is false for one without any.
func First(x instrument.Instrument) (Exercise, bool) {
	list := For(x)
	if len(list) == 0 {
		return Exercise{}, false
	}
	return begin(list[0], Exercise{Instrument: x})
}

// CycleType is the type that is taken through the keys on an instrument: its scales. ok is
// false where none is.
func CycleType(x instrument.Instrument) (Type, bool) {
	list := For(x)
	if i := slices.IndexFunc(list, func(t Type) bool { return t.Cycle }); i >= 0 {
		return list[i], true
	}
	return Type{}, false
}

// Keyed is the type that shows how far an instrument's keys have come: what is taken through the keys, else its first type
// with a key for each exercise. ok is false where none has.
func Keyed(x instrument.Instrument) (Type, bool) {
	if t, ok := CycleType(x); ok {
		return t, true
	}
	list := For(x)
	i := slices.IndexFunc(list, func(t Type) bool { return t.keyed() && t.What == "" })
	if i < 0 {
		return Type{}, false
	}
	return list[i], true
}

package exercise

import (
	"fmt"
	"slices"

	"patientladder/core/technique/keycycle"
	"patientladder/core/technique/scale"
)

// Round returns the exercises of a cycle, a key each, from the first key on: those that
// the instrument can play. Base gives the type, step and kind.
func Round(base Exercise, first scale.Tonic, o keycycle.Order) ([]Exercise, error) {
	keys, err := keycycle.Keys(first, o)
	if err != nil {
		return nil, err
	}
	there := Places(base)
	var out []Exercise
	for _, k := range keys {
		i := slices.IndexFunc(there, func(e Exercise) bool { return e.Key.Class() == k.Class() })
		if i >= 0 {
			out = append(out, there[i])
		}
	}
	if len(out) == 0 {
		return nil, fmt.Errorf("the %s has no key for this cycle", base.Instrument.ID)
	}
	return out, nil
}

// CycleKeys are the keys in which a cycle of a kind can begin, by fifths from C, as they are written in that kind.
func CycleKeys(base Exercise) []scale.Tonic {
	list, err := Round(base, scale.Tonic{Step: 'C'}, keycycle.Fifths)
	if err != nil {
		return nil // the instrument has no key of it
	}
	var keys []scale.Tonic
	for _, e := range list {
		keys = append(keys, e.Key)
	}
	return keys
}

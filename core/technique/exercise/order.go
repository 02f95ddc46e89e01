package exercise

import (
	"cmp"
	"slices"
	"strconv"
	"sync"

	"patientladder/core/technique/bowed"
	"patientladder/core/technique/plucked"
	"patientladder/core/technique/scale"
)

// firstChords are those that changes are made of (common practice for the first year).
var firstChords = []string{"C", "F", "G7", "Am", "G", "Dm", "A", "D"}

// few are the major keys from the fewest accidentals on, sharps before flats.
var few = []scale.Tonic{
	{Step: 'C'}, {Step: 'G'}, {Step: 'F'}, {Step: 'D'}, {Step: 'B', Alter: -1}, {Step: 'A'}, {Step: 'E', Alter: -1}, {Step: 'E'},
	{Step: 'A', Alter: -1},
	{Step: 'B'}, {Step: 'D', Alter: -1}, {Step: 'G', Alter: -1},
}

// fifths are the major keys by fifths from C.
var fifths = []scale.Tonic{
	{Step: 'C'}, {Step: 'G'}, {Step: 'D'}, {Step: 'A'}, {Step: 'E'}, {Step: 'B'}, {Step: 'G', Alter: -1}, {Step: 'D', Alter: -1},
	{Step: 'A', Alter: -1},
	{Step: 'E', Alter: -1}, {Step: 'B', Alter: -1}, {Step: 'F'},
}

// Keys returns the twelve keys of a kind in the order of a step, each by its usual
// name: minor keys are those of the same notes as the major ones (A minor for C).
func Keys(order string, k scale.Kind) []scale.Tonic {
	list := few
	if order == "fifths" {
		list = fifths
	}
	out := slices.Clone(list)
	if !k.Minor() {
		return out
	}
	for i, t := range out {
		out[i] = t.RelativeMinor()
	}
	return out
}

// found keeps the places that were tried once: they follow from the data alone.
var found sync.Map

// Places returns every place of a type at a step for an instrument, the easiest
// first, in a kind of the type, its first where none is given.
func Places(base Exercise) []Exercise {
	key := [4]string{base.Instrument.ID, base.Type.ID, base.Step.ID, string(base.Kind)}
	if list, ok := found.Load(key); ok {
		return slices.Clone(list.([]Exercise))
	}
	list := places(base)
	found.Store(key, list)
	return slices.Clone(list)
}

func places(base Exercise) []Exercise {
	var out []Exercise
	put := func(e Exercise) {
		if e.check() == nil {
			out = append(out, e)
		}
	}
	e := base
	switch {
	case e.Type.What == "rhythm":
		for _, r := range rhythms {
			e.What = r.id
			put(e)
		}
	case e.Type.What == "sticking":
		for _, id := range stickingOrder {
			e.What = id
			put(e)
		}
	case e.Type.What == "" && !e.Type.keyed():
		put(e)
	case e.Type.What == "roll":
		for _, r := range e.Instrument.Rolls {
			e.What = r.ID
			put(e)
		}
	case e.Type.What == "chords":
		for _, pair := range changes(e) {
			e.What = pair
			put(e)
		}
	case e.Type.What == "string" && !e.Type.keyed():
		for _, n := range stringOrder(len(e.Instrument.Open) - len(e.Instrument.Drone)) {
			e.What = strconv.Itoa(n)
			put(e)
		}
	case e.Type.What == "string":
		return patterns(e)
	default:
		if e.Kind == "" {
			e.Kind = e.Type.Kinds[0]
		}
		for _, key := range Keys(e.Step.Order, e.Kind) {
			e.Key = key
			put(e)
		}
		if e.Type.Make == "strings" && e.Step.Order == "few" {
			slices.SortStableFunc(out, func(a, b Exercise) int { return cmp.Compare(a.effort(), b.effort()) })
		}
	}
	return out
}

// stringOrder begins on the middle strings, where the bow arm lies easiest (common practice).
func stringOrder(strings int) []int {
	out := []int{2, 1, 3, 4}
	return out[:min(len(out), strings)]
}

// effort is how much a scale over the strings asks of the left hand: moves of the
// hand, then extended notes, then a beginning that is not on an open string.
func (e Exercise) effort() int {
	list, err := bowed.Scale(e.Instrument, e.Key, e.Kind, e.Step.Octaves)
	if err != nil {
		return 1 << 20
	}
	cost := 0
	if list[0].Finger > 0 {
		cost++
	}
	for _, n := range list {
		if n.Where != "" {
			cost += 8
		}
		if n.Extended && n.Finger > 1 {
			cost += 2
		}
	}
	return cost
}

// patterns are the finger patterns that differ, each once, in the order of the keys
// and strings on which they come first.
func patterns(base Exercise) []Exercise {
	var out []Exercise
	seen := map[string]bool{}
	e := base
	e.Kind = e.Type.Kinds[0]
	for _, key := range []scale.Tonic{{Step: 'D'}, {Step: 'G'}, {Step: 'C'}, {Step: 'A'}, {Step: 'F'}, {Step: 'B', Alter: -1}, {Step: 'E'}} {
		list, err := bowed.Patterns(e.Instrument, key, e.Kind)
		if err != nil {
			return out
		}
		for _, n := range stringOrder(len(list)) {
			p := list[n-1]
			e.Key, e.What = key, strconv.Itoa(n)
			if !seen[p.ID] && p.Moves == 0 && e.check() == nil {
				seen[p.ID] = true
				out = append(out, e)
			}
		}
	}
	return out
}

// changes are pairs of chords, those with the least to do first.
func changes(e Exercise) []string {
	type pair struct {
		name string
		cost int
	}
	var list []pair
	for i, a := range firstChords {
		for _, b := range firstChords[i+1:] {
			x, errA := plucked.Chord(e.Instrument, a)
			y, errB := plucked.Chord(e.Instrument, b)
			if errA != nil || errB != nil {
				continue
			}
			cost := 0
			for _, m := range plucked.ChangeOf(x, y).Moves {
				cost += map[string]int{"moves": 3, "sets": 2, "slides": 1, "lifts": 1}[m.How]
			}
			list = append(list, pair{a + "-" + b, cost})
		}
	}
	slices.SortStableFunc(list, func(a, b pair) int { return a.cost - b.cost })
	var out []string
	for _, p := range list[:min(len(list), 12)] {
		out = append(out, p.name)
	}
	return out
}

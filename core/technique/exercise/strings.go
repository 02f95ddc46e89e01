package exercise

import (
	"fmt"

	"patientladder/core/base/rational"
	"patientladder/core/technique/bowed"
)

// bowedLine lays notes with their bows, each bow as long as the other.
func (e Exercise) bowedLine(notes []Note) Built {
	b := Built{Beats: 4}
	plan, _ := bowed.PlanOf(e.Step.Bow)
	value := rational.Int(1)
	if plan.PerBow == 1 && e.Step.Bow == "whole" {
		value = rational.Int(2)
	}
	if plan.PerBow >= 4 {
		value = rational.New(1, 2)
	}
	if e.Step.Bow != "" {
		for i, s := range plan.Strokes(len(notes)) {
			if s.Begins {
				notes[i].Bow = "down"
				if s.Up {
					notes[i].Bow = "up"
				}
			}
			notes[i].Slur, notes[i].Unslur = s.Begins && !s.Ends, s.Ends && !s.Begins
		}
	}
	b.Notes, _ = line(notes, rational.Rat{}, value, b.Beats)
	return b
}

func stopped(str int, s bowed.Stop) Note {
	return Note{Pitch: s.Pitch, Finger: s.Finger, String: str, Above: s.Above}
}

// openString bows one open string eight times.
func (e Exercise) openString() Built {
	var notes []Note
	for range 8 {
		notes = append(notes, Note{Pitch: e.Instrument.Open[e.Str()-1], String: e.Str()})
	}
	return e.bowedLine(notes)
}

// upAndDown adds the way back.
func upAndDown(up []Note) []Note {
	out := append([]Note{}, up...)
	for i := len(up) - 2; i >= 0; i-- {
		n := up[i]
		n.Where = ""
		out = append(out, n)
	}
	return out
}

// pattern plays the finger pattern of a string in a key, up and down.
func (e Exercise) pattern() (Built, error) {
	p, err := e.fingerPattern()
	if err != nil {
		return Built{}, err
	}
	if len(p.Stops) < 2 {
		return Built{}, fmt.Errorf("there is no pattern to play on string %s in %s", e.What, e.Key)
	}
	var up []Note
	for _, s := range p.Stops {
		up = append(up, stopped(p.String, s))
	}
	b := e.bowedLine(upAndDown(up))
	if e.Step.Hands == "silent" {
		for i := range b.Notes {
			b.Notes[i].Silent = true
		}
	}
	return b, nil
}

func (e Exercise) fingerPattern() (bowed.Pattern, error) {
	list, err := bowed.Patterns(e.Instrument, e.Key, e.Kind)
	if err != nil {
		return bowed.Pattern{}, err
	}
	if n := e.Str(); n >= 1 && n <= len(list) {
		return list[n-1], nil
	}
	return bowed.Pattern{}, fmt.Errorf("the %s has no string %q", e.Instrument.ID, e.What)
}

// overStrings plays a scale or an arpeggio up and down.
func (e Exercise) overStrings() (Built, error) {
	list, err := bowed.Scale(e.Instrument, e.Key, e.Kind, max(1, e.Step.Octaves))
	if err != nil {
		return Built{}, err
	}
	var up []Note
	for _, p := range list {
		n := stopped(p.String, p.Stop)
		n.Where = p.Where
		up = append(up, n)
	}
	return e.bowedLine(upAndDown(up)), nil
}

// shift glides the first finger from its first place on a string to the third and the fourth of
// the key and back.
func (e Exercise) shift() (Built, error) {
	p, err := e.fingerPattern()
	if err != nil {
		return Built{}, err
	}
	if len(p.Stops) < 3 || p.Stops[0].Above != 0 {
		return Built{}, fmt.Errorf("the open string %s is not in %s: choose another", e.What, e.Key)
	}
	var up []Note
	for i, s := range p.Stops {
		n := stopped(p.String, s)
		if i > 0 {
			n.Finger = 1
		}
		up = append(up, n)
	}
	first := up[1]
	var notes []Note
	for _, to := range up[2:] {
		notes = append(notes, first, to, to, first)
	}
	return e.bowedLine(append(notes, up[0])), nil
}

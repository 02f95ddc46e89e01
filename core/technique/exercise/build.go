package exercise

import (
	"fmt"

	"patientladder/core/base/rational"
	"patientladder/core/notation/score"
	"patientladder/core/technique/scale"
)

// Note is one note of an exercise, as it is heard and drawn.
type Note struct {
	// At and Length are in quarter notes from the start.
	At, Length rational.Rat
	Pitch      score.Pitch
	// Hand is "right" or "left" on a keyboard; empty on strings.
	Hand string
	// Finger is 1 to 5 on a keyboard, 0 (open) to 4 on strings.
	Finger int
	// String counts from 1, Above in semitones (frets) from the open string; 0 and 0 on a keyboard.
	String, Above int
	// Pluck is the plucking finger: "p", "i", "m", "a"; empty where none is.
	Pluck string
	// Stick is "R" or "L", the hand that strikes; Accent says that it stands out. Breath says that breath is taken after it.
	Stick          string
	Accent, Breath bool
	// Bow is "down" or "up" where a bow begins; empty elsewhere. Slur and Unslur say that a bow of
	// several notes begins and ends here.
	Bow          string
	Slur, Unslur bool
	// Join says that the left hand sounds the note out of the one before it.
	Join score.Join
	// Chord says that it sounds with the note before it.
	Chord bool
	// Silent notes are not heard: mimed, or set without a sound.
	Silent bool
	// Short notes are played short of their length.
	Short bool
	// Meet says how the hands meet at the note: a kind of scale.Meet; empty where they do not.
	Meet string
	// Degree of the scale, from 1, of a note at which the hands meet; 0 elsewhere.
	Degree int
	// Group is 3 or 4 for the group of fingers in which a note of a scale lies; 0 where there are no such groups. Begins says
	// that the hand comes to another group with it, or that it is the first.
	Group  int
	Begins bool
	// Where names a position that the hand comes to.
	Where string
}

// End is when the note stops.
func (n Note) End() rational.Rat { return n.At.Add(n.Length) }

// Built is an exercise as notes.
type Built struct {
	Notes []Note
	// Beats is the number of quarter notes of a bar.
	Beats int
	// Length is that of the whole, in quarter notes: whole bars.
	Length rational.Rat
	// Chords are named where they change, by the time.
	Chords []ChordAt
	// Meets are where both hands meet, for hands that play at once.
	Meets []scale.Meet
	// Dynamics are where they change; nil for none.
	Dynamics []DynamicAt
}

// ChordAt is the name of a chord at a time.
type ChordAt struct {
	At   rational.Rat
	Name string
}

// DynamicAt is a dynamic, "crescendo", "diminuendo" or "end" at a time, for a hand ("" for all).
type DynamicAt struct {
	At   rational.Rat
	Text string
	Hand string
}

// Build makes the notes of an exercise by the rule of its type.
func (e Exercise) Build() (Built, error) {
	var b Built
	var err error
	switch e.Type.Make {
	case "keys":
		b, err = e.keys()
	case "figure":
		b, err = e.figure()
	case "canon":
		b, err = e.canon()
	case "weights":
		b, err = e.weights()
	case "open-string":
		b = e.openString()
	case "pattern":
		b, err = e.pattern()
	case "strings":
		b, err = e.overStrings()
	case "shift":
		b, err = e.shift()
	case "rhythm":
		b = e.spoken()
	case "roll":
		b, err = e.rolled()
	case "changes":
		b, err = e.changing()
	case "tones":
		b, err = e.tones()
	case "line":
		b, err = e.melody()
	case "phrase":
		b, err = e.phrase()
	case "sticks":
		b = e.struck()
	case "join":
		b = e.joined()
	case "frets":
		b, err = e.frets()
	default:
		err = fmt.Errorf("no rule makes %q", e.Type.Make)
	}
	if err != nil {
		return Built{}, err
	}
	e.finish(&b)
	return b, nil
}

// finish closes the last bar and adds what the step changes beside the notes.
func (e Exercise) finish(b *Built) {
	end := rational.Rat{}
	for _, n := range b.Notes {
		end = rational.Max(end, n.End())
	}
	bars := (end.Num() + end.Den()*int64(b.Beats) - 1) / (end.Den() * int64(b.Beats))
	b.Length = rational.Int(bars * int64(b.Beats))
	zero := rational.Rat{}
	if e.Step.Dynamics != "" {
		b.Dynamics = nil
	}
	switch e.Step.Dynamics {
	case "f":
		b.Dynamics = []DynamicAt{{zero, "f", ""}}
	case "f-p", "f-mime":
		b.Dynamics = []DynamicAt{{zero, "f", "right"}, {zero, "pp", "left"}}
	case "p-f":
		b.Dynamics = []DynamicAt{{zero, "pp", "right"}, {zero, "f", "left"}}
	case "line":
		b.Dynamics = lineDynamics(b.Notes)
	case "swell":
		half := end.Mul(rational.New(1, 2))
		b.Dynamics = []DynamicAt{{zero, "crescendo", ""}, {half, "end", ""}, {half, "diminuendo", ""}, {end.Sub(rational.Int(1)), "end", ""}}
	}
	if e.Step.Dynamics == "f-mime" {
		b.Dynamics = b.Dynamics[:1]
		for i := range b.Notes {
			b.Notes[i].Silent = b.Notes[i].Hand == "left"
		}
	}
	if e.Step.Touch == "mixed" {
		for i := range b.Notes {
			b.Notes[i].Short = b.Notes[i].Hand == "left"
		}
	}
}

// line lays notes one after the other, each as long as the value but for the last,
// which fills its bar. It returns when the line ends.
func line(notes []Note, from, value rational.Rat, beats int) ([]Note, rational.Rat) {
	at := from
	for i := range notes {
		notes[i].At, notes[i].Length = at, value
		if i > 0 && notes[i].Chord {
			notes[i].At, notes[i].Length = notes[i-1].At, notes[i-1].Length
			continue
		}
		at = at.Add(value)
	}
	if n := len(notes); n > 0 {
		bar := int64(beats)
		whole := rational.Int((at.Num() + at.Den()*bar - 1) / (at.Den() * bar) * bar)
		notes[n-1].Length = whole.Sub(notes[n-1].At)
		at = whole
	}
	return notes, at
}

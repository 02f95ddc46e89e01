package wording

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"patientladder/core/library/dimension"
	"patientladder/core/library/instrument"
	"patientladder/core/notation/score"
	"patientladder/core/reading/key"
	"patientladder/core/reading/load"
	"patientladder/core/student/leap"
)

// dimensions say each dimension as a heading, as what is more of it in a piece, and how much, with a place for the amount.
var dimensions = map[dimension.ID]struct{ name, more, unit string }{
	dimension.Speed:        {"Speed", "quicker notes", "%s notes a second"},
	dimension.Jumps:        {"Jumps", "wider or quicker jumps", "jumps of %s semitones a second beyond an octave"},
	dimension.Span:         {"Span", "wider grips", "grips %s semitones wider than a fifth"},
	dimension.Density:      {"Fullness", "fuller chords or figures", "%s notes a second in a hand, with chords"},
	dimension.Independence: {"Independence", "hands more on their own", "%s moves in two beats in which the hands part"},
	dimension.Voices:       {"Voices in a hand", "more moving over held notes", "%s notes a beat over one that is held"},
	dimension.Rhythm:       {"Rhythm", "finer beats", "beats in %s parts"},
	dimension.Variety:      {"Variety", "more different notes", "%s different notes in a bar"},
	dimension.Shifts:       {"Changes of place", "more changes of place", "%s changes of place in ten seconds"},
	dimension.Signs:        {"Signs to read", "more signs to read", "%s signs and ledger lines in a bar"},
	dimension.Endurance:    {"Endurance", "longer without a rest", "%s notes without a rest"},
	dimension.Ornament:     {"Ornaments", "more ornaments", "%s ornaments in four bars"},
	dimension.BlackKeys:    {"Black keys", "more black keys", "%s black keys in a bar"},
	dimension.Pedal:        {"Pedal", "more pedal", "the pedal %s times in ten seconds"},
	dimension.Crossings:    {"Changes of string", "more changes of string", "%s changes of string in ten seconds"},
	dimension.Bowing:       {"Bowing", "more mixed bowing", "%s lengths of slurs in a bar"},
}

// Dimension names a dimension, as a heading.
func Dimension(d dimension.ID) string { return dimensions[d].name }

// HowMuch says a load: “6.2 notes a second”.
func HowMuch(d dimension.ID, value float64, f instrument.Family) string {
	unit := dimensions[d].unit
	if d == dimension.Endurance && (f == instrument.Wind || f == instrument.Voice) {
		unit = "%s seconds without a breath"
	}
	if d == dimension.Span && (f == instrument.Bowed || f == instrument.Plucked) {
		unit = "%s stretches in four bars"
	}
	amount := loadAmount(d, value)
	if amount == "1" {
		unit = singly.Replace(unit)
	}
	return fmt.Sprintf(unit, amount)
}

// singly says one of what is counted.
var singly = strings.NewReplacer(
	"signs and ledger lines", "sign or ledger line", "different notes", "note", "notes", "note", "keys", "key", "moves", "move", "changes", "change",
	"ornaments", "ornament", "times", "time", "stretches", "stretch", "lengths of slurs", "length of slur", "parts", "part",
	"semitones", "semitone", "seconds", "second",
)

// loadAmount is a load as a number that is said.
func loadAmount(d dimension.ID, value float64) string {
	switch d {
	case dimension.Rhythm:
		value = math.Round(math.Exp2(value))
	case dimension.Variety, dimension.Bowing:
		value = math.Round(value + 1)
	case dimension.Shifts, dimension.Pedal, dimension.Crossings:
		value *= 10
	case dimension.Endurance:
		value = math.Round(value)
	}
	return strconv.FormatFloat(math.Round(10*value)/10, 'f', -1, 64)
}

// loadPart says what a part of a leap about a load rests on: “6.2 notes a second; 4 so far”.
func loadPart(p leap.Part, f instrument.Family) string {
	return HowMuch(p.Dimension, p.Load, f) + "; " + loadAmount(p.Dimension, p.Best) + " so far"
}

// Key says the key of a piece, by how a studio writes one: “D minor”, “G major, perhaps E minor” where it is doubtful.
func Key(k key.Key, of func(name string) string) string {
	if k.Tonic == "" || k.Sure() {
		return of(k.Name())
	}
	return of(k.Name()) + ", perhaps " + of(k.Second)
}

// ScorePart is the name of a part of a score, counted from 0: its own, or its number.
func ScorePart(name string, i int) string {
	if strings.TrimSpace(name) == "" {
		return fmt.Sprintf("Part %d", i+1)
	}
	return name
}

// AtTempo says at which tempo loads hold, and that it is a guess where nothing is written.
func AtTempo(p load.Pace) string {
	at := fmt.Sprintf("crotchet %.0f", p.Quarters)
	switch {
	case p.Given:
		return "at " + at
	case p.Word != "":
		return fmt.Sprintf("at about %s, as “%s” is usually meant", at, score.Short(p.Word))
	}
	return "no tempo is written: measured at " + at + ", which is a guess"
}

// Heaviest names the dimensions that make a piece hard, without a capital: “jumps, signs to read”.
func Heaviest(of []dimension.ID) string {
	names := make([]string, len(of))
	for i, d := range of {
		names[i] = strings.ToLower(dimensions[d].name)
	}
	return strings.Join(names, ", ")
}

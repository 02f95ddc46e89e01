// Package instrument holds the instruments: data alone. What is computed for one
// follows from its family, its strings and its hand; adding one adds an entry to
// instruments.json and touches nothing else.
package instrument

import (
	"slices"
	"strings"

	"patientladder/core/notation/score"
)

// Family is the kind of instrument, which decides what can be asked of it.
type Family string

// The families of instruments.
const (
	Keyboard   Family = "keyboard"
	Bowed      Family = "bowed"
	Plucked    Family = "plucked"
	Wind       Family = "wind"
	Voice      Family = "voice"
	Percussion Family = "percussion"
	// Other instruments have a clef and a range; how the hands lie is left to the teacher.
	Other Family = "other"
)

// Families returns all families.
func Families() []Family { return []Family{Keyboard, Bowed, Plucked, Wind, Voice, Percussion, Other} }

// Instrument is what the rules need to know of one.
type Instrument struct {
	// ID is its name in lower case: "cello".
	ID     string
	Family Family
	// Open are the pitches of the open strings as they sound, string 1 first; nil for a keyboard.
	Open []score.Pitch
	// Clef is the sign it is written in, Octave by how many octaves it sounds above what is written.
	Clef   string
	Octave int
	// Transposes is by how many semitones it sounds above what is written, octaves left out: −2 for a clarinet in B♭.
	Transposes int
	// Ranges are the notes of three stages as they are written: the first notes, the first year or two, the whole.
	Ranges []Range
	// Chart is how notes are fingered, in the order of their pitch, ChartOf what its signs are; nil where it has none.
	Chart   []Charted
	ChartOf string
	// Without are the types of exercises of its family that do not suit it.
	Without []string
	Hand    Hand
	// Stands says that it is usually played standing.
	Stands bool
	// Pluck is the plucking finger that usually plays each string ("p" thumb, "i", "m",
	// "a"), string 1 at 0; nil for an instrument that is not plucked.
	Pluck []string
	// Signs are how its players write the plucking fingers: "T" for the thumb; by the finger ("p"), nil for p, i, m and a.
	Signs map[string]string
	// Rolls are picking patterns.
	Rolls []Roll
	// Drone are strings that are never stopped.
	Drone []int
}

// Roll is a picking pattern: strings one after the other, over and over.
type Roll struct {
	ID      string `json:"id"`
	Name    string `json:"name"`
	Strings []int  `json:"strings"`
}

// Hand is how the left hand lies on strings.
type Hand struct {
	// By is "semitones" where each finger takes the next semitone, "letters" where
	// each takes the next letter of the scale.
	By string `json:"by"`
	// First is where the first finger lies in first position, in semitones from the nut.
	First int `json:"first"`
	// Span is how many semitones lie between the first and the fourth finger of a hand at
	// rest, Reach how many when it is extended.
	Span  int `json:"span"`
	Reach int `json:"reach"`
}

// Range is from one note to another, both included, as they are written.
type Range struct{ Low, High score.Pitch }

// Has says that a written note lies in the range.
func (r Range) Has(p score.Pitch) bool {
	return p.Semitone() >= r.Low.Semitone() && p.Semitone() <= r.High.Semitone()
}

// Charted is the fingering of a written note: holes that are closed ("T 123", half ones with a stroke), valves, or a place of a slide.
type Charted struct {
	Note  score.Pitch
	Signs string
}

// holes are those of a chart, from the thumb down.
const holes = "T1234567"

// Holes are how far each hole is closed, from the thumb down: 1, 0.5 or 0.
func (c Charted) Holes() []float64 {
	out := make([]float64, len(holes))
	for i := range holes {
		at := strings.IndexByte(c.Signs, holes[i])
		switch {
		case at < 0:
		case strings.HasPrefix(c.Signs[at+1:], "/"):
			out[i] = 0.5
		default:
			out[i] = 1
		}
	}
	return out
}

// What the signs of a chart are.
const (
	Holes  = "holes"
	Valves = "valves"
	Slides = "slide"
)

// Stage is the first range, from 1, in which a written note lies; one more than there are for a note beyond them, 0 where
// the instrument has no ranges.
func (x Instrument) Stage(p score.Pitch) int {
	for i, r := range x.Ranges {
		if r.Has(p) {
			return i + 1
		}
	}
	if len(x.Ranges) == 0 {
		return 0
	}
	return len(x.Ranges) + 1
}

// Fingers is the highest finger that is written over a note; 0 where none are.
func (x Instrument) Fingers() int {
	switch {
	case x.Family == Keyboard:
		return 5
	case x.Family.Strung():
		return 4
	}
	return 0
}

// Breathes says that its phrases are as long as a breath.
func (x Instrument) Breathes() bool { return x.Family == Wind || x.Family == Voice }

// Strung says that fingers stop its strings.
func (f Family) Strung() bool { return f == Bowed || f == Plucked }

// Most is the instrument that comes most often among some; of those that come as often the one that stands first in the
// data, and the first of all where none is known.
func Most(played []string) Instrument {
	count := map[string]int{}
	for _, id := range played {
		count[id]++
	}
	best := instruments[0]
	for _, x := range instruments {
		if count[x.ID] > count[best.ID] {
			best = x
		}
	}
	return best
}

// All returns the instruments in the order of the data.
func All() []Instrument { return slices.Clone(instruments) }

// Of returns an instrument by its name; ok is false for one that is not known.
func Of(id string) (Instrument, bool) {
	for _, x := range instruments {
		if x.ID == id {
			return x, true
		}
	}
	return Instrument{}, false
}

// FamilyOf returns the family of an instrument by name; ok is false for one that is not known.
func FamilyOf(id string) (Family, bool) {
	x, ok := Of(id)
	return x.Family, ok
}

// Tuning returns the open strings of an instrument, string 1 first, as MIDI pitches; nil for one without.
func Tuning(id string) []int {
	x, _ := Of(id)
	var out []int
	for _, p := range x.Open {
		out = append(out, p.Semitone())
	}
	return out
}

// Plucking returns the plucking fingers from the thumb on (common practice: p, i, m, a).
func Plucking() []string { return []string{"p", "i", "m", "a"} }

// LowSecond says of a second finger, above the open string with the first finger at a place, both in semitones, that it lies
// low. Where each finger takes a semitone it always does: it is the finger of the minor third. Where each takes a letter it
// lies low a minor third above the open string in first position, elsewhere a half-step from the first (common practice).
func (x Instrument) LowSecond(above, place int) bool {
	switch {
	case x.Hand.By != "letters":
		return true
	case place <= x.Hand.First:
		return above <= 3
	}
	return above-place == 1
}

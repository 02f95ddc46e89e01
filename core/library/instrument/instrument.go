// Package instrument holds the instruments: data alone. What is computed for one
// follows from its family, its strings and its hand; adding one adds an entry to
// instruments.json and touches nothing else.
package instrument

import (
	_ "embed"
	"encoding/json"
	"fmt"
	"slices"
	"strconv"

	"patientladder/core/notation/score"
)

// Family is the kind of instrument, which decides what can be asked of it.
type Family string

// The families of instruments.
const (
	Keyboard Family = "keyboard"
	Bowed    Family = "bowed"
	Plucked  Family = "plucked"
)

// Families returns all families.
func Families() []Family { return []Family{Keyboard, Bowed, Plucked} }

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
	Hand   Hand
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

//go:embed instruments.json
var data []byte

// instruments are read once; the data ship with the program and a test reads them.
var instruments = func() []Instrument {
	list, err := Parse(data)
	if err != nil {
		panic(err)
	}
	return list
}()

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

// Parse reads instruments from JSON and checks them.
func Parse(data []byte) ([]Instrument, error) {
	var list []struct {
		ID      string            `json:"id"`
		Family  Family            `json:"family"`
		Strings []string          `json:"strings"`
		Clef    string            `json:"clef"`
		Octave  int               `json:"octave"`
		Hand    Hand              `json:"hand"`
		Stands  bool              `json:"stands"`
		Pluck   map[string]string `json:"pluck"`
		Signs   map[string]string `json:"signs"`
		Drone   []int             `json:"drone"`
		Rolls   []Roll            `json:"rolls"`
	}
	if err := json.Unmarshal(data, &list); err != nil {
		return nil, fmt.Errorf("instruments: %w", err)
	}
	var out []Instrument
	for _, in := range list {
		x := Instrument{ID: in.ID, Family: in.Family, Clef: in.Clef, Octave: in.Octave, Hand: in.Hand, Stands: in.Stands, Drone: in.Drone, Signs: in.Signs, Rolls: in.Rolls}
		fail := func(format string, a ...any) ([]Instrument, error) {
			return nil, fmt.Errorf("instruments: %q: %s", in.ID, fmt.Sprintf(format, a...))
		}
		if in.ID == "" || slices.ContainsFunc(out, func(o Instrument) bool { return o.ID == in.ID }) {
			return fail("has no name of its own")
		}
		if !slices.Contains(Families(), in.Family) {
			return fail("%q is no family", in.Family)
		}
		for _, name := range in.Strings {
			p, ok := score.ParsePitch(name)
			if !ok {
				return fail("%q is no pitch of a string", name)
			}
			x.Open = append(x.Open, p)
		}
		if strung := in.Family != Keyboard; strung != (len(x.Open) > 0) || strung && (in.Hand.By != "semitones" && in.Hand.By != "letters" || in.Hand.First < 1 || in.Hand.Reach < in.Hand.Span) {
			return fail("its strings or its hand do not fit its family")
		}
		for i := range x.Open {
			if finger := in.Pluck[strconv.Itoa(i+1)]; in.Family == Plucked {
				if !slices.Contains(Plucking(), finger) {
					return fail("string %d has no plucking finger of p, i, m and a", i+1)
				}
				x.Pluck = append(x.Pluck, finger)
			}
		}
		for _, r := range in.Rolls {
			if r.ID == "" || r.Name == "" || len(r.Strings) < 2 || slices.ContainsFunc(r.Strings, func(s int) bool { return s < 1 || s > len(x.Open) }) {
				return fail("the roll %q names strings that are not there", r.ID)
			}
		}
		out = append(out, x)
	}
	return out, nil
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

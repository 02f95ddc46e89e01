package exercise

import (
	_ "embed"
	"encoding/json"
	"fmt"
	"slices"
	"strings"

	"patientladder/core/library/instrument"
	"patientladder/core/notation/score"
	"patientladder/core/technique/bowed"
	"patientladder/core/technique/scale"
)

// Type is a kind of exercise with its staircase.
type Type struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	// One is the name of a single exercise: "scale".
	One string `json:"one,omitempty"`
	// Noun says that the key goes before it without a comma: "D♭ major scale".
	Noun     bool                `json:"noun,omitempty"`
	Families []instrument.Family `json:"families"`
	// Make is the rule that makes its notes (see build.go).
	Make string `json:"make"`
	// Kinds are the kinds of scale or chord it is made of; empty for a type without keys.
	Kinds []scale.Kind `json:"kinds,omitempty"`
	// What else it needs to be told: "string", "rhythm", "roll", "chords" or "sticking"; empty for nothing.
	What string `json:"what,omitempty"`
	// Figure are the degrees of a figure within five notes.
	Figure []int `json:"figure,omitempty"`
	// Fast says that four notes go to a click.
	Fast bool `json:"fast,omitempty"`
	// Cycle says that it is taken through the twelve keys, one a week; its steps are the passes.
	Cycle bool `json:"cycle,omitempty"`
	// After is the step, "type/step", that comes before this type.
	After string `json:"after,omitempty"`
	// Bites says that its steps are the bites by which its skills are planted, one by one.
	Bites bool `json:"bites,omitempty"`
	// Fingers say for a skill which finger of a pattern it is about, −1 for an extended hand; 2 is a low second finger where
	// it can be low or high, 12 a high one.
	Fingers map[string]int `json:"fingers,omitempty"`
	// BySkill says for a skill which step plants it; where it says nothing the first step does.
	BySkill map[string]string `json:"bySkill,omitempty"`
	// Plants are the skills it can plant before a piece needs them.
	Plants []string `json:"plants"`
	Faults []Fault  `json:"faults"`
	Steps  []Step   `json:"steps"`
}

// Fault is a usual fault with what to look and to listen for.
type Fault struct {
	ID   string `json:"id"`
	Text string `json:"text"`
	Look string `json:"look"`
	// Off says that the studio does not watch for it.
	Off bool `json:"off,omitempty"`
}

// Step is one stair: what changes, and how many keys (strings, rolls, pairs of
// chords) are climbed on it before the next is begun.
type Step struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	// Hands are "apart", "together", "contrary", "right", "left", "shared", "thumbs",
	// "plucked" or "silent"; empty on strings.
	Hands   string `json:"hands,omitempty"`
	Octaves int    `json:"octaves,omitempty"`
	// Bow is a bow plan.
	Bow string `json:"bow,omitempty"`
	// Memory, Touch and Dynamics are what changes beside the notes.
	Memory   bool   `json:"memory,omitempty"`
	Touch    string `json:"touch,omitempty"`
	Dynamics string `json:"dynamics,omitempty"`
	// Stage is the range of the instrument that long tones go through, from 1.
	Stage int `json:"stage,omitempty"`
	// Slur is how many notes go to one stroke of the tongue or one vowel; 0 for each its own.
	Slur int `json:"slur,omitempty"`
	// PerBeat is how many strokes go to a beat.
	PerBeat int `json:"perBeat,omitempty"`
	// Bars are those of a phrase on one breath.
	Bars int `json:"bars,omitempty"`
	// Levels are the dynamics of a staircase of loudness, one after the other.
	Levels []string `json:"levels,omitempty"`
	// Voices is how the second of two voices goes: "round", "answer", "held" or "mirror".
	Voices string `json:"voices,omitempty"`
	// Chord is held under a roll, Then the one it changes to.
	Chord string `json:"chord,omitempty"`
	Then  string `json:"then,omitempty"`
	// Join is how the left hand sounds notes by itself: a score.Join, or "both" for falling and pulling in turn.
	Join string `json:"join,omitempty"`
	// Tempo in quarter notes a minute that counts as done; Keys are those to be climbed.
	Tempo int `json:"tempo"`
	Keys  int `json:"keys"`
	// Order of the keys: "few" accidentals (or changes of the hand) first, "fifths",
	// "strings", "rolls", "chords".
	Order string `json:"order"`
	// NewPlaces says that it leads to other keys than those of the steps before, never to one the student has.
	NewPlaces bool `json:"newPlaces,omitempty"`
	// Goals are three.
	Goals []string `json:"goals"`
	Why   string   `json:"why"`
	// Gives are the skills that it asks for and gives, with their weight.
	Gives map[string]float64 `json:"gives"`
}

//go:embed types.json
var data []byte

// types are read once; the data ship with the program and a test reads them.
var types = func() []Type {
	list, err := parseTypes(data)
	if err != nil {
		panic(err)
	}
	return list
}()

// For returns the types that suit an instrument, in the order in which they are begun, each with the steps that it can play.
func For(x instrument.Instrument) []Type {
	var out []Type
	for _, t := range Types(x.Family) {
		if slices.Contains(x.Without, t.ID) {
			continue
		}
		steps := slices.DeleteFunc(
			slices.Clone(t.Steps),
			func(s Step) bool { return len(Places(Exercise{Type: t, Step: s, Instrument: x})) == 0 },
		)
		if t.Steps = steps; len(steps) > 0 {
			out = append(out, t)
		}
	}
	return out
}

// Types returns the types for a family, in the order in which they are begun.
func Types(f instrument.Family) []Type {
	var out []Type
	for _, t := range types {
		if slices.Contains(t.Families, f) {
			out = append(out, t)
		}
	}
	return out
}

// TypeOf returns a type by its id; ok is false for one that is not known.
func TypeOf(id string) (Type, bool) {
	for _, t := range types {
		if t.ID == id {
			return t, true
		}
	}
	return Type{}, false
}

// StepOf returns a step of the type by its id; ok is false for one that is not there.
func (t Type) StepOf(id string) (Step, bool) {
	if i := t.step(id); i >= 0 {
		return t.Steps[i], true
	}
	return Step{}, false
}

func (t Type) step(id string) int {
	return slices.IndexFunc(t.Steps, func(s Step) bool { return s.ID == id })
}

func (t Type) keyed() bool { return len(t.Kinds) > 0 }

// parseTypes reads types and checks them: names of their own, steps with three
// goals, what they come after, bow plans and kinds that exist.
func parseTypes(data []byte) ([]Type, error) {
	var list []Type
	if err := json.Unmarshal(data, &list); err != nil {
		return nil, fmt.Errorf("exercises: %w", err)
	}
	return list, checkTypes(list)
}

// checkTypes says what is wrong with a list of types, or returns nil.
func checkTypes(list []Type) error {
	seen := map[string]bool{"": true}
	for _, t := range list {
		if len(t.Steps) == 0 || len(t.Faults) == 0 || seen[t.ID+"/"] {
			return fmt.Errorf("exercises: %q needs a name of its own, faults and steps", t.ID)
		}
		seen[t.ID+"/"] = true
		if !seen[t.After] {
			return fmt.Errorf("exercises: %q comes after %q, which is not before it", t.ID, t.After)
		}
		for _, k := range t.Kinds {
			if !slices.Contains(scale.Kinds(), k) {
				return fmt.Errorf("exercises: %q: %q is no kind", t.ID, k)
			}
		}
		for _, s := range t.Steps {
			name := t.ID + "/" + s.ID
			_, bow := bowed.PlanOf(s.Bow)
			switch {
			case seen[name] || s.ID == "" || strings.Contains(s.ID, "/"):
				return fmt.Errorf("exercises: the step %q needs a name of its own", name)
			case len(s.Goals) != 3:
				return fmt.Errorf("exercises: %q has %d goals instead of three", name, len(s.Goals))
			case s.Tempo < 40 || s.Tempo > 208 || s.Keys < 1:
				return fmt.Errorf("exercises: %q needs a tempo on the metronome and a number of keys", name)
			case s.Join != "" && !slices.Contains([]string{string(score.Hammer), string(score.Pull), string(score.Slide), "both"}, s.Join):
				return fmt.Errorf("exercises: %q: %q is no way to sound a note", name, s.Join)
			case slices.ContainsFunc(s.Levels, func(l string) bool { return !slices.Contains(levels, l) }):
				return fmt.Errorf("exercises: %q: its levels are none of %s", name, strings.Join(levels, ", "))
			case t.Make == "canon" && voices[s.Voices] == nil:
				return fmt.Errorf("exercises: %q: %q is no way for two voices", name, s.Voices)
			case s.Bow != "" && !bow:
				return fmt.Errorf("exercises: %q: %q is no bow plan", name, s.Bow)
			}
			seen[name] = true
		}
		for skill, step := range t.BySkill {
			if t.step(step) < 0 || !slices.Contains(t.Plants, skill) {
				return fmt.Errorf("exercises: %q: the step %q cannot plant %q", t.ID, step, skill)
			}
		}
	}
	return nil
}

package setup

import (
	"slices"

	"patientladder/core/library/instrument"
)

// Fault is one of the usual faults of beginners, to be mended one at a time, lightly, over months (common practice).
type Fault struct {
	ID, Name string
	// Remedy is in words for a child, Home a sentence to the parent.
	Remedy, Home string
	// Same are the faults of exercises that are the same thing.
	Same []string
	// Keys says that it is one of a keyboard alone.
	Keys bool
}

// faults are the nine, and which faults of exercises are the same.
var faults = []Fault{
	{ID: "fingers-only", Name: "all from the fingers, no arm", Remedy: "Let your arm be the boat and the fingers only its passengers.",
		Home: "Before playing, let the arms hang and swing once; then play with that heavy arm.", Keys: true, Same: []string{"thumb-reach"}},
	{
		ID:     "wrist-low",
		Name:   "the wrist hangs below the keys or rests on the edge",
		Remedy: "Lift the wrist until a mouse could run under the bridge.",
		Home:   "Look from the side: there should be room for a mouse under the wrist.",
		Keys:   true,
		Same:   []string{"wrist-drop"},
	},
	{
		ID:     "wrist-high",
		Name:   "the wrist is too high, the sound stays thin",
		Remedy: "Let the bridge sink a little, so that the weight reaches the key.",
		Home:   "Look from the side: the back of the hand and the arm make one line.",
		Keys:   true,
	},
	{ID: "claw", Name: "fingers clawed, or quite flat", Remedy: "Show me the fingers you pick up a feather with.",
		Home: "Before playing, pick up a feather or a pencil: those are the fingers.", Same: []string{"flat-fingers", "flat-joint", "collapsing-fifth"}},
	{
		ID:     "tension",
		Name:   "neck, shoulder or unused fingers are stiff",
		Remedy: "Lift the shoulders to your ears, then let them drop like snow from a roof.",
		Home:   "Once in the middle of practice: shoulders up to the ears, then let them drop.",
		Same:   []string{"stiff-wrist", "forced", "raised-shoulder", "flying-fingers", "squeezing-thumb", "stiff-thumb", "anchored"},
	},
	{ID: "sits-back", Name: "sits back in the middle of the bench", Remedy: "Move to the porch of the bench.",
		Home: "Before playing: move to the front half of the bench.", Keys: true},
	{ID: "too-close", Name: "sits too close", Remedy: "Can your elbows pass in front of you? Move until they can.",
		Home: "Before playing: can the elbows pass in front of the body? Move the bench back until they can.", Keys: true},
	{ID: "slumped", Name: "slumped, or legs crossed", Remedy: "Grow by one centimetre, and put both feet on their floor.",
		Home: "Before playing: both feet on something firm, then grow by one centimetre."},
	{ID: "later", Name: "scales and chords are left for later", Remedy: "One scale first, as one brushes teeth.",
		Home: "Begin with the exercise, before the pieces; two minutes are enough."},
}

// Faults returns the usual faults of beginners on an instrument.
func Faults(x instrument.Instrument) []Fault {
	return slices.DeleteFunc(slices.Clone(faults), func(f Fault) bool { return f.Keys && x.Family != instrument.Keyboard })
}

// FaultOf returns a usual fault of beginners by its id.
func FaultOf(id string) (Fault, bool) {
	i := slices.IndexFunc(faults, func(f Fault) bool { return f.ID == id })
	if i < 0 {
		return Fault{}, false
	}
	return faults[i], true
}

// SameFault is the id under which a fault is kept: a wrist that drops in an exercise is the wrist that hangs below
// the keys. A fault of an exercise that is none of the usual ones keeps its own.
func SameFault(id string) string {
	for _, f := range faults {
		if slices.Contains(f.Same, id) {
			return f.ID
		}
	}
	return id
}

// Package dimension names the dimensions in which a piece can be hard beside the skills that it asks for, and says how much
// each of them weighs. How high a piece lies in each is measured from its score (see core/reading/load).
//
// What a load is worth grows by doublings: weight × log2(1 + load ÷ base). The base is about the load of a piece of the second
// year, so that below it little is counted. The weights for keyboards are fitted to graded pieces, with a part held back (see
// core/reading/load); those of the other families are ours, by analogy, and fitted to nothing.
package dimension

import (
	"math"

	"patientladder/core/library/instrument"
)

// ID names a dimension.
type ID string

// The dimensions. Each is measured at the tempo of the piece, for one hand or part, the harder one counting.
const (
	// Speed is notes a second, chords counted once: the 90th percentile over windows of two beats.
	Speed ID = "speed"
	// Jumps is how far the hand is thrown beyond an octave within two beats, in semitones a second (after Fitts 1954: a move is
	// the harder the further it goes in the same time).
	Jumps ID = "jumps"
	// Span is the widest grip of one hand, in semitones beyond a fifth; on strings and frets the stretch of the left hand.
	Span ID = "span"
	// Density is notes struck a second by one hand, chords counted note by note.
	Density ID = "density"
	// Independence is how often in a second the hands do what the other does not.
	Independence ID = "independence"
	// Voices is how many notes a second a hand plays while it holds another.
	Voices ID = "voices"
	// Rhythm is the least common division of a beat in which all onsets lie, as doublings.
	Rhythm ID = "rhythm"
	// Variety is how many different pitches come in a bar.
	Variety ID = "variety"
	// Shifts is how often in a second the hand must leave its place.
	Shifts ID = "shifts"
	// Signs is what there is to read beyond plain notes in a bar: signs, ledger lines, changes of clef.
	Signs ID = "signs"
	// Endurance is the longest run of notes without a rest of the hand, in notes; for wind and voice seconds without a breath.
	Endurance ID = "endurance"
	// Ornament is ornaments and grace notes in four bars.
	Ornament ID = "ornament"
	// BlackKeys is how many different black keys come in a bar.
	BlackKeys ID = "black keys"
	// Pedal is how often in a second a pedal goes down, as far as it is written.
	Pedal ID = "pedal"
	// Crossings is how often in a second the bow or the plucking hand goes to another string.
	Crossings ID = "crossings"
	// Bowing is how many different lengths of slurs come in a bar.
	Bowing ID = "bowing"
)

// Dimension is one way of being hard for a family of instruments.
type Dimension struct {
	ID ID
	// Base is the load, in the unit of the dimension, from which it counts in full; above 0.
	Base float64
	// Start is the load that everybody brings: that of a first piece.
	Start float64
	// Weight is what a doubling is worth in the leap; 0 for what is shown and does not count.
	Weight float64
}

// Worth is what a load adds to the difficulty of a piece: 0 for none.
func (d Dimension) Worth(load float64) float64 { return d.Weight * math.Log2(1+max(0, load)/d.Base) }

// By returns a dimension of a family; ok is false where the family does not have it.
func By(f instrument.Family, id ID) (d Dimension, ok bool) {
	for _, d := range Of(f) {
		if d.ID == id {
			return d, true
		}
	}
	return Dimension{}, false
}

// Of are the dimensions of a family, in the order in which they are shown.
func Of(f instrument.Family) []Dimension {
	switch f {
	case instrument.Keyboard:
		return keyboard
	case instrument.Bowed:
		return bowed
	case instrument.Plucked:
		return plucked
	case instrument.Percussion:
		return percussion
	}
	return single
}

// Names are all dimensions of all families, each once.
func Names() []ID {
	return []ID{
		Speed, Jumps, Span, Density, Independence, Voices, Rhythm, Variety, Shifts, Signs, Endurance, Ornament, BlackKeys, Pedal, Crossings,
		Bowing,
	}
}

// Grade0 is what is added to the worth of all loads of a keyboard piece for the grade at which such pieces are usually set,
// where 0 is for the first lessons and 8 for the last of the common grades (fitted with the weights).
const Grade0 = -0.77

// Difficulty is how hard a piece with these loads is for a beginner, whose loads are 0: the sum of what they are worth.
func Difficulty(f instrument.Family, loads func(ID) float64) float64 {
	sum := 0.0
	for _, d := range Of(f) {
		sum += d.Worth(loads(d.ID))
	}
	return sum
}

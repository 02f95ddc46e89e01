package score

import "patientladder/core/base/rational"

// Compound says that the beats of a bar divide in three: 6/8, 9/8, 12/8 and the like.
func (b Bar) Compound() bool { return b.BeatUnit >= 8 && b.Beats%3 == 0 && b.Beats > 3 }

// Beat is the length of a beat in quarter notes: three units in compound
// time, the unit otherwise; a quarter note without a time signature.
func (b Bar) Beat() rational.Rat {
	switch {
	case b.BeatUnit == 0:
		return rational.Int(1)
	case b.Compound():
		return rational.New(12, int64(b.BeatUnit))
	}
	return rational.New(4, int64(b.BeatUnit))
}

// mostBeats is how many beats a bar can have. A bar that lasts longer is from
// a damaged file, and its beats are not worth counting.
const mostBeats = 256

// Countable says that the bar has a number of beats that music can have.
func (b Bar) Countable() bool { return b.Length.Less(b.Beat().Mul(rational.Int(mostBeats))) }

// Offset is the time of the first beat of the bar's time signature against its
// start: a pickup begins so much later in its bar than it would if it were whole.
func (b Bar) Offset() rational.Rat {
	if !b.Short || b.BeatUnit == 0 {
		return rational.Rat{}
	}
	return rational.New(4*int64(b.Beats), int64(b.BeatUnit)).Sub(b.Length)
}

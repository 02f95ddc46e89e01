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

// whole is how long a bar of the time signature is; 0 without one.
func (b Bar) whole() rational.Rat {
	if b.BeatUnit == 0 {
		return rational.Rat{}
	}
	return rational.New(4*int64(b.Beats), int64(b.BeatUnit))
}

// Offsets are, for each bar, how much later it begins in quarter notes than if
// it were whole. What begins late is a pickup, at the beginning of the piece or
// of a part that is repeated, and the second half of a bar that was split. Any
// other short bar begins with its first beat: the last of a piece, which is
// short by its pickup.
func (s *Score) Offsets() []rational.Rat {
	out := make([]rational.Rat, len(s.Bars))
	for i := range s.Bars {
		b := &s.Bars[i]
		late := b.whole().Sub(b.Length)
		if !b.Short || late.Num() <= 0 {
			continue
		}
		pickup := i == 0 || b.RepeatStart
		if !pickup && s.Bars[i-1].Short && out[i-1].Num() == 0 {
			pickup = s.Bars[i-1].Length == late
		}
		if pickup {
			out[i] = late
		}
	}
	return out
}

// Count is a beat as it is counted, and as a metronome gives it.
type Count struct {
	At rational.Rat
	// First says that it is the first of a bar; no beat of a pickup is.
	First bool
}

// mostCounts is how many beats are counted at the most: the longest score that
// is read, in bars of four.
const mostCounts = 4 * MostBars

// Counts are the beats of the piece as it is written, so many at the most. A bar
// with more beats than music can have has none.
func (s *Score) Counts() []Count {
	var out []Count
	offsets := s.Offsets()
	for i := range s.Bars {
		b := &s.Bars[i]
		beat := b.Beat()
		if !b.Countable() || len(out) >= mostCounts {
			continue
		}
		n := offsets[i].Num() * beat.Den() / (offsets[i].Den() * beat.Num()) // whole beats before the bar begins
		at := beat.Mul(rational.Int(n)).Sub(offsets[i])
		for ; at.Less(b.Length); n, at = n+1, at.Add(beat) {
			if at.Num() >= 0 {
				out = append(out, Count{At: b.Start.Add(at), First: n == 0})
			}
		}
	}
	return out
}

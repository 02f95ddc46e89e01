package analysis

import (
	"slices"

	"patientladder/core/base/finding"
	"patientladder/core/base/rational"
	"patientladder/core/library/instrument"
	"patientladder/core/notation/score"
)

// Fretted returns the score with the string and the fret of every note as the hand plays it, for a fretted instrument;
// the score as it is for any other.
func (p *Piece) Fretted() *score.Score {
	x, _ := instrument.Of(p.Instrument)
	if !x.Fretted() {
		return p.Score
	}
	out := *p.Score
	out.Notes = slices.Clone(out.Notes)
	for _, l := range p.Lines {
		for _, f := range l.Position.Fingers {
			n := &out.Notes[f.Note]
			if n.String == 0 && f.String > 0 {
				n.String, n.Fret = f.String, n.MIDI-x.Open[f.String-1].Semitone()
			}
		}
	}
	return &out
}

// fretName groups frets as they are learned: the first two, the third, and higher ones.
func fretName(fret int) string {
	switch {
	case fret <= 2:
		return "fret.low"
	case fret == 3:
		return "fret.third"
	}
	return "fret.high"
}

// leastPicked is how many quick notes on different strings in a row make a picking pattern (default).
const leastPicked = 6

// fretted names what both hands do on a fretted instrument: notes that the left hand sounds, and picking patterns, quick
// single notes of which each is plucked on another string than the one before; and the former among the latter.
func fretted(s *score.Score, l Line, x instrument.Instrument, f finding.Set) {
	if !x.Fretted() {
		return
	}
	strings := map[int]int{}
	for _, x := range l.Position.Fingers {
		strings[x.Note] = x.String
	}
	joined := map[int]bool{}
	slurred := false
	var before *score.Note
	last := 0
	var run []int
	for _, o := range l.Onset {
		n, str := &s.Notes[o.Notes[0]], strings[o.Notes[0]]
		join := n.Join
		if join == "" && slurred && str == last && before != nil {
			join = sounded(before, n, x.Hand.Reach+1)
		}
		slurred, before = n.SlurStart || slurred && !n.SlurStop, n
		if join != "" {
			f.Add("join."+string(join), o.Bar)
			joined[o.Bar] = true
			continue
		}
		quick := len(o.Notes) == 1 && str > 0 && n.Duration.Less(rational.Int(1))
		if !quick || str == last {
			run = nil
		}
		if last = str; quick {
			run = append(run, o.Bar)
		}
		if len(run) >= leastPicked {
			for _, bar := range run {
				f.Add("picked", bar)
			}
		}
	}
	for _, bar := range f["picked"] {
		if joined[bar] {
			f.Add("join.picked", bar)
		}
	}
}

// sounded is how the left hand plays the second of two notes under a slur on one string: upwards a finger falls,
// downwards one pulls away (common practice). Further than the hand lies over it is plucked.
func sounded(from, to *score.Note, furthest int) score.Join {
	switch d := to.MIDI - from.MIDI; {
	case max(d, -d) > furthest:
	case d > 0:
		return score.Hammer
	case d < 0:
		return score.Pull
	}
	return ""
}

// Package key finds the key of a piece from its music, with the mark as one witness among several, and says how doubtful it is.
package key

import (
	"cmp"
	"math"
	"slices"
	"strconv"

	"patientladder/core/notation/score"
)

// Key is the key of a piece as a whole.
type Key struct {
	// Tonic is a note name, "D" or "Bb"; empty where nothing sounds.
	Tonic string `json:"tonic"`
	// Mode is "major" or "minor".
	Mode string `json:"mode"`
	// Doubt is 0 where nothing else comes near, 1 where another key fits as well.
	Doubt float64 `json:"doubt"`
	// Second is the key that fits next best: "B minor".
	Second string `json:"second"`
	// Why are the reasons in words.
	Why []string `json:"why"`

	fifths int
}

// Doubtful is from which doubt on the second key is named too (default).
const Doubtful = 0.5

// Sure says that the key can be told to a student as it is.
func (k Key) Sure() bool { return k.Tonic != "" && k.Doubt < Doubtful }

// Minor says that the key is minor for all that can be told.
func (k Key) Minor() bool { return k.Mode == "minor" && k.Sure() }

// Name is the key as score.Bar.KeyName says it: "E flat minor"; empty where nothing sounds.
func (k Key) Name() string {
	if k.Tonic == "" {
		return ""
	}
	return score.Bar{Fifths: k.fifths, Mode: k.Mode}.KeyName()
}

// Fits says that a bar stands under the signature of the key.
func (k Key) Fits(b score.Bar) bool { return k.Tonic != "" && b.Fifths == k.fifths }

// The ratings of the twelve tones of the octave in a major and a minor key, from the tonic up (Krumhansl & Kessler 1982, as
// printed in Krumhansl, Cognitive Foundations of Musical Pitch, 1990, table 2.1; from memory).
var profiles = map[string][12]float64{
	"major": {6.35, 2.23, 3.48, 2.33, 4.38, 4.09, 2.52, 5.19, 2.39, 3.66, 2.29, 2.88},
	"minor": {6.33, 2.68, 3.52, 5.38, 2.60, 3.53, 2.54, 4.75, 3.98, 2.69, 3.34, 3.17},
}

// What other witnesses are worth beside the correlation of the notes with a profile (defaults, set on graded pieces).
const (
	ofMark   = 0.35 // the signature is that of the key or of its relative
	ofMode   = 0.4  // the file says that it is minor: nobody writes that by mistake, while major is often filled in
	ofBass   = 0.15 // the last bass note is the tonic
	ofFirst  = 0.1  // so is the first bass note
	ofRaised = 0.15 // the seventh of a minor key is raised by a sign
	ahead    = 0.2  // by so much must the best be ahead to leave no doubt
)

type candidate struct {
	fifths int
	mode   string
	tonic  int // pitch class
	fit    float64
	sum    float64
}

func (c candidate) name() string { return score.Bar{Fifths: c.fifths, Mode: c.mode}.KeyName() }

// Of finds the key of everything that sounds. Only the part of the piece under its first signature counts.
func Of(s *score.Score) Key {
	if len(s.Bars) == 0 {
		return Key{Doubt: 1, Why: []string{}}
	}
	mark := s.Bars[0].Fifths
	until := 1
	for until < len(s.Bars) && s.Bars[until].Fifths == mark {
		until++
	}
	var time [12]float64
	first, last := -1, -1 // notes
	raised := map[int][]int{}
	for i := range s.Notes {
		n := &s.Notes[i]
		if n.Rest || n.Grace || n.Bar > until {
			continue
		}
		time[n.MIDI%12] += n.Duration.Float()
		if first < 0 || n.Onset.Less(s.Notes[first].Onset) || n.Onset.Cmp(s.Notes[first].Onset) == 0 && n.MIDI < s.Notes[first].MIDI {
			first = i
		}
		if last < 0 || s.Notes[last].End().Less(n.End()) || n.End().Cmp(s.Notes[last].End()) == 0 && n.MIDI < s.Notes[last].MIDI {
			last = i
		}
		if n.Pitch.Alter > score.KeyAlter(n.Pitch.Step, mark) {
			pc := n.MIDI % 12
			if k := len(raised[pc]); k == 0 || raised[pc][k-1] != n.Bar {
				raised[pc] = append(raised[pc], n.Bar)
			}
		}
	}
	if first < 0 {
		return Key{Doubt: 1, Why: []string{}}
	}
	var all []candidate
	for pc := range 12 {
		for mode, profile := range profiles {
			c := candidate{fifths: nearest(pc, mode, mark), mode: mode, tonic: pc, fit: correlation(time, profile, pc)}
			c.sum = c.fit
			if c.fifths == mark {
				c.sum += ofMark
			}
			if s.Bars[0].Mode == "minor" && mode == "minor" && c.fifths == mark {
				c.sum += ofMode
			}
			if s.Notes[last].MIDI%12 == pc {
				c.sum += ofBass
			}
			if s.Notes[first].MIDI%12 == pc {
				c.sum += ofFirst
			}
			if mode == "minor" && len(raised[(pc+11)%12]) > 0 {
				c.sum += ofRaised
			}
			all = append(all, c)
		}
	}
	slices.SortFunc(all, func(a, b candidate) int {
		return cmp.Or(cmp.Compare(b.sum, a.sum), cmp.Compare(a.mode, b.mode), cmp.Compare(a.tonic, b.tonic))
	})
	best := all[0]
	k := Key{
		Mode: best.mode, fifths: best.fifths, Second: all[1].name(),
		Doubt: math.Round(100*max(0, 1-(best.sum-all[1].sum)/ahead)) / 100,
	}
	k.Tonic = tonicOf(best)
	k.Why = append(k.Why, "the notes lie as in this key ("+strconv.FormatFloat(best.fit, 'f', 2, 64)+" of 1)")
	if best.fifths == mark {
		k.Why = append(k.Why, "the signature is its own")
	} else {
		k.Why = append(k.Why, "the signature is that of another key")
	}
	if s.Notes[last].MIDI%12 == best.tonic {
		k.Why = append(k.Why, "the last bass note is its home")
	}
	if bars := raised[(best.tonic+11)%12]; best.mode == "minor" && len(bars) > 0 {
		k.Why = append(k.Why, "its seventh is raised in bar "+s.BarLabel(slices.Min(bars)))
	}
	return k
}

func tonicOf(c candidate) string {
	b := score.Bar{Fifths: c.fifths, Mode: c.mode}
	step, alter := b.Tonic()
	return score.Pitch{Step: step, Alter: alter}.Name()
}

// nearest are the sharps of the key on a pitch class whose signature comes nearest to the one that is written.
func nearest(pc int, mode string, mark int) int {
	best := 99
	for f := -7; f <= 7; f++ {
		tonic := ((7*f)%12 + 12) % 12
		if mode == "minor" {
			tonic = (tonic + 9) % 12
		}
		if tonic == pc && (best == 99 || distance(f, mark) < distance(best, mark)) {
			best = f
		}
	}
	return best
}

func distance(a, b int) int { return max(a-b, b-a) }

// correlation is Pearson's, between how long each tone sounds and how it is rated from a tonic up; 0 where all sound alike.
func correlation(time, profile [12]float64, tonic int) float64 {
	mt, mp := 0.0, 0.0
	for i := range 12 {
		mt += time[i] / 12
		mp += profile[i] / 12
	}
	xy, xx, yy := 0.0, 0.0, 0.0
	for i := range 12 {
		x, y := time[(tonic+i)%12]-mt, profile[i]-mp
		xy += x * y
		xx += x * x
		yy += y * y
	}
	if xx == 0 {
		return 0
	}
	return xy / math.Sqrt(xx*yy)
}

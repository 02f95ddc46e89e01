package midi

import (
	"fmt"
	"sort"

	"patientladder/core/base/rational"
	"patientladder/core/notation/score"
)

// middleC divides the hands where nothing else does.
const middleC = 60

// Written turns the notes of a MIDI file, which know only when they sound,
// into notes that can be engraved: times on a grid of semiquavers or triplets
// beat by beat, hands on two staves, voices, rests, ties over the bar lines.
// What had to be guessed is listed in Skipped. Keyboard says that low notes of
// a single track belong to a left hand.
func Written(s *score.Score, keyboard bool) *score.Score {
	w := &score.Score{Title: s.Title, Composer: s.Composer, Tempo: s.Tempo, Bars: s.Bars, Signs: append([]score.Sign{}, s.Signs...)}
	w.Parts = append([]score.Part{}, s.Parts...)
	w.Skipped = append([]score.Skip{}, s.Skipped...)
	w.Notes = append([]score.Note{}, s.Notes...)
	w.Bars = append([]score.Bar{}, s.Bars...)
	toGrid(w)
	shortBars(w)
	if keyboard {
		toHands(w)
	}
	for i := range w.Parts {
		p := &w.Parts[i]
		p.Clefs = make([]score.Clef, p.Staves)
		for staff := range p.Clefs {
			p.Clefs[staff] = clefOf(w, i, staff+1)
		}
	}
	toVoices(w)
	w.SplitTies()
	return w
}

// shortBars takes a first bar that is shorter than the second, with a time
// signature of its own, as a pickup, and a last one as its complement: MIDI
// has no other way to write them.
func shortBars(s *score.Score) {
	n := len(s.Bars)
	if n < 3 {
		return
	}
	take := func(i, like int) {
		b, usual := &s.Bars[i], &s.Bars[like]
		if b.BeatUnit == 0 || b.Beats == usual.Beats && b.BeatUnit == usual.BeatUnit || !b.Length.Less(usual.Length) {
			return
		}
		b.Beats, b.BeatUnit, b.Short = usual.Beats, usual.BeatUnit, true
		if i == 0 {
			for k := range s.Bars {
				s.Bars[k].Label = fmt.Sprint(k)
			}
		}
		s.AddSkip("short bars with a time signature of their own (taken as a pickup and its end)", "bar "+b.Label)
	}
	take(0, 1)
	take(n-1, n-2)
}

// grids are the parts into which a quarter note may be divided, the plainer first.
var grids = []int64{1, 2, 4, 3, 8, 6, 16, 12, 5, 7}

// toGrid moves times to the coarsest grid of their quarter note that fits
// within a fiftieth of a quarter note; what fits none goes to the nearest
// semiquaver or triplet.
func toGrid(s *score.Score) {
	times := map[int64]map[rational.Rat]bool{} // quarter note → times in it
	collect := func(t rational.Rat) {
		q := t.Num() / t.Den()
		if times[q] == nil {
			times[q] = map[rational.Rat]bool{}
		}
		times[q][t] = true
	}
	for i := range s.Notes {
		collect(s.Notes[i].Onset)
	}
	grid := map[int64]int64{}
	moved := 0
	free := playedFreely(times)
	for q, set := range times {
		if grid[q] = gridOf(set); free {
			grid[q] = freeGrid(set)
		}
	}
	for i := range s.Notes {
		n := &s.Notes[i]
		onset := nearest(n.Onset, grid[n.Onset.Num()/n.Onset.Den()])
		end := n.End()
		g := grid[end.Num()/end.Den()]
		if g == 0 {
			g = 4
		}
		// An end may lie on a finer grid than the beginnings around it.
		to := nearest(end, g)
		for _, finer := range grids {
			if !free && near(nearest(end, finer), end) {
				to = nearest(end, finer)
				break
			}
		}
		if !onset.Less(to) {
			to = onset.Add(rational.New(1, max(g, 4)))
		}
		if onset.Cmp(n.Onset) != 0 {
			moved++
		}
		n.Onset, n.Duration = onset, to.Sub(onset)
		n.Bar = 0
	}
	s.Notes = distinct(s.Notes)
	sort.SliceStable(s.Notes, func(a, b int) bool { return s.Notes[a].Onset.Less(s.Notes[b].Onset) })
	bar := 1
	for i := range s.Notes {
		for bar < len(s.Bars) && !s.Notes[i].Onset.Less(s.Bars[bar].Start) {
			bar++
		}
		s.Notes[i].Bar = bar
	}
	if moved > 0 {
		s.Skipped = append(
			s.Skipped,
			score.Skip{
				What:  "times between the notes of the grid (moved to the nearest semiquaver or triplet)",
				Where: "the whole piece",
				Count: moved,
			},
		)
	}
}

// distinct keeps the longest of equal notes that begin together in a part.
func distinct(notes []score.Note) []score.Note {
	type key struct {
		part, midi int
		at         rational.Rat
	}
	seen := map[key]int{}
	out := notes[:0]
	for _, n := range notes {
		k := key{n.Part, n.MIDI, n.Onset}
		if i, ok := seen[k]; ok {
			if out[i].Duration.Less(n.Duration) {
				out[i].Duration = n.Duration
			}
			continue
		}
		seen[k] = len(out)
		out = append(out, n)
	}
	return out
}

func gridOf(set map[rational.Rat]bool) int64 {
	for _, g := range grids {
		fits := true
		for t := range set {
			fits = fits && near(nearest(t, g), t)
		}
		if fits {
			return g
		}
	}
	far := func(g int64) float64 {
		sum := 0.0
		for t := range set {
			d := t.Sub(nearest(t, g)).Float()
			sum += d * d
		}
		return sum
	}
	if far(3) < 0.8*far(4) {
		return 3
	}
	return 4
}

// mostFree is which part of the quarter notes may lie on no plain grid before the piece counts as played freely (default).
const mostFree = 0.25

// playedFreely says that times lie where the player was, and on no grid: a fifth or a third of a beat is then no quintuplet and
// no triplet.
func playedFreely(times map[int64]map[rational.Rat]bool) bool {
	off := 0
	for _, set := range times {
		fits := false
		for _, g := range []int64{4, 3, 8, 6} {
			here := true
			for t := range set {
				here = here && near(nearest(t, g), t)
			}
			fits = fits || here
		}
		if !fits {
			off++
		}
	}
	return float64(off) > mostFree*float64(len(times))
}

// freeGrid is the grid of a quarter note in a piece that was played freely: thirds only where both of them are there, semiquavers
// where more than two notes are, quavers otherwise.
func freeGrid(set map[rational.Rat]bool) int64 {
	first, second, thirds, fourths := false, false, 0.0, 0.0
	for t := range set {
		third := nearest(t, 3)
		switch into := rational.New(third.Num()%third.Den(), third.Den()); into {
		case rational.New(1, 3):
			first = true
		case rational.New(2, 3):
			second = true
		}
		a, b := t.Sub(third).Float(), t.Sub(nearest(t, 4)).Float()
		thirds, fourths = thirds+a*a, fourths+b*b
	}
	switch {
	case first && second && len(set) == 3 && thirds < fourths:
		return 3
	case len(set) > 2:
		return 4
	}
	return 2
}

func near(a, b rational.Rat) bool {
	d := a.Sub(b).Float()
	return d < 0.02 && d > -0.02
}

// nearest is the multiple of 1/g next to t.
func nearest(t rational.Rat, g int64) rational.Rat {
	return rational.New((2*t.Num()*g+t.Den())/(2*t.Den()), g)
}

// toHands makes two staves of two tracks, the higher one first, or of one
// track that lies on both sides of middle C.
func toHands(s *score.Score) {
	mean := func(part int) float64 {
		sum, n := 0, 0
		for i := range s.Notes {
			if s.Notes[i].Part == part {
				sum += s.Notes[i].MIDI
				n++
			}
		}
		return float64(sum) / float64(max(n, 1))
	}
	switch len(s.Parts) {
	case 2:
		lower := 1
		if mean(0) < mean(1) {
			lower = 0
		}
		for i := range s.Notes {
			if s.Notes[i].Part == lower {
				s.Notes[i].Staff = 2
			}
			s.Notes[i].Part = 0
		}
		for i := range s.Signs {
			s.Signs[i].Part = 0
		}
		s.Parts = s.Parts[:1]
		s.Parts[0].Staves = 2
	case 1:
		low, high := 127, 0
		for i := range s.Notes {
			low, high = min(low, s.Notes[i].MIDI), max(high, s.Notes[i].MIDI)
		}
		if low >= middleC-7 || high < middleC {
			return
		}
		for i := range s.Notes {
			if s.Notes[i].MIDI < middleC {
				s.Notes[i].Staff = 2
			}
		}
		s.Parts[0].Staves = 2
		s.AddSkip("which hand plays what (divided at middle C)", "the whole piece")
	}
}

func clefOf(s *score.Score, part, staff int) score.Clef {
	sum, n := 0, 0
	for i := range s.Notes {
		if s.Notes[i].Part == part && s.Notes[i].Staff == staff {
			sum += s.Notes[i].MIDI
			n++
		}
	}
	if n > 0 && sum < middleC*n {
		return score.Clef{Sign: "F", Line: 4}
	}
	return score.Clef{Sign: "G", Line: 2}
}

func voiceName(staff, k int) string { return fmt.Sprint(4*(staff-1) + k + 1) }

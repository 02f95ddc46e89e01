package demand

import (
	"slices"
	"sort"
	"strconv"

	"patientladder/core/material"
	"patientladder/core/rational"
	"patientladder/core/reading"
	"patientladder/core/score"
)

// Features returns the features of a score by name, each with the positions
// of the bars (from 1, ascending) in which it occurs.
func Features(s *score.Score, family material.Family) map[string][]int {
	keyboard := family == material.Keyboard
	f := &finder{s: s, found: map[string][]int{}, plays: make([]bool, len(s.Parts))}
	for i := range s.Parts {
		f.plays[i] = reading.Plays(s, i, keyboard)
	}
	lines := reading.Lines(s, keyboard)
	f.meter()
	f.values()
	for _, l := range lines {
		if f.plays[l.Part] {
			f.line(l)
		}
	}
	f.hands(lines)
	if len(s.Bars) >= 16 {
		for i := range s.Bars {
			f.add("long", i+1)
		}
	}
	for name, bars := range f.found {
		sort.Ints(bars)
		f.found[name] = slices.Compact(bars)
	}
	return f.found
}

type finder struct {
	s *score.Score
	// found may hold a bar more than once and out of order until the end.
	found map[string][]int
	// plays says of each part whether it is the student's own.
	plays []bool
}

func (f *finder) add(name string, bar int) {
	bars := f.found[name]
	if n := len(bars); n == 0 || bars[n-1] != bar {
		f.found[name] = append(bars, bar)
	}
}

// meter finds time signatures, keys and a pickup.
func (f *finder) meter() {
	for i, b := range f.s.Bars {
		if b.BeatUnit > 0 {
			f.add("time."+strconv.Itoa(b.Beats)+"/"+strconv.Itoa(b.BeatUnit), i+1)
			if b.BeatUnit == 8 && b.Beats%3 == 0 && b.Beats > 3 {
				f.add("time.compound", i+1)
			}
		}
		switch {
		case b.Fifths > 0:
			f.add("key.sharps-"+strconv.Itoa(min(b.Fifths, 3)), i+1)
		case b.Fifths < 0:
			f.add("key.flats-"+strconv.Itoa(min(-b.Fifths, 3)), i+1)
		}
		if b.Mode == "minor" {
			f.add("key.minor", i+1)
		}
	}
	if len(f.s.Bars) > 1 && f.s.Bars[0].Short {
		f.add("pickup", 1)
	}
}

// values finds note values, rests, ties, touch and accidentals, note by note.
func (f *finder) values() {
	half := rational.New(1, 2)
	for i := range f.s.Notes {
		n := &f.s.Notes[i]
		if !f.plays[n.Part] {
			continue
		}
		if n.Grace {
			f.add("grace", n.Bar)
			continue
		}
		if n.Rest {
			if n.Duration.Less(f.s.Bars[n.Bar-1].Length) {
				f.add("rest", n.Bar)
			}
			continue
		}
		if n.Tuplet.Actual == 3 && n.Tuplet.Normal == 2 {
			f.add("value.triplet", n.Bar)
		} else {
			f.add("value."+n.Duration.String(), n.Bar)
		}
		at := n.Onset.Sub(f.s.Bars[n.Bar-1].Start)
		if at.Den() == 2 && half.Less(n.Duration) && n.Duration.Den() == 1 {
			f.add("syncopation", n.Bar)
		}
		if n.TieStart {
			f.add("tie", n.Bar)
			bar := f.s.Bars[n.Bar-1]
			if n.End().Cmp(bar.Start.Add(bar.Length)) == 0 {
				f.add("tie.over-bar", n.Bar)
			}
		}
		if n.SlurStart || n.SlurStop {
			f.add("slur", n.Bar)
		}
		for _, a := range n.Articulations {
			f.add("touch."+a, n.Bar)
		}
		f.add("note."+n.Pitch.String(), n.Bar)
		if n.Pitch.Alter != score.KeyAlter(n.Pitch.Step, f.s.Bars[n.Bar-1].Fifths) {
			f.add("accidental", n.Bar)
		}
		if score.BlackKey(n.MIDI) {
			f.add("black-key", n.Bar)
		}
		if n.String > 0 || n.Fret > 0 {
			f.add("fret."+strconv.Itoa(n.Fret), n.Bar)
		}
	}
}

// line finds moves, chords, range and start of one line.
func (f *finder) line(l reading.Line) {
	s := f.s
	if len(l.Onset) == 0 {
		return
	}
	low, high, lowBar, highBar := 1<<30, -1<<30, 0, 0
	for _, o := range l.Onset {
		f.add("hand."+string(l.Hand), o.Bar)
		f.add("staff."+clefOf(s, l), o.Bar)
		if n := len(o.Notes); n >= 2 {
			f.add("chord."+strconv.Itoa(min(n, 3)), o.Bar)
		}
		for _, i := range o.Notes {
			step := s.Notes[i].Pitch.StaffStep()
			if step < low {
				low, lowBar = step, o.Bar
			}
			if step > high {
				high, highBar = step, o.Bar
			}
		}
	}
	if high-low > 4 {
		f.add("range.beyond-five."+string(l.Hand), lowBar)
		f.add("range.beyond-five."+string(l.Hand), highBar)
	}
	moves := reading.Moves(s, l)
	for i, m := range moves {
		switch {
		case m.Kind == reading.Leap && m.Interval.Number >= 6:
			f.add("move.wide", m.Bar)
		default:
			f.add("move."+string(m.Kind), m.Bar)
		}
		// Two moves by thirds or fourths the same way, with no rest between, outline a chord.
		if i >= 1 && !m.AfterRest && !moves[i-1].AfterRest && outlines(m) && outlines(moves[i-1]) && m.Direction == moves[i-1].Direction {
			f.add("broken-chord", m.Bar)
		}
	}
	if st, ok := reading.FindStart(s, l); ok {
		if st.WeakFinger {
			f.add("start.weak-finger", st.Bar)
		}
	}
}

func outlines(m reading.Move) bool {
	return m.Direction != reading.Same && (m.Interval.Number == 3 || m.Interval.Number == 4)
}

func clefOf(s *score.Score, l reading.Line) string {
	clefs := s.Parts[l.Part].Clefs
	if l.Staff <= len(clefs) && clefs[l.Staff-1].Sign == "F" {
		return "bass"
	}
	return "treble"
}

// hands finds how two hands of one keyboard part share the time.
func (f *finder) hands(lines []reading.Line) {
	for i := 0; i+1 < len(lines); i++ {
		r, l := lines[i], lines[i+1]
		if r.Hand == reading.Right && l.Hand == reading.Left && r.Part == l.Part {
			f.pair(r, l)
		}
	}
}

// pair walks through the moments of two hands.
func (f *finder) pair(r, l reading.Line) {
	s := f.s
	together := false
	var lastR, lastL *reading.Onset
	for a, b := 0, 0; a < len(r.Onset) || b < len(l.Onset); {
		right := b >= len(l.Onset) || a < len(r.Onset) && !l.Onset[b].At.Less(r.Onset[a].At)
		left := a >= len(r.Onset) || b < len(l.Onset) && !r.Onset[a].At.Less(l.Onset[b].At)
		switch {
		case right && left:
			together = true
			o, p := &r.Onset[a], &l.Onset[b]
			f.add("hands.together", o.Bar)
			if lastR != nil && lastL != nil && lastR.At.Cmp(lastL.At) == 0 {
				f.motion(lastR, o, lastL, p)
			}
			lastR, lastL = o, p
			a, b = a+1, b+1
		case right:
			if lastL != nil && sounds(s, *lastL, r.Onset[a].At) {
				together = true
				f.add("hands.together", r.Onset[a].Bar)
				f.add("hands.held-against-moving", r.Onset[a].Bar)
			}
			lastR = &r.Onset[a]
			a++
		default:
			if lastR != nil && sounds(s, *lastR, l.Onset[b].At) {
				together = true
				f.add("hands.together", l.Onset[b].Bar)
				f.add("hands.moving-against-held", l.Onset[b].Bar)
			}
			lastL = &l.Onset[b]
			b++
		}
	}
	if !together {
		f.add("hands.in-turn", r.Onset[0].Bar)
		f.add("hands.in-turn", l.Onset[0].Bar)
	}
	for i := range s.Bars {
		f.add("staff.grand", i+1)
	}
}

func (f *finder) motion(r0, r1, l0, l1 *reading.Onset) {
	pitch := func(o *reading.Onset) int { return f.s.Notes[o.Outer].MIDI }
	dr, dl := pitch(r1)-pitch(r0), pitch(l1)-pitch(l0)
	switch {
	case dr*dl > 0:
		f.add("hands.parallel", r1.Bar)
	case dr*dl < 0:
		f.add("hands.contrary", r1.Bar)
	}
}

// sounds reports whether the notes of an onset still sound at a time.
func sounds(s *score.Score, o reading.Onset, at rational.Rat) bool {
	for _, i := range o.Notes {
		if at.Less(s.Notes[i].End()) || s.Notes[i].TieStart {
			return true
		}
	}
	return false
}

// TextureOf says how many things happen at once.
func TextureOf(s *score.Score, family material.Family) material.Texture {
	found := Features(s, family)
	switch {
	case len(found["hands.together"]) > 0:
		return material.Together
	case len(found["hands.in-turn"]) > 0:
		return material.InTurn
	}
	return material.OneLine
}

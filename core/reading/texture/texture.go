// Package texture finds how the two hands of a keyboard player share the time:
// in turn or together, in which motion, with what against what.
package texture

import (
	"strconv"

	"patientladder/core/base/finding"
	"patientladder/core/base/rational"
	"patientladder/core/notation/score"
	"patientladder/core/reading/reading"
)

// Find returns the findings of every pair of hands:
//
//	hands.in-turn, hands.together, hands.switch (the melody changes hands)
//	hands.parallel, hands.contrary (two moves running), hands.oblique
//	hands.held-against-moving   the right moves while the left holds
//	hands.moving-against-held   the left moves while the right holds
//	hands.different-touch       one hand short, the other smooth
//	hands.accompaniment-left, hands.accompaniment-right   chords or broken chords under a single line; above one only
//	                            where the line below sings: a bass of long notes or of leaps is no melody
//	polyrhythm.3:2              even notes of one hand against even notes of the other in one beat, half bar or bar
//	staff.grand                 two staves read at once
func Find(s *score.Score, lines []reading.Line) finding.Set {
	f := finding.Set{}
	for i := 0; i+1 < len(lines); i++ {
		r, l := lines[i], lines[i+1]
		if r.Hand == reading.Right && l.Hand == reading.Left && r.Part == l.Part && len(r.Onset) > 0 && len(l.Onset) > 0 {
			f2 := &finder{s: s, f: f, r: r, l: l}
			f2.walk()
			f2.byBar()
		}
	}
	return f.Settle()
}

type finder struct {
	s    *score.Score
	f    finding.Set
	r, l reading.Line
	// contrary is the bar of the last move where that was in contrary motion; 0 where it was not.
	contrary int
}

// walk goes through the moments of two hands in order.
func (x *finder) walk() {
	r, l := x.r.Onset, x.l.Onset
	together := false
	var lastR, lastL *reading.Onset
	alone := byte(0) // the hand that played last by itself
	for a, b := 0, 0; a < len(r) || b < len(l); {
		right := b >= len(l) || a < len(r) && !l[b].At.Less(r[a].At)
		left := a >= len(r) || b < len(l) && !r[a].At.Less(l[b].At)
		switch {
		case right && left:
			together = true
			x.f.Add("hands.together", r[a].Bar)
			if lastR != nil && lastL != nil {
				x.motion(lastR, &r[a], lastL, &l[b])
			}
			lastR, lastL, alone = &r[a], &l[b], 0
			a, b = a+1, b+1
		case right:
			if lastL != nil && sounds(*lastL, r[a].At) {
				together = true
				x.f.Add("hands.together", r[a].Bar)
				x.f.Add("hands.held-against-moving", r[a].Bar)
				alone = 0
			} else {
				if alone == 'l' {
					x.f.Add("hands.switch", r[a].Bar)
				}
				alone = 'r'
			}
			lastR = &r[a]
			a++
		default:
			if lastR != nil && sounds(*lastR, l[b].At) {
				together = true
				x.f.Add("hands.together", l[b].Bar)
				x.f.Add("hands.moving-against-held", l[b].Bar)
				alone = 0
			} else {
				if alone == 'r' {
					x.f.Add("hands.switch", l[b].Bar)
				}
				alone = 'l'
			}
			lastL = &l[b]
			b++
		}
	}
	if !together {
		x.f.Add("hands.in-turn", r[0].Bar)
		x.f.Add("hands.in-turn", l[0].Bar)
	}
	for i := range x.s.Bars {
		x.f.Add("staff.grand", i+1)
	}
}

func (x *finder) motion(r0, r1, l0, l1 *reading.Onset) {
	pitch := func(o *reading.Onset) int { return x.s.Notes[o.Outer].MIDI }
	dr, dl := pitch(r1)-pitch(r0), pitch(l1)-pitch(l0)
	apart := r0.At.Cmp(l0.At) != 0
	switch {
	case dr*dl > 0 && !apart:
		x.f.Add("hands.parallel", r1.Bar)
	case dr*dl < 0 && !apart:
		if x.contrary > 0 { // one such step is a chance
			x.f.Add("hands.contrary", x.contrary)
			x.f.Add("hands.contrary", r1.Bar)
		}
		x.contrary = r1.Bar
		return
	case (dr == 0) != (dl == 0):
		x.f.Add("hands.oblique", r1.Bar)
	}
	x.contrary = 0
}

// sounds reports whether the notes of an onset still sound at a time.
func sounds(o reading.Onset, at rational.Rat) bool {
	for _, end := range o.Ends {
		if at.Less(end) {
			return true
		}
	}
	return false
}

// byBar compares what the hands do within each bar.
func (x *finder) byBar() {
	a, b := 0, 0
	for bar := 1; bar <= len(x.s.Bars); bar++ {
		r, l := take(x.r.Onset, &a, bar), take(x.l.Onset, &b, bar)
		if len(r) == 0 || len(l) == 0 {
			continue
		}
		rt, lt := x.touch(r), x.touch(l)
		if rt != lt && rt != 0 && lt != 0 {
			x.f.Add("hands.different-touch", bar)
		}
		switch rs, ls := single(r), single(l); {
		case rs && (!ls && len(l) > 0 || ls && x.broken(l) && !x.broken(r)):
			x.f.Add("hands.accompaniment-left", bar)
		case ls && x.sings(l) && (!rs || x.broken(r)):
			x.f.Add("hands.accompaniment-right", bar)
		}
		x.polyrhythm(bar, r, l)
	}
}

func take(o []reading.Onset, at *int, bar int) []reading.Onset {
	from := *at
	for *at < len(o) && o[*at].Bar == bar {
		*at++
	}
	return o[from:*at]
}

// touch is 's' where every note is short, 'l' where notes are under slurs and none is short, 0 otherwise.
func (x *finder) touch(o []reading.Onset) byte {
	short, slurred := 0, 0
	for _, on := range o {
		n := &x.s.Notes[on.Outer]
		for _, a := range n.Articulations {
			if a == "staccato" || a == "staccatissimo" {
				short++
				break
			}
		}
		if n.SlurStart || n.SlurStop {
			slurred++
		}
	}
	switch {
	case short*2 > len(o):
		return 's'
	case slurred > 0 && short == 0:
		return 'l'
	}
	return 0
}

func single(o []reading.Onset) bool {
	for _, on := range o {
		if len(on.Notes) > 1 {
			return false
		}
	}
	return true
}

// broken says that a bar goes up and down through the notes of a chord: three
// or more single notes, none a step from the next.
func (x *finder) broken(o []reading.Onset) bool {
	if len(o) < 3 {
		return false
	}
	for i := 1; i < len(o); i++ {
		d := x.s.Notes[o[i].Outer].Pitch.StaffStep() - x.s.Notes[o[i-1].Outer].Pitch.StaffStep()
		if d > -2 && d < 2 {
			return false
		}
	}
	return true
}

// sings says that the single notes of a bar are a tune and no bass (common practice): at least two of them, and no more leaps
// than steps, from one staff step to the next.
func (x *finder) sings(o []reading.Onset) bool {
	if len(o) < 2 || x.broken(o) {
		return false
	}
	steps, leaps := 0, 0
	for i := 1; i < len(o); i++ {
		switch d := x.s.Notes[o[i].Outer].Pitch.StaffStep() - x.s.Notes[o[i-1].Outer].Pitch.StaffStep(); {
		case d == 1 || d == -1:
			steps++
		case d != 0:
			leaps++
		}
	}
	return steps > 0 && steps >= leaps
}

// mostOnsets is how many onsets of a bar are compared: more are no rhythm that hands divide.
const mostOnsets = 256

// polyrhythm compares the two hands in each beat, each half and the whole of a
// bar: where both divide the same time evenly, into numbers of which neither
// is a multiple of the other, it names the larger first.
func (x *finder) polyrhythm(bar int, r, l []reading.Onset) {
	b := &x.s.Bars[bar-1]
	if b.Short || len(r) < 2 || len(l) < 2 || len(r)+len(l) > mostOnsets || !b.Countable() {
		return
	}
	spans := []rational.Rat{b.Beat(), b.Length.Mul(rational.New(1, 2)), b.Length}
	for _, span := range spans {
		for at := b.Start; at.Less(b.Start.Add(b.Length)); at = at.Add(span) {
			m, n := even(r, at, span), even(l, at, span)
			if m < n {
				m, n = n, m
			}
			if n > 1 && m%n != 0 && gcd(m, n) == 1 {
				x.f.Add("polyrhythm."+strconv.Itoa(m)+":"+strconv.Itoa(n), bar)
			}
		}
		if !span.Less(b.Length) {
			return
		}
	}
}

// even returns how many onsets divide a span evenly, its beginning included; 0 where they do not.
func even(o []reading.Onset, from, span rational.Rat) int {
	end := from.Add(span)
	first, n := -1, 0
	for i := range o {
		if !o[i].At.Less(from) && o[i].At.Less(end) {
			if first < 0 {
				first = i
			}
			n++
		}
	}
	if n == 0 {
		return 0
	}
	part := span.Mul(rational.New(1, int64(n)))
	for k := range n {
		if o[first+k].At.Cmp(from.Add(part.Mul(rational.Int(int64(k))))) != 0 {
			return 0
		}
	}
	return n
}

func gcd(a, b int) int {
	for b != 0 {
		a, b = b, a%b
	}
	return a
}

// Package pitch finds what a score asks of reading and hearing pitch: key,
// accidentals, range, ledger lines, intervals, chords, scales and arpeggios.
package pitch

import (
	"strconv"

	"patientladder/core/base/finding"
	"patientladder/core/notation/score"
	"patientladder/core/reading/key"
	"patientladder/core/reading/reading"
)

// Find returns the findings of the lines that the student plays:
//
//	key.sharps-2, key.flats-1, key.change   (three and more count as 3)
//	key.minor                   as the file says, or as the music does where it leaves little doubt (see package key)
//	accidental, accidental.double, black-key
//	note.F#3                    a written pitch
//	staff.treble, staff.bass, staff.tenor, staff.grand, clef.change
//	ledger.above, ledger.below, ledger.many (beyond the second line)
//	move.same, move.step, move.skip, move.leap, move.wide (a sixth and more)
//	move.number-5               a melodic interval by its number
//	chord.2, chord.3, chord.octave, chord.number-3   notes struck together by one hand
//	broken-chord, arpeggio      thirds and fourths one way; over an octave
//	scale-run, chromatic-run    five steps one way; three semitones one way
//	alberti                     low, high, middle, high
//	range.beyond-five.right     a line wider than five white keys
//	range.beyond-octave
func Find(s *score.Score, lines []reading.Line, moves [][]reading.Move, plays []bool, k key.Key) finding.Set {
	f := finding.Set{}
	keys(s, k, f)
	names := map[score.Pitch]string{}
	for i := range s.Notes {
		n := &s.Notes[i]
		if n.Rest || n.Grace || !plays[n.Part] {
			continue
		}
		name, ok := names[n.Pitch]
		if !ok {
			name = "note." + n.Pitch.String()
			names[n.Pitch] = name
		}
		f.Add(name, n.Bar)
		if n.Pitch.Alter != score.KeyAlter(n.Pitch.Step, s.Bars[n.Bar-1].Fifths) {
			f.Add("accidental", n.Bar)
		}
		if n.Pitch.Alter > 1 || n.Pitch.Alter < -1 {
			f.Add("accidental.double", n.Bar)
		}
		if score.BlackKey(n.MIDI) {
			f.Add("black-key", n.Bar)
		}
	}
	for i, l := range lines {
		if plays[l.Part] && len(l.Onset) > 0 {
			line(s, l, f)
			melodic(s, l, moves[i], f)
		}
	}
	for _, x := range s.Signs {
		if x.Kind == score.ClefChange && plays[x.Part] {
			f.Add("clef.change", x.Bar)
		}
	}
	return f.Settle()
}

func keys(s *score.Score, k key.Key, f finding.Set) {
	for i := range s.Bars {
		b := &s.Bars[i]
		switch {
		case b.Fifths > 0:
			f.Add("key.sharps-"+strconv.Itoa(min(b.Fifths, 3)), i+1)
		case b.Fifths < 0:
			f.Add("key.flats-"+strconv.Itoa(min(-b.Fifths, 3)), i+1)
		}
		if b.Mode == "minor" || k.Minor() && k.Fits(*b) {
			f.Add("key.minor", i+1)
		}
		if i > 0 && b.Fifths != s.Bars[i-1].Fifths {
			f.Add("key.change", i+1)
		}
	}
}

// staffs are the steps on which the lowest and the highest line of a staff stand.
var staffs = map[string]struct {
	name      string
	low, high int
}{
	"G": {"treble", 30, 38}, "F": {"bass", 18, 26}, "C": {"alto", 24, 32},
}

// ClefName names the staff that a line is read on: treble, bass, alto or tenor.
func ClefName(s *score.Score, l reading.Line) string {
	c := clefOf(s, l)
	if c.Sign == "C" && c.Line == 4 {
		return "tenor"
	}
	return staffs[c.Sign].name
}

func clefOf(s *score.Score, l reading.Line) score.Clef {
	if c := s.Parts[l.Part].Clefs; l.Staff <= len(c) {
		if _, known := staffs[c[l.Staff-1].Sign]; known {
			return c[l.Staff-1]
		}
	}
	return score.Clef{Sign: "G", Line: 2}
}

// Staff returns the steps on which the lowest and the highest line of the staff of a line stand (see score.Pitch.StaffStep).
func Staff(s *score.Score, l reading.Line) (low, high int) {
	c := clefOf(s, l)
	low, high = staffs[c.Sign].low+7*c.Octave, staffs[c.Sign].high+7*c.Octave
	if c.Sign == "C" && c.Line == 4 {
		low, high = low-2, high-2
	}
	return low, high
}

// numbered are the names of findings by number, made once.
func numbered(prefix string) (names [16]string) {
	for i := range names {
		names[i] = prefix + strconv.Itoa(i)
	}
	return names
}

var moveNumber, chordNumber = numbered("move.number-"), numbered("chord.number-")

// line finds range, ledger lines and chords.
func line(s *score.Score, l reading.Line, f finding.Set) {
	low, high := Staff(s, l)
	hand, staff := "hand."+string(l.Hand), "staff."+ClefName(s, l)
	lowest, highest, lowBar, highBar := 1<<20, -1<<20, 0, 0
	for _, o := range l.Onset {
		f.Add(hand, o.Bar)
		f.Add(staff, o.Bar)
		bottom, top := 1<<20, -1<<20
		for _, i := range o.Notes {
			step := s.Notes[i].Pitch.StaffStep()
			bottom, top = min(bottom, step), max(top, step)
		}
		if bottom < lowest {
			lowest, lowBar = bottom, o.Bar
		}
		if top > highest {
			highest, highBar = top, o.Bar
		}
		if top >= high+2 {
			f.Add("ledger.above", o.Bar)
		}
		if bottom <= low-2 {
			f.Add("ledger.below", o.Bar)
		}
		if top >= high+5 || bottom <= low-5 {
			f.Add("ledger.many", o.Bar)
		}
		if n := len(o.Notes); n >= 2 {
			f.Add([...]string{"chord.2", "chord.3"}[min(n, 3)-2], o.Bar)
			f.Add(chordNumber[min(top-bottom+1, 15)], o.Bar)
			if top-bottom >= 7 {
				f.Add("chord.octave", o.Bar)
			}
		}
	}
	if highest-lowest > 4 {
		name := "range.beyond-five." + string(l.Hand)
		f.Add(name, lowBar)
		f.Add(name, highBar)
	}
	if highest-lowest > 7 {
		f.Add("range.beyond-octave", lowBar)
		f.Add("range.beyond-octave", highBar)
	}
}

// melodic finds moves and the figures that they make.
func melodic(s *score.Score, l reading.Line, moves []reading.Move, f finding.Set) {
	run, steps, semitones := 0, 0, 0 // moves so far the same way: by thirds and fourths, by steps, by semitones
	span := 0
	for i, m := range moves {
		switch {
		case m.Kind == reading.Leap && m.Interval.Number >= 6:
			f.Add("move.wide", m.Bar)
		default:
			f.Add(moveKinds[m.Kind], m.Bar)
		}
		if m.Direction != reading.Same {
			f.Add(moveNumber[min(m.Interval.Number, 15)], m.Bar)
		}
		on := i > 0 && !m.AfterRest && m.Direction == moves[i-1].Direction
		if !on {
			run, steps, semitones, span = 0, 0, 0, 0
		}
		if m.Direction == reading.Same || m.AfterRest {
			run, steps, semitones, span = 0, 0, 0, 0
			continue
		}
		single := len(l.Onset[i].Notes) == 1 && len(l.Onset[i+1].Notes) == 1
		if single && (m.Interval.Number == 3 || m.Interval.Number == 4) {
			run, span = run+1, span+m.Interval.Number-1
		} else {
			run, span = 0, 0
		}
		if steps++; m.Kind != reading.Step {
			steps = 0
		}
		if semitones++; m.Interval.Semitones != 1 {
			semitones = 0
		}
		if run >= 2 {
			f.Add("broken-chord", m.Bar)
		}
		if run >= 3 && span >= 7 {
			f.Add("arpeggio", m.Bar)
		}
		if steps >= 5 {
			f.Add("scale-run", m.Bar)
		}
		if semitones >= 3 {
			f.Add("chromatic-run", m.Bar)
		}
	}
	for i := 0; i+3 < len(l.Onset); i++ {
		if alberti(s, l.Onset[i:i+4]) {
			f.Add("alberti", l.Onset[i].Bar)
		}
	}
}

var moveKinds = map[reading.Kind]string{
	reading.Stay: "move.same",
	reading.Step: "move.step",
	reading.Skip: "move.skip",
	reading.Leap: "move.leap",
}

// alberti is low, high, middle, high in one bar, four single notes of equal length.
func alberti(s *score.Score, o []reading.Onset) bool {
	var m [4]int
	for i := range o {
		if len(o[i].Notes) != 1 || o[i].Bar != o[0].Bar {
			return false
		}
		m[i] = s.Notes[o[i].Notes[0]].MIDI
	}
	gap := o[1].At.Sub(o[0].At)
	third := 3 // semitones: nearer notes are a run or a turn, not a chord that is broken
	return m[1] == m[3] && m[2]-m[0] >= third && m[1]-m[2] >= third && o[2].At.Sub(o[1].At).Cmp(gap) == 0 && o[3].At.Sub(o[2].At).Cmp(gap) == 0
}

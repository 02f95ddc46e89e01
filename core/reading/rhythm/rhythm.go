// Package rhythm finds what a score asks of the sense of time: values, cells
// in each beat, ties, syncopation, tuplets, metres, the pickup.
package rhythm

import (
	"strconv"

	"patientladder/core/base/finding"
	"patientladder/core/base/rational"
	"patientladder/core/notation/score"
	"patientladder/core/reading/reading"
)

// Find returns the findings of the lines that the student plays:
//
//	value.1/2       a note of so many quarter notes; value.triplet, value.quintuplet for tuplets
//	cell.1/2+1/2    what begins in one beat, each until the next ("~" where a note is held into the beat, "-" where the beat is silent)
//	rest            a rest within a bar
//	tie, tie.over-beat, tie.over-bar
//	syncopation     a note that begins between the beats and sounds into the next
//	syncopation.beats  one that begins on a weak beat and sounds over the strong middle of the bar
//	time.3/4, time.compound, time.uneven, time.change
//	pickup
func Find(s *score.Score, lines []reading.Line, plays []bool) finding.Set {
	f := finding.Set{}
	meters(s, f)
	names := map[rational.Rat]string{}
	for i := range s.Notes {
		n := &s.Notes[i]
		if !plays[n.Part] || n.Grace {
			continue
		}
		if n.Rest {
			if n.Duration.Less(s.Bars[n.Bar-1].Length) {
				f.Add("rest", n.Bar)
			}
			continue
		}
		f.Add(value(n, names), n.Bar)
		if n.TieStart {
			f.Add("tie", n.Bar)
			bar := &s.Bars[n.Bar-1]
			if n.End().Cmp(bar.Start.Add(bar.Length)) == 0 {
				f.Add("tie.over-bar", n.Bar)
			}
		}
	}
	for _, l := range lines {
		if plays[l.Part] {
			off(s, l, f)
			cells(s, l, f)
		}
	}
	return f.Settle()
}

func value(n *score.Note, names map[rational.Rat]string) string {
	switch {
	case n.Tuplet.Actual == 3 && n.Tuplet.Normal == 2:
		return "value.triplet"
	case n.Tuplet.Actual == 5:
		return "value.quintuplet"
	case n.Tuplet.Actual > 0:
		return "value.tuplet"
	}
	name, ok := names[n.Duration]
	if !ok {
		name = "value." + n.Duration.String()
		names[n.Duration] = name
	}
	return name
}

func meters(s *score.Score, f finding.Set) {
	name := ""
	for i := range s.Bars {
		b := &s.Bars[i]
		if b.BeatUnit == 0 {
			continue
		}
		if i == 0 || b.Beats != s.Bars[i-1].Beats || b.BeatUnit != s.Bars[i-1].BeatUnit {
			name = "time." + strconv.Itoa(b.Beats) + "/" + strconv.Itoa(b.BeatUnit)
			if i > 0 && s.Bars[i-1].BeatUnit > 0 {
				f.Add("time.change", i+1)
			}
		}
		f.Add(name, i+1)
		switch {
		case b.Compound():
			f.Add("time.compound", i+1)
		case b.Beats == 5 || b.Beats == 7:
			f.Add("time.uneven", i+1)
		}
	}
	if len(s.Bars) > 1 && s.Bars[0].Short {
		f.Add("pickup", 1)
	}
}

// off finds what sounds across the beats.
func off(s *score.Score, l reading.Line, f finding.Set) {
	offsets := s.Offsets()
	for _, o := range l.Onset {
		b := &s.Bars[o.Bar-1]
		beat := b.Beat()
		late := offsets[o.Bar-1]
		at := o.At.Sub(b.Start).Add(late)
		whole, onBeat := into(at, beat)
		next := beat.Mul(rational.Int(whole + 1))
		if s.Notes[o.Notes[0]].Tuplet.Actual > 0 {
			continue // a tuplet over several beats divides them evenly
		}
		for _, end := range o.Ends {
			sounds := end.Sub(b.Start).Add(late)
			if onBeat {
				if b.Beats == 4 && !b.Compound() && whole == 1 && beat.Mul(rational.Int(2)).Less(sounds) {
					f.Add("syncopation.beats", o.Bar)
				}
				continue
			}
			if next.Less(sounds) {
				f.Add("tie.over-beat", o.Bar)
				f.Add("syncopation", o.Bar)
			}
		}
	}
}

// into returns how many whole beats lie before a time, and whether it stands on one.
func into(at, beat rational.Rat) (whole int64, exact bool) {
	q := rational.New(at.Num()*beat.Den(), at.Den()*beat.Num())
	return q.Num() / q.Den(), q.Den() == 1
}

// cells names what begins in each beat of a line.
func cells(s *score.Score, l reading.Line, f finding.Set) {
	names := map[[8]rational.Rat]string{}
	offsets := s.Offsets()
	for i := 0; i < len(l.Onset); {
		b := &s.Bars[l.Onset[i].Bar-1]
		beat := b.Beat()
		late := offsets[l.Onset[i].Bar-1]
		at := l.Onset[i].At.Sub(b.Start).Add(late)
		whole, _ := into(at, beat)
		start := beat.Mul(rational.Int(whole)).Sub(late).Add(b.Start)
		end := start.Add(beat)
		var key [8]rational.Rat
		key[0] = beat
		n := 1
		j := i
		for ; j < len(l.Onset) && l.Onset[j].Bar == l.Onset[i].Bar && l.Onset[j].At.Less(end); j++ {
			if n < len(key) {
				key[n] = l.Onset[j].At.Sub(start)
				n++
			}
		}
		if j-i < len(key) {
			silent := i == 0 || !anySounds(l.Onset[i-1], start)
			if silent && !key[1].IsZero() {
				key[0] = beat.Add(beat) // another key: silence and a held note differ
			}
			name, ok := names[key]
			if !ok {
				name = cellName(key[1:n], beat, silent)
				names[key] = name
			}
			f.Add(name, l.Onset[i].Bar)
		}
		i = j
	}
}

// anySounds says that a note of an onset still sounds at a time.
func anySounds(o reading.Onset, at rational.Rat) bool {
	for _, end := range o.Ends {
		if at.Less(end) {
			return true
		}
	}
	return false
}

func cellName(at []rational.Rat, beat rational.Rat, silent bool) string {
	name := "cell."
	if !at[0].IsZero() {
		sign := "~"
		if silent {
			sign = "-"
		}
		name += sign + at[0].String() + "+"
	}
	for i, a := range at {
		if i > 0 {
			name += "+"
		}
		if i+1 < len(at) {
			name += at[i+1].Sub(a).String()
		} else {
			name += beat.Sub(a).String()
		}
	}
	return name
}

package analysis

import (
	"fmt"

	"patientladder/core/base/finding"
	"patientladder/core/base/rational"
	"patientladder/core/library/instrument"
	"patientladder/core/notation/score"
)

const (
	// shortBreath and longBreath are seconds: what needs no thought, and what needs a plan (defaults, common practice for the
	// first years).
	shortBreath, longBreath = 3.0, 7.0
	// unmarked is the tempo of a piece without one, in quarter notes a minute.
	unmarked = 80.0
	// quickStroke is the length from which on strokes are quick, in quarter notes.
	quickStroke = 0.25
)

// single names what a single line asks of an instrument with neither keys nor strings: the stage of its range, how long its
// phrases are in breaths, whether notes begin by themselves, and strokes.
func single(s *score.Score, l Line, x instrument.Instrument, f finding.Set) {
	for _, o := range l.Onset {
		n := &s.Notes[o.Notes[len(o.Notes)-1]]
		if stage := x.Stage(n.Pitch); stage > 0 {
			f.Add(fmt.Sprintf("range.stage-%d", stage), o.Bar)
		}
		if x.Family == instrument.Percussion {
			f.Add("strokes", o.Bar)
			if n.Duration.Float() <= quickStroke {
				f.Add("strokes.quick", o.Bar)
			}
		}
	}
	if x.Breathes() {
		breaths(s, l, f)
	}
}

// breaths measures phrases at the tempo of the piece. Breath is taken at rests and breath marks, after slurs of more than
// two notes, and after long notes, a minim and more.
func breaths(s *score.Score, l Line, f finding.Set) {
	tempo := s.Tempo
	if tempo <= 0 {
		tempo = unmarked
	}
	begin := 0
	slurred, open := 0, false
	for i, o := range l.Onset {
		n := &s.Notes[o.Notes[0]]
		if n.SlurStart {
			open, slurred = true, 0
		}
		if slurred++; !open {
			f.Add("tongued", o.Bar)
		}
		end := o.Ends[0]
		last := i+1 == len(l.Onset)
		ends := last || end.Less(l.Onset[i+1].At) || n.Breath() || n.SlurStop && open && slurred > 2 || rational.Int(2).Cmp(end.Sub(o.At)) <= 0
		if n.SlurStop {
			open = false
		}
		if !ends {
			continue
		}
		seconds := end.Sub(l.Onset[begin].At).Float() * 60 / tempo
		name := ""
		switch {
		case seconds > longBreath:
			name = "breath.long"
		case seconds > shortBreath:
			name = "breath.phrase"
		}
		for k := begin; k <= i && name != ""; k++ {
			f.Add(name, l.Onset[k].Bar)
		}
		begin = i + 1
	}
}

package exercise

import (
	"fmt"

	"patientladder/core/base/rational"
	"patientladder/core/library/instrument"
	"patientladder/core/notation/score"
	"patientladder/core/technique/scale"
)

// lie puts a line of written notes into the octave in which the instrument plays it most easily: the highest stage that
// it needs is as low as can be, then it lies as low as can be. It refuses what lies beyond the instrument.
func (e Exercise) lie(notes []Note) error {
	x := e.Instrument
	if len(x.Ranges) == 0 {
		return nil
	}
	best, at := len(x.Ranges)+1, 0
	for octave := -4; octave <= 4; octave++ {
		most := 0
		for _, n := range notes {
			n.Pitch.Octave += octave
			most = max(most, x.Stage(n.Pitch))
		}
		if most < best {
			best, at = most, octave
		}
	}
	if best > len(x.Ranges) {
		return fmt.Errorf("%s does not lie within the range of the %s", e.keyNameOr(), x.ID)
	}
	for i := range notes {
		notes[i].Pitch.Octave += at + x.Octave
	}
	return nil
}

func (e Exercise) keyNameOr() string {
	if e.Type.keyed() {
		return e.Key.String()
	}
	return "the line"
}

// tones are long notes of the range of a stage, upwards, a breath after each.
func (e Exercise) tones() (Built, error) {
	x := e.Instrument
	stage := min(max(1, e.Step.Stage), len(x.Ranges))
	if stage == 0 {
		return Built{}, fmt.Errorf("nobody has said what the %s can play", x.ID)
	}
	b := Built{Beats: 4}
	r := x.Ranges[stage-1]
	const most = 16 // enough to come through one or two octaves
	p := r.Low
	if p.Alter != 0 { // the natural note above
		p = score.Pitch{Step: p.Step, Octave: p.Octave}
		if p.Semitone() < r.Low.Semitone() {
			p = next(p)
		}
	}
	for ; r.Has(p) && len(b.Notes) < most; p = next(p) {
		n := Note{Pitch: p, At: rational.Int(int64(4 * len(b.Notes))), Length: rational.Int(4), Breath: true}
		n.Pitch.Octave += x.Octave
		b.Notes = append(b.Notes, n)
	}
	return b, nil
}

// next is the natural note above a natural note.
func next(p score.Pitch) score.Pitch {
	at := letterAt(p.Step) + 1
	return score.Pitch{Step: "CDEFGAB"[at%7], Octave: p.Octave + at/7}
}

func letterAt(step byte) int { return (int(step) - 'C' + 7) % 7 }

// melody plays a scale or a chord up and down, a breath at the top, slurred by as many notes as the step says.
func (e Exercise) melody() (Built, error) {
	s, err := scale.Of(e.Key, e.Kind, max(1, e.Step.Octaves))
	if err != nil {
		return Built{}, err
	}
	var notes []Note
	for _, p := range s.Up.Notes {
		notes = append(notes, Note{Pitch: p})
	}
	top := len(notes) - 1
	for _, p := range s.Down.Notes[1:] {
		notes = append(notes, Note{Pitch: p})
	}
	if err := e.lie(notes); err != nil {
		return Built{}, err
	}
	if e.Instrument.Breathes() {
		notes[top].Breath = true
	}
	e.slur(notes[:top+1])
	e.slur(notes[top+1:])
	b := Built{Beats: beatsOf(e.Kind)}
	value := rational.Int(1)
	if e.Step.Octaves > 1 {
		value = rational.New(1, 2)
	}
	b.Notes, _ = line(notes, rational.Rat{}, value, b.Beats)
	return b, nil
}

// slur ties so many notes together as the step says; a single one that is left is by itself.
func (e Exercise) slur(notes []Note) {
	for i := 0; e.Step.Slur > 1 && i+1 < len(notes); i += e.Step.Slur {
		notes[i].Slur, notes[min(i+e.Step.Slur, len(notes))-1].Unslur = true, true
	}
}

// wave is the line of a phrase within five notes, a bar of crotchets after the other: it rises, turns and comes home. Ours.
var wave = []int{1, 2, 3, 2, 3, 4, 5, 4, 3, 5, 4, 3, 2, 4, 3, 2}

// phrase is one line on one breath, as many bars as the step says, twice.
func (e Exercise) phrase() (Built, error) {
	s, err := scale.Of(e.Key, e.Kind, 1)
	if err != nil {
		return Built{}, err
	}
	b := Built{Beats: 4}
	var notes []Note
	degree := func(d int) Note { return Note{Pitch: s.Up.Notes[d-1]} }
	bars := max(1, e.Step.Bars)
	for range 2 {
		for i := range 4*bars - 4 {
			notes = append(notes, degree(wave[i%len(wave)]))
		}
		notes = append(notes, degree(3), degree(2), degree(1))
		notes[len(notes)-1].Breath = true
	}
	if err := e.lie(notes); err != nil {
		return Built{}, err
	}
	at := rational.Rat{}
	for i := range notes {
		notes[i].At, notes[i].Length = at, rational.Int(1)
		if notes[i].Breath {
			notes[i].Length = rational.Int(2)
		}
		at = at.Add(notes[i].Length)
	}
	e.slurPhrases(notes)
	b.Notes = notes
	return b, nil
}

// slurPhrases puts each phrase under one slur.
func (e Exercise) slurPhrases(notes []Note) {
	begin := 0
	for i := range notes {
		if notes[i].Breath {
			notes[begin].Slur, notes[i].Unslur = true, true
			begin = i + 1
		}
	}
}

// Charted is how a note of an exercise is fingered.
type Charted struct {
	instrument.Charted
	// MIDI is the note as it sounds.
	MIDI int
}

// Charted is how the notes of a built exercise are fingered, each once, in the order in which they come; nil for an instrument
// without a chart. A note that has another name in the chart (G♯ for A♭) is the same note.
func (e Exercise) Charted(b Built) []Charted {
	var out []Charted
	seen := map[int]bool{}
	for _, n := range b.Notes {
		written := n.Pitch
		written.Octave -= e.Instrument.Octave
		if seen[written.Semitone()] {
			continue
		}
		seen[written.Semitone()] = true
		for _, c := range e.Instrument.Chart {
			if c.Note.Semitone() == written.Semitone() {
				c.Note = written
				out = append(out, Charted{c, e.Sounding(n)})
			}
		}
	}
	return out
}

package exercise

import (
	"fmt"
	"slices"

	"patientladder/core/base/rational"
	"patientladder/core/library/instrument"
	"patientladder/core/notation/score"
	"patientladder/core/technique/plucked"
	"patientladder/core/technique/scale"
)

// fretted is a note on a string at a fret, spelled in a key of sharps or flats.
func (e Exercise) fretted(str, fret int) Note {
	open := e.Instrument.Open[str-1]
	return Note{Pitch: spell(open, fret), String: str, Above: fret}
}

// spell names the note so many semitones above an open string: as the open string at
// fret 0, else by the usual name.
func spell(open score.Pitch, fret int) score.Pitch {
	if fret == 0 {
		return open
	}
	usual := []score.Pitch{
		{Step: 'C'},
		{Step: 'C', Alter: 1},
		{Step: 'D'},
		{Step: 'E', Alter: -1},
		{Step: 'E'},
		{Step: 'F'},
		{Step: 'F', Alter: 1},
		{Step: 'G'},
		{Step: 'A', Alter: -1},
		{Step: 'A'},
		{Step: 'B', Alter: -1},
		{Step: 'B'},
	}
	midi := open.Semitone() + fret
	p := usual[midi%12]
	p.Octave = midi/12 - 1
	return p
}

// rolled plays a roll four times and more, to whole bars, on open strings or over its chords.
func (e Exercise) rolled() (Built, error) {
	r, ok := e.roll()
	if !ok {
		return Built{}, fmt.Errorf("the %s has no roll %q", e.Instrument.ID, e.What)
	}
	strokes, err := plucked.Fingers(e.Instrument, r.Strings)
	if err != nil {
		return Built{}, err
	}
	b := Built{Beats: 4}
	if len(strokes)%3 == 0 {
		b.Beats = 3
	}
	var shapes []plucked.Shape
	for _, name := range []string{e.Step.Chord, e.Step.Then} {
		if name == "" {
			continue
		}
		s, err := plucked.Chord(e.Instrument, name)
		if err != nil {
			return Built{}, err
		}
		shapes = append(shapes, s)
	}
	half := rational.New(1, 2)
	perBar := b.Beats * 2
	bars := 4
	for i := range bars * perBar {
		x := strokes[i%len(strokes)]
		n := e.fretted(x.String, 0)
		if len(shapes) > 0 {
			bar := i / perBar
			s := shapes[bar/2%len(shapes)]
			if fret := s.Frets[x.String-1]; fret > 0 {
				n = e.fretted(x.String, fret)
				n.Finger = s.Fingers[x.String-1]
			}
			if i%(2*perBar) == 0 {
				b.Chords = append(b.Chords, ChordAt{rational.Int(int64(bar * b.Beats)), s.Name})
			}
		}
		n.Pluck = x.Finger
		n.At, n.Length = rational.New(int64(i), 2), half
		b.Notes = append(b.Notes, n)
	}
	if e.Step.Join != "" {
		b.Notes = e.joinedInside(b.Notes, len(strokes))
	}
	return b, nil
}

// joinedFret is the fret of the note that the left hand adds inside a roll, played with the finger of its fret.
const joinedFret = 2

// joinedInside gives every round of a roll on open strings one stroke that becomes two notes: the first on a string that
// can be stopped and that does not come again at once.
func (e Exercise) joinedInside(notes []Note, round int) []Note {
	at := -1
	for i := range round {
		next := notes[(i+1)%round]
		if !slices.Contains(e.Instrument.Drone, notes[i].String) && next.String != notes[i].String {
			at = i
			break
		}
	}
	var out []Note
	for i, n := range notes {
		if i%round != at {
			out = append(out, n)
			continue
		}
		a, b := n, e.fretted(n.String, joinedFret)
		b.Finger = joinedFret
		if e.Step.Join == string(score.Pull) {
			a, b = b, a
		}
		quarter := n.Length.Mul(rational.New(1, 2))
		a.At, a.Length, a.Pluck = n.At, quarter, n.Pluck
		b.At, b.Length, b.Pluck, b.Join = n.At.Add(quarter), quarter, "", score.Join(e.Step.Join)
		out = append(out, a, b)
	}
	return out
}

// The frets between which the left hand sounds notes on one string, with a finger a fret: falling from the first to the
// second, pulling the other way; a slide keeps the finger of its first fret.
var (
	falls  = [][2]int{{0, 2}, {0, 1}, {1, 2}, {1, 3}}
	slides = [][2]int{{2, 4}, {4, 2}, {1, 3}, {3, 1}}
)

// joined plays four bars on one string: each pair of frets four times, the first note plucked, the second sounded by the
// left hand; where it falls and pulls in turn, twice there and back.
func (e Exercise) joined() Built {
	b := Built{Beats: 4}
	add := func(fret, finger int, join score.Join, pluck bool) {
		n := e.fretted(e.Str(), fret)
		n.Finger, n.Join = finger, join
		if pluck {
			n.Pluck = e.Instrument.Pluck[e.Str()-1]
		}
		b.Notes = append(b.Notes, n)
	}
	how := score.Join(e.Step.Join)
	pairs := falls
	if how == score.Slide {
		pairs = slides
	}
	for _, p := range pairs {
		low, high := p[0], p[1]
		switch how {
		case score.Slide:
			finger := min(low, high) + 1
			for range 4 {
				add(low, finger, "", true)
				add(high, finger, how, false)
			}
		case score.Hammer, score.Pull:
			if how == score.Pull {
				low, high = high, low
			}
			for range 4 {
				add(low, low, "", true)
				add(high, high, how, false)
			}
		default:
			for range 2 {
				add(low, low, "", true)
				add(high, high, score.Hammer, false)
				add(low, low, score.Pull, false)
				add(low, low, "", true)
			}
		}
	}
	for i := range b.Notes {
		b.Notes[i].At, b.Notes[i].Length = rational.New(int64(i), 2), rational.New(1, 2)
	}
	return b
}

// changing strokes two chords in turn.
func (e Exercise) changing() (Built, error) {
	a, bShape, err := e.chords()
	if err != nil {
		return Built{}, err
	}
	b := Built{Beats: 4}
	each := map[string]int{"silent": 4, "four": 4, "two": 2}[e.Step.ID]
	if each == 0 {
		each = 4
	}
	beat := 0
	for beat < 16 {
		s := []plucked.Shape{a, bShape}[beat/each%2]
		if beat%each == 0 {
			b.Chords = append(b.Chords, ChordAt{rational.Int(int64(beat)), s.Name})
		}
		first := true
		for str := len(s.Frets); str >= 1; str-- {
			fret := s.Frets[str-1]
			if fret < 0 {
				continue
			}
			n := e.fretted(str, fret)
			n.Finger, n.Pluck, n.Silent = s.Fingers[str-1], "p", e.Step.Hands == "silent"
			n.At, n.Length, n.Chord = rational.Int(int64(beat)), rational.Int(1), !first
			first = false
			b.Notes = append(b.Notes, n)
		}
		beat++
	}
	return b, nil
}

// chords are the two shapes of a change.
func (e Exercise) chords() (a, b plucked.Shape, err error) {
	i := slices.Index([]byte(e.What), '-')
	if i < 0 {
		return a, b, fmt.Errorf("%q are not two chords: write them as in C-F", e.What)
	}
	if a, err = plucked.Chord(e.Instrument, e.What[:i]); err != nil {
		return a, b, err
	}
	b, err = plucked.Chord(e.Instrument, e.What[i+1:])
	return a, b, err
}

// frets plays a scale on the first frets up and down: every note on the highest string that
// has it, the finger of its fret, i and m in turn. A string that sounds higher than its place (the
// fourth of a ukulele, the fifth of a banjo) is left out.
func (e Exercise) frets() (Built, error) {
	s, err := scale.Of(e.Key, e.Kind, max(1, e.Step.Octaves))
	if err != nil {
		return Built{}, err
	}
	var line1 []int // strings in falling order of pitch
	for i, p := range e.Instrument.Open {
		if len(line1) == 0 || p.Semitone() < e.Instrument.Open[line1[len(line1)-1]].Semitone() {
			line1 = append(line1, i)
		}
	}
	lowest := e.Instrument.Open[line1[len(line1)-1]].Semitone()
	for octave := -3; octave <= 2; octave++ {
		var up []Note
		if s.Up.Notes[0].Semitone()+12*octave < lowest {
			continue
		}
		for _, p := range s.Up.Notes {
			p.Octave += octave
			for _, i := range line1 {
				if fret := p.Semitone() - e.Instrument.Open[i].Semitone(); fret >= 0 {
					n := Note{Pitch: p, String: i + 1, Above: fret, Finger: min(4, fret)}
					up = append(up, n)
					break
				}
			}
		}
		if up[len(up)-1].Above > topFret {
			return Built{}, fmt.Errorf("%s leaves the first frets of the %s", e.Key, e.Instrument.ID)
		}
		notes := upAndDown(up)
		walking := instrument.Plucking()[1:3]
		for i := range notes {
			notes[i].Pluck = walking[i%2]
		}
		b := Built{Beats: 4}
		b.Notes, _ = line(notes, rational.Rat{}, rational.Int(1), b.Beats)
		return b, nil
	}
	return Built{}, fmt.Errorf("%s does not lie on the %s", e.Key, e.Instrument.ID)
}

// topFret is how far up the first frets reach.
const topFret = 5

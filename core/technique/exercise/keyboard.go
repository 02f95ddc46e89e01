package exercise

import (
	"slices"

	"patientladder/core/base/rational"
	"patientladder/core/technique/scale"
)

// keys makes scales, arpeggios, chords and five-finger patterns up and down.
func (e Exercise) keys() (Built, error) {
	octaves := max(1, e.Step.Octaves)
	s, err := scale.Of(e.Key, e.Kind, octaves)
	if err != nil {
		return Built{}, err
	}
	b := Built{Beats: beatsOf(e.Kind)}
	value := valueOf(e.Kind, octaves)
	// Right-hand octaves begin around middle C, longer ones an octave lower.
	lower := 0
	if octaves > 2 {
		lower = -1
	}
	right := hand(s, "right", lower)
	left := hand(s, "left", lower-1)
	zero := rational.Rat{}
	lay := func(notes []Note, from rational.Rat) rational.Rat {
		laid, end := line(notes, from, value, b.Beats)
		b.Notes = append(b.Notes, laid...)
		return end
	}
	switch e.Step.Hands {
	case "right":
		lay(right, zero)
	case "left":
		lay(left, zero)
	case "shared":
		lay(sharedOut(s), zero)
	case "thumbs":
		lay(thumbs(s, "right", 0), zero)
		lay(thumbs(s, "left", -1), zero)
	case "contrary":
		b.Meets = s.Mirror
		lay(meeting(right, s, b.Meets), zero)
		lay(meeting(mirrored(s, lower-1), s, b.Meets), zero)
	case "together":
		b.Meets = s.Meets
		lay(meeting(right, s, b.Meets), zero)
		lay(meeting(left, s, b.Meets), zero)
	default: // apart: one after the other
		lay(left, lay(right, zero))
	}
	return b, nil
}

// beatsOf is how many quarter notes a bar of a kind has: three where notes come in threes.
func beatsOf(k scale.Kind) int {
	switch k {
	case scale.MajorArpeggio, scale.MinorArpeggio, scale.MajorBroken, scale.MinorBroken:
		return 3
	}
	return 4
}

// valueOf is the length of a note: a beat over one octave, half a beat over two, a third over
// three, a quarter over four, so that an octave always takes as long (common practice).
func valueOf(k scale.Kind, octaves int) rational.Rat {
	switch k {
	case scale.Chromatic:
		if octaves == 1 {
			return rational.New(1, 2)
		}
		return rational.New(1, 4)
	case scale.MajorBroken, scale.MinorBroken:
		return rational.Int(1)
	}
	return rational.New(1, int64(octaves))
}

// hand plays a scale up and down.
func hand(s scale.Scale, which string, octave int) []Note {
	var out []Note
	add := func(w scale.Way, from int) {
		fingers, groups := w.Right, w.RightGroups
		if which == "left" {
			fingers, groups = w.Left, w.LeftGroups
		}
		for i := from; i < len(w.Notes); i++ {
			p := w.Notes[i]
			p.Octave += octave
			n := Note{Pitch: p, Hand: which, Finger: fingers[i]}
			if groups != nil {
				n.Group = groups[i]
			}
			out = append(out, n)
		}
	}
	add(s.Up, 0)
	add(s.Down, 1)
	for i := range out {
		out[i].Begins = out[i].Group > 0 && (i == 0 || out[i].Group != out[i-1].Group)
	}
	return out
}

// meeting notes at each note of a hand, played up and down, how it meets the other.
func meeting(notes []Note, s scale.Scale, meets []scale.Meet) []Note {
	n := len(s.Up.Notes)
	ring := (n - 1) / s.Octaves
	if s.Octaves == 1 && n <= 5 {
		ring = n
	}
	for i := range notes {
		at := min(i, 2*(n-1)-i)
		for _, m := range meets {
			finger := m.Right
			if notes[i].Hand == "left" {
				finger = m.Left
			}
			if m.Degree == at%ring+1 && finger == notes[i].Finger {
				notes[i].Meet, notes[i].Degree = m.Kind, m.Degree
			}
		}
	}
	return notes
}

// mirrored is the left hand in contrary motion: down from the tonic and up again; within five
// fingers down from the top of the place where the hand lies.
func mirrored(s scale.Scale, octave int) []Note {
	out := hand(s, "left", octave)
	slices.Reverse(out)
	n := len(s.Up.Notes)
	down := append([]Note{}, out[:0]...)
	top := len(out) / 2 // the highest note
	down = append(down, out[top:]...)
	up := slices.Clone(out[top:])
	slices.Reverse(up)
	down = append(down, up[1:]...)
	if n > 5 && s.Kind != scale.MajorFive && s.Kind != scale.MinorFive { // from the same tonic as the right hand, an octave below
		for i := range down {
			down[i].Pitch.Octave -= s.Octaves - 1
		}
	}
	return down
}

// sharedOut gives each note of a scale to the hand that plays it.
func sharedOut(s scale.Scale) []Note {
	var out []Note
	add := func(i int) {
		p := s.Up.Notes[i]
		n := Note{Pitch: p, Hand: "right", Finger: s.Up.Right[i]}
		if n.Finger == 0 {
			n.Hand, n.Finger = "left", s.Up.Left[i]
		}
		out = append(out, n)
	}
	for i := range s.Up.Notes {
		add(i)
	}
	for i := len(s.Up.Notes) - 2; i >= 0; i-- {
		add(i)
	}
	return out
}

// thumbs are eight strokes of one thumb on the first note of the key.
func thumbs(s scale.Scale, which string, octave int) []Note {
	p := s.Up.Notes[0]
	if which == "left" {
		p = s.Up.Notes[4]
	}
	p.Octave += octave
	out := make([]Note, 8)
	for i := range out {
		out[i] = Note{Pitch: p, Hand: which, Finger: 1}
	}
	return out
}

// figure plays a figure of degrees within five fingers four times over.
func (e Exercise) figure() (Built, error) {
	s, err := scale.Of(e.Key, e.Kind, 1)
	if err != nil {
		return Built{}, err
	}
	b := Built{Beats: 4}
	value := rational.New(1, 2)
	if e.Type.Fast {
		value = rational.New(1, 4)
	}
	play := func(which string, mirror bool) {
		octave, fingers := 0, s.Up.Right
		if which == "left" {
			octave, fingers = -1, s.Up.Left
		}
		var notes []Note
		degree := func(d int) {
			if mirror {
				d = 6 - d
			}
			p := s.Up.Notes[d-1]
			p.Octave += octave
			notes = append(notes, Note{Pitch: p, Hand: which, Finger: fingers[d-1]})
		}
		for range 4 {
			for _, d := range e.Type.Figure {
				degree(d)
			}
		}
		degree(e.Type.Figure[0])
		laid, _ := line(notes, rational.Rat{}, value, b.Beats)
		b.Notes = append(b.Notes, laid...)
	}
	if e.Step.Hands != "left" {
		play("right", false)
	}
	if e.Step.Hands != "right" {
		play("left", e.Step.Hands == "contrary" || e.Step.Hands == "left" && e.Type.Fast)
	}
	return b, nil
}

// key is the key signature of the exercise: fifths, and "minor" or "major".
func (e Exercise) key() (fifths int, mode string) {
	if !e.Type.keyed() || e.Kind == scale.Chromatic {
		return 0, ""
	}
	if e.Kind.Minor() {
		return e.Key.Fifths(true), "minor"
	}
	return e.Key.Fifths(false), "major"
}

// Package scale spells scales and arpeggios and fingers them for two hands at a
// keyboard, by rule.
//
//	scale.go      keys, kinds and how they are spelled
//	fingering.go  the rule of the thumb
//	chromatic.go  the chromatic scale
//	arpeggio.go   triads over octaves
//	patterns.go   tetrachords and broken chords
//	meets.go      where both hands meet
package scale

import (
	"fmt"
	"slices"
	"strings"

	"patientladder/core/notation/score"
)

// Kind is a kind of scale or arpeggio.
type Kind string

// The kinds.
const (
	Major         Kind = "major"
	NaturalMinor  Kind = "natural-minor"
	HarmonicMinor Kind = "harmonic-minor"
	MelodicMinor  Kind = "melodic-minor"
	Chromatic     Kind = "chromatic"
	MajorArpeggio Kind = "major-arpeggio"
	MinorArpeggio Kind = "minor-arpeggio"
	MajorBroken   Kind = "major-broken-chord"
	MinorBroken   Kind = "minor-broken-chord"
	MajorFive     Kind = "major-five-finger"
	MinorFive     Kind = "minor-five-finger"
	Tetrachords   Kind = "tetrachords"
)

// Kinds returns all kinds.
func Kinds() []Kind {
	return []Kind{
		Major,
		NaturalMinor,
		HarmonicMinor,
		MelodicMinor,
		Chromatic,
		MajorArpeggio,
		MinorArpeggio,
		MajorBroken,
		MinorBroken,
		MajorFive,
		MinorFive,
		Tetrachords,
	}
}

// MostOctaves is how many octaves of a kind are fingered at the most: five-finger
// patterns and tetrachords have one.
func (k Kind) MostOctaves() int {
	if k.five() || k == Tetrachords {
		return 1
	}
	return MostOctaves
}

func (k Kind) five() bool { return k == MajorFive || k == MinorFive }

// chord says that the kind is made of the notes of a triad.
func (k Kind) chord() bool {
	return k == MajorArpeggio || k == MinorArpeggio || k == MajorBroken || k == MinorBroken
}

// ring is how many notes of an octave differ.
func (k Kind) ring() int {
	switch {
	case k == Chromatic:
		return 12
	case k == MajorBroken || k == MinorBroken:
		return 9 // three notes from each note of the chord
	case k.chord():
		return 3
	case k.five():
		return 5
	}
	return 7
}

// Minor says whether the key signature is that of a minor key.
func (k Kind) Minor() bool {
	switch k {
	case NaturalMinor, HarmonicMinor, MelodicMinor, MinorArpeggio, MinorBroken, MinorFive:
		return true
	}
	return false
}

// MostOctaves is how many octaves are fingered at the most (see Kind.MostOctaves).
const MostOctaves = 4

// Tonic is the note on which a scale stands: a step from A to G and its alteration.
type Tonic struct {
	Step  byte
	Alter int
}

// String writes "Db", "F#", "C".
func (t Tonic) String() string { return score.Pitch{Step: t.Step, Alter: t.Alter}.Name() }

// Class is its place in the octave: 0 for C to 11 for B.
func (t Tonic) Class() int {
	return (score.Pitch{Step: t.Step, Alter: t.Alter, Octave: 4}.Semitone() + 12) % 12
}

// Keys returns the tonics of a kind in the order of fifths, from the most flats
// to the most sharps: those that need at most seven of either.
func Keys(k Kind) []Tonic {
	var out []Tonic
	for fifths := -7; fifths <= 7; fifths++ {
		out = append(out, tonicOf(fifths, k.Minor()))
	}
	return out
}

const fifthsFromF = "FCGDAEB"

// tonicOf is the tonic of a key signature; a minor key lies three fifths
// further than the major one of the same signature (standard theory).
func tonicOf(fifths int, minor bool) Tonic {
	at := fifths + 1
	if minor {
		at += 3
	}
	t := Tonic{}
	for ; at > 6; at -= 7 {
		t.Alter++
	}
	for ; at < 0; at += 7 {
		t.Alter--
	}
	t.Step = fifthsFromF[at]
	return t
}

// RelativeMinor is the minor key of the same signature as the major one.
func (t Tonic) RelativeMinor() Tonic { return tonicOf(t.Fifths(false), true) }

// Fifths is the key signature of a major or minor key: sharps positive.
func (t Tonic) Fifths(minor bool) int {
	n := strings.IndexByte(fifthsFromF, t.Step) - 1 + 7*t.Alter
	if minor {
		n -= 3
	}
	return n
}

// Parse reads a tonic, as "C", "Db", "F#" or "b flat", and sees that its key
// exists in a kind: more than seven sharps or flats are written otherwise.
func Parse(text string, k Kind) (Tonic, error) {
	if !slices.Contains(Kinds(), k) {
		var names []string
		for _, known := range Kinds() {
			names = append(names, string(known))
		}
		return Tonic{}, fmt.Errorf("%q is not a kind of scale; there are %s", string(k), strings.Join(names, ", "))
	}
	name := strings.NewReplacer("♭", "b", "♯", "#", " flat", "b", " sharp", "#").Replace(strings.TrimSpace(text))
	t := Tonic{}
	if name != "" {
		t.Step = strings.ToUpper(name[:1])[0]
		name = name[1:]
	}
	if t.Step < 'A' || t.Step > 'G' || name != "" && name != "b" && name != "#" {
		return t, fmt.Errorf("%q is not a key: write a letter from A to G, with b or # behind it, as in Db or F#", text)
	}
	switch name {
	case "#":
		t.Alter = 1
	case "b":
		t.Alter = -1
	}
	if n := t.Fifths(k.Minor()); k != Chromatic && (n > 7 || n < -7) {
		sign, other := "sharps", tonicOf(n-12, k.Minor())
		if n < 0 {
			sign, other, n = "flats", tonicOf(n+12, k.Minor()), -n
		}
		return t, fmt.Errorf("%s %s would need %d %s; write %s", t, strings.ReplaceAll(string(k), "-", " "), n, sign, other)
	}
	return t, nil
}

// steps are the semitones of a kind from each note to the next, upwards.
var steps = map[Kind][]int{
	Major: {2, 2, 1, 2, 2, 2, 1}, NaturalMinor: {2, 1, 2, 2, 1, 2, 2}, HarmonicMinor: {2, 1, 2, 2, 1, 3, 1},
	MelodicMinor:  {2, 1, 2, 2, 2, 2, 1},
	Tetrachords:   {2, 2, 1, 2, 2, 2, 1},
	MajorArpeggio: {4, 3, 5}, MinorArpeggio: {3, 4, 5}, MajorBroken: {4, 3, 5}, MinorBroken: {3, 4, 5},
	MajorFive: {2, 2, 1, 2, 5}, MinorFive: {2, 1, 2, 2, 5},
}

// ring returns the notes of one octave from the tonic up, without the tonic
// above; each note of a scale has a letter of its own, an arpeggio every second.
func ring(t Tonic, k Kind) []score.Pitch {
	const letters = "CDEFGAB"
	at, skip := strings.IndexByte(letters, t.Step), 1
	if k.chord() {
		skip = 2
	}
	first := score.Pitch{Step: t.Step, Alter: t.Alter, Octave: 4}
	out := []score.Pitch{first}
	semitone := first.Semitone()
	list := steps[k]
	for i, s := range list[:len(list)-1] {
		semitone += s
		place := at + skip*(i+1)
		p := score.Pitch{Step: letters[place%7], Octave: 4 + place/7}
		p.Alter = semitone - p.Semitone()
		out = append(out, p)
	}
	return out
}

// Scale is a scale or an arpeggio over some octaves, with its fingers.
type Scale struct {
	Tonic   Tonic
	Kind    Kind
	Octaves int
	// Up is played upwards, Down downwards: the same notes backwards but for the
	// melodic minor, which goes down as the natural minor.
	Up, Down Way
	// Meets are where both hands meet on the way up.
	Meets []Meet
	// Mirror are where the same fingers play together when both hands start on the
	// tonic and move apart; nil where they never do.
	Mirror []Meet
	// Alternatives are what handbooks also print.
	Alternatives []Alternative
}

// Way is one direction: notes (of the right hand; the left plays an octave
// lower) and the finger of each hand for each, thumb 1 to little finger 5.
type Way struct {
	Notes []score.Pitch
	// Right and Left have as many fingers as there are notes.
	Right, Left []int
	// RightGroups and LeftGroups say of each note whether it lies in the hand's group of 3 or of 4; nil where fingers go in no such groups.
	RightGroups, LeftGroups []int
}

// Of fingers a scale over some octaves, 1 to MostOctaves. A kind that is none and other octaves are errors.
func Of(t Tonic, k Kind, octaves int) (Scale, error) {
	if !slices.Contains(Kinds(), k) {
		return Scale{}, fmt.Errorf("no kind of scale %q", k)
	}
	if most := k.MostOctaves(); octaves < 1 || octaves > most {
		if most == 1 {
			return Scale{}, fmt.Errorf("%s lie within one octave, not %d", strings.ReplaceAll(string(k), "-", " "), octaves)
		}
		return Scale{}, fmt.Errorf("octaves must lie between 1 and %d, not %d", most, octaves)
	}
	s := Scale{Tonic: t, Kind: k, Octaves: octaves}
	s.Up = way(t, k, octaves)
	s.Down = s.Up.backwards()
	if k == MelodicMinor {
		s.Down = way(t, NaturalMinor, octaves).backwards()
	}
	s.Meets = meets(s.Up, k.ring())
	s.Mirror = mirror(s)
	s.Alternatives = alternatives(s)
	return s, nil
}

// way is a scale upwards.
func way(t Tonic, k Kind, octaves int) Way {
	var notes []score.Pitch
	var right, left []int
	switch k {
	case MajorFive, MinorFive:
		return Way{Notes: ring(t, k), Right: []int{1, 2, 3, 4, 5}, Left: []int{5, 4, 3, 2, 1}}
	case Tetrachords:
		return tetrachords(t)
	case MajorBroken, MinorBroken:
		return broken(ring(t, k), octaves)
	case Chromatic:
		notes = chromatic(t)
		right, left = chromaticFingers(notes, octaves)
	case MajorArpeggio, MinorArpeggio:
		notes = ring(t, k)
		right, left = arpeggioFingers(notes, octaves)
	default:
		notes = ring(t, k)
		return scaleWay(notes, octaves)
	}
	return Way{Notes: over(notes, octaves), Right: right, Left: left}
}

// over repeats one octave and adds the tonic at the top.
func over(octave []score.Pitch, octaves int) []score.Pitch {
	var out []score.Pitch
	for o := range octaves {
		for _, p := range octave {
			p.Octave += o
			out = append(out, p)
		}
	}
	top := octave[0]
	top.Octave += octaves
	return append(out, top)
}

func (w Way) backwards() Way {
	out := Way{
		Notes:       slices.Clone(w.Notes),
		Right:       slices.Clone(w.Right),
		Left:        slices.Clone(w.Left),
		RightGroups: slices.Clone(w.RightGroups),
		LeftGroups:  slices.Clone(w.LeftGroups),
	}
	slices.Reverse(out.Notes)
	for _, list := range [][]int{out.Right, out.Left, out.RightGroups, out.LeftGroups} {
		slices.Reverse(list)
	}
	return out
}

package exercise

import (
	"slices"
	"strings"

	"patientladder/core/base/rational"
	"patientladder/core/notation/score"
	"patientladder/core/reading/naming"
)

// rhythm is a pattern of one bar of four beats, made of what is said in one breath.
type rhythm struct {
	id    string
	parts []naming.Spoken
}

// rhythms are the patterns of the first rhythm studies, in their order (common practice: crotchets and minims, then pairs of
// quavers, then the dotted crotchet).
var rhythms = []rhythm{
	{"walk", []naming.Spoken{naming.Crotchet, naming.Crotchet, naming.Crotchet, naming.Crotchet}},
	{"slow", []naming.Spoken{naming.Minim, naming.Crotchet, naming.Crotchet}},
	{"run", []naming.Spoken{naming.Quavers, naming.Crotchet, naming.Quavers, naming.Crotchet}},
	{"mixed", []naming.Spoken{naming.Crotchet, naming.Quavers, naming.Minim}},
	{"dotted", []naming.Spoken{naming.Dotted, naming.Crotchet, naming.Crotchet}},
}

func rhythmOf(id string) (rhythm, bool) {
	i := slices.IndexFunc(rhythms, func(r rhythm) bool { return r.id == id })
	if i < 0 {
		return rhythm{}, false
	}
	return rhythms[i], true
}

// lengths are the notes of what is said in one breath, in quarter notes.
var lengths = map[naming.Spoken][]rational.Rat{
	naming.Crotchet: {rational.Int(1)}, naming.Minim: {rational.Int(2)}, naming.Quavers: {rational.New(1, 2), rational.New(1, 2)},
	naming.Dotted: {rational.New(3, 2), rational.New(1, 2)},
}

// Spoken are the words of the rhythm of an exercise, in the words of a studio: "walk walk run-ning".
func (e Exercise) Spoken(words naming.Words) string {
	r, _ := rhythmOf(e.What)
	var out []string
	for _, p := range r.parts {
		out = append(out, strings.Join(words.Rhythm.Say(p), "-"))
	}
	return strings.Join(out, " ")
}

// syllables are the words of one bar, note by note.
func (e Exercise) syllables(words naming.Words) []string {
	r, _ := rhythmOf(e.What)
	var out []string
	for _, p := range r.parts {
		out = append(out, words.Rhythm.Say(p)...)
	}
	return out
}

// spoken gives each finger a bar of the pattern, one finger after another from the thumb to the fifth: the right hand
// from middle C upwards, the left from middle C downwards.
func (e Exercise) spoken() Built {
	b := Built{Beats: 4}
	r, _ := rhythmOf(e.What)
	places := map[string][]score.Pitch{
		"right": {{Step: 'C', Octave: 4}, {Step: 'D', Octave: 4}, {Step: 'E', Octave: 4}, {Step: 'F', Octave: 4}, {Step: 'G', Octave: 4}},
		"left":  {{Step: 'C', Octave: 4}, {Step: 'B', Octave: 3}, {Step: 'A', Octave: 3}, {Step: 'G', Octave: 3}, {Step: 'F', Octave: 3}},
	}
	for _, hand := range []string{"right", "left"} {
		if e.Step.Hands == "right" || e.Step.Hands == "left" {
			if e.Step.Hands != hand {
				continue
			}
		}
		at := rational.Rat{}
		for finger := 1; finger <= 5; finger++ {
			for _, p := range r.parts {
				for _, length := range lengths[p] {
					b.Notes = append(b.Notes, Note{At: at, Length: length, Pitch: places[hand][finger-1], Hand: hand, Finger: finger})
					at = at.Add(length)
				}
			}
		}
	}
	return b
}

// Package naming says notes, moves and note values in the words of a studio.
package naming

import (
	"fmt"
	"regexp"
	"strings"

	"patientladder/core/reading/reading"
)

// Notes is a way to name notes.
type Notes string

// The ways to name notes (common practice).
const (
	// Letters are C, F#, Bb.
	Letters Notes = "letters"
	// LettersWithH are C, Fis, B for B flat and H for B.
	LettersWithH Notes = "letters-with-h"
	// Solfege is fixed: do, fa#, sib.
	Solfege Notes = "solfege"
)

// Steps is what moves wider than a third are called.
type Steps string

// The ways to name moves.
const (
	// SkipsAndLeaps: a third is a skip, anything wider a leap.
	SkipsAndLeaps Steps = "skips-and-leaps"
	// AllSkips: everything wider than a step is a skip.
	AllSkips Steps = "all-skips"
)

// Values is a way to name note values.
type Values string

// The ways to name note values.
const (
	Crotchets    Values = "crotchets"
	QuarterNotes Values = "quarter-notes"
)

// Rhythm is what rhythms are spoken with.
type Rhythm string

// The rhythm words; the first are the default.
const (
	Walking   Rhythm = "walking"
	Sea       Rhythm = "sea"
	Syllables Rhythm = "syllables"
)

// Spoken is what is said of a rhythm in one breath.
type Spoken string

// What can be said.
const (
	Crotchet Spoken = "crotchet"
	Minim    Spoken = "minim"
	Quavers  Spoken = "quavers" // a pair
	Dotted   Spoken = "dotted"  // a dotted crotchet with its quaver
)

var spoken = map[Rhythm]map[Spoken][]string{
	Walking:   {Crotchet: {"walk"}, Minim: {"slow"}, Quavers: {"run", "ning"}, Dotted: {"gal", "lop"}},
	Sea:       {Crotchet: {"tide"}, Minim: {"swell"}, Quavers: {"rip", "ple"}, Dotted: {"an", "chor"}},
	Syllables: {Crotchet: {"ta"}, Minim: {"too"}, Quavers: {"ti", "ti"}, Dotted: {"tam", "ti"}},
}

// Known says whether there are such rhythm words; empty ones are the default.
func (r Rhythm) Known() bool { return r == "" || spoken[r] != nil }

// Say is what is said, syllable by syllable.
func (r Rhythm) Say(s Spoken) []string {
	if r == "" {
		r = Walking
	}
	return spoken[r][s]
}

// Words are the words of a studio. The zero value is letters, skips and leaps, crotchets, walking.
type Words struct {
	Notes  Notes
	Steps  Steps
	Values Values
	Rhythm Rhythm
}

var solfege = map[byte]string{'C': "do", 'D': "re", 'E': "mi", 'F': "fa", 'G': "sol", 'A': "la", 'B': "si"}

// Note renames a pitch as score.Pitch writes it: "F#4" or "Bb"; an octave stays.
func (w Words) Note(pitch string) string {
	if pitch == "" || pitch[0] < 'A' || pitch[0] > 'G' {
		return pitch
	}
	sign := strings.TrimRight(pitch[1:], "-0123456789")
	octave := pitch[1+len(sign):]
	if strings.Trim(sign, "#b") != "" {
		return pitch
	}
	switch w.Notes {
	case Solfege:
		return solfege[pitch[0]] + sign + octave
	case LettersWithH:
		return german(pitch[0], sign) + octave
	}
	return pitch
}

// Key names a note or a key as it is printed, with the signs ♯ and ♭.
func (w Words) Key(pitch string) string {
	name := w.Note(pitch)
	if w.Notes == LettersWithH || len(name) < 2 {
		return name
	}
	return name[:1] + strings.NewReplacer("#", "♯", "b", "♭").Replace(name[1:])
}

// german names: sharps end in -is, flats in -es; B is H, B flat is B.
func german(step byte, sign string) string {
	name := string(step)
	if step == 'B' {
		if sign == "b" {
			return "B"
		}
		name = "H"
	}
	flats := strings.Count(sign, "b")
	name += strings.Repeat("is", strings.Count(sign, "#"))
	if flats > 0 {
		ending := "es"
		if step == 'A' || step == 'E' {
			ending = "s"
		}
		name += ending + strings.Repeat("es", flats-1)
	}
	return name
}

// Kind names the size of a move.
func (w Words) Kind(k reading.Kind) string {
	if w.Steps == AllSkips && k == reading.Leap {
		return string(reading.Skip)
	}
	return string(k)
}

var values = regexp.MustCompile(`(?i)\b(demisemiquaver|semiquaver|quaver|crotchet|minim|semibreve)(s?)\b`)

var quarterNames = map[string]string{
	"demisemiquaver": "thirty-second note", "semiquaver": "sixteenth note", "quaver": "eighth note", "crotchet": "quarter note",
	"minim": "half note", "semibreve": "whole note",
}

// Text puts the studio's names of note values into a sentence written with crotchets.
func (w Words) Text(s string) string {
	if w.Values != QuarterNotes {
		return s
	}
	return values.ReplaceAllStringFunc(s, func(word string) string {
		single := strings.TrimSuffix(word, "s")
		name := quarterNames[strings.ToLower(single)]
		if word[0] >= 'A' && word[0] <= 'Z' {
			name = strings.ToUpper(name[:1]) + name[1:]
		}
		return name + word[len(single):]
	})
}

// Approach is how a student finds notes on the page.
type Approach string

// The reading approaches.
const (
	ByDirection Approach = "direction"
	ByInterval  Approach = "interval"
	ByName      Approach = "names"
	ByPosition  Approach = "position"
)

// Known says whether there is such an approach.
func (a Approach) Known() bool {
	return a == ByDirection || a == ByInterval || a == ByName || a == ByPosition
}

// Position names a hand position, as “C position”, with the studio's note names.
func (w Words) Position(name string) string {
	note, rest, found := strings.Cut(name, " ")
	if !found || rest != "position" {
		return name
	}
	return w.Note(note) + " " + rest
}

// Pitch names a pitch without its octave; the C in the middle is called so.
func (w Words) Pitch(pitch string) string {
	if pitch == "C4" {
		return "middle " + w.Note("C")
	}
	return w.Note(strings.TrimRight(pitch, "-0123456789"))
}

var intervals = []string{"", "unison", "second", "third", "fourth", "fifth", "sixth", "seventh", "octave"}

// Interval names an interval by its number: “third”, “9th”.
func Interval(number int) string {
	if number > 0 && number < len(intervals) {
		return intervals[number]
	}
	return fmt.Sprintf("%dth", number)
}

// Guide says how a note is found from its guide note: “A is a second above G”.
func (w Words) Guide(g reading.Guided) string {
	side := "above"
	if g.Direction == reading.Down {
		side = "below"
	}
	return fmt.Sprintf(
		"%s is %s %s %s %s",
		w.Pitch(g.Pitch),
		article(Interval(g.Interval.Number)),
		Interval(g.Interval.Number),
		side,
		w.Pitch(g.Guide),
	)
}

func article(word string) string {
	if word == "octave" || word == "11th" {
		return "an"
	}
	return "a"
}

// KeyOf names a key such as "C major" or "F sharp minor" with the studio's note names; what is no such name stays.
func (w Words) KeyOf(name string) string {
	first, rest, _ := strings.Cut(name, " ")
	if len(first) != 1 || w.Notes == "" || w.Notes == Letters {
		return name
	}
	sign := ""
	if after, is := strings.CutPrefix(rest, "sharp "); is {
		sign, rest = "#", after
	} else if after, is := strings.CutPrefix(rest, "flat "); is {
		sign, rest = "b", after
	}
	return w.Note(first+sign) + " " + rest
}

package intechnique

import (
	"cmp"
	"slices"
	"strings"

	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/library/titles"
	"patientladder/core/planning/curriculum"
	"patientladder/core/planning/studentplan"
	"patientladder/core/technique/exercise"
)

// FoundKind says what was found for a ladder.
type FoundKind string

// What is found.
const (
	FoundPiece    FoundKind = "piece"
	FoundBook     FoundKind = "book"
	FoundExercise FoundKind = "exercise"
)

// Found is something that a ladder could get.
type Found struct {
	Kind FoundKind
	// ID is that of the material, the book or the exercise.
	ID, Title string
	// Material is the piece; the zero one for others. Pieces counts those of a book.
	Material material.Material
	Pieces   int
	OnLadder bool
}

// mostFound is how many of each kind are named (default).
const mostFound = 12

// Find are the books, pieces and exercises for the student's instrument in which all words of a search come
// up: books first, then pieces, those whose title begins with it before others. placed says what stands on the ladder.
func Find(s studentplan.Student, search string, books []curriculum.Source, placed map[string]bool) []Found {
	var out []Found
	for _, b := range books {
		if b.Instrument != s.Instrument || !titles.Holds(b.Title, search) {
			continue
		}
		n := 0
		for _, m := range curriculum.Book(s.Library, b.ID) {
			if !m.Retired {
				n++
			}
		}
		if n > 0 {
			out = append(out, Found{Kind: FoundBook, ID: b.ID, Title: b.Title, Pieces: n})
		}
	}
	var pieces []Found
	for _, m := range s.Library {
		if m.Instrument != s.Instrument || m.Retired || m.PartOf != "" || m.Exercise != "" {
			continue
		}
		if titles.Holds(m.Title+" "+m.Composer+" "+m.Source, search) {
			pieces = append(pieces, Found{Kind: FoundPiece, ID: m.ID, Title: m.Title, Material: m, OnLadder: placed[m.ID] || s.Begun(m.ID)})
		}
	}
	begins := func(f Found) int {
		if strings.HasPrefix(strings.ToLower(f.Title), strings.ToLower(strings.TrimSpace(search))) {
			return 0
		}
		return 1
	}
	slices.SortFunc(pieces, func(a, b Found) int {
		return cmp.Or(begins(a)-begins(b), strings.Compare(a.Title, b.Title), strings.Compare(a.ID, b.ID))
	})
	out = append(out, pieces[:min(len(pieces), mostFound)]...)
	var exercises []Found
	for _, e := range firstExercises(s.OnInstrument()) {
		if title := e.Full(s.Words); titles.Holds(title, search) {
			exercises = append(exercises, Found{Kind: FoundExercise, ID: e.ID(), Title: title})
		}
	}
	slices.SortStableFunc(exercises, func(a, b Found) int { return begins(a) - begins(b) })
	return append(out, exercises[:min(len(exercises), mostFound)]...)
}

// firstExercises are the exercises of an instrument in their first step, type by type and place by place.
func firstExercises(x instrument.Instrument) (out []exercise.Exercise) {
	for _, t := range exercise.For(x) {
		kinds := t.Kinds
		if len(kinds) == 0 {
			kinds = append(kinds, "")
		}
		for _, k := range kinds {
			out = append(out, exercise.Places(exercise.Exercise{Type: t, Step: t.Steps[0], Kind: k, Instrument: x})...)
		}
	}
	return out
}

// KeysKnown are the keys of what an instrument takes through them, in the first step; none for other instruments.
func KeysKnown(s studentplan.Student) []exercise.Exercise {
	x := s.OnInstrument()
	t, ok := exercise.CycleType(x)
	if !ok || len(t.Kinds) == 0 {
		return nil
	}
	return exercise.Places(exercise.Exercise{Type: t, Step: t.Steps[0], Kind: t.Kinds[0], Instrument: x})
}

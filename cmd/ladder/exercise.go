package main

import (
	"encoding/json"
	"fmt"
	"io"
	"strings"

	"patientladder/core/library/instrument"
	"patientladder/core/notation/musicxml"
	"patientladder/core/reading/naming"
	"patientladder/core/technique/exercise"
)

// exerciseJSON is an exercise as it is written out (docs/formats.md).
type exerciseJSON struct {
	ID     string             `json:"id"`
	Title  string             `json:"title"`
	Step   string             `json:"step"`
	Goals  []string           `json:"goals"`
	Faults []exercise.Fault   `json:"faults"`
	Tempo  int                `json:"tempo"`
	Beats  int                `json:"beats"`
	Notes  []exerciseNoteJSON `json:"notes"`
}

type exerciseNoteJSON struct {
	// At and Length are in quarter notes, exact: "3/2".
	At     string `json:"at"`
	Length string `json:"length"`
	Note   string `json:"note"`
	Hand   string `json:"hand,omitempty"`
	Finger int    `json:"finger"`
	String int    `json:"string,omitempty"`
	Above  int    `json:"above,omitempty"`
	Pluck  string `json:"pluck,omitempty"`
	Bow    string `json:"bow,omitempty"`
	Meet   string `json:"meet,omitempty"`
	Silent bool   `json:"silent,omitempty"`
}

// runExercise writes an exercise as JSON or as MusicXML; without an id the first step of every
// type of the instrument, one to a line.
func runExercise(args []string, out io.Writer) error {
	f := flags(
		"exercise",
		"Writes an exercise with its fingers, strings and bows as JSON or MusicXML, as in 'ladder exercise cello finger-pattern/bow/C/major/2'; without an ID the list.",
		out,
	).wants("INSTRUMENT [ID]", 1, 2)
	asScore := f.Bool("musicxml", false, "write MusicXML")
	if err := f.read(args); err != nil {
		return err
	}
	words := f.given
	if *asScore && len(words) == 1 {
		return usageError(f.line() + ": --musicxml needs an ID")
	}
	x, ok := instrument.Of(words[0])
	if !ok {
		return fmt.Errorf("there is no instrument %q; there are %s", words[0], strings.Join(instrumentNames(), ", "))
	}
	if len(words) == 1 {
		return listExercises(x, out)
	}
	e, err := exercise.Parse(words[1], x)
	if err != nil {
		return err
	}
	if *asScore {
		sc, err := e.Score(naming.Words{})
		if err != nil {
			return err
		}
		_, err = out.Write(musicxml.Write(sc, musicxml.Options{}))
		return err
	}
	b, err := e.Build()
	if err != nil {
		return err
	}
	j := exerciseJSON{
		ID:     e.ID(),
		Title:  e.Title(naming.Words{}),
		Step:   e.Step.Name,
		Goals:  e.Step.Goals,
		Faults: e.Type.Faults,
		Tempo:  e.Step.Tempo,
		Beats:  b.Beats,
	}
	for _, n := range b.Notes {
		j.Notes = append(j.Notes, exerciseNoteJSON{
			At: n.At.String(), Length: n.Length.String(), Note: n.Pitch.String(), Hand: n.Hand, Finger: n.Finger, String: n.String, Above: n.Above,
			Pluck: n.Pluck, Bow: n.Bow, Meet: n.Meet, Silent: n.Silent,
		})
	}
	return json.NewEncoder(out).Encode(j)
}

func instrumentNames() []string {
	var names []string
	for _, x := range instrument.All() {
		names = append(names, x.ID)
	}
	return names
}

func listExercises(x instrument.Instrument, out io.Writer) error {
	for _, t := range exercise.For(x) {
		for _, s := range t.Steps {
			if list := exercise.Places(exercise.Exercise{Type: t, Step: s, Instrument: x}); len(list) > 0 {
				if _, err := fmt.Fprintf(out, "%-44s %s\n", list[0].ID(), list[0].Full(naming.Words{})); err != nil {
					return err
				}
			}
		}
	}
	return nil
}

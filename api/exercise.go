package api

import (
	"context"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"patientladder/api/contract"
	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/notation/musicxml"
	"patientladder/core/reading/naming"
	"patientladder/core/technique/bowed"
	"patientladder/core/technique/exercise"
	"patientladder/core/technique/plucked"
)

// GetInstruments lists the instruments that can be taught.
func (s *Server) GetInstruments(context.Context, contract.GetInstrumentsRequestObject) (contract.GetInstrumentsResponseObject, error) {
	out := contract.GetInstruments200JSONResponse{}
	for _, x := range instrument.All() {
		info := contract.InstrumentInfo{Id: x.ID, Family: contract.InstrumentInfoFamily(x.Family), Strings: []string{}}
		for _, p := range x.Open {
			info.Strings = append(info.Strings, p.String())
		}
		out = append(out, info)
	}
	return out, nil
}

// instrumentOf returns an instrument by name; one that is not known is the user's mistake.
func instrumentOf(name string) (instrument.Instrument, error) {
	x, ok := instrument.Of(name)
	if ok {
		return x, nil
	}
	var known []string
	for _, x := range instrument.All() {
		known = append(known, x.ID)
	}
	return x, invalid(fmt.Sprintf("There is no instrument %q here; there are %s.", name, joined(known)))
}

// exerciseOf reads an exercise of an instrument; the first one where none is named.
func exerciseOf(name, id string) (exercise.Exercise, error) {
	x, err := instrumentOf(name)
	if err != nil {
		return exercise.Exercise{}, err
	}
	if id == "" {
		if e, ok := exercise.First(x); ok {
			return e, nil
		}
	}
	e, err := exercise.Parse(id, x)
	if err != nil {
		return e, invalid(capital(err.Error()) + ".")
	}
	return e, nil
}

// GetExercise returns an exercise as notes on its instrument.
func (s *Server) GetExercise(ctx context.Context, r contract.GetExerciseRequestObject) (contract.GetExerciseResponseObject, error) {
	studio, err := s.store.Studio(ctx, actor(ctx).studio)
	if err != nil {
		return nil, err
	}
	e, err := exerciseOf(string(r.Params.Instrument), r.Params.Exercise)
	if err != nil {
		return nil, err
	}
	out, err := exerciseOut(e, studio.Words)
	return contract.GetExercise200JSONResponse(out), err
}

func exerciseOut(e exercise.Exercise, words naming.Words) (contract.Exercise, error) {
	b, err := e.Build()
	if err != nil {
		return contract.Exercise{}, err
	}
	sc, err := e.Score(words)
	if err != nil {
		return contract.Exercise{}, err
	}
	out := contract.Exercise{
		Id: e.ID(), Instrument: e.Instrument.ID, Family: contract.ExerciseFamily(e.Instrument.Family), Type: e.Type.ID, Title: e.Title(words), Step: e.Step.Name,
		Why: capital(e.Step.Why) + ".", Goals: e.Step.Goals, Faults: faultsOf(e, nil), Tempo: e.Step.Tempo, Beats: b.Beats, Length: b.Length.Float(),
		Notes: []contract.ExerciseNote{}, Sentence: learnable(e, b, words), Choices: choices(e, words), Strings: []contractString{}, Patterns: []contract.StringPattern{},
		Shapes: []contract.ChordShape{}, Chords: []contractChord{}, Caution: caution, Musicxml: string(musicxml.Write(sc, musicxml.Options{})),
	}
	for _, n := range b.Notes {
		out.Notes = append(out.Notes, contract.ExerciseNote{
			At: n.At.Float(), Length: n.Length.Float(), Midi: n.Pitch.Semitone(), Name: words.Key(n.Pitch.Name()), Hand: n.Hand, Finger: n.Finger,
			String: n.String, Above: n.Above, Pluck: n.Pluck, Bow: n.Bow, Silent: n.Silent, Meet: n.Meet,
		})
	}
	for _, p := range e.Instrument.Open {
		out.Strings = append(out.Strings, contractString{Midi: p.Semitone(), Name: words.Key(p.Name())})
	}
	shapes := map[string]bool{}
	for _, c := range b.Chords {
		out.Chords = append(out.Chords, contractChord{At: c.At.Float(), Name: c.Name})
		if shape, err := plucked.Chord(e.Instrument, c.Name); err == nil && !shapes[c.Name] {
			shapes[c.Name] = true
			out.Shapes = append(out.Shapes, contract.ChordShape{Name: c.Name, Frets: shape.Frets, Fingers: shape.Fingers})
		}
	}
	for _, p := range patternsOf(e) {
		x := contract.StringPattern{String: p.String, Name: words.Key(p.Open.Name()), Words: p.Words, Moves: p.Moves, Stops: []contractFinger{}}
		for _, s := range p.Stops {
			x.Stops = append(x.Stops, contractFinger{Above: s.Above, Extended: s.Extended, Finger: s.Finger, Name: words.Key(s.Pitch.Name())})
		}
		out.Patterns = append(out.Patterns, x)
	}
	return out, nil
}

type contractString = struct {
	Midi int    `json:"midi"`
	Name string `json:"name"`
}

type contractChord = struct {
	At   float64 `json:"at"`
	Name string  `json:"name"`
}

type contractFinger = struct {
	Above    int    `json:"above"`
	Extended bool   `json:"extended"`
	Finger   int    `json:"finger"`
	Name     string `json:"name"`
}

// patternsOf is how the key of an exercise lies on each string of a bowed instrument; nil elsewhere.
func patternsOf(e exercise.Exercise) []bowed.Pattern {
	if e.Instrument.Family != instrument.Bowed || e.Kind == "" {
		return nil
	}
	list, err := bowed.Patterns(e.Instrument, e.Key, e.Kind)
	if err != nil {
		return nil
	}
	return list
}

// faultsOf are the usual faults of an exercise with the marks that they got.
func faultsOf(e exercise.Exercise, mark func(id string) contract.Mark) []contract.Fault {
	out := []contract.Fault{}
	for _, f := range e.Type.Faults {
		x := contract.Fault{Id: material.Fault + f.ID, Text: f.Text, Look: f.Look}
		if mark != nil {
			x.Mark = mark(x.Id)
		}
		out = append(out, x)
	}
	return out
}

// learnable says what makes an exercise learnable.
func learnable(e exercise.Exercise, b exercise.Built, words naming.Words) string {
	switch {
	case len(b.Meets) > 0:
		names := map[int]string{}
		for _, n := range b.Notes {
			if n.Hand == "right" && names[n.Degree] == "" {
				names[n.Degree] = words.Key(n.Pitch.Name())
			}
		}
		return meetSentence(b.Meets, func(degree int) string { return names[degree] })
	case e.Type.What == "string" && e.Kind != "":
		for i, p := range patternsOf(e) {
			if fmt.Sprint(i+1) == e.What {
				return fmt.Sprintf("On the %s string the fingers are %s.", words.Key(p.Open.Name()), p.Words)
			}
		}
	case e.Type.What == "roll":
		return rollSentence(e)
	case e.Type.What == "chords":
		a, to, _ := strings.Cut(e.What, "-")
		x, errA := plucked.Chord(e.Instrument, a)
		y, errB := plucked.Chord(e.Instrument, to)
		if errA == nil && errB == nil {
			return ended(capital(plucked.ChangeOf(x, y).Words))
		}
	}
	return capital(e.Step.Why) + "."
}

// rollSentence says which finger has which string.
func rollSentence(e exercise.Exercise) string {
	b, err := e.Build()
	if err != nil {
		return ""
	}
	on := map[string][]string{}
	twice := false
	for i, n := range b.Notes {
		if str := strconv.Itoa(n.String); !slices.Contains(on[n.Pluck], str) {
			on[n.Pluck] = append(on[n.Pluck], str)
		}
		twice = twice || i > 0 && n.Pluck == b.Notes[i-1].Pluck
	}
	var parts []string
	for _, f := range instrument.Plucking() {
		if list := on[f]; len(list) == 1 {
			parts = append(parts, f+" on string "+list[0])
		} else if len(list) > 1 {
			parts = append(parts, f+" on strings "+joined(list))
		}
	}
	out := "The right hand: " + joined(parts) + "; "
	if !twice {
		out += "no finger plays twice in a row, and "
	}
	return out + "every note is as loud as the next."
}

// choices are the exercises around one, with names to choose by.
func choices(e exercise.Exercise, words naming.Words) []contract.ExerciseChoice {
	out := []contract.ExerciseChoice{}
	for _, c := range exercise.Near(e) {
		x := contract.ExerciseChoice{Name: c.Name, Options: []contractOption{}}
		for _, o := range c.Options {
			x.Options = append(x.Options, contractOption{Id: o.ID(), Name: optionName(c.Name, o, words), Chosen: o.ID() == e.ID()})
		}
		out = append(out, x)
	}
	return out
}

type contractOption = struct {
	Chosen bool   `json:"chosen"`
	Id     string `json:"id"`
	Name   string `json:"name"`
}

func optionName(choice string, e exercise.Exercise, words naming.Words) string {
	switch choice {
	case "Exercise":
		return e.Type.Name
	case "Step":
		return capital(e.Step.Name)
	case "Key":
		return words.Key(e.Key.String())
	case "Kind":
		return kindName(string(e.Kind))
	case "String":
		return words.Key(e.Instrument.Open[e.Str()-1].Name())
	}
	return e.Title(words)
}

// kindName is "harmonic minor" for "harmonic-minor".
func kindName(kind string) string {
	for _, tail := range []string{"-arpeggio", "-broken-chord", "-five-finger"} {
		kind = strings.TrimSuffix(kind, tail)
	}
	return capital(strings.ReplaceAll(kind, "-", " "))
}

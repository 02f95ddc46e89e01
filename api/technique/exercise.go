package technique

import (
	"context"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/api/lesson"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/library/instrument"
	"patientladder/core/notation/engrave"
	"patientladder/core/notation/musicxml"
	"patientladder/core/reading/naming"
	"patientladder/core/technique/bowed"
	"patientladder/core/technique/exercise"
	"patientladder/core/technique/plucked"
	"patientladder/core/wording"
)

// GetInstruments lists the instruments that can be taught.
func (h *Handlers) GetInstruments(
	ctx context.Context,
	_ contract.GetInstrumentsRequestObject,
) (contract.GetInstrumentsResponseObject, error) {
	ladders, err := h.Ladders(ctx)
	if err != nil {
		return nil, err
	}
	var played []string
	for _, l := range ladders {
		played = append(played, l.Instrument)
	}
	most := instrument.Most(played)
	out := contract.GetInstruments200JSONResponse{}
	for _, x := range instrument.All() {
		info := contract.InstrumentInfo{
			Id:         x.ID,
			Family:     contract.InstrumentInfoFamily(x.Family),
			Strings:    []string{},
			TaughtMost: x.ID == most.ID,
			Fingers:    x.Fingers(),
		}
		for _, p := range x.Open {
			info.Strings = append(info.Strings, p.String())
		}
		out = append(out, info)
	}
	for _, name := range instrument.Plain(played) {
		out = append(
			out,
			contract.InstrumentInfo{Id: name, Family: contract.InstrumentInfoFamilyNone, Strings: []string{}, TaughtMost: name == most.ID},
		)
	}
	return out, nil
}

// exerciseOf reads an exercise of an instrument; the first one where none is named.
func exerciseOf(forms exercise.Forms, name, id string) (exercise.Exercise, error) {
	x, err := open.Instrument(name)
	if err != nil {
		return exercise.Exercise{}, err
	}
	if id == "" {
		if e, ok := exercise.First(x); ok {
			return forms.Of(e), nil
		}
	}
	e, err := forms.Parse(id, x)
	if err != nil {
		return e, refusal.Because(err)
	}
	return e, nil
}

// GetExercise returns an exercise as notes on its instrument.
func (h *Handlers) GetExercise(ctx context.Context, r contract.GetExerciseRequestObject) (contract.GetExerciseResponseObject, error) {
	studio, err := h.Studio(ctx)
	if err != nil {
		return nil, err
	}
	e, err := exerciseOf(studio.Exercises, string(r.Params.Instrument), r.Params.Exercise)
	if err != nil {
		return nil, err
	}
	out, err := exerciseOut(e, studio.Words)
	return contract.GetExercise200JSONResponse(out), err
}

// drawnWidth is how wide a system with tablature is in staff spaces.
const drawnWidth = 92

func exerciseNotes(e exercise.Exercise, b exercise.Built, notes []exercise.Note, words naming.Words) []contract.ExerciseNote {
	out := []contract.ExerciseNote{}
	for _, n := range notes {
		out = append(out, contract.ExerciseNote{
			At: n.At.Float(), Length: n.Length.Float(), Midi: e.Sounding(n), Name: words.Key(n.Pitch.Name()), Hand: n.Hand, Finger: n.Finger,
			String: n.String, Above: n.Above, Pluck: e.Instrument.Sign(n.Pluck), Bow: n.Bow, Silent: n.Silent, Meet: n.Meet,
			Group: n.Group, Begins: n.Begins, Loud: b.Loud(n),
		})
	}
	return out
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
		Id: e.ID(), Instrument: e.Instrument.ID, Family: contract.ExerciseFamily(e.Instrument.Family), Type: e.Type.ID, Title: e.Title(words),
		Step: e.Step.Name,
		Why:  wording.Sentence(e.Step.Why), Goals: e.Step.Goals, Faults: lesson.Faults(e, nil), Tempo: e.Step.Tempo, Beats: answer.Beats(sc),
		Length: b.Length.Float(),
		Notes:  exerciseNotes(e, b, b.Notes, words), Under: exerciseNotes(e, b, e.Under(b), words), Round: exerciseNotes(e, b, e.Round(b), words),
		Sentence: wording.Learnable(e, b, patternsOf(e), words), Choices: choices(e, words), Strings: []contract.OpenString{},
		Patterns: []contract.StringPattern{},
		Shapes:   []contract.ChordShape{}, Chords: []contract.ChordAt{}, Caution: wording.Caution,
		Musicxml: string(musicxml.Write(sc, musicxml.Options{})),
	}
	if e.Instrument.Drawn() {
		out.Drawing = answer.Excerpt(
			e.ID(),
			engrave.Stretch(sc, 0, b.Length.Float(), e.Instrument.Look(engrave.Look{Width: drawnWidth, Lyrics: !e.Instrument.Fretted()})),
		)
	}
	out.ChartOf, out.Chart = contract.ExerciseChartOf(e.Instrument.ChartOf), []contract.Charted{}
	for _, c := range e.Charted(b) {
		out.Chart = append(out.Chart, contract.Charted{Name: words.Key(c.Note.Name()), Midi: c.MIDI, Signs: c.Signs})
	}
	for _, p := range e.Instrument.Open {
		out.Strings = append(out.Strings, contract.OpenString{Midi: p.Semitone(), Name: words.Key(p.Name())})
	}
	var chords []string
	for _, c := range b.Chords {
		chords = append(chords, c.Name)
		out.Chords = append(out.Chords, contract.ChordAt{At: c.At.Float(), Name: c.Name})
	}
	for _, shape := range plucked.Shapes(e.Instrument, chords) {
		out.Shapes = append(out.Shapes, contract.ChordShape{Name: shape.Name, Frets: shape.Frets, Fingers: shape.Fingers})
	}
	for _, p := range patternsOf(e) {
		x := contract.StringPattern{
			String: p.String,
			Name:   words.Key(p.Open.Name()),
			Words:  p.Words,
			Moves:  p.Moves,
			Stops:  []contract.StringStop{},
		}
		for _, s := range p.Stops {
			x.Stops = append(x.Stops, contract.StringStop{Above: s.Above, Extended: s.Extended, Finger: s.Finger, Name: words.Key(s.Pitch.Name())})
		}
		out.Patterns = append(out.Patterns, x)
	}
	return out, nil
}

// patternsOf is how the key of an exercise lies on each string of a bowed instrument; nil elsewhere.
func patternsOf(e exercise.Exercise) []bowed.Pattern {
	list, err := bowed.Patterns(e.Instrument, e.Key, e.Kind)
	if err != nil {
		return nil // not bowed, or in no key
	}
	return list
}

// choices are the exercises around one, with names to choose by.
func choices(e exercise.Exercise, words naming.Words) []contract.ExerciseChoice {
	out := []contract.ExerciseChoice{}
	for _, c := range exercise.Near(e) {
		x := contract.ExerciseChoice{Name: c.Name, Options: []contract.ExerciseOption{}}
		for _, o := range c.Options {
			x.Options = append(x.Options, contract.ExerciseOption{Id: o.ID(), Name: wording.Option(c.Name, o, words), Chosen: o.ID() == e.ID()})
		}
		out = append(out, x)
	}
	return out
}

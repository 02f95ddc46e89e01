package technique

import (
	"bytes"
	"cmp"
	"context"
	"fmt"
	"strconv"

	"patientladder/api/contract"
	"patientladder/core/library/instrument"
	"patientladder/core/notation/engrave"
	"patientladder/core/reading/naming"
	"patientladder/core/technique/exercise"
	"patientladder/core/wording"
	"patientladder/home/sheet"
)

// GetExerciseSheet returns an exercise on one page to print.
func (h *Handlers) GetExerciseSheet(
	ctx context.Context,
	r contract.GetExerciseSheetRequestObject,
) (contract.GetExerciseSheetResponseObject, error) {
	studio, err := h.Studio(ctx)
	if err != nil {
		return nil, err
	}
	e, err := exerciseOf(studio.Exercises, string(r.Params.Instrument), r.Params.Exercise)
	if err != nil {
		return nil, err
	}
	b, err := e.Build()
	if err != nil {
		return nil, err
	}
	sc, err := e.Score(studio.Words)
	if err != nil {
		return nil, err
	}
	words := studio.Words
	out := sheet.Exercise{
		Heading: studio.Tenant.Name + " · " + e.Instrument.ID, Title: e.Title(words), Step: wording.Capital(e.Step.Name),
		Sentence: wording.Learnable(e, b, patternsOf(e), words),
		Tempo:    words.Text(fmt.Sprintf("done when it is even at crotchet %d", e.Step.Tempo)), Caution: wording.Caution, Goals: e.Step.Goals,
		Music: engrave.Stretch(
			sc,
			0,
			sc.Length().Float(),
			e.Instrument.Look(engrave.Look{Width: sheet.ExerciseWidth, Lyrics: !e.Instrument.Fretted()}),
		),
		Made: h.Now(),
	}
	for _, f := range e.Type.Watched() {
		out.Faults = append(out.Faults, sheet.Fault{Text: wording.Capital(f.Text), Look: wording.Sentence(f.Look)})
	}
	switch {
	case e.Instrument.Family == instrument.Keyboard:
		out.Boards = boards(b)
	case e.Instrument.Family.Strung():
		out.Necks, out.Strokes = necks(e, b, words)
	}
	for _, c := range e.Charted(b) {
		f := sheet.Fingering{Note: words.Key(c.Note.Name()), Signs: c.Signs}
		if e.Instrument.ChartOf == instrument.Holes {
			f.Holes, f.Signs = c.Holes(), ""
		}
		out.Chart = append(out.Chart, f)
	}
	data, err := out.PDF()
	return contract.GetExerciseSheet200ApplicationpdfResponse{SheetApplicationpdfResponse: contract.SheetApplicationpdfResponse{
		Body: bytes.NewReader(data), ContentLength: int64(len(data)),
		Headers: contract.SheetResponseHeaders{ContentDisposition: fmt.Sprintf("inline; filename=%q", out.Name())},
	}}, err
}

// boards are the keys of each hand with the finger that comes to each first.
func boards(b exercise.Built) []sheet.Board {
	var out []sheet.Board
	for _, hand := range b.Boards() {
		board := sheet.Board{Name: hand.Hand + " hand"}
		for _, k := range hand.Keys {
			board.Keys = append(board.Keys, sheet.Key{MIDI: k.MIDI, Label: strconv.Itoa(k.Finger), Meets: k.Meets})
		}
		out = append(out, board)
	}
	return out
}

// necks are what lies under the left hand, and one round of what the right hand plucks.
func necks(e exercise.Exercise, b exercise.Built, words naming.Words) (list []sheet.Neck, strokes sheet.Neck) {
	neck := sheet.Neck{Frets: e.Instrument.Fretted()}
	for _, p := range e.Instrument.Open {
		neck.Strings = append(neck.Strings, words.Key(p.Name()))
	}
	for _, n := range e.Necks(b) {
		x := neck
		x.Name = cmp.Or(n.Chord, "left hand")
		for _, d := range n.Dots {
			x.Dots = append(x.Dots, sheet.Dot{String: d.String, At: d.At, Label: strconv.Itoa(d.Finger)})
		}
		list = append(list, x)
	}
	if round := e.Round(b); len(round) > 0 {
		strokes = sheet.Neck{Name: "right hand, one round", Strings: neck.Strings}
		for i, n := range round {
			strokes.Dots = append(strokes.Dots, sheet.Dot{String: n.String, At: i + 1, Label: e.Instrument.Sign(n.Pluck)})
		}
	}
	return list, strokes
}

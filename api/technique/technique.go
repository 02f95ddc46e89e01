// Package technique answers what is asked about exercises, scales and staircases.
//
//	technique.go      where a student stands on the staircases
//	cycle.go          the keys over a term, tempo ladders
//	atlas.go          who has which key
//	exercise.go       an exercise as notes on its instrument
//	exercisesheet.go  an exercise to print
//	scale.go          any scale
//	take.go           an exercise put on a ladder
package technique

import (
	"context"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/api/lesson"
	"patientladder/app/open"
	"patientladder/core/library/instrument"
	"patientladder/core/planning/intechnique"
	"patientladder/core/planning/inweek"
	"patientladder/core/planning/studentplan"
	"patientladder/core/reading/naming"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
	"patientladder/core/technique/exercise"
	"patientladder/core/wording"
	"patientladder/core/wording/tongue"
)

// Handlers answer the calls about technique.
type Handlers struct{ *open.Loader }

// GetTechnique returns where a student stands on the staircases of exercises.
func (h *Handlers) GetTechnique(ctx context.Context, r contract.GetTechniqueRequestObject) (contract.GetTechniqueResponseObject, error) {
	a, err := h.Ahead(ctx, r.Ladder, studentplan.Options{Near: true, InLesson: true})
	if err != nil {
		return nil, err
	}
	x := instrument.Any(a.Instrument)
	log, err := h.Log(ctx, a.Opened)
	if err != nil {
		return nil, err
	}
	out := contract.Technique{
		Dose: wording.Often(tongue.Of(tongue.English), inweek.Practice(a.StudentOutlook.Student, a.Today).Often()), Ladder: a.Ladder, Name: a.Name, Instrument: x.ID,
		Now: []contract.TechniqueNow{}, Ahead: []contract.ExerciseAhead{}, Stairs: []contract.Stair{},
		Proposed: []contract.NextExercise{}, CycleTypes: cycleTypes(x, a.Words),
	}
	said := wording.Technique{First: a.First()}
	live := studentlog.Live(log)
	for _, id := range a.Standing.In(standing.Working) {
		e, err := a.Exercises.Parse(a.Library[id].Exercise, x)
		if err != nil {
			continue // a piece, or made by data that have changed since
		}
		now, err := h.inWork(ctx, a, id, e, live)
		if err != nil {
			return nil, err
		}
		out.Now = append(out.Now, now)
		said.Now = append(said.Now, wording.TitledStep{Title: now.Title, Step: now.Step})
	}
	next := func(e exercise.Exercise) {
		if said.Next == nil {
			said.Next = &wording.TitledStep{Title: e.Title(a.Words), Step: e.Step.Name}
		}
	}
	for _, p := range intechnique.ExercisesAhead(&a.StudentOutlook) {
		next(p.Exercise)
		out.Ahead = append(
			out.Ahead,
			contract.ExerciseAhead{Material: p.Material, Exercise: p.Exercise.ID(), Title: p.Exercise.Title(a.Words), Step: p.Exercise.Step.Name},
		)
	}
	stairs, cycle, broken := intechnique.Stairs(&a.StudentOutlook)
	for _, p := range intechnique.ProposedExercises(&a.StudentOutlook, stairs) {
		next(p.Exercise)
		out.Proposed = append(out.Proposed, nextOut(p, a))
	}
	for _, st := range stairs {
		out.Stairs = append(out.Stairs, stairOut(st, a))
	}
	if kept := a.Standing.Cycle; cycle != nil {
		out.Cycle = cycleOut(*cycle, *kept, a)
		out.CycleEntry = contract.KeptCycle{
			Type: kept.Type, Step: kept.Step, Kind: kept.Kind, First: kept.First, Order: contract.KeptCycleOrder(kept.Order), From: kept.From,
			Before: kept.Before,
		}
	}
	out.Sentence = said.Sentence()
	if x.Family == "" {
		out.Sentence = wording.NoExercises(x.ID)
	}
	if broken != nil { // the lessons or the data changed so that the cycle cannot go on: it says so and stays ended
		out.Sentence = wording.Sentence(broken.Error())
	}
	return contract.GetTechnique200JSONResponse(out), nil
}

// inWork is an exercise that is worked at.
func (h *Handlers) inWork(
	ctx context.Context,
	a open.Ahead,
	id string,
	e exercise.Exercise,
	live []*studentlog.Entry,
) (contract.TechniqueNow, error) {
	piece, err := lesson.Piece(ctx, h.Loader, a.Opened, id, live)
	if err != nil {
		return contract.TechniqueNow{}, err
	}
	ms := a.Standing.Materials[id]
	now := contract.TechniqueNow{
		Material: id, Exercise: e.ID(), Title: e.Title(a.Words), Step: e.Step.Name, Goals: piece.Points, Faults: piece.Faults, RunDue: ms.RunDue,
		Why: piece.Why, Gate: piece.Gate, Hand: piece.Hand, Tempo: ms.Tempo, GoalTempo: e.Step.Tempo, Begun: answer.Date(a.Local(ms.Assigned)),
	}
	if c := ms.Climb; c != nil {
		now.Climb = contract.Climb{From: c.From, To: c.To, Marks: c.Marks, At: c.At, Mark: c.Mark(), Eased: c.Eased, Sentence: wording.Climb(c)}
	}
	return now, nil
}

func nextOut(p exercise.Proposal, a open.Ahead) contract.NextExercise {
	return contract.NextExercise{
		Exercise: p.Exercise.ID(),
		Title:    p.Exercise.Title(a.Words),
		Step:     p.Exercise.Step.Name,
		Reasons:  wording.Exercises(p, a.Words),
	}
}

func stairOut(st exercise.Stair, a open.Ahead) contract.Stair {
	out := contract.Stair{Type: st.Type.ID, Name: st.Type.Name, At: st.At, Waits: wording.Waits(st.Waits)}
	named := func(list []exercise.Exercise) []contract.Choice {
		out := []contract.Choice{}
		for _, e := range list {
			out = append(out, contract.Choice{Id: e.ID(), Name: e.Title(a.Words)})
		}
		return out
	}
	for _, step := range st.Steps {
		out.Steps = append(
			out.Steps,
			contract.StairStep{
				Name:    step.Step.Name,
				Of:      step.Of,
				Known:   step.Known,
				Passed:  step.Passed,
				Through: named(step.Cleared),
				Working: named(step.Working),
			},
		)
	}
	if st.Next != nil {
		out.Next = nextOut(intechnique.Propose(&a.StudentOutlook, *st.Next), a)
	}
	return out
}

// cycleTypes are what an instrument can take through the keys.
func cycleTypes(x instrument.Instrument, words naming.Words) []contract.CycleType {
	out := []contract.CycleType{}
	t, ok := exercise.CycleType(x)
	if !ok {
		return out
	}
	c := contract.CycleType{Id: t.ID, Name: t.Name, Steps: []contract.Choice{}, Kinds: []contract.CycleKind{}}
	for _, s := range t.Steps {
		c.Steps = append(c.Steps, contract.Choice{Id: s.ID, Name: wording.Capital(s.Name)})
	}
	for _, k := range t.Kinds {
		kind := contract.CycleKind{Id: string(k), Name: wording.Kind(string(k)), Keys: []contract.Choice{}}
		for _, key := range exercise.CycleKeys(exercise.Exercise{Type: t, Step: t.Steps[0], Kind: k, Instrument: x}) {
			kind.Keys = append(kind.Keys, contract.Choice{Id: key.String(), Name: words.Key(key.String())})
		}
		c.Kinds = append(c.Kinds, kind)
	}
	return append(out, c)
}

package technique

import (
	"context"
	"slices"
	"time"

	openapi_types "github.com/oapi-codegen/runtime/types"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/base/metronome"
	"patientladder/core/planning/intechnique"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/studentlog"
	"patientladder/core/technique/exercise"
	"patientladder/core/wording"
)

// GetTempi returns a mark of the metronome for each week of a climb.
func (h *Handlers) GetTempi(_ context.Context, r contract.GetTempiRequestObject) (contract.GetTempiResponseObject, error) {
	marks, err := metronome.Ladder(r.Params.From, r.Params.To, r.Params.Weeks)
	if err != nil {
		return nil, refusal.Because(err)
	}
	return contract.GetTempi200JSONResponse{Marks: marks}, nil
}

// TryCycle lays the keys over a student's lessons, the holidays of the studio and the lessons
// that did not take place left out; nothing is kept.
func (h *Handlers) TryCycle(ctx context.Context, r contract.TryCycleRequestObject) (contract.TryCycleResponseObject, error) {
	a, err := h.Ahead(ctx, r.Ladder, studentplan.Options{Near: true})
	if err != nil {
		return nil, err
	}
	if _, err := open.Instrument(a.Instrument); err != nil {
		return nil, err
	}
	p := r.Params
	wish := studentlog.Cycle{Type: p.Type, Step: p.Step, Kind: p.Kind, First: p.Key, Order: string(p.Order), Before: p.Before}
	if !p.From.IsZero() {
		wish.From = p.From.Format(time.DateOnly)
	}
	wish = intechnique.WholeCycle(a.StudentOutlook.Student, wish)
	tried := *a.Standing // the one that is kept is for everybody
	a.Standing = &tried
	for _, d := range p.Missed {
		a.Standing.Missed = append(slices.Clip(a.Standing.Missed), d.Format(time.DateOnly))
	}
	c, err := intechnique.CycleOf(&a.StudentOutlook, wish, exercise.Climb(a.OnInstrument(), a.Progress(), exercise.Wish{}))
	if err != nil {
		return nil, refusal.Because(err)
	}
	return contract.TryCycle200JSONResponse(cycleOut(c, wish, a)), nil
}

// cycleOut is a cycle as the contract has it.
func cycleOut(c intechnique.Cycle, kept studentlog.Cycle, a open.Ahead) contract.Cycle {
	out := contract.Cycle{
		Type: kept.Type, Step: kept.Step, Kind: kept.Kind, First: c.Weeks[0].Exercise.Key.String(), Pass: c.Pass, End: answer.Date(c.End),
		Passes: []contract.Choice{}, Weeks: []contract.CycleWeek{},
		Sentence: wording.Cycle(c, a.Words),
	}
	for _, s := range c.Type.Steps {
		out.Passes = append(out.Passes, contract.Choice{Id: s.ID, Name: s.Name})
	}
	for _, w := range c.Weeks {
		out.Weeks = append(out.Weeks, contract.CycleWeek{
			Key: a.Words.Key(w.Key.String()), Exercise: w.Exercise.ID(), Day: answer.Date(w.Day), Heard: answer.Date(w.Heard), Late: w.Late,
			State: contract.CycleWeekState(w.State), Missed: dates(w.Missed), Held: dates(w.Held), Slid: dates(w.Slid), Off: w.Off,
		})
	}
	return out
}

func dates(days []time.Time) []openapi_types.Date {
	out := []openapi_types.Date{}
	for _, d := range days {
		out = append(out, answer.Date(d))
	}
	return out
}

package lesson

import (
	"context"
	"time"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/app"
	"patientladder/app/open"
	"patientladder/core/student/studentlog"
)

// AppendEntries adds entries to a ladder's log, all or none.
func (h *Handlers) AppendEntries(ctx context.Context, r contract.AppendEntriesRequestObject) (contract.AppendEntriesResponseObject, error) {
	list := make([]app.Happened, len(r.Body.Entries))
	for i, e := range r.Body.Entries {
		list[i] = app.Happened{Entry: entryOf(e, open.Actor(ctx).Teacher), Exercise: e.Exercise, InLesson: e.Lesson}
	}
	added, err := app.Record(ctx, h.Loader, r.Ladder, list)
	return contract.AppendEntries200JSONResponse{Added: added}, err
}

// ListEntries returns the log as it arrived.
func (h *Handlers) ListEntries(ctx context.Context, r contract.ListEntriesRequestObject) (contract.ListEntriesResponseObject, error) {
	studio := open.Actor(ctx).Studio
	if _, err := h.Ladder(ctx, r.Ladder); err != nil {
		return nil, err
	}
	log, err := h.Store.Log(ctx, studio, r.Ladder)
	if err != nil {
		return nil, err
	}
	out := make(contract.ListEntries200JSONResponse, len(log))
	for i, e := range log {
		out[i] = entryOut(e)
	}
	return out, nil
}

// entryOut is an entry as the contract has it.
func entryOut(e studentlog.Entry) contract.Entry {
	out := contract.Entry{
		Id: e.ID, At: e.At, Kind: contract.EntryKind(e.Kind), Material: e.Material, Focus: e.Focus, Mark: contract.Mark(e.Mark),
		From: e.From, To: e.To, Spot: e.Spot, Met: e.Met, Rating: e.Rating, Skill: e.Skill, Step: e.Step, Shown: e.Shown, Outcome: e.Outcome,
		Minutes: e.Minutes, Text: e.Text, Corrects: e.Corrects, Standard: contract.EntryStandard(e.Standard), Sign: contract.EntrySign(e.Sign),
		Goal: e.Goal,
		Gate: contract.Gate(e.Gate), Day: e.Day, Item: e.Item, Times: e.Times, Felt: contract.Felt(e.Felt),
	}
	out.Tempo, out.Held = e.Tempo, e.Held
	if e.Setup != nil {
		out.Setup = answer.Measures(*e.Setup)
	}
	if c := e.Cycle; c != nil {
		out.Cycle = contract.KeptCycle{
			Type:   c.Type,
			Step:   c.Step,
			Kind:   c.Kind,
			First:  c.First,
			Order:  contract.KeptCycleOrder(c.Order),
			From:   c.From,
			Before: c.Before,
		}
	}
	if c := e.Climb; c != nil {
		out.Climb = contract.NewClimb{From: c.From, To: c.To, Weeks: c.Weeks}
	}
	return out
}

func entryOf(e contract.Entry, actor string) studentlog.Entry {
	out := studentlog.Entry{
		ID: e.Id, At: e.At.UTC().Truncate(time.Millisecond), Actor: actor, Kind: studentlog.Kind(e.Kind), Material: e.Material,
		Focus: e.Focus, Mark: studentlog.Mark(e.Mark), From: e.From, To: e.To, Spot: e.Spot, Met: e.Met, Rating: e.Rating,
		Skill: e.Skill, Step: e.Step, Shown: e.Shown, Outcome: e.Outcome, Minutes: e.Minutes, Text: e.Text, Corrects: e.Corrects,
		Standard: string(e.Standard), Sign: studentlog.Reaction(e.Sign), Goal: e.Goal,
		Gate: studentlog.Gate(e.Gate), Day: e.Day, Item: e.Item, Times: e.Times, Felt: studentlog.Feeling(e.Felt),
	}
	switch e.Kind {
	case contract.EntryKindTempo:
		out.Tempo, out.Held = e.Tempo, e.Held
	case contract.EntryKindClimb:
		out.Climb = &studentlog.Climb{From: e.Climb.From, To: e.Climb.To, Weeks: e.Climb.Weeks}
	case contract.EntryKindCycle:
		c := e.Cycle
		out.Cycle = &studentlog.Cycle{
			Type:   c.Type,
			Step:   c.Step,
			Kind:   c.Kind,
			First:  c.First,
			Order:  string(c.Order),
			From:   c.From,
			Before: c.Before,
		}
	}
	if e.Kind == contract.EntryKindSetupChecked && e.Setup.Leg != 0 {
		m := answer.MeasuresOf(&e.Setup)
		out.Setup = &m
	}
	return out
}

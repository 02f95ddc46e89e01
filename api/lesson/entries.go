package lesson

import (
	"context"
	"errors"
	"slices"
	"time"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/api/open"
	"patientladder/api/problem"
	"patientladder/core/planning/admission"
	"patientladder/core/student/setup"
	"patientladder/core/student/studentlog"
)

// AppendEntries adds entries to a ladder's log, all or none.
func (h *Handlers) AppendEntries(ctx context.Context, r contract.AppendEntriesRequestObject) (contract.AppendEntriesResponseObject, error) {
	s, err := h.Student(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	var added int
	err = h.Store.Together(ctx, func(ctx context.Context) (err error) {
		added, err = h.appended(ctx, s, r.Body.Entries)
		return err
	})
	return contract.AppendEntries200JSONResponse{Added: added}, err
}

// appended adds entries to the log of a student, with what they bring along: the lesson that has begun, exercises that are new
// in the library, the studio's bench. It says how many were new.
func (h *Handlers) appended(ctx context.Context, s open.Student, list []contract.Entry) (int, error) {
	if slices.ContainsFunc(list, func(e contract.Entry) bool { return e.Lesson && s.Local(e.At).Equal(s.Today) }) {
		if err := h.begin(ctx, s); err != nil {
			return 0, err
		}
	}
	taken := false
	for i, e := range list {
		if e.Exercise == "" || e.Kind != contract.EntryKindAssigned {
			continue
		}
		m, err := h.TakeExercise(ctx, s, e.Exercise)
		if err != nil {
			return 0, err
		}
		list[i].Material, taken = m.ID, true
	}
	if taken { // it may be new in the library
		var err error
		if s, err = h.Student(ctx, s.Ladder); err != nil {
			return 0, err
		}
	}
	entries := make([]studentlog.Entry, len(list))
	for i, e := range list {
		entries[i] = admission.Filled(s.Student.Studio, entryOf(e, open.Actor(ctx).Teacher))
		entries[i].Material = s.Of().Meant(entries[i].Material)
		if err := admission.Admit(s.Student, entries[i], entries[:i]); err != nil {
			return 0, refused(s, err)
		}
	}
	added, err := h.Store.Append(ctx, s.Tenant.ID, s.Ladder, entries)
	if err != nil {
		return 0, err
	}
	for _, e := range entries { // what the studio's own bench measures is asked once
		if e.Setup != nil && e.Setup.At() == setup.Studio {
			if err := h.Store.SetBench(ctx, s.Tenant.ID, setup.AskedFor(s.OnInstrument()), e.Setup.Bench()); err != nil {
				return 0, err
			}
		}
	}
	return added, nil
}

// refused says why an entry was not added.
func refused(s open.Student, err error) error {
	var why admission.EntryError
	switch {
	case !errors.As(err, &why):
		return err
	case why.Kind == admission.NoSuchMaterial:
		return problem.NoMaterial
	}
	return problem.Invalid(s.Of().Names().NotAdmitted(why, s.Student))
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

package api

import (
	"context"
	"fmt"
	"time"

	"patientladder/api/contract"
	"patientladder/core/library/material"
	"patientladder/core/planning/lessonplan"
	"patientladder/core/student/clearing"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
	"patientladder/core/technique/exercise"
	"patientladder/store"
)

var errNoMaterial = fmt.Errorf("no such material: %w", store.ErrNotFound)

// clockAhead is how far a device's clock may run ahead.
const clockAhead = 24 * time.Hour

// AppendEntries adds entries to a ladder's log, all or none.
func (s *Server) AppendEntries(ctx context.Context, r contract.AppendEntriesRequestObject) (contract.AppendEntriesResponseObject, error) {
	sh, err := s.shelf(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	entries := make([]studentlog.Entry, len(r.Body.Entries))
	for i, e := range r.Body.Entries {
		entries[i] = entryOf(e, actor(ctx).teacher)
		if err := entries[i].Validate(); err != nil {
			return nil, invalid(capital(err.Error()) + ".")
		}
		if err := s.refers(sh, entries[i], entries[:i]); err != nil {
			return nil, err
		}
	}
	added, err := s.store.Append(ctx, sh.studio.ID, sh.ladder.ID, entries)
	return contract.AppendEntries200JSONResponse{Added: added}, err
}

// refers checks what an entry names against the library and the ladder.
// Corrections and mended spots may name what has not arrived yet.
func (s *Server) refers(sh shelf, e studentlog.Entry, before []studentlog.Entry) error {
	if e.At.After(sh.now.Add(clockAhead)) {
		return invalid(fmt.Sprintf("The entry says that it happened on %s, which has not come yet. Check the clock of this device.", e.At.Format(time.DateOnly)))
	}
	m, known := sh.lib[e.Material]
	switch {
	case e.Material != "" && !known:
		return errNoMaterial
	case known && m.Instrument != sh.ladder.Instrument:
		return invalid(fmt.Sprintf("“%s” is for %s, and this ladder is for %s.", m.Title, m.Instrument, sh.ladder.Instrument))
	}
	switch e.Kind {
	case studentlog.SpotAdded:
		if e.To > m.Bars {
			return invalid(fmt.Sprintf("“%s” has %d bars; the spot reaches to bar %d.", m.Title, m.Bars, e.To))
		}
	case studentlog.Hearing, studentlog.Paused, studentlog.Resumed, studentlog.GateSet:
		if !had(sh, e.Material, before) {
			return invalid(fmt.Sprintf("%s has never had “%s”: nothing was recorded.", sh.ladder.Name, m.Title))
		}
	case studentlog.MarkGiven:
		if !s.hasFocus(sh, e, before) {
			return invalid(fmt.Sprintf("The mark is for a focus point that “%s” does not have. Open the lesson again.", m.Title))
		}
	case studentlog.RunTried:
		standard := map[string]bool{}
		for _, p := range clearing.Standard(sh.family, clearing.Level(e.Standard)) {
			standard[p.ID] = true
		}
		for _, id := range e.Met {
			if !standard[id] {
				return invalid(fmt.Sprintf("%q is not a point of the clearing standard.", id))
			}
		}
	case studentlog.Activity:
		if !lessonplan.Known(e.Goal, e.Step) {
			return invalid(fmt.Sprintf("There is no way %d to practise %q.", e.Step, e.Goal))
		}
	case studentlog.CycleKept:
		if e.Cycle.First == "" {
			break
		}
		if _, err := (ahead{shelf: sh}).round(*e.Cycle); err != nil {
			return invalid(capital(err.Error()) + ".")
		}
	case studentlog.StepDone, studentlog.Probe:
		if _, ok := sh.skills.Get(e.Skill); !ok {
			return invalid(fmt.Sprintf("%q is not a skill of the catalogue.", e.Skill))
		}
	}
	return nil
}

// had says that a student has begun, or has known, a material.
func had(sh shelf, id string, before []studentlog.Entry) bool {
	if m := sh.standing.Materials[id]; m != nil && m.State != standing.Heard {
		return true
	}
	for _, b := range before {
		if b.Material == id && (b.Kind == studentlog.Assigned || b.Kind == studentlog.Cleared || b.Kind == studentlog.Polished) {
			return true
		}
	}
	return false
}

func (s *Server) hasFocus(sh shelf, e studentlog.Entry, before []studentlog.Entry) bool {
	m := sh.lib[e.Material]
	for _, p := range m.FocusPoints {
		if p.ID == e.Focus {
			return true
		}
	}
	if x, err := exercise.Parse(m.Exercise, sh.player()); err == nil {
		for _, f := range x.Type.Faults {
			if material.Fault+f.ID == e.Focus {
				return true
			}
		}
	}
	for _, f := range sh.standing.Focus {
		if f.ID == e.Focus {
			return true
		}
	}
	for _, b := range before {
		if b.Kind == studentlog.FocusAdded && b.Focus == e.Focus {
			return true
		}
	}
	return false
}

// ListEntries returns the log as it arrived.
func (s *Server) ListEntries(ctx context.Context, r contract.ListEntriesRequestObject) (contract.ListEntriesResponseObject, error) {
	studio := actor(ctx).studio
	if _, err := s.store.Ladder(ctx, studio, r.Ladder); err != nil {
		return nil, err
	}
	log, err := s.store.Log(ctx, studio, r.Ladder)
	if err != nil {
		return nil, err
	}
	out := make(contract.ListEntries200JSONResponse, len(log))
	for i, e := range log {
		out[i] = contract.Entry{
			Id: e.ID, At: e.At, Kind: contract.EntryKind(e.Kind), Material: e.Material, Focus: e.Focus, Mark: contract.Mark(e.Mark),
			From: e.From, To: e.To, Spot: e.Spot, Met: e.Met, Rating: e.Rating, Skill: e.Skill, Step: e.Step, Shown: e.Shown,
			Minutes: e.Minutes, Text: e.Text, Corrects: e.Corrects, Standard: contract.EntryStandard(e.Standard), Sign: contract.EntrySign(e.Sign), Goal: e.Goal,
			Gate: contract.Gate(e.Gate), Day: e.Day, Item: e.Item, Times: e.Times, Felt: contract.Felt(e.Felt),
		}
		out[i].Tempo, out[i].Held = e.Tempo, e.Held
		if e.Setup != nil {
			out[i].Setup = measuresOut(*e.Setup)
		}
		if c := e.Cycle; c != nil {
			out[i].Cycle = contract.KeptCycle{Type: c.Type, Step: c.Step, Kind: c.Kind, First: c.First, Order: contract.KeptCycleOrder(c.Order), From: c.From, Before: c.Before}
		}
		if c := e.Climb; c != nil {
			out[i].Climb = contract.NewClimb{From: c.From, To: c.To, Weeks: c.Weeks}
		}
	}
	return out, nil
}

func entryOf(e contract.Entry, actor string) studentlog.Entry {
	out := studentlog.Entry{
		ID: e.Id, At: e.At.UTC().Truncate(time.Millisecond), Actor: actor, Kind: studentlog.Kind(e.Kind), Material: e.Material,
		Focus: e.Focus, Mark: studentlog.Mark(e.Mark), From: e.From, To: e.To, Spot: e.Spot, Met: e.Met, Rating: e.Rating,
		Skill: e.Skill, Step: e.Step, Shown: e.Shown, Minutes: e.Minutes, Text: e.Text, Corrects: e.Corrects,
		Standard: string(e.Standard), Sign: studentlog.Sign(e.Sign), Goal: e.Goal,
		Gate: studentlog.Gate(e.Gate), Day: e.Day, Item: e.Item, Times: e.Times, Felt: studentlog.Feeling(e.Felt),
	}
	switch e.Kind {
	case contract.EntryKindTempo:
		out.Tempo, out.Held = e.Tempo, e.Held
	case contract.EntryKindClimb:
		out.Climb = &studentlog.Climb{From: e.Climb.From, To: e.Climb.To, Weeks: e.Climb.Weeks}
	case contract.EntryKindCycle:
		c := e.Cycle
		out.Cycle = &studentlog.Cycle{Type: c.Type, Step: c.Step, Kind: c.Kind, First: c.First, Order: string(c.Order), From: c.From, Before: c.Before}
	}
	if e.Kind == contract.EntryKindSetupChecked && e.Setup.KeyTop != 0 {
		m := measuresOf(&e.Setup)
		out.Setup = &m
	}
	return out
}

package home

import (
	"context"
	"slices"
	"time"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/api/ladder"
	"patientladder/api/open"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
	"patientladder/core/wording"
	"patientladder/store"
)

// GetFamilyPage returns what a family sees: the published week, how it sounds,
// and the way so far. Of the child it holds a first name and nothing else.
func (h *Handlers) GetFamilyPage(ctx context.Context, r contract.GetFamilyPageRequestObject) (contract.GetFamilyPageResponseObject, error) {
	f, sh, err := h.familyHome(ctx, r.Token)
	if err != nil {
		return nil, err
	}
	teacher, err := h.Store.StudioTeacher(ctx, f.Studio)
	if err != nil {
		return nil, err
	}
	w, weeks, err := h.familyWeek(ctx, sh, r.Params.Week.Time)
	if err != nil {
		return nil, err
	}
	out := contract.FamilyPage{
		Name: sh.First(), Teacher: teacher.Name, Studio: sh.Tenant.Name, Today: answer.Date(sh.Today), Start: answer.Date(w.Start), Days: []contract.FamilyDay{}, NotYet: []string{},
		Caution: wording.Caution, Music: []contract.FamilyMusic{}, Ticks: ticks(sh), Path: path(sh), Weeks: []contract.FamilyWeek{}, Expires: answer.Date(f.Expires),
	}
	for _, start := range weeks {
		out.Weeks = append(out.Weeks, contract.FamilyWeek{Start: answer.Date(start), Name: wording.FamilyWeek(start, sh.Today)})
	}
	if w.Published != nil {
		plan := week.Stretched(*w.Published, sh.WeekDays(w.Start))
		w.Published = &plan
	}
	treats, err := ladder.Treats(ctx, h.Desk, sh)
	if err != nil {
		return nil, err
	}
	out.Treats = slices.DeleteFunc(treats, func(t contract.Treat) bool { return t.Given })
	if out.Reports, err = h.reports(ctx, sh); err != nil {
		return nil, err
	}
	out.Sentence = wording.AtHome(sh.AtHome(w.Start, w.Published))
	if w.Published == nil {
		return contract.GetFamilyPage200JSONResponse(out), nil
	}
	out.NotYet, out.Dose, out.Words = append(out.NotYet, w.Published.NotYet...), w.Published.Dose, w.Hand.Words
	out.Watch = w.Published.Watch
	e := newExcerpts(h.Desk, sh, phoneWidth)
	for _, d := range w.Published.Days {
		day := contract.FamilyDay{Date: answer.Date(d.Date), Rest: d.Rest, Focus: d.Focus, Items: []contract.FamilyItem{}}
		for _, it := range d.Items {
			item, err := e.familyItem(ctx, it)
			if err != nil {
				return nil, err
			}
			day.Items = append(day.Items, item)
		}
		out.Days = append(out.Days, day)
	}
	for _, id := range e.order {
		if o := e.read[id]; o != nil {
			out.Music = append(out.Music, music(sh.Library[id], o.Score))
		}
	}
	return contract.GetFamilyPage200JSONResponse(out), nil
}

// familyWeek is the published week that a family reads: the one that begins on a day, where it can be read, else that of
// today; with the first days of all that can be read.
func (h *Handlers) familyWeek(ctx context.Context, s open.Student, wanted time.Time) (store.PracticeWeek, []time.Time, error) {
	weeks, err := h.Store.PublishedWeeks(ctx, s.Tenant.ID, s.Ladder, s.Today.AddDate(0, 0, -6*week.Days))
	if err != nil || len(weeks) == 0 {
		return store.PracticeWeek{}, nil, err
	}
	starts := make([]time.Time, len(weeks))
	for i, w := range weeks {
		starts[i] = w.Start
	}
	readable := studentplan.Readable(starts, s.Today)
	start := readable[0]
	if slices.ContainsFunc(readable, wanted.Equal) {
		start = wanted
	}
	w, err := h.Store.PracticeWeek(ctx, s.Tenant.ID, s.Ladder, start)
	return w, readable, err
}

// ticks are what was reported from home.
func ticks(s open.Student) []contract.FamilyTick {
	out := []contract.FamilyTick{}
	for _, h := range s.Standing.Home {
		if !h.FromHome {
			continue
		}
		t := contract.FamilyTick{Id: h.ID, At: h.At, Kind: contract.FamilyTickKindDone, Item: h.Item, Times: h.Times, Felt: contract.Felt(h.Felt)}
		if h.Sign != "" {
			t.Kind, t.Day = contract.FamilyTickKindFirst, answer.Date(s.Local(h.At))
			t.Item = h.Material
		} else if day, err := time.Parse(time.DateOnly, h.Day); err == nil {
			t.Day = answer.Date(day)
		}
		out = append(out, t)
	}
	return out
}

// path is the way so far.
func path(s open.Student) []contract.PathStep {
	out := []contract.PathStep{}
	for _, step := range s.Path() {
		state := contract.PathStepStateWorking
		if !step.Learned.IsZero() {
			state = contract.PathStepStateLearned
		}
		out = append(out, contract.PathStep{State: state, Title: s.Library[step.Material].Title, Words: wording.Path(step)})
	}
	return out
}

package ladder

import (
	"context"
	"slices"
	"strings"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/planning/outlook"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/whatif"
	"patientladder/core/wording"
)

// Targets are the targets of a ladder with what comes out for each. One whose
// piece is learned by now, or whose day has passed, says so instead.
func Targets(a open.Ahead, list []whatif.Target) []contract.TargetBrief {
	out := []contract.TargetBrief{}
	for _, t := range list {
		brief := contract.TargetBrief{Id: t.ID, Name: t.Name, Day: answer.Date(t.Day), Material: t.Material, Title: a.Library[t.Material].Title}
		if v, err := whatif.Work(&a.StudentOutlook, t); err != nil {
			brief.Verdict = contract.Verdict{
				Sentence: wording.Sentence(err.Error()),
				Why:      []string{},
				Drops:    []contract.TargetDrop{},
				Holidays: []contract.LostHoliday{},
			}
		} else {
			brief.Verdict = verdict(a, t, v, nil)
		}
		out = append(out, brief)
	}
	return out
}

// verdict puts a target's outcome into words.
func verdict(a open.Ahead, t whatif.Target, v outlook.Verdict, given []string) contract.Verdict {
	n := a.Of().Names()
	said := wording.Target{
		Material: t.Material,
		Day:      t.Day,
		Sure:     a.Policy.Sure,
		Polish:   a.Policy.PolishWeeks,
		Latest:   a.Lessons.Day(v.LatestStart),
		Today:    a.Today,
	}
	said.BeginsFrom, _, said.To = a.Days(v.Begins)
	out := contract.Verdict{
		Lessons: v.Lessons, Chance: v.Chance, Straight: v.Straight, WithoutTwo: v.WithoutTwo, Begun: v.Begun, Possible: v.Possible,
		Sure: a.Policy.Sure, Polish: a.Policy.PolishWeeks, Drops: []contract.TargetDrop{}, Holidays: []contract.LostHoliday{},
		Sentence: n.Verdict(said, v), Why: wording.VerdictWhy(said, v),
	}
	if _, ok := v.HasToBegin(); ok {
		out.LatestStart = answer.Date(said.Latest)
	}
	for _, d := range whatif.Helpful(v) {
		out.Drops = append(out.Drops, contract.TargetDrop{Material: d.Material, Title: a.Library[d.Material].Title, Chance: d.Chance})
	}
	for _, l := range whatif.HolidayLosses(&a.StudentOutlook, t.Day) {
		out.Holidays = append(out.Holidays, contract.LostHoliday{Id: l.ID, Name: l.Name, Lessons: l.Lessons, Given: slices.Contains(given, l.ID)})
	}
	return out
}

// TryTarget works a date backwards; nothing is kept.
func (h *Handlers) TryTarget(ctx context.Context, r contract.TryTargetRequestObject) (contract.TryTargetResponseObject, error) {
	a, err := h.Ahead(ctx, r.Ladder, studentplan.Options{Given: r.Body.Given})
	if err != nil {
		return nil, err
	}
	if _, known := a.Library[r.Body.Material]; !known {
		return nil, refusal.NoMaterial
	}
	t := whatif.Target{Material: r.Body.Material, Day: r.Body.Day.Time}
	v, err := whatif.Work(&a.StudentOutlook, t)
	if err != nil {
		return nil, refusal.Because(err)
	}
	return contract.TryTarget200JSONResponse(verdict(a, t, v, r.Body.Given)), nil
}

// SetTarget keeps a target.
func (h *Handlers) SetTarget(ctx context.Context, r contract.SetTargetRequestObject) (contract.SetTargetResponseObject, error) {
	a, err := h.Ahead(ctx, r.Ladder, studentplan.Options{})
	if err != nil {
		return nil, err
	}
	if _, known := a.Library[r.Body.Material]; !known {
		return nil, refusal.NoMaterial
	}
	t := whatif.Target{ID: r.Target, Name: strings.TrimSpace(r.Body.Name), Day: r.Body.Day.Time, Material: r.Body.Material}
	if t.Name == "" {
		return nil, refusal.Invalid("The target needs a name, such as “Spring recital”.")
	}
	if _, err := whatif.Work(&a.StudentOutlook, t); err != nil {
		return nil, refusal.Because(err)
	}
	return contract.SetTarget204Response{}, h.Store.SetTarget(ctx, a.Tenant.ID, a.Ladder, t)
}

// RemoveTarget takes a target away.
func (h *Handlers) RemoveTarget(ctx context.Context, r contract.RemoveTargetRequestObject) (contract.RemoveTargetResponseObject, error) {
	return contract.RemoveTarget204Response{}, h.Store.RemoveTarget(ctx, open.Actor(ctx).Studio, r.Ladder, r.Target)
}

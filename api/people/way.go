package people

import (
	"context"

	"patientladder/api/contract"
	"patientladder/app"
	"patientladder/app/open"
	"patientladder/app/refusal"
	weekplan "patientladder/core/planning/week"
	"patientladder/core/reading/naming"
	"patientladder/core/student/clearing"
	"patientladder/core/student/setup"
	"patientladder/core/way"
	"patientladder/core/wording"
	"patientladder/store"
)

func wayOf(w contract.Way) way.Way {
	return way.Way{
		ReviewShare: w.ReviewShare, ReadingAfter: w.ReadingAfter, Approach: naming.Approach(w.Approach), FirstView: way.FirstView(w.FirstView),
		FirstChunk: w.FirstChunk, Standard: clearing.Level(w.Standard), SecureAfter: w.SecureAfter, Comfortable: w.Comfortable,
		EaseAfterLeap: w.EaseAfterLeap, Bites: w.Bites, LookRungs: w.LookRungs, LookWeeks: w.LookWeeks, ReviewWeeks: w.ReviewWeeks,
		StuckLessons: w.StuckLessons, PolishWeeks: w.PolishWeeks, Sure: w.Sure, Rewards: w.Rewards,
		HomeCounts: w.HomeCounts,
		Dose:       weekplan.Dose(w.Dose), DoseRow: w.DoseRow, HandShape: setup.School(w.HandShape), BenchLean: setup.Lean(w.BenchLean),
	}
}

func contractWay(w way.Way) contract.Way {
	return contract.Way{
		ReviewShare: w.ReviewShare, ReadingAfter: w.ReadingAfter, Approach: contract.WayApproach(w.Approach),
		FirstView:  contract.WayFirstView(w.FirstView),
		FirstChunk: w.FirstChunk, Standard: contract.WayStandard(w.Standard), SecureAfter: w.SecureAfter, Comfortable: w.Comfortable,
		EaseAfterLeap: w.EaseAfterLeap, Bites: w.Bites, LookRungs: w.LookRungs, LookWeeks: w.LookWeeks, ReviewWeeks: w.ReviewWeeks,
		StuckLessons: w.StuckLessons, PolishWeeks: w.PolishWeeks, Sure: w.Sure, Rewards: w.Rewards,
		HomeCounts: w.HomeCounts,
		Dose:       contract.WayDose(w.Dose), DoseRow: w.DoseRow, HandShape: contract.WayHandShape(w.HandShape),
		BenchLean: contract.WayBenchLean(w.BenchLean),
	}
}

// whoseWay is a way that is looked at: that of a student, of a teacher, or the studio's.
type whoseWay struct {
	// way is the one that is looked at, base the one that it differs from.
	way, base way.Way
	studio    store.Studio
	// teacher is whose it is; empty for the studio's and a student's.
	teacher string
}

// wayFor opens the way of a student, with no ladder one's own, or the studio's.
func (h *Handlers) wayFor(ctx context.Context, ladder string, mine bool) (x whoseWay, err error) {
	who := open.Actor(ctx)
	if x.studio, err = h.Store.Studio(ctx, who.Studio); err != nil {
		return x, err
	}
	x.way, x.base = x.studio.Way, x.studio.Way
	switch {
	case ladder != "":
		l, err := h.Ladder(ctx, ladder)
		if err != nil {
			return x, err
		}
		if x.base, err = x.studio.WayOf(l.Teacher); err != nil {
			return x, err
		}
		sh, err := h.For(open.Studio{Tenant: x.studio}, l)
		x.way = sh.Way
		return x, err
	case mine:
		x.teacher = who.Teacher
		x.way, err = x.studio.WayOf(who.Teacher)
	}
	return x, err
}

// GetWay returns the way of teaching of the studio or of a student.
func (h *Handlers) GetWay(ctx context.Context, r contract.GetWayRequestObject) (contract.GetWayResponseObject, error) {
	x, err := h.wayFor(ctx, r.Params.Ladder, r.Params.Whose == contract.GetWayParamsWhoseMine)
	if err != nil {
		return nil, err
	}
	out := contract.WayView{Way: contractWay(x.way), Preset: x.way.PresetOf(), Version: x.studio.WayVersion, Differs: []string{}}
	out.Differs = append(out.Differs, x.way.Differs(x.base)...)
	for _, p := range way.Presets() {
		out.Presets = append(out.Presets, contract.WayPreset{Key: p.Key, Name: p.Name, Says: p.Says, Way: contractWay(p.Way)})
	}
	for _, b := range way.Bounds() {
		out.Bounds = append(out.Bounds, contract.WayBound{Switch: b.Switch, Least: b.Least, Most: b.Most})
	}
	return contract.GetWay200JSONResponse(out), nil
}

// SetWay sets the studio's way, or in what a student differs from it.
func (h *Handlers) SetWay(ctx context.Context, r contract.SetWayRequestObject) (contract.SetWayResponseObject, error) {
	x, err := h.wayFor(ctx, r.Params.Ladder, r.Params.Whose == contract.SetWayParamsWhoseMine)
	if err != nil {
		return nil, err
	}
	w := wayOf(*r.Body)
	if err := w.Check(); err != nil {
		return nil, refusal.Because(err)
	}
	switch {
	case x.teacher != "":
		return contract.SetWay204Response{}, h.Store.SetTeacherWays(ctx, x.studio.WithWay(x.teacher, w.Own(x.base)), r.Params.Version)
	case r.Params.Ladder == "":
		return contract.SetWay204Response{}, h.Store.SetWay(ctx, x.studio.ID, w, r.Params.Version)
	}
	approach := w.Approach
	if approach == x.base.Approach {
		approach = ""
	}
	w.Approach = x.base.Approach // kept by itself
	return contract.SetWay204Response{}, h.Store.SetLadderWay(ctx, x.studio.ID, r.Params.Ladder, w.Own(x.base), approach)
}

// TryWay says what another way would change, switch by switch and student by student.
func (h *Handlers) TryWay(ctx context.Context, r contract.TryWayRequestObject) (contract.TryWayResponseObject, error) {
	w := wayOf(*r.Body)
	if err := w.Check(); err != nil {
		return nil, refusal.Because(err)
	}
	x, err := h.wayFor(ctx, r.Params.Ladder, r.Params.Whose == contract.TryWayParamsWhoseMine)
	if err != nil {
		return nil, err
	}
	out := contract.WayChange{Switches: []contract.WaySwitch{}, Students: []contract.WayEffects{}}
	for _, c := range wording.Switches(x.way, w) {
		out.Switches = append(out.Switches, contract.WaySwitch{From: c.From, Key: c.Key, Means: c.Means, Name: c.Name, To: c.To})
	}
	effects, err := app.TryWay(ctx, h.Loader, r.Params.Ladder, func(s open.Studio, now open.Student) (open.Student, error) {
		if r.Params.Ladder != "" {
			return now.Under(w), nil
		}
		changed := s
		if changed.Tenant.Way = w; x.teacher != "" {
			changed.Tenant = s.Tenant.WithWay(x.teacher, w.Own(x.base))
		}
		then, err := h.For(changed, now.Row)
		then.Standing = now.Standing
		return then, err
	})
	if err != nil {
		return nil, err
	}
	for _, e := range effects {
		told := contract.WayEffects{Ladder: e.Student.Ladder, Name: e.Student.Name, Effects: []string{}}
		for _, c := range e.Changes {
			told.Effects = append(told.Effects, wording.WayChange(c))
		}
		out.Students = append(out.Students, told)
	}
	return contract.TryWay200JSONResponse(out), nil
}

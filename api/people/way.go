package people

import (
	"context"
	"time"

	"patientladder/api/contract"
	"patientladder/api/open"
	"patientladder/api/problem"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/studentplan"
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
		Dose: weekplan.Dose(w.Dose), DoseRow: w.DoseRow, HandShape: setup.School(w.HandShape), BenchLean: setup.Lean(w.BenchLean),
	}
}

func contractWay(w way.Way) contract.Way {
	return contract.Way{
		ReviewShare: w.ReviewShare, ReadingAfter: w.ReadingAfter, Approach: contract.WayApproach(w.Approach), FirstView: contract.WayFirstView(w.FirstView),
		FirstChunk: w.FirstChunk, Standard: contract.WayStandard(w.Standard), SecureAfter: w.SecureAfter, Comfortable: w.Comfortable,
		EaseAfterLeap: w.EaseAfterLeap, Bites: w.Bites, LookRungs: w.LookRungs, LookWeeks: w.LookWeeks, ReviewWeeks: w.ReviewWeeks,
		StuckLessons: w.StuckLessons, PolishWeeks: w.PolishWeeks, Sure: w.Sure, Rewards: w.Rewards,
		Dose: contract.WayDose(w.Dose), DoseRow: w.DoseRow, HandShape: contract.WayHandShape(w.HandShape), BenchLean: contract.WayBenchLean(w.BenchLean),
	}
}

// wayOfStudent is a student's way, or with no ladder the studio's, and the studio's.
func (h *Handlers) wayOfStudent(ctx context.Context, ladder string) (mine, studio way.Way, st store.Studio, err error) {
	if st, err = h.Store.Studio(ctx, open.Actor(ctx).Studio); err != nil {
		return mine, studio, st, err
	}
	studio = st.Way
	if ladder == "" {
		return studio, studio, st, nil
	}
	l, err := h.Ladder(ctx, ladder)
	if err != nil {
		return mine, studio, st, err
	}
	sh, err := h.For(open.Studio{Tenant: st}, l)
	return sh.Way, studio, st, err
}

// GetWay returns the way of teaching of the studio or of a student.
func (h *Handlers) GetWay(ctx context.Context, r contract.GetWayRequestObject) (contract.GetWayResponseObject, error) {
	mine, studio, st, err := h.wayOfStudent(ctx, r.Params.Ladder)
	if err != nil {
		return nil, err
	}
	out := contract.WayView{Way: contractWay(mine), Preset: mine.PresetOf(), Version: st.WayVersion, Differs: []string{}}
	out.Differs = append(out.Differs, mine.Differs(studio)...)
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
	_, studio, st, err := h.wayOfStudent(ctx, r.Params.Ladder)
	if err != nil {
		return nil, err
	}
	w := wayOf(*r.Body)
	if err := w.Check(); err != nil {
		return nil, problem.Because(err)
	}
	if r.Params.Ladder == "" {
		return contract.SetWay204Response{}, h.Store.SetWay(ctx, st.ID, w, r.Params.Version)
	}
	approach := w.Approach
	if approach == studio.Approach {
		approach = ""
	}
	w.Approach = studio.Approach // kept by itself
	return contract.SetWay204Response{}, h.Store.SetLadderWay(ctx, st.ID, r.Params.Ladder, w.Own(studio), approach)
}

// TryWay says what another way would change, switch by switch and student by student.
func (h *Handlers) TryWay(ctx context.Context, r contract.TryWayRequestObject) (contract.TryWayResponseObject, error) {
	w := wayOf(*r.Body)
	if err := w.Check(); err != nil {
		return nil, problem.Because(err)
	}
	mine, _, _, err := h.wayOfStudent(ctx, r.Params.Ladder)
	if err != nil {
		return nil, err
	}
	out := contract.WayChange{Switches: []contract.WaySwitch{}, Students: []contract.WayEffects{}}
	for _, c := range wording.Switches(mine, w) {
		out.Switches = append(out.Switches, contract.WaySwitch{From: c.From, Key: c.Key, Means: c.Means, Name: c.Name, To: c.To})
	}
	s, horizon, rungs, err := h.Whole(ctx)
	if err != nil {
		return nil, err
	}
	students, err := h.Students(ctx, s, "")
	if err != nil {
		return nil, err
	}
	for _, now := range students {
		if r.Params.Ladder != "" && now.Ladder != r.Params.Ladder {
			continue
		}
		then := now.Under(w)
		if r.Params.Ladder == "" {
			changed := s
			changed.Tenant.Way = w
			if then, err = h.For(changed, now.Row); err != nil {
				return nil, err
			}
			then.Standing = now.Standing
		}
		before, err := h.glance(ctx, now, horizon, rungs[now.Ladder])
		if err != nil {
			return nil, err
		}
		after, err := h.glance(ctx, then, horizon, rungs[now.Ladder])
		if err != nil {
			return nil, err
		}
		var effects []string
		for _, c := range studentplan.WayChanges(before, after) {
			effects = append(effects, wording.WayChange(c))
		}
		if len(effects) > 0 {
			out.Students = append(out.Students, contract.WayEffects{Effects: effects, Ladder: now.Ladder, Name: now.Name})
		}
	}
	return contract.TryWay200JSONResponse(out), nil
}

// glance looks at a student with the week that is practised now.
func (h *Handlers) glance(ctx context.Context, s open.Student, horizon open.Horizon, rungs []ladder.Placed) (studentplan.Glance, error) {
	a := s.Look(horizon, rungs, studentplan.Options{Near: true})
	w, err := h.Week(ctx, a, time.Time{})
	return studentplan.Glance{Ahead: &a.Ahead, Week: w.Week}, err
}

package open

import (
	"context"
	"encoding/json"
	"errors"
	"time"

	"patientladder/core/planning/brief"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
	"patientladder/store"
)

// Briefed is a student of a studio with what its pages need.
type Briefed struct {
	brief.Brief
	Row store.Ladder
}

// Briefs opens what the pages of the whole studio need of some students, as it was kept or computed anew, side by side.
func (d *Loader) Briefs(ctx context.Context, s Studio, h Horizon, ladders []store.Ladder) ([]Briefed, error) {
	kept, err := d.Store.Briefs(ctx, s.Tenant.ID)
	if err != nil {
		return nil, err
	}
	weeks, err := d.Store.WeekVersions(ctx, s.Tenant.ID, s.Today.AddDate(0, 0, -week.MostDays-1))
	if err != nil {
		return nil, err
	}
	out := make([]Briefed, len(ladders))
	errs := make([]error, len(ladders))
	each(ctx, len(ladders), func(i int) {
		l := ladders[i]
		out[i].Row = l
		x, err := d.For(s, l)
		if err != nil {
			errs[i] = err
			return
		}
		key := x.briefKey(h, weeks[l.ID]).String()
		if k := kept[l.ID]; k.Key == key && json.Unmarshal(k.Body, &out[i].Brief) == nil {
			return
		}
		out[i].Brief, errs[i] = d.brief(ctx, s, h, l, key)
	})
	return out, errors.Join(errs...)
}

// briefKey names everything that a brief comes from: the program itself, the standing, the order of the
// rungs, the student with the practice settings and the way, what the studio shares, and the weeks as they were set by hand.
func (s Student) briefKey(h Horizon, weeks map[time.Time]int64) Key {
	return keyOf(s.Tenant.ID, keptBrief, s.desk.program, s.standingKey(), s.Row.RungsVersion, s.Profile, s.policyKey(), h.key, weeks)
}

// brief computes it anew, and keeps it.
func (d *Loader) brief(ctx context.Context, s Studio, h Horizon, l store.Ladder, key string) (brief.Brief, error) {
	x, err := d.Open(ctx, s, l)
	if err != nil {
		return brief.Brief{}, err
	}
	placed, err := d.Store.Rungs(ctx, s.Tenant.ID, l.ID)
	if err != nil {
		return brief.Brief{}, err
	}
	a := x.Look(h, placed, studentplan.Options{Near: true})
	w, err := d.Week(ctx, a, time.Time{})
	if err != nil {
		return brief.Brief{}, err
	}
	out := brief.Of(&a.StudentOutlook, w.Week)
	body, err := json.Marshal(out)
	if err != nil {
		return out, err
	}
	return out, d.Store.SaveBrief(ctx, s.Tenant.ID, l.ID, store.Kept{Key: key, Body: body})
}

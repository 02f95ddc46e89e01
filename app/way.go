package app

import (
	"context"
	"slices"

	"patientladder/app/open"
	"patientladder/core/planning/inweek"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
	"patientladder/core/planning/whatif"
	"patientladder/store"
)

// Under returns a student as another way of teaching would have it.
type Under func(s open.Studio, now open.Student) (open.Student, error)

// WayEffect is what another way would change for one student.
type WayEffect struct {
	Student open.Student
	Changes []whatif.WayChange
}

// TryWay says what another way of teaching would change, student by student; of one ladder alone where it is named. What was set
// by hand and what home showed are the same under both ways, and opened once.
func TryWay(ctx context.Context, d *open.Loader, only string, under Under) ([]WayEffect, error) {
	s, horizon, rungs, err := d.Whole(ctx)
	if err != nil {
		return nil, err
	}
	students, err := d.Students(ctx, s, "")
	if err != nil {
		return nil, err
	}
	hands, err := d.Store.StudioHands(ctx, s.Tenant.ID, week.Reaching(s.Today, week.Days))
	if err != nil {
		return nil, err
	}
	var out []WayEffect
	for _, now := range students {
		if only != "" && now.Ladder != only {
			continue
		}
		then, err := under(s, now)
		if err != nil {
			return nil, err
		}
		kept := store.PracticeWeek{Ladder: now.Ladder, Start: now.WeekStart(now.Today)}
		if i := slices.IndexFunc(hands[now.Ladder], func(w store.PracticeWeek) bool { return w.Start.Equal(kept.Start) }); i >= 0 {
			kept = hands[now.Ladder][i]
		}
		before, err := d.Before(ctx, now, now.Standing.Home, kept.Start)
		if err != nil {
			return nil, err
		}
		was, err := glance(ctx, d, now.Look(horizon, rungs[now.Ladder], studentplan.Options{Near: true}), kept, before)
		if err != nil {
			return nil, err
		}
		would, err := glance(ctx, d, then.Look(horizon, rungs[now.Ladder], studentplan.Options{Near: true}), kept, before)
		if err != nil {
			return nil, err
		}
		if changes := whatif.WayChanges(was, would); len(changes) > 0 {
			out = append(out, WayEffect{now, changes})
		}
	}
	return out, nil
}

// glance looks at a student with the week that is practised now.
func glance(ctx context.Context, d *open.Loader, a open.Ahead, kept store.PracticeWeek, before inweek.Before) (whatif.Glance, error) {
	w, err := d.Lay(ctx, a, kept, before)
	return whatif.Glance{StudentOutlook: &a.StudentOutlook, Week: w.Week}, err
}

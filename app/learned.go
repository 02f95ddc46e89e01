package app

import (
	"context"
	"slices"

	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/planning/learning"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/memory"
	"patientladder/core/student/studentlog"
	"patientladder/core/wording"
)

// Learned is what the lessons of a studio teach.
type Learned struct {
	open.Studio
	Students []studentplan.StudentOutlook
	Used     learning.Used
	Skills   learning.Skills
	Fade     learning.Fade
	Heard    [][]learning.Heard
}

// Offer is what could be used of it.
func (l Learned) Offer() learning.Used { return learning.Offer(l.Skills, l.Fade, l.Today) }

// Learn learns from all that was entered.
func Learn(ctx context.Context, d *open.Loader) (Learned, error) {
	s, horizon, rungs, err := d.Whole(ctx)
	if err != nil {
		return Learned{}, err
	}
	out := Learned{Studio: s}
	if out.Used, err = d.Store.Learned(ctx, s.Tenant.ID); err != nil {
		return out, err
	}
	opened, err := d.Students(ctx, s, "")
	if err != nil {
		return out, err
	}
	var cleared []learning.Cleared
	for _, x := range opened {
		log, err := d.Log(ctx, x)
		if err != nil {
			return out, err
		}
		cleared = append(cleared, learning.ClearedBy(x.Student, out.Used)...)
		out.Heard = append(out.Heard, learning.HeardBy(x.Student, studentlog.Live(log))...)
		out.Students = append(out.Students, x.Look(horizon, rungs[x.Ladder], studentplan.Options{Near: true}).StudentOutlook)
	}
	slices.SortStableFunc(cleared, func(a, b learning.Cleared) int { return a.Day.Compare(b.Day) })
	out.Skills, out.Fade = learning.Learn(cleared), learning.LearnFade(out.Heard, memory.DefaultParams())
	return out, nil
}

// UseLearned uses what was learned from now on, or leaves it off.
func UseLearned(ctx context.Context, d *open.Loader, on bool) (Learned, error) {
	l, err := Learn(ctx, d)
	if err != nil {
		return l, err
	}
	use := learning.Used{}
	if on {
		if use = l.Offer(); !use.Any() {
			return l, refusal.Invalid(wording.NothingToUse)
		}
	}
	err = d.Store.Together(ctx, func(ctx context.Context) error {
		if err := d.Store.UseLearned(ctx, l.Tenant.ID, use); err != nil {
			return err
		}
		l, err = Learn(ctx, d)
		return err
	})
	return l, err
}

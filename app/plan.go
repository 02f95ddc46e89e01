package app

import (
	"context"
	"errors"
	"fmt"
	"time"

	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/planning/inlesson"
	"patientladder/core/planning/lessonplan"
	"patientladder/core/planning/studentplan"
	"patientladder/core/wording"
	"patientladder/store"
)

// Planned is a lesson with everything that its plan is made from.
type Planned struct {
	open.Ahead
	Kept   store.LessonPlan
	Lesson inlesson.Lesson
}

// inLesson is what the outlook of a lesson needs.
var inLesson = studentplan.Options{Near: true, InLesson: true}

// PlanOf opens the plan of a student's lesson on a day, by default the next one.
func PlanOf(ctx context.Context, d *open.Loader, a open.Ahead, day time.Time) (Planned, error) {
	if day.IsZero() {
		day = a.Lessons.Day(0)
	}
	kept, before, err := d.Store.LessonPlans(ctx, a.Tenant.ID, a.Ladder, day)
	if err != nil {
		return Planned{}, err
	}
	var waited []string
	if before != nil {
		for _, l := range before.Plan.Left {
			waited = append(waited, l.ID)
		}
	}
	home, err := d.Before(ctx, a.Opened, a.Standing.Home, day)
	return Planned{Ahead: a, Kept: kept, Lesson: inlesson.Of(&a.StudentOutlook, day, waited, home.Shown)}, err
}

// PlanOn opens a ladder at the plan of one of its lessons.
func PlanOn(ctx context.Context, d *open.Loader, ladder string, day time.Time) (Planned, error) {
	a, err := d.Ahead(ctx, ladder, inLesson)
	if err != nil {
		return Planned{}, err
	}
	return PlanOf(ctx, d, a, day)
}

// Live is the plan that holds.
func (p Planned) Live() (inlesson.LivePlan, error) {
	out, err := p.Lesson.Live(inlesson.KeptPlan{Kept: p.Kept.Version > 0, Plan: p.Kept.Plan, Hand: p.Kept.Hand}, p.Today)
	return out, p.said(err)
}

// said says why a plan cannot be made.
func (p Planned) said(err error) error {
	var pin lessonplan.PinError
	switch {
	case errors.As(err, &pin):
		return refusal.Invalid(p.Of().Names().Pin(pin))
	case err != nil:
		return refusal.Because(err)
	}
	return nil
}

// SetPlan solves the plan of a lesson again with what was set by hand, and keeps it; version is that of the plan that was seen.
func SetPlan(ctx context.Context, d *open.Loader, ladder string, day time.Time, h lessonplan.Hand, version int64) (Planned, error) {
	p, err := PlanOn(ctx, d, ladder, day)
	if err != nil {
		return p, err
	}
	switch {
	case p.Lesson.Day.Before(p.Today):
		return p, refusal.Invalid("That lesson is over: its plan stays as it was.")
	case p.Kept.Plan.Begun:
		return p, refusal.Invalid("The lesson has begun: its plan stays as it is.")
	}
	p.Kept.Hand, p.Kept.Version = h, version
	if p.Kept.Plan, err = p.Lesson.Plan(h); err != nil {
		return p, p.said(err)
	}
	if err := d.Store.SaveLessonPlan(ctx, p.Tenant.ID, p.Kept); err != nil {
		return p, err
	}
	p.Kept.Version++
	return p, nil
}

// begin lets the plan of today's lesson stay as it is: the lesson has begun.
func begin(ctx context.Context, d *open.Loader, s open.Student) error {
	if !s.HasLesson(s.Today) {
		return nil
	}
	p, err := PlanOn(ctx, d, s.Ladder, s.Today)
	if err != nil || p.Kept.Plan.Begun {
		return err
	}
	live, err := p.Live()
	if err != nil {
		return err
	}
	p.Kept.Plan, p.Kept.Hand = live.Plan, live.Hand
	p.Kept.Plan.Begun = true
	if err := d.Store.SaveLessonPlan(ctx, s.Tenant.ID, p.Kept); !errors.Is(err, store.ErrConflict) {
		return err
	}
	return nil // somebody else began it at the same moment
}

// DayPlan is the plan of one lesson of a day.
type DayPlan struct {
	Student open.Student
	Plan    lessonplan.Plan
}

// PlanDay plans every lesson of a day, by default today, and keeps the plans of those that had none yet. Full counts those in which
// something has to wait.
func PlanDay(ctx context.Context, d *open.Loader, day time.Time) (s open.Studio, plans []DayPlan, full int, err error) {
	s, horizon, rungs, err := d.Whole(ctx)
	if err != nil {
		return s, nil, 0, err
	}
	if day.IsZero() {
		day = s.Today
	}
	if day.Before(s.Today) {
		return s, nil, 0, refusal.Invalid(fmt.Sprintf("%s is over: plan a day that is still to come.", wording.Day(day)))
	}
	students, err := d.Students(ctx, s, "")
	if err != nil {
		return s, nil, 0, err
	}
	var fresh []store.LessonPlan
	for _, x := range students {
		if !x.HasLesson(day) {
			continue
		}
		p, err := PlanOf(ctx, d, x.Look(horizon, rungs[x.Ladder], inLesson), day)
		if err != nil {
			return s, nil, 0, err
		}
		live, err := p.Live()
		if err != nil {
			return s, nil, 0, err
		}
		if p.Kept.Version == 0 {
			p.Kept.Plan = live.Plan
			fresh = append(fresh, p.Kept)
		}
		if len(live.Plan.Waiting()) > 0 {
			full++
		}
		plans = append(plans, DayPlan{x, live.Plan})
	}
	return s, plans, full, d.Store.SaveLessonPlans(ctx, s.Tenant.ID, fresh)
}

package store

import (
	"context"
	"fmt"
	"time"

	"patientladder/core/planning/lessonplan"
	"patientladder/store/document"
	"patientladder/store/rows"
)

// LessonPlan is the plan of one lesson as it was kept.
type LessonPlan struct {
	Ladder string
	Day    time.Time
	Hand   lessonplan.Hand
	Plan   lessonplan.Plan
	// Version guards it against a stale form; 0 for one that was never kept.
	Version int64
}

// LessonPlans returns the plan kept for a day (with version 0 when there is
// none) and the last one before it (nil when there is none).
func (s *Store) LessonPlans(ctx context.Context, studio, ladderID string, day time.Time) (here LessonPlan, before *LessonPlan, err error) {
	list, err := s.q(ctx).LessonPlans(ctx, rows.LessonPlansParams{StudioID: studio, LadderID: ladderID, Day: day})
	here = LessonPlan{Ladder: ladderID, Day: day}
	for _, r := range list {
		p, err := planOf(r)
		if err != nil {
			return here, nil, err
		}
		if p.Day.Equal(day) {
			here = p
		} else if before == nil {
			before = &p
		}
	}
	return here, before, err
}

// DayPlans returns the plans kept for a day, by ladder.
func (s *Store) DayPlans(ctx context.Context, studio string, day time.Time) (map[string]LessonPlan, error) {
	list, err := s.q(ctx).DayPlans(ctx, rows.DayPlansParams{StudioID: studio, Day: day})
	out := map[string]LessonPlan{}
	for _, r := range list {
		if out[r.LadderID], err = planOf(r); err != nil {
			return nil, err
		}
	}
	return out, err
}

// SaveLessonPlans keeps some plans, all or none.
func (s *Store) SaveLessonPlans(ctx context.Context, studio string, list []LessonPlan) error {
	return s.Together(ctx, func(ctx context.Context) error {
		for _, p := range list {
			if err := s.SaveLessonPlan(ctx, studio, p); err != nil {
				return err
			}
		}
		return nil
	})
}

// SaveLessonPlan keeps a plan. Its version is the one that it was made from, 0
// for a new one; a stale one is ErrConflict.
func (s *Store) SaveLessonPlan(ctx context.Context, studio string, p LessonPlan) error {
	hand, err := document.EncodePlanHand(p.Hand)
	if err != nil {
		return err
	}
	body, err := document.EncodePlan(p.Plan)
	if err != nil {
		return err
	}
	if p.Version == 0 {
		return explain(
			s.q(ctx).
				AddLessonPlan(ctx, rows.AddLessonPlanParams{StudioID: studio, LadderID: p.Ladder, Day: p.Day, Hand: string(hand), Body: string(body)}),
		)
	}
	n, err := s.q(ctx).
		ChangeLessonPlan(ctx, rows.ChangeLessonPlanParams{Hand: string(hand), Body: string(body), StudioID: studio, LadderID: p.Ladder, Day: p.Day, Version: p.Version})
	if err == nil && n == 0 {
		return ErrConflict
	}
	return explain(err)
}

func planOf(r rows.LessonPlan) (LessonPlan, error) {
	p := LessonPlan{Ladder: r.LadderID, Day: r.Day, Version: r.Version}
	var err error
	if p.Hand, err = document.DecodePlanHand([]byte(r.Hand)); err == nil {
		p.Plan, err = document.DecodePlan([]byte(r.Body))
	}
	if err != nil {
		return p, fmt.Errorf("the plan of ladder %s for %s cannot be read: %w", r.LadderID, r.Day.Format(time.DateOnly), err)
	}
	return p, nil
}

package lesson

import (
	"context"
	"errors"
	"fmt"
	"time"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/api/open"
	"patientladder/api/problem"
	"patientladder/core/planning/inlesson"
	"patientladder/core/planning/lessonplan"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/standing"
	"patientladder/core/wording"
	"patientladder/store"
)

// planned is a lesson with everything that its plan is made from.
type planned struct {
	open.Ahead
	kept   store.LessonPlan
	lesson inlesson.Lesson
}

// planned opens the plan of a student's lesson on a day: by default the next one.
func (h *Handlers) planned(ctx context.Context, a open.Ahead, day time.Time) (planned, error) {
	if day.IsZero() {
		day = a.Lessons.Day(0)
	}
	kept, before, err := h.Store.LessonPlans(ctx, a.Tenant.ID, a.Ladder, day)
	if err != nil {
		return planned{}, err
	}
	var waited []string
	if before != nil {
		for _, l := range before.Plan.Left {
			waited = append(waited, l.ID)
		}
	}
	home, err := h.Before(ctx, a.Opened, a.Standing.Home, day)
	return planned{Ahead: a, kept: kept, lesson: inlesson.Of(&a.StudentOutlook, day, waited, home.Shown)}, err
}

// live is the plan that holds.
func (p planned) live() (inlesson.LivePlan, error) {
	out, err := p.lesson.Live(inlesson.KeptPlan{Kept: p.kept.Version > 0, Plan: p.kept.Plan, Hand: p.kept.Hand}, p.Today)
	return out, p.said(err)
}

// said says why a plan cannot be made.
func (p planned) said(err error) error {
	var pin lessonplan.PinError
	switch {
	case errors.As(err, &pin):
		return problem.Invalid(p.Of().Names().Pin(pin))
	case err != nil:
		return problem.Because(err)
	}
	return nil
}

// planOf opens a ladder at the plan of one of its lessons.
func (h *Handlers) planOf(ctx context.Context, id string, day time.Time) (planned, error) {
	a, err := h.Ahead(ctx, id, studentplan.Options{Near: true, InLesson: true})
	if err != nil {
		return planned{}, err
	}
	return h.planned(ctx, a, day)
}

// GetPlan returns the plan of a lesson.
func (h *Handlers) GetPlan(ctx context.Context, r contract.GetPlanRequestObject) (contract.GetPlanResponseObject, error) {
	p, err := h.planOf(ctx, r.Ladder, r.Params.Day.Time)
	if err != nil {
		return nil, err
	}
	live, err := p.live()
	if err != nil {
		return nil, err
	}
	out, err := h.planOut(ctx, p, live)
	return contract.GetPlan200JSONResponse(out), err
}

// SetPlan solves a plan again with what was set by hand, and keeps it.
func (h *Handlers) SetPlan(ctx context.Context, r contract.SetPlanRequestObject) (contract.SetPlanResponseObject, error) {
	p, err := h.planOf(ctx, r.Ladder, r.Params.Day.Time)
	if err != nil {
		return nil, err
	}
	if p.lesson.Day.Before(p.Today) {
		return nil, problem.Invalid("That lesson is over: its plan stays as it was.")
	}
	p.kept.Hand = lessonplan.Hand{Minutes: r.Body.Minutes, Drops: r.Body.Drops, Order: r.Body.Order, Pins: map[string]int{}}
	for _, pin := range r.Body.Pins {
		p.kept.Hand.Pins[pin.Segment] = pin.Minutes
	}
	if p.kept.Plan.Begun {
		return nil, problem.Invalid("The lesson has begun: its plan stays as it is.")
	}
	if p.kept.Plan, err = p.lesson.Plan(p.kept.Hand); err != nil {
		return nil, p.said(err)
	}
	out, err := store.Whole(ctx, h.Store, func(ctx context.Context) (contract.LessonPlan, error) {
		p.kept.Version = r.Body.Version
		if err := h.Store.SaveLessonPlan(ctx, p.Tenant.ID, p.kept); err != nil {
			return contract.LessonPlan{}, err
		}
		p.kept.Version++
		return h.planOut(ctx, p, inlesson.LivePlan{Plan: p.kept.Plan, Hand: p.kept.Hand})
	})
	return contract.SetPlan200JSONResponse(out), err
}

// begin lets the plan of today's lesson stay as it is: the lesson has begun.
func (h *Handlers) begin(ctx context.Context, s open.Student) error {
	if !s.HasLesson(s.Today) {
		return nil
	}
	p, err := h.planOf(ctx, s.Ladder, s.Today)
	if err != nil || p.kept.Plan.Begun {
		return err
	}
	live, err := p.live()
	if err != nil {
		return err
	}
	p.kept.Plan, p.kept.Hand = live.Plan, live.Hand
	p.kept.Plan.Begun = true
	if err := h.Store.SaveLessonPlan(ctx, s.Tenant.ID, p.kept); !errors.Is(err, store.ErrConflict) {
		return err
	}
	return nil // somebody else began it at the same moment
}

// PlanDay plans every lesson of a day that has no plan yet.
func (h *Handlers) PlanDay(ctx context.Context, r contract.PlanDayRequestObject) (contract.PlanDayResponseObject, error) {
	s, horizon, rungs, err := h.Whole(ctx)
	if err != nil {
		return nil, err
	}
	day := r.Params.Day.Time
	if day.IsZero() {
		day = s.Today
	}
	if day.Before(s.Today) {
		return nil, problem.Invalid(fmt.Sprintf("%s is over: plan a day that is still to come.", wording.Day(day)))
	}
	students, err := h.Students(ctx, s, "")
	if err != nil {
		return nil, err
	}
	out := contract.DayPlanned{Lessons: []contract.LessonPlanned{}}
	full := 0
	var fresh []store.LessonPlan
	for _, x := range students {
		if !x.HasLesson(day) {
			continue
		}
		p, err := h.planned(ctx, x.Look(horizon, rungs[x.Ladder], studentplan.Options{Near: true, InLesson: true}), day)
		if err != nil {
			return nil, err
		}
		live, err := p.live()
		if err != nil {
			return nil, err
		}
		plan := live.Plan
		if p.kept.Version == 0 {
			p.kept.Plan = plan
			fresh = append(fresh, p.kept)
		}
		if len(plan.Waiting()) > 0 {
			full++
		}
		out.Lessons = append(out.Lessons, contract.LessonPlanned{Ladder: x.Ladder, Name: x.Name, Sentence: s.Names().Plan(plan)})
	}
	out.Sentence = wording.DayPlanned(len(out.Lessons), full)
	return contract.PlanDay200JSONResponse(out), h.Store.SaveLessonPlans(ctx, s.Tenant.ID, fresh)
}

// planOut is a plan as the contract has it.
func (h *Handlers) planOut(ctx context.Context, p planned, live inlesson.LivePlan) (contract.LessonPlan, error) {
	n := p.Of().Names()
	plan, by := live.Plan, live.Hand
	out := contract.LessonPlan{
		Student: answer.Student(p.Row, p.Today), Day: answer.Date(p.lesson.Day), Sentence: n.Plan(plan), Minutes: plan.Minutes,
		UsualMinutes: p.LessonMinutes(p.lesson.Day),
		Segments:     []contract.PlanSegment{}, Waits: n.LeftForNextWeek(plan), Free: plan.Free, Review: plan.Review, Aim: plan.Aim,
		Kept:  p.kept.Version > 0,
		Begun: plan.Begun, Changed: n.PlanChanges(live.Changes),
		Hand: contract.PlanByHand{
			Version: p.kept.Version,
			Minutes: by.Minutes,
			Drops:   append([]string{}, by.Drops...),
			Order:   append([]string{}, by.Order...),
			Pins:    []contract.PlanPin{},
		},
	}
	if p.lesson.KeyPostponed(plan) {
		out.Note = n.KeyPostponed(p.lesson)
	}
	for id, minutes := range by.Pins {
		out.Hand.Pins = append(out.Hand.Pins, contract.PlanPin{Segment: id, Minutes: minutes})
	}
	for _, c := range plan.Segments {
		segment := segmentOut(n, c.Segment)
		segment.Minutes, segment.Pinned = c.Minutes, c.Pinned
		if place, due := inlesson.Climbed(p.Ahead.StudentOutlook.Student, c.Segment); due {
			segment.Activity = answer.Activity(place.Activity, place.Level, place.Steps, place.Today)
		}
		if c.Kind.IsPlayed() {
			questions, err := h.questions(ctx, p.Opened, c.Material)
			if err != nil {
				return out, err
			}
			segment.Questions = questions
		}
		out.Segments = append(out.Segments, segment)
	}
	left := func(list []lessonplan.Left) []contract.PlanSegment {
		segments := make([]contract.PlanSegment, len(list))
		for i, l := range list {
			segments[i] = segmentOut(n, l.Segment)
			segments[i].Reason = wording.Waiting(l.Reason)
		}
		return segments
	}
	out.Left, out.Others = left(plan.Waiting()), left(plan.Others())
	return out, nil
}

func segmentOut(n wording.Names, s lessonplan.Segment) contract.PlanSegment {
	said := n.Segment(s)
	return contract.PlanSegment{
		Id: s.ID, Kind: contract.PlanSegmentKind(s.Kind), Layer: contract.PlanSegmentLayer(s.Layer), Material: s.Material, Title: said.Title,
		Words: said.Words, Questions: []contract.PlanQuestion{}, Least: s.Least, Usual: s.Usual, Most: s.Most, New: s.New, Why: said.Why,
		Exercise: s.Exercise, Fault: s.Fault,
	}
}

// questions are those to ask before a piece is played; none without a score.
func (h *Handlers) questions(ctx context.Context, s open.Student, id string) ([]contract.PlanQuestion, error) {
	out := []contract.PlanQuestion{}
	m, known := s.Library[id]
	if !known {
		return out, nil // taken out of the library since it was planned
	}
	o, err := h.Read(ctx, s.Tenant, m)
	if err != nil || o == nil {
		return out, err
	}
	var fresh []string
	for _, skill := range s.NewSkills(id) {
		fresh = append(fresh, s.Skills.Name(skill))
	}
	stage := lessonplan.Stage{
		Age:     s.Age(s.Today),
		BySound: s.BySound(),
		Cleared: len(s.Standing.In(standing.Cleared, standing.Polished)),
		Fresh:   fresh,
	}
	for _, q := range lessonplan.Ask(o.Piece, m, s.Words.Note, stage) {
		out = append(out, contract.PlanQuestion{Ask: q.Ask, Answer: q.Answer})
	}
	return out, nil
}

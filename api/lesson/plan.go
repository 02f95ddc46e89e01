package lesson

import (
	"context"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/app"
	"patientladder/app/open"
	"patientladder/core/planning/inlesson"
	"patientladder/core/planning/lessonplan"
	"patientladder/core/student/standing"
	"patientladder/core/wording"
	"patientladder/store"
)

// GetPlan returns the plan of a lesson.
func (h *Handlers) GetPlan(ctx context.Context, r contract.GetPlanRequestObject) (contract.GetPlanResponseObject, error) {
	p, err := app.PlanOn(ctx, h.Loader, r.Ladder, r.Params.Day.Time)
	if err != nil {
		return nil, err
	}
	live, err := p.Live()
	if err != nil {
		return nil, err
	}
	out, err := h.planOut(ctx, p, live)
	return contract.GetPlan200JSONResponse(out), err
}

// SetPlan solves a plan again with what was set by hand, and keeps it.
func (h *Handlers) SetPlan(ctx context.Context, r contract.SetPlanRequestObject) (contract.SetPlanResponseObject, error) {
	by := lessonplan.Hand{Minutes: r.Body.Minutes, Drops: r.Body.Drops, Order: r.Body.Order, Pins: map[string]int{}}
	for _, pin := range r.Body.Pins {
		by.Pins[pin.Segment] = pin.Minutes
	}
	out, err := store.Whole(ctx, h.Store, func(ctx context.Context) (contract.LessonPlan, error) {
		p, err := app.SetPlan(ctx, h.Loader, r.Ladder, r.Params.Day.Time, by, r.Body.Version)
		if err != nil {
			return contract.LessonPlan{}, err
		}
		return h.planOut(ctx, p, inlesson.LivePlan{Plan: p.Kept.Plan, Hand: p.Kept.Hand})
	})
	return contract.SetPlan200JSONResponse(out), err
}

// PlanDay plans every lesson of a day that has no plan yet.
func (h *Handlers) PlanDay(ctx context.Context, r contract.PlanDayRequestObject) (contract.PlanDayResponseObject, error) {
	s, plans, full, err := app.PlanDay(ctx, h.Loader, r.Params.Day.Time)
	if err != nil {
		return nil, err
	}
	out := contract.DayPlanned{Lessons: []contract.LessonPlanned{}, Sentence: wording.DayPlanned(len(plans), full)}
	for _, p := range plans {
		out.Lessons = append(
			out.Lessons,
			contract.LessonPlanned{Ladder: p.Student.Ladder, Name: p.Student.Name, Sentence: s.Names().Plan(p.Plan)},
		)
	}
	return contract.PlanDay200JSONResponse(out), nil
}

// planOut is a plan as the contract has it.
func (h *Handlers) planOut(ctx context.Context, p app.Planned, live inlesson.LivePlan) (contract.LessonPlan, error) {
	n := p.Of().Names()
	plan, by := live.Plan, live.Hand
	out := contract.LessonPlan{
		Student: answer.Student(p.Row, p.Today), Day: answer.Date(p.Lesson.Day), Sentence: n.Plan(plan), Minutes: plan.Minutes,
		UsualMinutes: p.LessonMinutes(p.Lesson.Day),
		Segments:     []contract.PlanSegment{}, Waits: n.LeftForNextWeek(plan), Free: plan.Free, Review: plan.Review, Aim: plan.Aim,
		Kept:  p.Kept.Version > 0,
		Begun: plan.Begun, Changed: n.PlanChanges(live.Changes),
		Hand: contract.PlanByHand{
			Version: p.Kept.Version,
			Minutes: by.Minutes,
			Drops:   append([]string{}, by.Drops...),
			Order:   append([]string{}, by.Order...),
			Pins:    []contract.PlanPin{},
		},
	}
	if p.Lesson.KeyPostponed(plan) {
		out.Note = n.KeyPostponed(p.Lesson)
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

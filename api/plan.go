package api

import (
	"context"
	"fmt"
	"strings"
	"time"

	"patientladder/api/contract"
	"patientladder/core/library/material"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/lessonplan"
	"patientladder/core/planning/next"
	"patientladder/core/planning/review"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
	"patientladder/store"
)

// beginnerPieces is for how many cleared pieces posture is looked at in every lesson (default).
const beginnerPieces = 12

// planning is a lesson with everything that its plan is made from.
type planning struct {
	ahead
	day        time.Time
	kept       store.LessonPlan
	candidates []lessonplan.Segment
	limits     lessonplan.Limits
}

// planning opens the plan of a student's lesson on a day: by default the next one.
func (s *Server) planning(ctx context.Context, a ahead, day time.Time) (planning, error) {
	p := planning{ahead: a, day: day}
	if day.IsZero() {
		p.day = a.lessons.Day(0)
	}
	var before *store.LessonPlan
	var err error
	if p.kept, before, err = s.store.LessonPlans(ctx, a.studio.ID, a.ladder.ID, p.day); err != nil {
		return p, err
	}
	age := a.ladder.Age(p.day)
	p.limits = lessonplan.LimitsFor(age, a.ladder.Minutes, a.way.ReviewShare)
	in := lessonplan.Input{
		Age: age, Instrument: a.ladder.Instrument, Gap: a.gap(p.day), Used: a.standing.Activities, Waited: map[string]bool{},
		SetupDue: a.setupDue(),
		Beginner: len(a.standing.In(standing.Cleared, standing.Polished)) < beginnerPieces,
	}
	if before != nil {
		for _, l := range before.Plan.Left {
			in.Waited[l.ID] = true
		}
	}
	signs := map[string]bool{}
	for _, sign := range a.signs(a.today) {
		if sign.Kind == "stuck" {
			signs[sign.Material] = true
		}
	}
	for _, id := range a.in(standing.Working) {
		in.Pieces = append(in.Pieces, a.pieceInPlan(id, signs[id]))
	}
	for _, b := range a.bites() {
		bite := lessonplan.Bite{Skill: b.Skill, Name: b.Name, Text: b.Text, For: b.For}
		for _, o := range a.Plan.Outcomes {
			if o.Skill == b.Skill {
				bite.Slack = o.Slack
			}
		}
		in.Bites = append(in.Bites, bite)
	}
	in.Fresh = a.fresh()
	for _, c := range a.heardInLesson() {
		in.Reviews = append(in.Reviews, lessonplan.Learned{Chosen: c, Title: a.lib[c.ID].Title})
	}
	p.candidates = lessonplan.Candidates(in)
	return p, nil
}

// gap is the number of days from a lesson to the one after it.
func (a ahead) gap(day time.Time) int {
	for n := 0; ; n++ {
		if next := a.lessons.Day(n); next.After(day) {
			return int(next.Sub(day).Hours() / 24)
		}
	}
}

func (a ahead) pieceInPlan(id string, stuck bool) lessonplan.Piece {
	m, ms := a.lib[id], a.standing.Materials[id]
	p := lessonplan.Piece{Material: m, RunDue: ms.RunDue, Stuck: stuck, Full: ms.Full, Points: ms.Points}
	for _, f := range m.FocusPoints {
		if ms.Marks[f.ID] != studentlog.Full {
			p.Focus = append(p.Focus, f.Text)
		}
	}
	for _, f := range a.standing.Travelling() {
		if ms.Marks[f.ID] != studentlog.Full {
			p.Focus = append(p.Focus, f.Text)
		}
	}
	for _, spot := range ms.Spots {
		if !spot.Mended {
			p.Spots++
		}
	}
	return p
}

// fresh are the rungs that are proposed on the strands where nothing is in work.
func (a ahead) fresh() []lessonplan.Fresh {
	var out []lessonplan.Fresh
	for _, rail := range a.View.Rails {
		idle := true
		in := next.Input{Ability: a.standing.Ability, Policy: a.policy.Leap, Reach: a.View.Reach, Skills: a.skills, Last: a.standing.Leaps(a.lib, rail.Strand), Straight: !a.way.EaseAfterLeap}
		for _, r := range rail.Rungs {
			switch {
			case r.Aside != "":
			case r.Layer == ladder.Now:
				idle = false
			case r.Layer != ladder.Review:
				in.Candidates = append(in.Candidates, r.Material)
			}
		}
		if !idle || rail.Strand == material.Repertoire || len(a.notYetReading(rail.Strand)) > 0 {
			continue // repertoire is taken up by choice, not because a strand is idle
		}
		if p := next.Propose(in); p.Chosen != nil {
			out = append(out, lessonplan.Fresh{Material: p.Chosen.Material, Leap: p.Chosen.Leap.Size, Why: "nothing is in work on this strand. " + p.Reasons[0]})
		}
	}
	return out
}

// heardInLesson are the learned pieces that a lesson could hear, as the week
// would pick them for its minutes of review.
func (a ahead) heardInLesson() []review.Chosen {
	room := a.way.ReviewShare*float64(a.ladder.Minutes) + lessonplan.ReviewPlay
	return a.Review(a.learned(), 2*room, a.way.Review(), a.policy.Memory)
}

// solve makes the plan with what was set by hand.
func (p planning) solve(h lessonplan.Hand) (lessonplan.Plan, error) {
	out, err := lessonplan.Make(p.candidates, p.limits, h)
	if err != nil {
		return out, invalid(capital(err.Error()) + ".")
	}
	return out, nil
}

// planOf opens a ladder at the plan of one of its lessons.
func (s *Server) planOf(ctx context.Context, id string, day time.Time) (planning, error) {
	a, err := s.ahead(ctx, id, lens{near: true, lesson: true})
	if err != nil {
		return planning{}, err
	}
	return s.planning(ctx, a, day)
}

// GetPlan returns the plan of a lesson.
func (s *Server) GetPlan(ctx context.Context, r contract.GetPlanRequestObject) (contract.GetPlanResponseObject, error) {
	p, err := s.planOf(ctx, r.Ladder, r.Params.Day.Time)
	if err != nil {
		return nil, err
	}
	plan := p.kept.Plan
	if p.kept.Version == 0 {
		if plan, err = p.solve(lessonplan.Hand{}); err != nil {
			return nil, err
		}
	}
	out, err := s.lessonPlan(ctx, p, plan)
	return contract.GetPlan200JSONResponse(out), err
}

// SetPlan solves a plan again with what was set by hand, and keeps it.
func (s *Server) SetPlan(ctx context.Context, r contract.SetPlanRequestObject) (contract.SetPlanResponseObject, error) {
	p, err := s.planOf(ctx, r.Ladder, r.Params.Day.Time)
	if err != nil {
		return nil, err
	}
	if p.day.Before(p.today) {
		return nil, invalid("That lesson is over: its plan stays as it was.")
	}
	p.kept.Hand = lessonplan.Hand{Minutes: r.Body.Minutes, Drops: r.Body.Drops, Order: r.Body.Order, Pins: map[string]int{}}
	for _, pin := range r.Body.Pins {
		p.kept.Hand.Pins[pin.Segment] = pin.Minutes
	}
	if p.kept.Plan, err = p.solve(p.kept.Hand); err != nil {
		return nil, err
	}
	p.kept.Version = r.Body.Version
	if err := s.store.SaveLessonPlan(ctx, p.studio.ID, p.kept); err != nil {
		return nil, err
	}
	p.kept.Version++
	out, err := s.lessonPlan(ctx, p, p.kept.Plan)
	return contract.SetPlan200JSONResponse(out), err
}

// PlanDay plans every lesson of a day that has no plan yet.
func (s *Server) PlanDay(ctx context.Context, r contract.PlanDayRequestObject) (contract.PlanDayResponseObject, error) {
	b, h, rungs, err := s.whole(ctx)
	if err != nil {
		return nil, err
	}
	day := r.Params.Day.Time
	if day.IsZero() {
		day = b.today
	}
	if day.Before(b.today) {
		return nil, invalid(fmt.Sprintf("%s is over: plan a day that is still to come.", day.Format("2 January")))
	}
	kept, err := s.store.DayPlans(ctx, b.studio.ID, day)
	if err != nil {
		return nil, err
	}
	shelves, err := s.shelves(ctx, b, "")
	if err != nil {
		return nil, err
	}
	out := contract.DayPlanned{Lessons: []contractPlanned{}}
	full := 0
	for _, sh := range shelves {
		if sh.ladder.Weekday != day.Weekday() {
			continue
		}
		plan := kept[sh.ladder.ID].Plan
		if kept[sh.ladder.ID].Version == 0 {
			p, err := s.planning(ctx, look(sh, h, rungs[sh.ladder.ID], lens{near: true, lesson: true}), day)
			if err != nil {
				return nil, err
			}
			if plan, err = p.solve(lessonplan.Hand{}); err != nil {
				return nil, err
			}
			p.kept.Plan = plan
			if err := s.store.SaveLessonPlan(ctx, b.studio.ID, p.kept); err != nil {
				return nil, err
			}
		}
		if strings.Contains(plan.Sentence(), "next week") {
			full++
		}
		out.Lessons = append(out.Lessons, contractPlanned{Ladder: sh.ladder.ID, Name: sh.ladder.Name, Sentence: plan.Sentence()})
	}
	out.Sentence = plannedSentence(len(out.Lessons), full)
	return contract.PlanDay200JSONResponse(out), nil
}

type contractPlanned = struct {
	Ladder   contract.Id `json:"ladder"`
	Name     string      `json:"name"`
	Sentence string      `json:"sentence"`
}

func plannedSentence(lessons, full int) string {
	switch {
	case lessons == 0:
		return "There is no lesson on that day."
	case full == 0:
		return capital(counted(lessons, "lesson")) + " planned; nothing has to wait."
	case full == 1:
		return capital(counted(lessons, "lesson")) + " planned; one is too full, and says what waits for next week."
	}
	return fmt.Sprintf("%s planned; %s are too full, and say what waits for next week.", capital(counted(lessons, "lesson")), counted(full, "lesson"))
}

// lessonPlan is a plan as the contract has it.
func (s *Server) lessonPlan(ctx context.Context, p planning, plan lessonplan.Plan) (contract.LessonPlan, error) {
	out := contract.LessonPlan{
		Student: student(p.ladder, p.today), Day: date(p.day), Sentence: plan.Sentence(), Minutes: plan.Minutes, UsualMinutes: p.ladder.Minutes,
		Segments: []contract.PlanSegment{}, Left: []contract.PlanSegment{}, Free: plan.Free, Review: plan.Review, Aim: plan.Aim, Kept: p.kept.Version > 0,
		Hand: contract.PlanByHand{Version: p.kept.Version, Minutes: p.kept.Hand.Minutes, Drops: append([]string{}, p.kept.Hand.Drops...), Order: append([]string{}, p.kept.Hand.Order...), Pins: []contractPin{}},
	}
	for id, minutes := range p.kept.Hand.Pins {
		out.Hand.Pins = append(out.Hand.Pins, contractPin{Segment: id, Minutes: minutes})
	}
	for _, c := range plan.Segments {
		segment := planSegment(c.Segment)
		segment.Minutes, segment.Pinned = c.Minutes, c.Pinned
		if c.Kind == lessonplan.Working || c.Kind == lessonplan.Begin || c.Kind == lessonplan.Reading {
			questions, err := s.questions(ctx, p.shelf, c.Material)
			if err != nil {
				return out, err
			}
			segment.Questions = questions
		}
		out.Segments = append(out.Segments, segment)
	}
	for _, l := range plan.Left {
		segment := planSegment(l.Segment)
		segment.Reason = l.Reason
		out.Left = append(out.Left, segment)
	}
	return out, nil
}

type contractPin = struct {
	Minutes int    `json:"minutes"`
	Segment string `json:"segment"`
}

type contractQuestion = struct {
	Answer string `json:"answer"`
	Ask    string `json:"ask"`
}

func planSegment(s lessonplan.Segment) contract.PlanSegment {
	return contract.PlanSegment{
		Id: s.ID, Kind: contract.PlanSegmentKind(s.Kind), Layer: contract.PlanSegmentLayer(s.Layer), Material: s.Material, Title: s.Title,
		Words: append([]string{}, s.Words...), Questions: []contractQuestion{}, Least: s.Least, Usual: s.Usual, Most: s.Most, New: s.New, Why: s.Why,
	}
}

// questions are those to ask before a piece is played; none without a score.
func (s *Server) questions(ctx context.Context, sh shelf, id string) ([]contractQuestion, error) {
	out := []contractQuestion{}
	m, known := sh.lib[id]
	if !known {
		return out, nil // taken out of the library since it was planned
	}
	o, err := s.read(ctx, sh.studio.ID, m)
	if err != nil || o == nil {
		return out, err
	}
	var fresh []string
	for _, part := range sh.policy.Leap.Of(m, sh.standing.Ability).Parts {
		if part.Level == "new" || part.Level == "planted" {
			fresh = append(fresh, sh.skills.Name(part.Skill))
		}
	}
	for _, q := range lessonplan.Ask(o.Piece, m, sh.studio.Words.Note, fresh) {
		out = append(out, contractQuestion{Ask: q.Ask, Answer: q.Answer})
	}
	return out, nil
}

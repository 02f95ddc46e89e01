// Package ladder answers what is asked about a student's ladder.
//
//	ladder.go   the ladder, the next rung, rungs put on and taken off
//	arrange.go  another order of the rungs
//	target.go   dates to be ready for
//	fit.go      what could come next
//	known.go    what was known before, lists of titles, books, what a ladder could get
//	treat.go    what was promised
package ladder

import (
	"context"
	"fmt"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/library/material"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/next"
	"patientladder/core/planning/planting"
	"patientladder/core/planning/proposing"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/leap"
	"patientladder/core/wording"
)

// Handlers answer the calls about ladders.
type Handlers struct{ *open.Loader }

// GetLadder returns the whole ladder of a student.
func (h *Handlers) GetLadder(ctx context.Context, r contract.GetLadderRequestObject) (contract.GetLadderResponseObject, error) {
	a, err := h.Ahead(ctx, r.Ladder, studentplan.Options{})
	if err != nil {
		return nil, err
	}
	out, err := h.view(ctx, a)
	return contract.GetLadder200JSONResponse(out), err
}

// view is the ladder of an outlook as the contract has it.
func (h *Handlers) view(ctx context.Context, a open.Ahead) (contract.LadderView, error) {
	n, v := a.Of().Names(), a.View
	review, err := h.Review(ctx, a)
	if err != nil {
		return contract.LadderView{}, err
	}
	targets, err := h.Store.Targets(ctx, a.Tenant.ID, a.Ladder)
	if err != nil {
		return contract.LadderView{}, err
	}
	out := contract.LadderView{
		Student: answer.Student(a.Row, a.Today), Reach: v.Reach.Size, ReachWhy: wording.Reach(v.Reach),
		Rails: []contract.Rail{}, Habits: ownFocus(a.Opened), Version: a.Row.RungsVersion, Day: answer.Date(a.Today), Plantings: Plantings(a),
		Review: answer.Review(review), Targets: Targets(a, targets),
	}
	var prepare []string
	for _, step := range a.NextBites() {
		prepare = append(prepare, step.Skill)
	}
	out.Sentence = n.Ladder(v.Summary(), prepare, review.Starved > 0)
	if !a.Lessons.Any() {
		out.Sentence += " " + wording.NoDates
	}
	foreseen := a.Foreseen()
	for _, rail := range v.Rails {
		rungs := make([]contract.Rung, len(rail.Rungs))
		for i, r := range rail.Rungs {
			rungs[i] = rung(a, r)
			if r.Layer != ladder.Review {
				weeks := a.Model.Weeks(a.Ladder, r.Leap.Size, r.Material.DistinctBars)
				words, why := wording.HowLong(weeks)
				if a.Early(r) {
					words, why = wording.TooEarly(r.Leap.Unknown, weeks)
				}
				rungs[i].HowLong = contract.HowLong{
					Low:    answer.Thousandths(weeks.Low),
					Median: answer.Thousandths(weeks.Median),
					High:   answer.Thousandths(weeks.High),
					Words:  words,
					Why:    why,
				}
			}
			if w, on := a.When[r.Material.ID]; on {
				rungs[i].Begins, rungs[i].Clears, rungs[i].Long = answer.Days(
					&a.StudentOutlook,
					w.Begin,
				), answer.Days(
					&a.StudentOutlook,
					w.Clear,
				), w.Long
				if !foreseen[r.Material.ID] { // the page needs to know what lies near; nobody is told a date
					rungs[i].Begins.Words, rungs[i].Clears.Words = "", ""
				}
			}
		}
		out.Rails = append(out.Rails, contract.Rail{
			Strand: contract.Strand(rail.Strand), Rungs: rungs, Reach: rail.Reach.Size, ReachWhy: wording.Reach(rail.Reach),
		})
	}
	return out, nil
}

func rung(a open.Ahead, r ladder.Rung) contract.Rung {
	id := r.Material.ID
	out := contract.Rung{
		Material: id, Title: r.Material.Title, From: answer.From(r.Material), Layer: contract.RungLayer(r.Layer),
		Leap: answer.Leap(a.Of().Names(), r.Material, r.Leap, a.Policy.Standing.Leap.SecureAfter), Cliff: r.Cliff, Plateau: r.Plateau,
		Weeks: r.Weeks,
		Aside: contract.RungAside(r.Aside), Tags: append([]string{}, r.Material.Tags...), Liking: wording.SignsOfLiking(a.Standing.Likings[id]),
		Exercise: r.Material.Exercise,
	}
	if m := r.Standing; m != nil {
		out.Assigned, out.Cleared, out.LastPlayed = m.Assigned, m.ClearedAt, m.LastPlayed
		if r.Layer == ladder.Review {
			out.Recall = answer.Thousandths(a.Recall(id))
		}
		out.RunDue, out.Why, out.Full, out.Points, out.Spots = m.RunDue, wording.Standing(m.Where(), a.Family()), m.Full, m.Points, m.OpenSpots()
	}
	return out
}

func ownFocus(s open.Student) []contract.OwnFocus {
	out := []contract.OwnFocus{}
	for _, f := range s.Standing.Focus {
		out = append(out, contract.OwnFocus{Id: f.ID, Text: f.Text, Streak: f.Streak, Habit: f.Habit, After: s.Policy.Standing.HabitAfter})
	}
	return out
}

// Plantings are the skills that are planted for what lies ahead, in words.
func Plantings(a open.Ahead) []contract.Planting {
	n := a.Of().Names()
	out := []contract.Planting{}
	for _, p := range planting.Of(&a.StudentOutlook) {
		skill, _ := a.Skills.Get(p.Skill)
		x := contract.Planting{
			Skill: p.Skill, Name: skill.Name, Done: p.Done, Of: p.Of, For: p.For, ForTitle: a.Library[p.For].Title,
			Needed: answer.Date(p.Needed), Ready: answer.Date(p.Ready), Slack: p.Slack, Late: p.Late(), Why: n.Planting(p), Mends: []string{},
		}
		for _, m := range p.Mends {
			x.Mends = append(x.Mends, n.Mend(m, p.For))
		}
		for _, step := range p.Steps {
			x.Steps = append(
				x.Steps,
				contract.PlantingStep{Day: answer.Date(step.Day), Due: answer.Date(step.Due), Step: step.Step, Text: skill.Steps[step.Step-1]},
			)
		}
		out = append(out, x)
	}
	return out
}

// GetNext proposes the next rung of a strand.
func (h *Handlers) GetNext(ctx context.Context, r contract.GetNextRequestObject) (contract.GetNextResponseObject, error) {
	s, placed, err := h.placed(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	p, in := proposing.Next(s.Student, material.Strand(r.Params.Strand), placed)
	out := contract.Proposal{
		Strand: r.Params.Strand, Reach: in.Reach.Size, ReachWhy: wording.Reach(in.Reach), Ease: p.Ease,
		Reasons: s.Of().Names().NextAll(p.Reasons),
		Last:    []contract.TakenLeap{}, Considered: []contract.Candidate{},
	}
	for _, size := range in.Last {
		out.Last = append(out.Last, contract.TakenLeap{Size: size, BigJump: leap.Beyond(size, in.Reach.Size)})
	}
	for _, c := range p.Considered {
		out.Considered = append(out.Considered, candidate(s, c))
	}
	if p.Chosen != nil {
		out.Chosen = candidate(s, *p.Chosen)
	}
	return contract.GetNext200JSONResponse(out), nil
}

// placed opens a student with the rungs in the teacher's order.
func (h *Handlers) placed(ctx context.Context, id string) (open.Student, []ladder.Placed, error) {
	s, err := h.Student(ctx, id)
	if err != nil {
		return s, nil, err
	}
	placed, err := h.Store.Rungs(ctx, s.Tenant.ID, id)
	return s, placed, err
}

func candidate(s open.Student, c next.Candidate) contract.Candidate {
	out := contract.Candidate{
		Material: c.Material.ID, Title: c.Material.Title, From: answer.From(c.Material),
		Leap: answer.Leap(s.Of().Names(), c.Material, c.Leap, s.Policy.Standing.Leap.SecureAfter), Blocked: []string{},
	}
	for _, id := range c.Blocked {
		out.Blocked = append(out.Blocked, s.Skills.Name(id))
	}
	return out
}

// PlaceRung puts a material at the end of its strand.
func (h *Handlers) PlaceRung(ctx context.Context, r contract.PlaceRungRequestObject) (contract.PlaceRungResponseObject, error) {
	s, err := h.Student(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	m, ok := s.Library[r.Material]
	if !ok {
		return nil, refusal.NoMaterial
	}
	if m.Instrument != s.Instrument {
		return nil, refusal.Invalid(wording.OtherInstrument(m.Title, m.Instrument, s.Instrument))
	}
	err = h.Store.PlaceRungs(ctx, s.Tenant.ID, s.Ladder, ladder.Whole(s.Library, m))
	return contract.PlaceRung204Response{}, err
}

// RemoveRung takes a material that was not begun off the ladder.
func (h *Handlers) RemoveRung(ctx context.Context, r contract.RemoveRungRequestObject) (contract.RemoveRungResponseObject, error) {
	s, err := h.Student(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	if s.Standing.Materials[r.Material] != nil {
		return nil, refusal.Invalid(
			fmt.Sprintf("%s has been played already; what happened stays on the ladder.", s.Of().Names().Title(r.Material)),
		)
	}
	return contract.RemoveRung204Response{}, h.Store.RemoveRung(ctx, s.Tenant.ID, s.Ladder, r.Material)
}

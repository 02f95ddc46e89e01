package api

import (
	"context"
	"fmt"
	"strings"

	"patientladder/api/contract"
	"patientladder/core/library/material"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/next"
)

// GetLadder returns the whole ladder of a student.
func (s *Server) GetLadder(ctx context.Context, r contract.GetLadderRequestObject) (contract.GetLadderResponseObject, error) {
	a, err := s.ahead(ctx, r.Ladder, lens{})
	if err != nil {
		return nil, err
	}
	out, err := s.ladderView(ctx, a)
	return contract.GetLadder200JSONResponse(out), err
}

// ladderView is the ladder of an outlook as the contract has it.
func (s *Server) ladderView(ctx context.Context, a ahead) (contract.LadderView, error) {
	sh, v := a.shelf, a.View
	out := contract.LadderView{
		Student: student(sh.ladder, sh.today), Sentence: a.sentence(), Reach: v.Reach.Size, ReachWhy: v.Reach.Why,
		Rails: []contract.Rail{}, Habits: ownFocus(sh), Version: sh.ladder.RungsVersion, Day: date(sh.today), Plantings: a.plantings(),
		Review: a.reviewState(a.reviewShare()),
	}
	for _, rail := range v.Rails {
		rungs := make([]contract.Rung, len(rail.Rungs))
		for i, r := range rail.Rungs {
			rungs[i] = rung(sh, r)
			if r.Layer != ladder.Review {
				rungs[i].HowLong = howLong(a.model, sh.ladder.ID, r.Material, r.Leap.Size)
			}
			if w, on := a.When[r.Material.ID]; on {
				rungs[i].Begins, rungs[i].Clears, rungs[i].Long = a.days(w.Begin), a.days(w.Clear), w.Long
			}
		}
		out.Rails = append(out.Rails, contract.Rail{Strand: contract.Strand(rail.Strand), Rungs: rungs})
	}
	targets, err := s.store.Targets(ctx, sh.studio.ID, sh.ladder.ID)
	out.Targets = a.targets(targets)
	return out, err
}

// sentence says the three layers of the day: what is in work, what to plant, and
// how review stands.
func (a ahead) sentence() string {
	out := strings.TrimSuffix(a.View.Sentence, ".")
	var plant []string
	for _, step := range a.Today() {
		plant = append(plant, a.skills.Name(step.Skill))
	}
	if len(plant) > 0 {
		out += "; plant " + joined(plant)
	}
	if a.starved() {
		out += "; review is thin"
	}
	return out + "."
}

func rung(sh shelf, r ladder.Rung) contract.Rung {
	out := contract.Rung{
		Material: r.Material.ID, Title: r.Material.Title, From: from(r.Material), Layer: contract.RungLayer(r.Layer),
		Leap: sh.leap(r.Material, r.Leap), Cliff: r.Cliff, Plateau: r.Plateau, Weeks: r.Weeks,
		Aside: contract.RungAside(r.Aside), Tags: append([]string{}, r.Material.Tags...), Liking: sh.liking(r.Material.ID),
		Exercise: r.Material.Exercise,
	}
	if m := r.Standing; m != nil {
		out.Assigned, out.Cleared, out.LastPlayed = m.Assigned, m.ClearedAt, m.LastPlayed
		if r.Layer == ladder.Review {
			out.Recall = thousandths(sh.recall(r.Material.ID))
		}
		out.RunDue, out.Why, out.Full, out.Points = m.RunDue, m.Why, m.Full, m.Points
		for _, spot := range m.Spots {
			if !spot.Mended {
				out.Spots++
			}
		}
	}
	return out
}

func ownFocus(sh shelf) []contract.OwnFocus {
	out := []contract.OwnFocus{}
	for _, f := range sh.standing.Focus {
		out = append(out, contract.OwnFocus{Id: f.ID, Text: f.Text, Streak: f.Streak, Habit: f.Habit, After: sh.policy.HabitAfter})
	}
	return out
}

// GetNext proposes the next rung of a strand.
func (s *Server) GetNext(ctx context.Context, r contract.GetNextRequestObject) (contract.GetNextResponseObject, error) {
	sh, err := s.shelf(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	placed, err := s.store.Rungs(ctx, sh.studio.ID, sh.ladder.ID)
	if err != nil {
		return nil, err
	}
	v := ladder.Draw(sh.standing, sh.lib, placed, sh.policy.Leap, sh.today, 0)
	strand := material.Strand(r.Params.Strand)
	in := next.Input{Ability: sh.standing.Ability, Policy: sh.policy.Leap, Reach: v.Reach, Skills: sh.skills, Last: sh.standing.Leaps(sh.lib, strand), Straight: !sh.way.EaseAfterLeap}
	reasons := sh.notYetReading(strand)
	for _, rail := range v.Rails {
		for _, rung := range rail.Rungs {
			if rail.Strand == strand && len(reasons) == 0 && rung.Standing == nil && rung.Aside == "" {
				in.Candidates = append(in.Candidates, rung.Material)
			}
		}
	}
	p := next.Propose(in)
	if len(reasons) > 0 {
		p.Reasons = reasons
	}
	out := contract.Proposal{
		Strand: r.Params.Strand, Reach: v.Reach.Size, ReachWhy: v.Reach.Why, Ease: p.Ease, Reasons: p.Reasons,
		Last: append([]float64{}, in.Last...), Considered: []contract.Candidate{},
	}
	for _, c := range p.Considered {
		out.Considered = append(out.Considered, sh.candidate(c))
	}
	if p.Chosen != nil {
		out.Chosen = sh.candidate(*p.Chosen)
	}
	return contract.GetNext200JSONResponse(out), nil
}

// notYetReading says why nothing is proposed on the reading strand yet; empty when it may begin.
func (sh shelf) notYetReading(strand material.Strand) []string {
	first := sh.standing.FirstLesson
	if first.IsZero() {
		first = sh.today
	}
	begins := sh.day(first).AddDate(0, 0, 7*sh.way.ReadingAfter)
	if strand != material.Reading || !begins.After(sh.today) {
		return nil
	}
	return []string{fmt.Sprintf("In this way of teaching reading begins after %s of lessons: on %s.", counted(sh.way.ReadingAfter, "week"), begins.Format("2 January 2006"))}
}

func (b book) candidate(c next.Candidate) contract.Candidate {
	out := contract.Candidate{Material: c.Material.ID, Title: c.Material.Title, From: from(c.Material), Leap: b.leap(c.Material, c.Leap), Blocked: []string{}}
	for _, id := range c.Blocked {
		out.Blocked = append(out.Blocked, b.skills.Name(id))
	}
	return out
}

// PlaceRung puts a material at the end of its strand.
func (s *Server) PlaceRung(ctx context.Context, r contract.PlaceRungRequestObject) (contract.PlaceRungResponseObject, error) {
	sh, err := s.shelf(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	m, ok := sh.lib[r.Material]
	if !ok {
		return nil, asProblem(errNoMaterial)
	}
	if m.Instrument != sh.ladder.Instrument {
		return nil, invalid(fmt.Sprintf("“%s” is for %s, and this ladder is for %s.", m.Title, m.Instrument, sh.ladder.Instrument))
	}
	err = s.store.PlaceRungs(ctx, sh.studio.ID, sh.ladder.ID, []ladder.Placed{{Material: m.ID, Strand: m.Strand}})
	return contract.PlaceRung204Response{}, err
}

// RemoveRung takes a material that was not begun off the ladder.
func (s *Server) RemoveRung(ctx context.Context, r contract.RemoveRungRequestObject) (contract.RemoveRungResponseObject, error) {
	sh, err := s.shelf(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	if sh.standing.Materials[r.Material] != nil {
		return nil, invalid(fmt.Sprintf("“%s” has been played already; what happened stays on the ladder.", sh.lib[r.Material].Title))
	}
	return contract.RemoveRung204Response{}, s.store.RemoveRung(ctx, sh.studio.ID, sh.ladder.ID, r.Material)
}

package api

import (
	"context"
	"fmt"
	"sort"

	"patientladder/api/contract"
	"patientladder/core/library/material"
	"patientladder/core/planning/fit"
	"patientladder/core/planning/ladder"
)

// mostCandidates is how many ranked materials are answered with.
const mostCandidates = 60

// GetFit ranks everything that could come next.
func (s *Server) GetFit(ctx context.Context, r contract.GetFitRequestObject) (contract.GetFitResponseObject, error) {
	sh, err := s.shelf(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	placed, err := s.store.Rungs(ctx, sh.studio.ID, sh.ladder.ID)
	if err != nil {
		return nil, err
	}
	v := ladder.Draw(sh.standing, sh.lib, placed, sh.policy.Leap, sh.today, 0)
	profile := sh.taste()
	in := fit.Input{
		Library: material.Library{}, Ability: sh.standing.Ability, Policy: sh.policy.Leap, Reach: v.Reach, Skills: sh.skills, Taste: profile,
		Idle: map[material.Strand]bool{}, PerLesson: sh.way.Bites,
	}
	for _, strand := range material.Strands() {
		in.Idle[strand] = true
	}
	for _, rail := range v.Rails {
		for _, rung := range rail.Rungs {
			if rung.Layer == ladder.Now && rung.Aside == "" {
				in.Idle[rail.Strand] = false
			}
		}
	}
	if taken := sh.standing.Leaps(sh.lib, material.Strand(r.Params.Strand)); sh.way.EaseAfterLeap && r.Params.Strand != "" && len(taken) > 0 {
		in.Ease = taken[len(taken)-1] > v.Reach.Size
	}
	on := map[string]bool{}
	for _, p := range placed {
		on[p.Material] = true
	}
	for id, m := range sh.lib {
		if m.Instrument != sh.ladder.Instrument {
			continue
		}
		in.Library[id] = m
		if !begun(sh, id) && (r.Params.Strand == "" || m.Strand == material.Strand(r.Params.Strand)) {
			in.Candidates = append(in.Candidates, m)
		}
	}
	sort.Slice(in.Candidates, func(i, k int) bool { return in.Candidates[i].ID < in.Candidates[k].ID })
	out := contract.Fit{Reach: v.Reach.Size, Candidates: []contract.FitCandidate{}, Taste: []struct {
		Score float64 `json:"score"`
		Tag   string  `json:"tag"`
		Why   string  `json:"why"`
	}{}}
	for _, l := range profile.List() {
		out.Taste = append(out.Taste, struct {
			Score float64 `json:"score"`
			Tag   string  `json:"tag"`
			Why   string  `json:"why"`
		}{l.Score, l.Tag, l.Why})
	}
	ranked := fit.Rank(in)
	for _, c := range ranked[:min(len(ranked), mostCandidates)] {
		out.Candidates = append(out.Candidates, sh.fitCandidate(c, on[c.Material.ID]))
	}
	return contract.GetFit200JSONResponse(out), nil
}

func (sh shelf) fitCandidate(c fit.Candidate, on bool) contract.FitCandidate {
	out := contract.FitCandidate{
		Material: c.Material.ID, Title: c.Material.Title, From: from(c.Material), Strand: contract.Strand(c.Material.Strand), OnLadder: on,
		Leap: c.Leap.Size, Score: c.Score, Ready: c.Ready, Size: c.Size, Taste: c.Taste, Balance: c.Balance, Reasons: c.Reasons, Blocks: []contractBlock{},
	}
	for _, b := range c.Blocks {
		block := contractBlock{Way: []string{}, Why: capital(b.Why) + "."}
		for _, step := range b.Way {
			name := sh.skills.Name(step.Skill)
			if step.Material != "" {
				block.Way = append(block.Way, fmt.Sprintf("%s: begin “%s”", name, sh.lib[step.Material].Title))
			} else {
				block.Way = append(block.Way, fmt.Sprintf("%s: %s", name, counted(step.Bites, "bite")))
			}
		}
		if b.Lessons > 0 {
			block.Way = append(block.Way, fmt.Sprintf("The bites take %s.", counted(b.Lessons, "lesson")))
		}
		out.Blocks = append(out.Blocks, block)
	}
	return out
}

type contractBlock = struct {
	Way []string `json:"way"`
	Why string   `json:"why"`
}

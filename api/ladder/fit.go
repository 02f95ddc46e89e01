package ladder

import (
	"context"
	"slices"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/core/library/material"
	"patientladder/core/planning/fit"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/proposing"
	"patientladder/core/wording"
)

// mostCandidates is how many ranked materials are answered with.
const mostCandidates = 60

// GetFit ranks everything that could come next.
func (h *Handlers) GetFit(ctx context.Context, r contract.GetFitRequestObject) (contract.GetFitResponseObject, error) {
	s, placed, err := h.placed(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	ranked, in := proposing.Fit(s.Student, material.Strand(r.Params.Strand), placed)
	out := contract.Fit{Reach: in.Reach.Size, Candidates: []contract.FitCandidate{}, Taste: []contract.Taste{}}
	for _, l := range in.Taste.List() {
		out.Taste = append(out.Taste, contract.Taste{Score: l.Score, Tag: l.Tag, Why: wording.Liking(l)})
	}
	for _, c := range ranked[:min(len(ranked), mostCandidates)] {
		on := slices.ContainsFunc(placed, func(p ladder.Placed) bool { return p.Material == c.Material.ID })
		out.Candidates = append(out.Candidates, ranking(s, c, on))
	}
	return contract.GetFit200JSONResponse(out), nil
}

func ranking(s open.Student, c fit.Candidate, on bool) contract.FitCandidate {
	n := s.Of().Names()
	out := contract.FitCandidate{
		Material: c.Material.ID, Title: c.Material.Title, From: answer.From(c.Material), Strand: contract.Strand(c.Material.Strand), OnLadder: on,
		Unknown: c.Leap.Unknown, Leap: c.Leap.Size, Score: c.Score, Ready: c.Ready, Size: c.Size, Taste: c.Taste, Balance: c.Balance,
		Reasons: []string{}, Blocks: []contract.FitBlock{},
	}
	for _, reason := range c.Reasons {
		out.Reasons = append(out.Reasons, wording.Fit(reason))
	}
	for _, b := range c.Blocks {
		out.Blocks = append(out.Blocks, contract.FitBlock{Way: n.Way(b), Why: n.Block(b)})
	}
	return out
}

package progress

import (
	"context"

	"patientladder/api/contract"
	"patientladder/app"
	"patientladder/core/planning/learning"
	"patientladder/core/wording"
)

// learnedOut is what a studio has learned as the contract has it.
func learnedOut(l app.Learned) contract.Learned {
	n := l.Names()
	out := contract.Learned{
		Sentence: wording.Learned(l.Used), Used: l.Used.Any(), CanUse: l.Offer().Any(), Skills: []contract.LearnedSkill{},
		Fade: wording.Faded(l.Fade), Moves: []string{},
		Tried: []string{wording.TriedWeights(l.Skills.Verdict), wording.TriedFade(l.Fade.Verdict)},
	}
	for _, w := range l.Skills.Weights {
		out.Skills = append(
			out.Skills,
			contract.LearnedSkill{
				Skill:  w.Skill,
				Words:  n.LearnedWeight(w),
				From:   wording.LearnedFrom(w),
				Factor: w.Factor,
				Low:    w.Low,
				High:   w.High,
				Sure:   w.Sure(),
			},
		)
	}
	offer := l.Offer()
	for _, m := range offer.Moves(l.Students, l.Used) {
		out.Moves = append(out.Moves, n.Moved(m))
	}
	now, of := learning.Fading(l.Heard, l.Used.Memory(), l.Now)
	then, _ := learning.Fading(l.Heard, offer.Memory(), l.Now)
	if words := wording.FadeMoves(now, then, of); words != "" {
		out.Moves = append(out.Moves, words)
	}
	return out
}

// GetLearned returns what the studio has learned, and what would change if it were used.
func (h *Handlers) GetLearned(ctx context.Context, _ contract.GetLearnedRequestObject) (contract.GetLearnedResponseObject, error) {
	l, err := app.Learn(ctx, h.Loader)
	if err != nil {
		return nil, err
	}
	return contract.GetLearned200JSONResponse(learnedOut(l)), nil
}

// UseLearned uses what was learned from now on, or leaves it off.
func (h *Handlers) UseLearned(ctx context.Context, r contract.UseLearnedRequestObject) (contract.UseLearnedResponseObject, error) {
	l, err := app.UseLearned(ctx, h.Loader, r.Body.Use)
	if err != nil {
		return nil, err
	}
	return contract.UseLearned200JSONResponse(learnedOut(l)), nil
}

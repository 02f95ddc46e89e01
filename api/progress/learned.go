package progress

import (
	"context"
	"slices"

	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/planning/learning"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/memory"
	"patientladder/core/student/studentlog"
	"patientladder/core/wording"
)

// learned is what the lessons of a studio teach.
type learned struct {
	open.Studio
	students []studentplan.StudentOutlook
	used     learning.Used
	skills   learning.Skills
	fade     learning.Fade
	heard    [][]learning.Heard
}

// learn learns from all that was entered.
func (h *Handlers) learn(ctx context.Context) (learned, error) {
	s, horizon, rungs, err := h.Whole(ctx)
	if err != nil {
		return learned{}, err
	}
	out := learned{Studio: s}
	if out.used, err = h.Store.Learned(ctx, s.Tenant.ID); err != nil {
		return out, err
	}
	opened, err := h.Students(ctx, s, "")
	if err != nil {
		return out, err
	}
	var cleared []learning.Cleared
	var heard [][]learning.Heard
	for _, x := range opened {
		log, err := h.Log(ctx, x)
		if err != nil {
			return out, err
		}
		cleared = append(cleared, learning.ClearedBy(x.Student, out.used)...)
		heard = append(heard, learning.HeardBy(x.Student, studentlog.Live(log))...)
		out.students = append(out.students, x.Look(horizon, rungs[x.Ladder], studentplan.Options{Near: true}).StudentOutlook)
	}
	slices.SortStableFunc(cleared, func(a, b learning.Cleared) int { return a.Day.Compare(b.Day) })
	out.skills, out.fade, out.heard = learning.Learn(cleared), learning.LearnFade(heard, memory.DefaultParams()), heard
	return out, nil
}

func (l learned) offer() learning.Used { return learning.Offer(l.skills, l.fade, l.Today) }

func (l learned) out() contract.Learned {
	n := l.Names()
	out := contract.Learned{
		Sentence: wording.Learned(l.used), Used: l.used.Any(), CanUse: l.offer().Any(), Skills: []contract.LearnedSkill{},
		Fade: wording.Faded(l.fade), Moves: []string{},
		Tried: []string{wording.TriedWeights(l.skills.Verdict), wording.TriedFade(l.fade.Verdict)},
	}
	for _, w := range l.skills.Weights {
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
	offer := l.offer()
	for _, m := range offer.Moves(l.students, l.used) {
		out.Moves = append(out.Moves, n.Moved(m))
	}
	now, of := learning.Fading(l.heard, l.used.Memory(), l.Now)
	then, _ := learning.Fading(l.heard, offer.Memory(), l.Now)
	if words := wording.FadeMoves(now, then, of); words != "" {
		out.Moves = append(out.Moves, words)
	}
	return out
}

// GetLearned returns what the studio has learned, and what would change if it were used.
func (h *Handlers) GetLearned(ctx context.Context, _ contract.GetLearnedRequestObject) (contract.GetLearnedResponseObject, error) {
	l, err := h.learn(ctx)
	if err != nil {
		return nil, err
	}
	return contract.GetLearned200JSONResponse(l.out()), nil
}

// UseLearned uses what was learned from now on, or leaves it off.
func (h *Handlers) UseLearned(ctx context.Context, r contract.UseLearnedRequestObject) (contract.UseLearnedResponseObject, error) {
	l, err := h.learn(ctx)
	if err != nil {
		return nil, err
	}
	use := learning.Used{}
	if r.Body.Use {
		if use = l.offer(); !use.Any() {
			return nil, refusal.Invalid(wording.NothingToUse)
		}
	}
	err = h.Store.Together(ctx, func(ctx context.Context) error {
		if err := h.Store.UseLearned(ctx, l.Tenant.ID, use); err != nil {
			return err
		}
		l, err = h.learn(ctx)
		return err
	})
	if err != nil {
		return nil, err
	}
	return contract.UseLearned200JSONResponse(l.out()), nil
}

package home

import (
	"context"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/core/planning/week"
	"patientladder/core/planning/withfamily"
	"patientladder/core/student/enjoyment"
	"patientladder/core/student/standing"
	"patientladder/core/wording"
)

// GetBalance sets practice against enjoyment for every student who has a
// published week, the quiet ones first. For the teacher only.
func (h *Handlers) GetBalance(ctx context.Context, _ contract.GetBalanceRequestObject) (contract.GetBalanceResponseObject, error) {
	s, err := h.Studio(ctx)
	if err != nil {
		return nil, err
	}
	weeks, err := h.Store.StudioWeeks(ctx, s.Tenant.ID, week.Reaching(s.Today, standing.HomeDays))
	if err != nil {
		return nil, err
	}
	opened, err := h.Students(ctx, s, "")
	if err != nil {
		return nil, err
	}
	out := contract.GetBalance200JSONResponse{}
	for _, b := range withfamily.Balance(open.Plain(opened), weeks) {
		words, why := wording.Balance(b.Balance)
		out = append(out, contract.Balance{
			Ladder: b.Ladder, Name: b.Name, Practice: shareOf(b.Practice), Enjoyment: shareOf(b.Enjoyment), Kind: contract.BalanceKind(b.Kind),
			Words: words, Why: why,
		})
	}
	return out, nil
}

func shareOf(s enjoyment.Share) contract.Share {
	return contract.Share{Low: answer.Thousandths(s.Low), Middle: answer.Thousandths(s.Middle), High: answer.Thousandths(s.High)}
}

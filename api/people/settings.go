package people

import (
	"context"

	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/core/reading/naming"
	"patientladder/store"
)

// GetWords returns how the studio names things.
func (h *Handlers) GetWords(ctx context.Context, _ contract.GetWordsRequestObject) (contract.GetWordsResponseObject, error) {
	st, err := h.Store.Studio(ctx, open.Actor(ctx).Studio)
	if err != nil {
		return nil, err
	}
	return contract.GetWords200JSONResponse{
		Notes: contract.WordsNotes(st.Words.Notes), Steps: contract.WordsSteps(st.Words.Steps), Values: contract.WordsValues(st.Words.Values),
		Rhythm:   contract.WordsRhythm(st.Words.Rhythm),
		Approach: contract.WordsApproach(st.Approach), Version: st.WordsVersion,
	}, nil
}

// SetWords changes them.
func (h *Handlers) SetWords(ctx context.Context, r contract.SetWordsRequestObject) (contract.SetWordsResponseObject, error) {
	n := r.Body
	return contract.SetWords204Response{}, h.Store.SetWords(ctx, store.Studio{
		ID: open.Actor(ctx).Studio, Approach: naming.Approach(n.Approach), WordsVersion: n.Version,
		Words: naming.Words{
			Notes:  naming.Notes(n.Notes),
			Steps:  naming.Steps(n.Steps),
			Values: naming.Values(n.Values),
			Rhythm: naming.Rhythm(n.Rhythm),
		},
	})
}

// SetApproach changes a student's way of reading.
func (h *Handlers) SetApproach(ctx context.Context, r contract.SetApproachRequestObject) (contract.SetApproachResponseObject, error) {
	studio := open.Actor(ctx).Studio
	if _, err := h.Ladder(ctx, r.Ladder); err != nil {
		return nil, err
	}
	return contract.SetApproach204Response{}, h.Store.SetApproach(ctx, studio, r.Ladder, naming.Approach(r.Body.Approach))
}

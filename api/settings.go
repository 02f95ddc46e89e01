package api

import (
	"context"

	"patientladder/api/contract"
	"patientladder/core/reading/naming"
	"patientladder/store"
)

// GetWords returns how the studio names things.
func (s *Server) GetWords(ctx context.Context, _ contract.GetWordsRequestObject) (contract.GetWordsResponseObject, error) {
	st, err := s.store.Studio(ctx, actor(ctx).studio)
	if err != nil {
		return nil, err
	}
	return contract.GetWords200JSONResponse{
		Notes: contract.WordsNotes(st.Words.Notes), Steps: contract.WordsSteps(st.Words.Steps), Values: contract.WordsValues(st.Words.Values),
		Approach: contract.WordsApproach(st.Approach), Version: st.WordsVersion,
	}, nil
}

// SetWords changes them.
func (s *Server) SetWords(ctx context.Context, r contract.SetWordsRequestObject) (contract.SetWordsResponseObject, error) {
	n := r.Body
	return contract.SetWords204Response{}, s.store.SetWords(ctx, store.Studio{
		ID: actor(ctx).studio, Approach: naming.Approach(n.Approach), WordsVersion: n.Version,
		Words: naming.Words{Notes: naming.Notes(n.Notes), Steps: naming.Steps(n.Steps), Values: naming.Values(n.Values)},
	})
}

// SetApproach changes a student's way of reading.
func (s *Server) SetApproach(ctx context.Context, r contract.SetApproachRequestObject) (contract.SetApproachResponseObject, error) {
	studio := actor(ctx).studio
	if _, err := s.store.Ladder(ctx, studio, r.Ladder); err != nil {
		return nil, err
	}
	return contract.SetApproach204Response{}, s.store.SetApproach(ctx, studio, r.Ladder, naming.Approach(r.Body.Approach))
}

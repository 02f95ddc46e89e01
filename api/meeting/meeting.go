// Package meeting answers what is asked in a first meeting and in a placement.
//
//	meeting.go    the meeting and what came of it
//	placement.go  questions, what is believed, and a way to begin
package meeting

import (
	"context"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/core/planning/meeting"
	"patientladder/core/wording"
)

// Handlers answer the calls about first meetings.
type Handlers struct{ *open.Loader }

// GetMeeting returns a first meeting with a placement.
func (h *Handlers) GetMeeting(ctx context.Context, r contract.GetMeetingRequestObject) (contract.GetMeetingResponseObject, error) {
	s, err := h.Student(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	p, err := h.placement(ctx, s, r.Params.Book, r.Params.Entry)
	if err != nil {
		return nil, err
	}
	plan := s.Meetings.Plan(r.Params.Minutes, s.Age(s.Today), s.Family())
	met := s.Standing.Met
	out := contract.Meeting{
		Student: answer.Student(s.Row, s.Today), Minutes: r.Params.Minutes, Family: contract.MeetingFamily(s.SoundFamily()),
		Activities: []contract.MeetingActivity{}, TakeHome: []contract.TakeHome{},
		Placement: placementOut(s, p), Sentence: wording.Meeting(plan, r.Params.Minutes, meeting.Done(plan, met), s.First()),
	}
	for _, a := range plan {
		out.Activities = append(out.Activities, answer.Activity(a, a.Next(met), a.Steps(met), met))
	}
	for _, id := range s.Meetings.TakeHome(met) {
		if g, known := s.Pool.Get(id); known {
			out.TakeHome = append(out.TakeHome, contract.TakeHome{Id: g.ID, Name: g.Name, Words: g.Home})
		}
	}
	return contract.GetMeeting200JSONResponse(out), nil
}

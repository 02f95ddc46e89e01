// Package meeting answers what is asked in a first meeting and in a placement.
//
//	meeting.go    the meeting and what came of it
//	placement.go  questions, what is believed, and a way to begin
package meeting

import (
	"context"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/api/open"
	"patientladder/core/planning/meeting"
	"patientladder/core/student/standing"
	"patientladder/core/wording"
)

// Handlers answer the calls about first meetings.
type Handlers struct{ *open.Desk }

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
	plan := meeting.Plan(r.Params.Minutes, s.Age(s.Today), s.Family())
	met := s.Standing.Met
	out := contract.Meeting{
		Student: answer.Student(s.Row, s.Today), Minutes: r.Params.Minutes, Family: contract.MeetingFamily(s.Tone()), Activities: []contract.MeetingActivity{}, TakeHome: []contract.TakeHome{},
		Placement: placementOut(s, p), Sentence: wording.Meeting(plan, r.Params.Minutes, meeting.Done(plan, met), s.First()),
	}
	for _, a := range plan {
		out.Activities = append(out.Activities, activityOut(a, met))
	}
	for _, id := range meeting.TakeHome(met) {
		if g, known := s.Pool.Get(id); known {
			out.TakeHome = append(out.TakeHome, contract.TakeHome{Id: g.ID, Name: g.Name, Words: g.Home})
		}
	}
	return contract.GetMeeting200JSONResponse(out), nil
}

func activityOut(a meeting.Activity, met []standing.Met) contract.MeetingActivity {
	out := contract.MeetingActivity{
		Id: a.ID, Part: string(a.Part), Name: a.Name, Say: a.Say, Minutes: a.Minutes, Kind: contract.MeetingActivityKind(a.Kind), Outcomes: []contract.Choice{},
		Tries: []contract.MeetingTry{}, Level: a.Next(met), Next: []contract.MeetingStep{}, Came: []string{},
	}
	for _, o := range a.Outcomes {
		out.Outcomes = append(out.Outcomes, contract.Choice{Id: o, Name: wording.Outcome(o)})
	}
	for level := 1; level <= a.Levels(); level++ {
		try := contract.MeetingTry{Level: level, Words: wording.Try(a, level), Sounds: []contract.SoundNote{}}
		for _, s := range a.Sounds(level) {
			try.Sounds = append(try.Sounds, contract.SoundNote{At: s.At, Length: s.Length, Midi: s.MIDI, Bar: 1})
		}
		out.Tries = append(out.Tries, try)
	}
	for _, s := range a.Steps(met) {
		out.Next = append(out.Next, contract.MeetingStep{Level: s.Level, Outcome: s.Outcome, Next: s.Then})
	}
	for _, m := range met {
		if m.Activity == a.ID {
			out.Came = append(out.Came, wording.Came(m))
		}
	}
	return out
}

package meeting

import (
	"context"
	"errors"
	"strings"

	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/library/instrument"
	"patientladder/core/planning/meeting"
	"patientladder/core/wording"
	"patientladder/store"
)

// ListMeetingActivities returns the activities of a first meeting as the studio has them.
func (h *Handlers) ListMeetingActivities(
	ctx context.Context,
	_ contract.ListMeetingActivitiesRequestObject,
) (contract.ListMeetingActivitiesResponseObject, error) {
	s, err := h.Studio(ctx)
	if err != nil {
		return nil, err
	}
	own, err := h.Store.MeetingActivities(ctx, s.Tenant.ID)
	if err != nil {
		return nil, err
	}
	out := contract.MeetingActivities{Activities: []contract.MeetingActivityForm{}}
	for _, o := range s.Meetings.Forms(own) {
		x := contract.MeetingActivityForm{
			Id: o.ID, Name: o.Name, Say: o.Say, Minutes: o.Minutes, From: o.From, To: o.To,
			Part:   contract.Choice{Id: string(o.Part), Name: wording.PartName(o.Part)},
			Family: string(o.Family), Shows: o.Shows, Home: o.Home, Off: o.Off, Own: !o.Ships, Changed: o.Changed, Outcomes: []string{},
		}
		for _, id := range o.Outcomes {
			x.Outcomes = append(x.Outcomes, wording.Outcome(id))
		}
		out.Activities = append(out.Activities, x)
	}
	for _, p := range meeting.Parts() {
		out.Parts = append(out.Parts, contract.Choice{Id: string(p), Name: wording.PartName(p)})
	}
	for _, f := range instrument.Families() {
		out.Families = append(out.Families, contract.Choice{Id: string(f), Name: wording.FamilyName(f)})
	}
	for _, x := range s.Skills.All() {
		out.Skills = append(out.Skills, contract.Choice{Id: x.ID, Name: x.Name})
	}
	for _, g := range s.Pool {
		out.Goals = append(out.Goals, contract.Choice{Id: g.ID, Name: g.Name})
	}
	return contract.ListMeetingActivities200JSONResponse(out), nil
}

// SetMeetingActivity changes an activity for the studio, leaves it out, or adds one.
func (h *Handlers) SetMeetingActivity(
	ctx context.Context,
	r contract.SetMeetingActivityRequestObject,
) (contract.SetMeetingActivityResponseObject, error) {
	s, err := h.Studio(ctx)
	if err != nil {
		return nil, err
	}
	o := meeting.Own{
		ID: r.Activity, Name: strings.TrimSpace(r.Body.Name), Say: strings.TrimSpace(r.Body.Say), Minutes: r.Body.Minutes, From: r.Body.From,
		To: r.Body.To, Off: r.Body.Off,
		Part: meeting.Part(r.Body.Part), Family: instrument.Family(r.Body.Family), Shows: r.Body.Shows, Home: r.Body.Home,
	}
	skill := func(id string) bool { _, known := s.Skills.Get(id); return known }
	goal := func(id string) bool { _, known := s.Pool.Get(id); return known }
	if err := o.Check(meeting.Shipped(), skill, goal); err != nil {
		return nil, refusal.Because(err)
	}
	return contract.SetMeetingActivity204Response{}, h.Store.SetMeetingActivity(ctx, s.Tenant.ID, o)
}

// ResetMeetingActivity takes the studio's form of an activity away.
func (h *Handlers) ResetMeetingActivity(
	ctx context.Context,
	r contract.ResetMeetingActivityRequestObject,
) (contract.ResetMeetingActivityResponseObject, error) {
	err := h.Store.DropMeetingActivity(ctx, open.Actor(ctx).Studio, r.Activity)
	if errors.Is(err, store.ErrNotFound) {
		return nil, refusal.NotFound("The studio has no activity of its own by that name.")
	}
	return contract.ResetMeetingActivity204Response{}, err
}

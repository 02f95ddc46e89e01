package store

import (
	"context"

	"patientladder/core/planning/lessonplan"
	"patientladder/core/planning/meeting"
	"patientladder/store/document"
	"patientladder/store/rows"
)

// Activities are the studio's own, and those of the program that it has changed or switched off, by id.
func (s *Store) Activities(ctx context.Context, studio string) ([]lessonplan.Goal, error) {
	bodies, err := s.q(ctx).Activities(ctx, studio)
	if err != nil {
		return nil, err
	}
	out := make([]lessonplan.Goal, len(bodies))
	for i, body := range bodies {
		if out[i], err = document.DecodeActivity([]byte(body)); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// SetActivity keeps one. Plans and weeks are made of them, so that what was kept of both counts no more.
func (s *Store) SetActivity(ctx context.Context, studio string, g lessonplan.Goal) error {
	body, err := document.EncodeActivity(g)
	if err != nil {
		return err
	}
	return explain(s.within(ctx, func(q *rows.Queries) error {
		if err := q.SetActivity(ctx, rows.SetActivityParams{StudioID: studio, ID: g.ID, Body: string(body)}); err != nil {
			return err
		}
		return q.LibraryChanged(ctx, studio)
	}))
}

// DropActivity takes the studio's form of one away; one that is not there is ErrNotFound.
func (s *Store) DropActivity(ctx context.Context, studio, id string) error {
	return explain(s.within(ctx, func(q *rows.Queries) error {
		if err := found(q.DropActivity(ctx, rows.DropActivityParams{StudioID: studio, ID: id})); err != nil {
			return err
		}
		return q.LibraryChanged(ctx, studio)
	}))
}

// MeetingActivities are the studio's own activities of a first meeting, and those of the program that it has changed or left
// out, by id.
func (s *Store) MeetingActivities(ctx context.Context, studio string) ([]meeting.Own, error) {
	bodies, err := s.q(ctx).MeetingActivities(ctx, studio)
	if err != nil {
		return nil, err
	}
	out := make([]meeting.Own, len(bodies))
	for i, body := range bodies {
		if out[i], err = document.DecodeMeetingActivity([]byte(body)); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// SetMeetingActivity keeps one. Lessons and weeks take their names from it.
func (s *Store) SetMeetingActivity(ctx context.Context, studio string, o meeting.Own) error {
	body, err := document.EncodeMeetingActivity(o)
	if err != nil {
		return err
	}
	return explain(s.within(ctx, func(q *rows.Queries) error {
		if err := q.SetMeetingActivity(ctx, rows.SetMeetingActivityParams{StudioID: studio, ID: o.ID, Body: string(body)}); err != nil {
			return err
		}
		return q.LibraryChanged(ctx, studio)
	}))
}

// DropMeetingActivity takes the studio's form of one away; one that is not there is ErrNotFound.
func (s *Store) DropMeetingActivity(ctx context.Context, studio, id string) error {
	return explain(s.within(ctx, func(q *rows.Queries) error {
		if err := found(q.DropMeetingActivity(ctx, rows.DropMeetingActivityParams{StudioID: studio, ID: id})); err != nil {
			return err
		}
		return q.LibraryChanged(ctx, studio)
	}))
}

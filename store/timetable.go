package store

import (
	"context"
	"database/sql"
	"errors"
	"time"

	"patientladder/core/base/calendar"
	"patientladder/store/rows"
)

// ChangeTimetable changes the slots of a ladder and what was done with single lessons, by what is there
// when it is this one's turn. What change refuses changes nothing.
func (s *Store) ChangeTimetable(
	ctx context.Context,
	studio, ladderID string,
	change func(calendar.Timetable) (calendar.Timetable, error),
) error {
	return explain(s.within(ctx, func(q *rows.Queries) error {
		if _, err := q.LockLadder(ctx, rows.LockLadderParams{StudioID: studio, ID: ladderID}); err != nil {
			return err
		}
		slots, err := q.Slots(ctx, rows.SlotsParams{StudioID: studio, LadderID: ladderID})
		if err != nil {
			return err
		}
		changes, err := q.LessonChanges(ctx, rows.LessonChangesParams{StudioID: studio, LadderID: ladderID})
		if err != nil {
			return err
		}
		t, err := change(timetableOf(slots, changes))
		if err != nil {
			return err
		}
		if err := q.DropSlots(ctx, rows.DropSlotsParams{StudioID: studio, LadderID: ladderID}); err != nil {
			return err
		}
		if err := q.DropLessonChanges(ctx, rows.DropLessonChangesParams{StudioID: studio, LadderID: ladderID}); err != nil {
			return err
		}
		return setTimetable(ctx, q, studio, ladderID, t)
	}))
}

// longAgo is since when a slot holds of which nobody said since when.
var longAgo = time.Date(2000, 1, 1, 0, 0, 0, 0, time.UTC)

func setTimetable(ctx context.Context, q *rows.Queries, studio, ladderID string, t calendar.Timetable) error {
	for _, s := range t.Slots {
		if s.From.IsZero() {
			s.From = longAgo
		}
		id := s.ID
		if id == "" {
			id = ladderID
		}
		err := q.AddSlot(ctx, rows.AddSlotParams{
			StudioID: studio, LadderID: ladderID, ID: id, Weekday: uint8(s.Weekday), StartsAt: int16(s.StartsAt), Minutes: int16(s.Minutes),
			Every:   int8(max(1, s.Every)),
			FromDay: s.From, UntilDay: nullDay(s.Until),
		})
		if err != nil {
			return err
		}
	}
	for _, c := range t.Changes {
		err := q.AddLessonChange(ctx, rows.AddLessonChangeParams{
			StudioID: studio, LadderID: ladderID, Lesson: c.Lesson, Kind: string(c.Kind), Day: nullDay(c.Day), StartsAt: int16(c.StartsAt),
			Minutes:     int16(c.Minutes),
			CancelledBy: string(c.By), Late: c.Late, MakesUp: c.MakesUp,
		})
		if err != nil {
			return err
		}
	}
	return nil
}

func timetableOf(slots []rows.Slot, changes []rows.LessonChange) (t calendar.Timetable) {
	for _, r := range slots {
		t.Slots = append(t.Slots, calendar.Slot{
			ID: r.ID, Weekday: time.Weekday(r.Weekday), StartsAt: int(r.StartsAt), Minutes: int(r.Minutes), Every: int(r.Every), From: r.FromDay,
			Until: r.UntilDay.Time,
		})
	}
	for _, r := range changes {
		t.Changes = append(t.Changes, calendar.Change{
			Lesson: r.Lesson, Kind: calendar.ChangeKind(r.Kind), Day: r.Day.Time, StartsAt: int(r.StartsAt), Minutes: int(r.Minutes),
			By: calendar.Who(r.CancelledBy), Late: r.Late, MakesUp: r.MakesUp,
		})
	}
	return t
}

// Feed returns the token that opens the teacher's own calendar; empty for none.
func (s *Store) Feed(ctx context.Context, studio string) (string, error) {
	token, err := s.q(ctx).Feed(ctx, studio)
	if errors.Is(err, sql.ErrNoRows) {
		return "", nil
	}
	if err != nil {
		return "", err
	}
	return s.secret.open(token)
}

// SetFeed lets a token open the teacher's own calendar, and none but that; an empty one opens nothing.
func (s *Store) SetFeed(ctx context.Context, studio, token string) error {
	if token == "" {
		return s.q(ctx).DropFeed(ctx, studio)
	}
	return explain(s.q(ctx).SetFeed(ctx, rows.SetFeedParams{StudioID: studio, Token: s.secret.close(token), TokenHash: hashed(token)}))
}

// FeedStudio returns the studio whose calendar a token opens, or ErrNotFound.
func (s *Store) FeedStudio(ctx context.Context, token string) (string, error) {
	studio, err := s.q(ctx).FeedStudio(ctx, hashed(token))
	return studio, explain(err)
}

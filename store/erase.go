package store

import (
	"context"
	"database/sql"
	"io"
	"time"

	"github.com/oklog/ulid/v2"

	"patientladder/store/dump"
	"patientladder/store/rows"
)

// ExportStudent writes everything that is kept about a student as JSON (docs/formats.md).
func (s *Store) ExportStudent(ctx context.Context, studio, id string, w io.Writer, made time.Time) error {
	return dump.Student(ctx, s.db, w, studio, id, made)
}

// MarkErase sets when everything about a student goes for good; a zero time takes it back. A student who is not there is
// ErrNotFound.
func (s *Store) MarkErase(ctx context.Context, studio, id string, at time.Time) error {
	if _, err := s.EraseAt(ctx, studio, id); err != nil {
		return err
	}
	_, err := s.q(ctx).MarkErase(ctx, rows.MarkEraseParams{EraseAt: moment(at), StudioID: studio, ID: id})
	return err
}

// EraseAt is when everything about a student goes; zero for never. A student who is not there is ErrNotFound.
func (s *Store) EraseAt(ctx context.Context, studio, id string) (time.Time, error) {
	at, err := s.q(ctx).EraseAt(ctx, rows.EraseAtParams{StudioID: studio, ID: id})
	return at.Time, explain(err)
}

// Sweep erases every student whose time has come, and marks those who left longer ago than their studio keeps data, so that
// they go after regret. It returns how many were erased. Each goes in a transaction of its own.
func (s *Store) Sweep(ctx context.Context, now time.Time, regret time.Duration) (int, error) {
	now = now.UTC()
	if err := s.q(ctx).MarkLeft(ctx, rows.MarkLeftParams{At: moment(now.Add(regret)), Day: now}); err != nil {
		return 0, err
	}
	due, err := s.q(ctx).DueErasures(ctx, moment(now))
	if err != nil {
		return 0, err
	}
	n := 0
	for _, d := range due {
		err := dump.Erase(ctx, s.db, d.StudioID, d.ID, func(tx *sql.Tx) error {
			q := rows.New(tx)
			had, err := q.CountErased(ctx, rows.CountErasedParams{StudioID: d.StudioID, StudentID: d.ID})
			if err != nil {
				return err
			}
			if err := q.AddErased(ctx, rows.AddErasedParams{StudioID: d.StudioID, ID: ulid.Make().String(), At: now, Ladders: int32(had.Ladders), Entries: int32(had.Entries)}); err != nil {
				return err
			}
			if err := q.AddAudit(ctx, rows.AddAuditParams{ID: ulid.Make().String(), StudioID: d.StudioID, At: now, Kind: "student-erased"}); err != nil {
				return err
			}
			return q.LibraryChanged(ctx, d.StudioID) // what was kept in memory of the studio counts no more
		})
		if err != nil {
			return n, err
		}
		n++
	}
	return n, nil
}

// SetStudio changes the name of a studio, its zone, how many years the data of those who left stay, the language of families, the
// first day of a week, the letterhead and the quiet hours.
func (s *Store) SetStudio(ctx context.Context, t Studio) error {
	return explain(s.within(ctx, func(q *rows.Queries) error {
		if err := q.SetStudio(ctx, rows.SetStudioParams{
			Name: t.Name, Timezone: t.Timezone, KeepYears: uint8(t.KeepYears), Language: t.Language, FirstDay: uint8(t.FirstDay),
			Letterhead: t.Letterhead, QuietFrom: uint16(t.Quiet.From), QuietTo: uint16(t.Quiet.To), ID: t.ID,
		}); err != nil {
			return err
		}
		return q.LibraryChanged(ctx, t.ID)
	}))
}

// Going is a ladder of a student about whom everything goes at a time.
type Going struct {
	Ladder, Student, Name, Called string
	At                            time.Time
}

// Going are the ladders of students who are to be erased, the next first.
func (s *Store) Going(ctx context.Context, studio string) ([]Going, error) {
	list, err := s.q(ctx).Going(ctx, studio)
	out := make([]Going, len(list))
	for i, r := range list {
		out[i] = Going{r.ID, r.StudentID, r.Name, r.Called, r.EraseAt.Time}
	}
	return out, err
}

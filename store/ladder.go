package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"

	"patientladder/core/ladder"
	"patientladder/core/material"
	"patientladder/core/studentlog"
	"patientladder/store/rows"
)

// Rungs returns what the teacher put on a ladder, in order.
func (s *Store) Rungs(ctx context.Context, studio, ladderID string) ([]ladder.Placed, error) {
	list, err := s.q.Rungs(ctx, rows.RungsParams{StudioID: studio, LadderID: ladderID})
	if err != nil {
		return nil, err
	}
	out := make([]ladder.Placed, len(list))
	for i, r := range list {
		out[i] = ladder.Placed{Material: r.MaterialID, Strand: material.Strand(r.Strand)}
	}
	return out, nil
}

// PlaceRungs puts materials at the end of their strands. What stands on the
// ladder already stays where it is.
func (s *Store) PlaceRungs(ctx context.Context, studio, ladderID string, placed []ladder.Placed) error {
	return explain(s.within(ctx, func(q *rows.Queries) error {
		if _, err := q.LockLadder(ctx, rows.LockLadderParams{StudioID: studio, ID: ladderID}); err != nil {
			return err
		}
		for _, p := range placed {
			last, err := q.LastRung(ctx, rows.LastRungParams{StudioID: studio, LadderID: ladderID, Strand: string(p.Strand)})
			if err != nil {
				return err
			}
			_, err = q.AddRung(ctx, rows.AddRungParams{
				StudioID: studio, LadderID: ladderID, MaterialID: p.Material, Strand: string(p.Strand), Position: int32(last) + 1,
			})
			if err != nil {
				return err
			}
		}
		return nil
	}))
}

// RemoveRung takes a material off a ladder; what the log says about it stays.
func (s *Store) RemoveRung(ctx context.Context, studio, ladderID, materialID string) error {
	n, err := s.q.RemoveRung(ctx, rows.RemoveRungParams{StudioID: studio, LadderID: ladderID, MaterialID: materialID})
	if err == nil && n == 0 {
		return ErrNotFound
	}
	return err
}

// Append adds entries to a ladder's log in one transaction and returns how
// many were new. The same entry again counts once; another entry under the
// same id is ErrConflict, and then nothing is added.
func (s *Store) Append(ctx context.Context, studio, ladderID string, entries []studentlog.Entry) (added int, err error) {
	err = s.within(ctx, func(q *rows.Queries) error {
		added = 0
		if _, err := q.LockLadder(ctx, rows.LockLadderParams{StudioID: studio, ID: ladderID}); err != nil {
			return err
		}
		for _, e := range entries {
			e.At = e.At.UTC()
			body, err := json.Marshal(e)
			if err != nil {
				return err
			}
			n, err := q.AddEntry(ctx, rows.AddEntryParams{StudioID: studio, LadderID: ladderID, ID: e.ID, Body: string(body)})
			if err != nil {
				return err
			}
			if n > 0 {
				added++
				continue
			}
			old, err := q.EntryBody(ctx, rows.EntryBodyParams{StudioID: studio, LadderID: ladderID, ID: e.ID})
			if err != nil {
				return err
			}
			if old != string(body) {
				return fmt.Errorf("entry %s was written before with other contents: %w", e.ID, ErrConflict)
			}
		}
		return nil
	})
	if err != nil {
		return 0, explain(err)
	}
	return added, nil
}

// Log returns the whole log of a ladder in the order of arrival.
func (s *Store) Log(ctx context.Context, studio, ladderID string) ([]studentlog.Entry, error) {
	bodies, err := s.q.Entries(ctx, rows.EntriesParams{StudioID: studio, LadderID: ladderID})
	if err != nil {
		return nil, err
	}
	out := make([]studentlog.Entry, len(bodies))
	for i, b := range bodies {
		if err := json.Unmarshal([]byte(b), &out[i]); err != nil {
			return nil, fmt.Errorf("the log of ladder %s is damaged: %w", ladderID, err)
		}
	}
	return out, nil
}

// LogMark says how far a ladder's log has grown; it changes with every new entry.
type LogMark struct{ Entries, Last int64 }

// LogMark returns the mark of a ladder's log.
func (s *Store) LogMark(ctx context.Context, studio, ladderID string) (LogMark, error) {
	r, err := s.q.EntryMark(ctx, rows.EntryMarkParams{StudioID: studio, LadderID: ladderID})
	return LogMark{r.Entries, r.Last}, err
}

// Snapshot returns the cached standing of a ladder under a fingerprint; ok is false when there is none.
func (s *Store) Snapshot(ctx context.Context, studio, ladderID, fingerprint string) (body []byte, ok bool, err error) {
	body, err = s.q.Snapshot(ctx, rows.SnapshotParams{StudioID: studio, LadderID: ladderID, Fingerprint: fingerprint})
	if errors.Is(explain(err), ErrNotFound) {
		return nil, false, nil
	}
	return body, err == nil, err
}

// SaveSnapshot replaces the cached standing of a ladder.
func (s *Store) SaveSnapshot(ctx context.Context, studio, ladderID, fingerprint string, body []byte) error {
	return s.q.SaveSnapshot(ctx, rows.SaveSnapshotParams{StudioID: studio, LadderID: ladderID, Fingerprint: fingerprint, Body: body})
}

// DropSnapshot throws the cached standing of a ladder away.
func (s *Store) DropSnapshot(ctx context.Context, studio, ladderID string) error {
	return s.q.DropSnapshot(ctx, rows.DropSnapshotParams{StudioID: studio, LadderID: ladderID})
}

// Cached is what is kept of one ladder's standing, and how far its log has grown.
type Cached struct {
	Mark        LogMark
	Fingerprint string
	Body        []byte
}

// CachedStandings returns what is kept of every ladder of a studio, by ladder,
// in two queries. A ladder without a log or without a snapshot has zero values.
func (s *Store) CachedStandings(ctx context.Context, studio string) (map[string]Cached, error) {
	marks, err := s.q.EntryMarks(ctx, studio)
	if err != nil {
		return nil, err
	}
	snapshots, err := s.q.Snapshots(ctx, studio)
	if err != nil {
		return nil, err
	}
	out := make(map[string]Cached, len(marks))
	for _, r := range marks {
		out[r.LadderID] = Cached{Mark: LogMark{r.Entries, r.Last}}
	}
	for _, r := range snapshots {
		c := out[r.LadderID]
		c.Fingerprint, c.Body = r.Fingerprint, r.Body
		out[r.LadderID] = c
	}
	return out, nil
}

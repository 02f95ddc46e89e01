package store

import (
	"context"
	"errors"
	"fmt"

	"patientladder/core/library/material"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/whatif"
	"patientladder/core/student/studentlog"
	"patientladder/store/document"
	"patientladder/store/rows"
)

// Rungs returns what the teacher put on a ladder, in order.
func (s *Store) Rungs(ctx context.Context, studio, ladderID string) ([]ladder.Placed, error) {
	list, err := s.q(ctx).Rungs(ctx, rows.RungsParams{StudioID: studio, LadderID: ladderID})
	if err != nil {
		return nil, err
	}
	out := make([]ladder.Placed, len(list))
	for i, r := range list {
		out[i] = placedOf(r)
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
		_, err := place(ctx, q, studio, ladderID, placed)
		return err
	}))
}

// place puts materials at the end of their strands, and returns those that were not there.
func place(ctx context.Context, q *rows.Queries, studio, ladderID string, placed []ladder.Placed) (added []string, err error) {
	for _, p := range placed {
		last, err := q.LastRung(ctx, rows.LastRungParams{StudioID: studio, LadderID: ladderID, Strand: string(p.Strand)})
		if err != nil {
			return nil, err
		}
		n, err := q.AddRung(ctx, rows.AddRungParams{
			StudioID: studio, LadderID: ladderID, MaterialID: p.Material, Strand: string(p.Strand), Position: int32(last) + 1,
		})
		if err != nil {
			return nil, err
		}
		if n > 0 {
			added = append(added, p.Material)
		}
	}
	if len(added) == 0 {
		return nil, nil
	}
	return added, q.RungsTouched(ctx, rows.RungsTouchedParams{StudioID: studio, ID: ladderID})
}

// RemoveRung takes a material off a ladder; what the log says about it stays.
func (s *Store) RemoveRung(ctx context.Context, studio, ladderID, materialID string) error {
	return s.within(ctx, func(q *rows.Queries) error {
		if err := found(q.RemoveRung(ctx, rows.RemoveRungParams{StudioID: studio, LadderID: ladderID, MaterialID: materialID})); err != nil {
			return err
		}
		return q.RungsTouched(ctx, rows.RungsTouchedParams{StudioID: studio, ID: ladderID})
	})
}

// Arrange replaces the rungs of a ladder by a new order, strand by strand; the
// version is the one that the order was made from, and a stale one is ErrConflict.
func (s *Store) Arrange(ctx context.Context, studio, ladderID string, version int64, placed []ladder.Placed) error {
	return explain(s.within(ctx, func(q *rows.Queries) error {
		n, err := q.RungsChanged(ctx, rows.RungsChangedParams{StudioID: studio, ID: ladderID, RungsVersion: version})
		if err != nil {
			return err
		}
		if n == 0 {
			return ErrConflict
		}
		for _, strand := range material.Strands() {
			if err := q.DropRungs(ctx, rows.DropRungsParams{StudioID: studio, LadderID: ladderID, Strand: string(strand)}); err != nil {
				return err
			}
		}
		for i, p := range placed {
			err := q.InsertRung(ctx, rows.InsertRungParams{
				StudioID: studio, LadderID: ladderID, MaterialID: p.Material, Strand: string(p.Strand), Position: int32(i) + 1, Aside: string(p.Aside),
			})
			if err != nil {
				return err
			}
		}
		return nil
	}))
}

// AllRungs returns what was put on every ladder of a studio, in order, by ladder.
func (s *Store) AllRungs(ctx context.Context, studio string) (map[string][]ladder.Placed, error) {
	list, err := s.q(ctx).AllRungs(ctx, studio)
	out := map[string][]ladder.Placed{}
	for _, r := range list {
		out[r.LadderID] = append(out[r.LadderID], placedOf(r))
	}
	return out, err
}

func placedOf(r rows.Rung) ladder.Placed {
	return ladder.Placed{Material: r.MaterialID, Strand: material.Strand(r.Strand), Aside: ladder.Aside(r.Aside)}
}

// Targets returns the targets of a ladder by day.
func (s *Store) Targets(ctx context.Context, studio, ladderID string) ([]whatif.Target, error) {
	list, err := s.q(ctx).Targets(ctx, rows.TargetsParams{StudioID: studio, LadderID: ladderID})
	out := make([]whatif.Target, len(list))
	for i, r := range list {
		out[i] = whatif.Target{ID: r.ID, Name: r.Name, Day: r.Day, Material: r.MaterialID}
	}
	return out, err
}

// AllTargets returns the targets of every ladder of a studio, by ladder.
func (s *Store) AllTargets(ctx context.Context, studio string) (map[string][]whatif.Target, error) {
	list, err := s.q(ctx).AllTargets(ctx, studio)
	out := map[string][]whatif.Target{}
	for _, r := range list {
		out[r.LadderID] = append(out[r.LadderID], whatif.Target{ID: r.ID, Name: r.Name, Day: r.Day, Material: r.MaterialID})
	}
	return out, err
}

// SetTarget adds or changes a target.
func (s *Store) SetTarget(ctx context.Context, studio, ladderID string, t whatif.Target) error {
	return explain(
		s.q(ctx).
			SetTarget(ctx, rows.SetTargetParams{StudioID: studio, LadderID: ladderID, ID: t.ID, Name: t.Name, Day: t.Day, MaterialID: t.Material}),
	)
}

// RemoveTarget takes a target away.
func (s *Store) RemoveTarget(ctx context.Context, studio, ladderID, id string) error {
	return found(s.q(ctx).RemoveTarget(ctx, rows.RemoveTargetParams{StudioID: studio, LadderID: ladderID, ID: id}))
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
			body, err := document.EncodeEntry(e)
			if err != nil {
				return err
			}
			n, err := q.AddEntry(
				ctx,
				rows.AddEntryParams{StudioID: studio, LadderID: ladderID, ID: e.ID, Body: string(body), MaterialID: about(e.Material)},
			)
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
		return q.LogGrew(ctx, rows.LogGrewParams{Entries: int64(added), StudioID: studio, ID: ladderID})
	})
	if err != nil {
		return 0, explain(err)
	}
	return added, nil
}

// Log returns the whole log of a ladder in the order of arrival.
func (s *Store) Log(ctx context.Context, studio, ladderID string) ([]studentlog.Entry, error) {
	out, _, err := s.LogAfter(ctx, studio, ladderID, 0)
	return out, err
}

// Snapshot returns the cached standing of a ladder under a fingerprint; ok is false when there is none.
func (s *Store) Snapshot(ctx context.Context, studio, ladderID, fingerprint string) (body []byte, ok bool, err error) {
	body, err = s.q(ctx).Snapshot(ctx, rows.SnapshotParams{StudioID: studio, LadderID: ladderID, Fingerprint: fingerprint})
	if errors.Is(explain(err), ErrNotFound) {
		return nil, false, nil
	}
	return body, err == nil, err
}

// Kept is something that was computed from a ladder, with the key that names
// everything that it came from; it may be thrown away at any time.
type Kept struct {
	Key  string
	Body []byte
}

// SaveSnapshot keeps the standing of a ladder in place of an older one.
func (s *Store) SaveSnapshot(ctx context.Context, studio, ladderID string, k Kept) error {
	return s.q(ctx).SaveSnapshot(ctx, rows.SaveSnapshotParams{StudioID: studio, LadderID: ladderID, Fingerprint: k.Key, Body: k.Body})
}

// SaveObserved keeps what the forecasts learn from a ladder beside its
// standing; without a standing that is kept it does nothing.
func (s *Store) SaveObserved(ctx context.Context, studio, ladderID string, k Kept) error {
	return s.q(ctx).
		SaveObserved(ctx, rows.SaveObservedParams{ObservedKey: k.Key, Observed: string(k.Body), StudioID: studio, LadderID: ladderID})
}

// DropSnapshot throws the cached standing of a ladder away.
func (s *Store) DropSnapshot(ctx context.Context, studio, ladderID string) error {
	return s.q(ctx).DropSnapshot(ctx, rows.DropSnapshotParams{StudioID: studio, LadderID: ladderID})
}

// Snapshots returns the standings that are kept of every ladder of a studio, by ladder.
func (s *Store) Snapshots(ctx context.Context, studio string) (map[string]Kept, error) {
	list, err := s.q(ctx).Snapshots(ctx, studio)
	out := make(map[string]Kept, len(list))
	for _, r := range list {
		out[r.LadderID] = Kept{Key: r.Fingerprint, Body: r.Body}
	}
	return out, err
}

// Observed returns what the forecasts learn from every ladder of a studio, by ladder.
func (s *Store) Observed(ctx context.Context, studio string) (map[string]Kept, error) {
	list, err := s.q(ctx).Observed(ctx, studio)
	out := make(map[string]Kept, len(list))
	for _, r := range list {
		out[r.LadderID] = Kept{Key: r.ObservedKey, Body: []byte(r.Observed)}
	}
	return out, err
}

// Briefs returns what is kept of every student of a studio for the pages of all, by ladder.
func (s *Store) Briefs(ctx context.Context, studio string) (map[string]Kept, error) {
	list, err := s.q(ctx).Briefs(ctx, studio)
	out := make(map[string]Kept, len(list))
	for _, r := range list {
		out[r.LadderID] = Kept{Key: r.Fingerprint, Body: r.Body}
	}
	return out, err
}

// SaveBrief keeps one in place of an older one.
func (s *Store) SaveBrief(ctx context.Context, studio, ladderID string, k Kept) error {
	return s.q(ctx).SaveBrief(ctx, rows.SaveBriefParams{StudioID: studio, LadderID: ladderID, Fingerprint: k.Key, Body: k.Body})
}

// LogAfter returns the entries of a ladder that arrived after a place in the order of arrival (0 for all), and
// the place of the last of them.
func (s *Store) LogAfter(ctx context.Context, studio, ladderID string, after int64) ([]studentlog.Entry, int64, error) {
	list, err := s.q(ctx).EntriesAfter(ctx, rows.EntriesAfterParams{StudioID: studio, LadderID: ladderID, Seq: after})
	if err != nil {
		return nil, after, err
	}
	out := make([]studentlog.Entry, len(list))
	for i, r := range list {
		if out[i], err = document.DecodeEntry([]byte(r.Body)); err != nil {
			return nil, after, fmt.Errorf("the log of ladder %s is damaged: %w", ladderID, err)
		}
		after = r.Seq
	}
	return out, after, nil
}

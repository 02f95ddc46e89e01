package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"time"

	"patientladder/core/library/material"
	"patientladder/core/planning/ladder"
	"patientladder/core/student/studentlog"
	"patientladder/store/document"
	"patientladder/store/rows"
)

// Batch is what was entered together on a ladder, and is undone together.
type Batch struct {
	ID     string
	MadeAt time.Time
	// Entries, Rungs and Materials are the ids of what it added.
	Entries   []string `json:"entries"`
	Rungs     []string `json:"rungs"`
	Materials []string `json:"materials"`
}

// NewBatch is a batch with what it adds.
type NewBatch struct {
	ID        string
	MadeAt    time.Time
	Entries   []studentlog.Entry
	Rungs     []ladder.Placed
	Materials []material.Material
}

// AddBatch adds all of a batch in one transaction. The same batch again, by id, changes nothing.
func (s *Store) AddBatch(ctx context.Context, studio, ladderID string, b NewBatch) error {
	return explain(s.within(ctx, func(q *rows.Queries) error {
		if _, err := q.LockLadder(ctx, rows.LockLadderParams{StudioID: studio, ID: ladderID}); err != nil {
			return err
		}
		if _, err := q.Batch(ctx, rows.BatchParams{StudioID: studio, LadderID: ladderID, ID: b.ID}); err == nil {
			return nil // it arrived before
		}
		kept := Batch{Entries: []string{}, Rungs: []string{}, Materials: []string{}}
		for _, m := range b.Materials {
			if err := addMaterial(ctx, q, studio, m, nil); err != nil {
				return err
			}
			kept.Materials = append(kept.Materials, m.ID)
		}
		if len(b.Materials) > 0 {
			if err := q.LibraryChanged(ctx, studio); err != nil {
				return err
			}
		}
		placed, err := place(ctx, q, studio, ladderID, b.Rungs)
		if err != nil {
			return err
		}
		kept.Rungs = append(kept.Rungs, placed...)
		for _, e := range b.Entries {
			body, err := document.EncodeEntry(e)
			if err != nil {
				return err
			}
			if _, err := q.AddEntry(ctx, rows.AddEntryParams{StudioID: studio, LadderID: ladderID, ID: e.ID, Body: string(body), MaterialID: about(e.Material)}); err != nil {
				return err
			}
			kept.Entries = append(kept.Entries, e.ID)
		}
		if err := q.LogGrew(ctx, rows.LogGrewParams{Entries: int64(len(b.Entries)), StudioID: studio, ID: ladderID}); err != nil {
			return err
		}
		body, err := json.Marshal(kept)
		if err != nil {
			return err
		}
		return q.AddBatch(ctx, rows.AddBatchParams{StudioID: studio, LadderID: ladderID, ID: b.ID, MadeAt: b.MadeAt.UTC(), Body: string(body)})
	}))
}

// Batches returns the batches of a ladder that were not undone, the latest first.
func (s *Store) Batches(ctx context.Context, studio, ladderID string) ([]Batch, error) {
	list, err := s.q(ctx).Batches(ctx, rows.BatchesParams{StudioID: studio, LadderID: ladderID})
	out := make([]Batch, len(list))
	for i, r := range list {
		if out[i], err = batchOf(r); err != nil {
			return nil, err
		}
	}
	return out, err
}

func batchOf(r rows.Batch) (Batch, error) {
	b := Batch{}
	if err := json.Unmarshal([]byte(r.Body), &b); err != nil {
		return b, fmt.Errorf("batch %s is damaged: %w", r.ID, err)
	}
	b.ID, b.MadeAt = r.ID, r.MadeAt
	return b, nil
}

// UndoBatch takes a batch back: its entries by corrections (which correct makes of them), what it put onto
// the ladder, and the materials that it made where nobody else has them. Undone twice, it is undone once.
func (s *Store) UndoBatch(
	ctx context.Context,
	studio, ladderID, id string,
	at time.Time,
	correct func(entry string) studentlog.Entry,
) error {
	return explain(s.within(ctx, func(q *rows.Queries) error {
		if _, err := q.LockLadder(ctx, rows.LockLadderParams{StudioID: studio, ID: ladderID}); err != nil {
			return err
		}
		r, err := q.Batch(ctx, rows.BatchParams{StudioID: studio, LadderID: ladderID, ID: id})
		if err != nil || r.UndoneAt.Valid {
			return err
		}
		b, err := batchOf(r)
		if err != nil {
			return err
		}
		for _, e := range b.Entries {
			taken := correct(e)
			body, err := document.EncodeEntry(taken)
			if err != nil {
				return err
			}
			if _, err := q.AddEntry(ctx, rows.AddEntryParams{StudioID: studio, LadderID: ladderID, ID: taken.ID, Body: string(body), MaterialID: about(taken.Material)}); err != nil {
				return err
			}
		}
		if err := q.LogGrew(ctx, rows.LogGrewParams{Entries: int64(len(b.Entries)), StudioID: studio, ID: ladderID}); err != nil {
			return err
		}
		for _, m := range b.Rungs {
			if _, err := q.RemoveRung(ctx, rows.RemoveRungParams{StudioID: studio, LadderID: ladderID, MaterialID: m}); err != nil {
				return err
			}
		}
		if err := q.RungsTouched(ctx, rows.RungsTouchedParams{StudioID: studio, ID: ladderID}); err != nil {
			return err
		}
		for _, m := range b.Materials {
			others, err := q.CountOnOtherLadders(
				ctx,
				rows.CountOnOtherLaddersParams{Studio: studio, Material: m, Ladder: ladderID, About: about(m), Mentions: mentions(m)},
			)
			if err != nil {
				return err
			}
			if others > 0 {
				continue
			}
			// Retired, not removed: the entries of the batch itself still name it.
			if err := q.RetireMaterial(ctx, rows.RetireMaterialParams{Retired: true, StudioID: studio, ID: m}); err != nil {
				return err
			}
		}
		if len(b.Materials) > 0 {
			if err := q.LibraryChanged(ctx, studio); err != nil {
				return err
			}
		}
		return q.UndoBatch(
			ctx,
			rows.UndoBatchParams{UndoneAt: sql.NullTime{Time: at.UTC(), Valid: true}, StudioID: studio, LadderID: ladderID, ID: id},
		)
	}))
}

// Treat is what a family or the teacher promised.
type Treat struct {
	ID, Words string
	// Material earns it when it is cleared; else Pieces more cleared ones than the Base of the day it was made.
	Material     string
	Pieces, Base int
	Made, Given  time.Time
}

// Since is the treat as it was promised first, where it was: it counts from that day.
func (t Treat) Since(promised []Treat) Treat {
	for _, old := range promised {
		if old.ID == t.ID {
			t.Base, t.Made = old.Base, old.Made
		}
	}
	return t
}

// Treats returns the treats of a ladder, the oldest first.
func (s *Store) Treats(ctx context.Context, studio, ladderID string) ([]Treat, error) {
	list, err := s.q(ctx).Treats(ctx, rows.TreatsParams{StudioID: studio, LadderID: ladderID})
	out := make([]Treat, len(list))
	for i, r := range list {
		out[i] = Treat{
			ID:       r.ID,
			Words:    r.Words,
			Material: r.MaterialID,
			Pieces:   int(r.Pieces),
			Base:     int(r.Base),
			Made:     r.MadeOn,
			Given:    r.GivenOn.Time,
		}
	}
	return out, err
}

// SetTreat adds or changes a treat.
func (s *Store) SetTreat(ctx context.Context, studio, ladderID string, t Treat) error {
	return explain(s.q(ctx).SetTreat(ctx, rows.SetTreatParams{
		StudioID: studio, LadderID: ladderID, ID: t.ID, Words: t.Words, MaterialID: t.Material, Pieces: int16(t.Pieces), Base: int16(t.Base),
		MadeOn: t.Made, GivenOn: nullDay(t.Given),
	}))
}

// RemoveTreat takes a treat away.
func (s *Store) RemoveTreat(ctx context.Context, studio, ladderID, id string) error {
	return found(s.q(ctx).RemoveTreat(ctx, rows.RemoveTreatParams{StudioID: studio, LadderID: ladderID, ID: id}))
}

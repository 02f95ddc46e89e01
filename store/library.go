package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"fmt"

	"patientladder/core/material"
	"patientladder/store/rows"
)

// Source is a book or collection.
type Source struct{ ID, Title, Instrument string }

// ScoreFile is a score as the teacher brought it.
type ScoreFile struct {
	Name string
	Data []byte
}

// AddSource adds a book.
func (s *Store) AddSource(ctx context.Context, studio string, src Source) error {
	return explain(s.q.AddSource(ctx, rows.AddSourceParams{StudioID: studio, ID: src.ID, Title: src.Title, Instrument: src.Instrument}))
}

// AddMaterial adds a material with its demands, focus points and score file
// (nil for none) in one transaction. Adding the same id again changes nothing
// and returns added false.
func (s *Store) AddMaterial(ctx context.Context, studio string, m material.Material, file *ScoreFile) (added bool, err error) {
	err = s.within(ctx, func(q *rows.Queries) error {
		n, err := q.MaterialExists(ctx, rows.MaterialExistsParams{StudioID: studio, ID: m.ID})
		if err != nil || n > 0 {
			return err
		}
		added = true
		labels, err := json.Marshal(m.BarLabels)
		if err != nil {
			return err
		}
		err = q.AddMaterial(ctx, rows.AddMaterialParams{
			StudioID: studio, ID: m.ID, SourceID: sql.NullString{String: m.SourceID, Valid: m.SourceID != ""},
			Title: m.Title, Composer: m.Composer, Strand: string(m.Strand), Instrument: m.Instrument, Unit: m.Unit,
			Page: int16(m.Page), Position: int16(m.Order), Tempo: m.Tempo, Bars: int32(m.Bars),
			DistinctBars: int32(m.DistinctBars), Quarters: m.Quarters, Texture: string(m.Texture), BarLabels: string(labels),
		})
		if err != nil {
			return err
		}
		if err := addParts(ctx, q, studio, m, file); err != nil {
			return err
		}
		return q.LibraryChanged(ctx, studio)
	})
	return added && err == nil, explain(err)
}

func addParts(ctx context.Context, q *rows.Queries, studio string, m material.Material, file *ScoreFile) error {
	for _, d := range m.Demands {
		bars, err := json.Marshal(append([]int{}, d.Bars...))
		if err != nil {
			return err
		}
		err = q.AddDemand(ctx, rows.AddDemandParams{StudioID: studio, MaterialID: m.ID, Skill: d.Skill, Weight: d.Weight, Bars: string(bars), Origin: d.Origin})
		if err != nil {
			return err
		}
	}
	for i, f := range m.FocusPoints {
		err := q.AddFocusPoint(ctx, rows.AddFocusPointParams{StudioID: studio, ID: f.ID, MaterialID: m.ID, Position: int16(i), Words: f.Text})
		if err != nil {
			return err
		}
	}
	if file == nil {
		return nil
	}
	return q.AddScoreFile(ctx, rows.AddScoreFileParams{StudioID: studio, MaterialID: m.ID, FileName: file.Name, Data: file.Data})
}

// ScoreFile returns the score of a material, or ErrNotFound.
func (s *Store) ScoreFile(ctx context.Context, studio, materialID string) (ScoreFile, error) {
	r, err := s.q.ScoreFile(ctx, rows.ScoreFileParams{StudioID: studio, MaterialID: materialID})
	return ScoreFile{Name: r.FileName, Data: r.Data}, explain(err)
}

// Library returns all materials of a studio with their demands and focus points, in three queries.
func (s *Store) Library(ctx context.Context, studio string) (material.Library, error) {
	list, err := s.q.Materials(ctx, studio)
	if err != nil {
		return nil, err
	}
	demands, err := s.q.Demands(ctx, studio)
	if err != nil {
		return nil, err
	}
	points, err := s.q.FocusPoints(ctx, studio)
	if err != nil {
		return nil, err
	}
	lib := make(material.Library, len(list))
	for _, r := range list {
		var labels []string
		if err := json.Unmarshal([]byte(r.BarLabels), &labels); err != nil {
			return nil, fmt.Errorf("bar labels of material %s: %w", r.ID, err)
		}
		lib[r.ID] = material.Material{
			BarLabels: labels,
			ID:        r.ID, Title: r.Title, Composer: r.Composer, Strand: material.Strand(r.Strand), Instrument: r.Instrument,
			SourceID: r.SourceID.String, Source: r.SourceTitle, Unit: r.Unit, Page: int(r.Page), Order: int(r.Position),
			Tempo: r.Tempo, Bars: int(r.Bars), DistinctBars: int(r.DistinctBars), Quarters: r.Quarters, Texture: material.Texture(r.Texture),
		}
	}
	for _, r := range demands {
		d := material.Demand{Skill: r.Skill, Weight: r.Weight, Origin: r.Origin}
		if err := json.Unmarshal([]byte(r.Bars), &d.Bars); err != nil {
			return nil, fmt.Errorf("demand %s of material %s: %w", r.Skill, r.MaterialID, err)
		}
		m := lib[r.MaterialID]
		m.Demands = append(m.Demands, d)
		lib[r.MaterialID] = m
	}
	for _, r := range points {
		m := lib[r.MaterialID]
		m.FocusPoints = append(m.FocusPoints, material.FocusPoint{ID: r.ID, Text: r.Words})
		lib[r.MaterialID] = m
	}
	return lib, nil
}

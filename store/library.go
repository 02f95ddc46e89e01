package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"maps"
	"slices"

	"golang.org/x/sync/errgroup"

	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/planning/curriculum"
	"patientladder/core/reading/overrule"
	"patientladder/store/document"
	"patientladder/store/rows"
)

// Source is a book or collection.
type Source struct {
	ID, Title, Instrument string
	// Retired says that it is not offered any more.
	Retired bool
	// Requires are the skills that it takes for granted, by id, as the teacher wrote them; nil as they are proposed.
	Requires []string
}

// ScoreFile is a score as the teacher brought it.
type ScoreFile struct {
	Name string
	Data []byte
}

// AddSource adds a book.
func (s *Store) AddSource(ctx context.Context, studio string, src Source) error {
	return explain(s.q(ctx).AddSource(ctx, rows.AddSourceParams{StudioID: studio, ID: src.ID, Title: src.Title, Instrument: src.Instrument}))
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
		if err := addMaterial(ctx, q, studio, m, file); err != nil {
			return err
		}
		return q.LibraryChanged(ctx, studio)
	})
	return added && err == nil, explain(err)
}

// CopyMaterial adds a copy of a piece with its score and what was set by hand; an id that is there already changes nothing.
func (s *Store) CopyMaterial(ctx context.Context, studio, from string, c material.Material) error {
	var file *ScoreFile
	if c.HasScore {
		f, err := s.ScoreFile(ctx, studio, from)
		if err != nil {
			return err
		}
		file = &f
	}
	set, err := s.Overrulings(ctx, studio, from)
	if err != nil {
		return err
	}
	return s.Together(ctx, func(ctx context.Context) error {
		if added, err := s.AddMaterial(ctx, studio, c, file); err != nil || !added || len(set) == 0 {
			return err
		}
		return s.SaveReading(ctx, studio, Reading{Material: c, Set: set})
	})
}

// Import adds skills, sources and materials in one transaction: all or nothing.
// An id that is there already is ErrConflict.
func (s *Store) Import(ctx context.Context, studio string, skills []skill.Skill, sources []Source, materials []material.Material) error {
	return explain(s.within(ctx, func(q *rows.Queries) error {
		for _, sk := range skills {
			body, err := json.Marshal(sk)
			if err != nil {
				return err
			}
			if err := q.AddSkill(ctx, rows.AddSkillParams{StudioID: studio, ID: sk.ID, Body: string(body)}); err != nil {
				return err
			}
		}
		for _, src := range sources {
			if err := q.AddSource(ctx, rows.AddSourceParams{StudioID: studio, ID: src.ID, Title: src.Title, Instrument: src.Instrument}); err != nil {
				return err
			}
		}
		for _, m := range materials {
			if err := addMaterial(ctx, q, studio, m, nil); err != nil {
				return err
			}
		}
		return q.LibraryChanged(ctx, studio)
	}))
}

// Skills returns the skills of the studio's own.
func (s *Store) Skills(ctx context.Context, studio string) ([]skill.Skill, error) {
	bodies, err := s.q(ctx).Skills(ctx, studio)
	if err != nil {
		return nil, err
	}
	out := make([]skill.Skill, len(bodies))
	for i, b := range bodies {
		if err := json.Unmarshal([]byte(b), &out[i]); err != nil {
			return nil, fmt.Errorf("a skill of the studio is damaged: %w", err)
		}
	}
	return out, nil
}

// SkillWords are the teacher's own words for skills, as spreadsheets have them.
func (s *Store) SkillWords(ctx context.Context, studio string) (curriculum.Words, error) {
	list, err := s.q(ctx).SkillWords(ctx, studio)
	out := curriculum.Words{}
	for _, w := range list {
		out[w.Word] = w.SkillID
	}
	return out, err
}

// SetSkillWords keeps what words mean, over what was kept of them.
func (s *Store) SetSkillWords(ctx context.Context, studio string, words curriculum.Words) error {
	return explain(s.within(ctx, func(q *rows.Queries) error {
		for _, word := range slices.Sorted(maps.Keys(words)) {
			if err := q.SetSkillWord(ctx, rows.SetSkillWordParams{StudioID: studio, Word: word, SkillID: words[word]}); err != nil {
				return err
			}
		}
		return nil
	}))
}

// Sources returns the studio's books by title.
func (s *Store) Sources(ctx context.Context, studio string) ([]Source, error) {
	list, err := s.q(ctx).Sources(ctx, studio)
	if err != nil {
		return nil, err
	}
	out := make([]Source, len(list))
	for i, r := range list {
		out[i] = Source{ID: r.ID, Title: r.Title, Instrument: r.Instrument, Retired: r.Retired}
		if r.Requires.Valid {
			if err := json.Unmarshal([]byte(r.Requires.String), &out[i].Requires); err != nil {
				return nil, fmt.Errorf("what book %s requires: %w", r.ID, err)
			}
		}
	}
	return out, nil
}

// SetFocusPoints replaces the focus points of a material; those that keep their
// id keep their marks.
func (s *Store) SetFocusPoints(ctx context.Context, studio, materialID string, points []material.FocusPoint) error {
	return explain(s.within(ctx, func(q *rows.Queries) error {
		if _, err := q.LockMaterial(ctx, rows.LockMaterialParams{StudioID: studio, ID: materialID}); err != nil {
			return err
		}
		if err := q.DropFocusPoints(ctx, rows.DropFocusPointsParams{StudioID: studio, MaterialID: materialID}); err != nil {
			return err
		}
		if err := addParts(ctx, q, studio, material.Material{ID: materialID, FocusPoints: points}, nil); err != nil {
			return err
		}
		return q.LibraryChanged(ctx, studio)
	}))
}

func addMaterial(ctx context.Context, q *rows.Queries, studio string, m material.Material, file *ScoreFile) error {
	if err := m.Check(); err != nil {
		return err
	}
	labels, notes, tags, err := lists(m)
	if err != nil {
		return err
	}
	loads, err := document.Loads(m.Loads)
	if err != nil {
		return err
	}
	err = q.AddMaterial(ctx, rows.AddMaterialParams{
		StudioID: studio, ID: m.ID, SourceID: sql.NullString{String: m.SourceID, Valid: m.SourceID != ""},
		Title: m.Title, Composer: m.Composer, Strand: string(m.Strand), Instrument: m.Instrument, Unit: m.Unit,
		Page: int16(m.Page), Position: int16(m.Order), Tempo: m.Tempo, Bars: int32(m.Bars),
		DistinctBars: int32(m.DistinctBars), Quarters: m.Quarters, Texture: string(m.Texture), BarLabels: labels, Notes: notes, Music: m.Music,
		Rules: int16(m.Rules), Tags: tags, Exercise: m.Exercise, PartOf: m.PartOf, Loads: loads,
	})
	if err != nil {
		return err
	}
	return addParts(ctx, q, studio, m, file)
}

// lists writes the lists of a material as JSON.
func lists(m material.Material) (labels, notes, tags string, err error) {
	var out [3][]byte
	for i, list := range [][]string{m.BarLabels, append([]string{}, m.Notes...), append([]string{}, m.Tags...)} {
		if out[i], err = json.Marshal(list); err != nil {
			return "", "", "", err
		}
	}
	return string(out[0]), string(out[1]), string(out[2]), nil
}

// Reading is a change of how a material is read.
type Reading struct {
	// Material has the new title, tempo, bars, notes and demands; its focus points stay as stored.
	Material material.Material
	// File is a new score; nil keeps the old one.
	File *ScoreFile
	// Set replaces the overrulings with the same keys, Remove takes those with these keys away.
	Set    []overrule.Overruling
	Remove []string
}

// SaveReading writes a change of how a material is read in one transaction.
func (s *Store) SaveReading(ctx context.Context, studio string, r Reading) error {
	m := r.Material
	return explain(s.within(ctx, func(q *rows.Queries) error {
		if _, err := q.LockMaterial(ctx, rows.LockMaterialParams{StudioID: studio, ID: m.ID}); err != nil {
			return err
		}
		labels, notes, tags, err := lists(m)
		if err != nil {
			return err
		}
		loads, err := document.Loads(m.Loads)
		if err != nil {
			return err
		}
		err = q.UpdateMaterial(ctx, rows.UpdateMaterialParams{
			Title: m.Title, Composer: m.Composer, Tempo: m.Tempo, Bars: int32(m.Bars), DistinctBars: int32(m.DistinctBars), Quarters: m.Quarters,
			Texture: string(m.Texture), BarLabels: labels, Notes: notes, Music: m.Music, Rules: int16(m.Rules), Tags: tags, Loads: loads, StudioID: studio,
			ID: m.ID,
		})
		if err != nil {
			return err
		}
		if err := q.DropDemands(ctx, rows.DropDemandsParams{StudioID: studio, MaterialID: m.ID}); err != nil {
			return err
		}
		m.FocusPoints = nil
		if err := addParts(ctx, q, studio, m, nil); err != nil {
			return err
		}
		if r.File != nil {
			err := q.ReplaceScoreFile(ctx, rows.ReplaceScoreFileParams{StudioID: studio, MaterialID: m.ID, FileName: r.File.Name, Data: r.File.Data})
			if err != nil {
				return err
			}
		}
		for _, key := range r.Remove {
			if _, err := q.RemoveOverruling(ctx, rows.RemoveOverrulingParams{StudioID: studio, MaterialID: m.ID, What: key}); err != nil {
				return err
			}
		}
		for _, o := range r.Set {
			body, err := json.Marshal(o)
			if err != nil {
				return err
			}
			if err := q.SetOverruling(ctx, rows.SetOverrulingParams{StudioID: studio, MaterialID: m.ID, What: o.Key(), Body: string(body)}); err != nil {
				return err
			}
		}
		return q.LibraryChanged(ctx, studio)
	}))
}

// OutdatedStudios returns the studios with scores that were read by rules
// before a version.
func (s *Store) OutdatedStudios(ctx context.Context, rules int) ([]string, error) {
	return s.q(ctx).OutdatedStudios(ctx, int16(rules))
}

// Overrulings returns what the teacher set for a material, by key.
func (s *Store) Overrulings(ctx context.Context, studio, materialID string) ([]overrule.Overruling, error) {
	bodies, err := s.q(ctx).Overrulings(ctx, rows.OverrulingsParams{StudioID: studio, MaterialID: materialID})
	if err != nil {
		return nil, err
	}
	out := make([]overrule.Overruling, len(bodies))
	for i, b := range bodies {
		if err := json.Unmarshal([]byte(b), &out[i]); err != nil {
			return nil, fmt.Errorf("an overruling of material %s is damaged: %w", materialID, err)
		}
	}
	return out, nil
}

func addParts(ctx context.Context, q *rows.Queries, studio string, m material.Material, file *ScoreFile) error {
	for _, d := range m.Demands {
		bars, err := json.Marshal(append([]int{}, d.Bars...))
		if err != nil {
			return err
		}
		err = q.AddDemand(
			ctx,
			rows.AddDemandParams{StudioID: studio, MaterialID: m.ID, Skill: d.Skill, Weight: d.Weight, Bars: string(bars), Origin: d.Origin},
		)
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
	r, err := s.q(ctx).ScoreFile(ctx, rows.ScoreFileParams{StudioID: studio, MaterialID: materialID})
	return ScoreFile{Name: r.FileName, Data: r.Data}, explain(err)
}

// Library returns all materials of a studio with their demands and focus
// points, in three queries side by side.
func (s *Store) Library(ctx context.Context, studio string) (material.Library, error) {
	var materials []rows.MaterialsRow
	var demands []rows.Demand
	var points []rows.FocusPoint
	g, side := errgroup.WithContext(ctx)
	if transaction(ctx) != nil {
		g.SetLimit(1) // a transaction has one connection
	}
	g.Go(func() (err error) { materials, err = s.q(ctx).Materials(side, studio); return err })
	g.Go(func() (err error) { demands, err = s.q(ctx).Demands(side, studio); return err })
	g.Go(func() (err error) { points, err = s.q(ctx).FocusPoints(side, studio); return err })
	if err := g.Wait(); err != nil {
		return nil, err
	}
	list := make([]material.Material, len(materials))
	at := make(map[string]*material.Material, len(materials))
	for i, r := range materials {
		m := &list[i]
		*m = material.Material{
			HasScore: r.HasScore, Music: r.Music, Rules: int(r.Rules),
			ID: r.ID, Title: r.Title, Composer: r.Composer, Strand: material.Strand(r.Strand), Instrument: r.Instrument,
			SourceID: r.SourceID.String, Source: r.SourceTitle, Unit: r.Unit, Page: int(r.Page), Order: int(r.Position),
			Tempo: r.Tempo, Bars: int(r.Bars), DistinctBars: int(r.DistinctBars), Quarters: r.Quarters, Texture: material.Texture(r.Texture),
			Exercise: r.Exercise, PartOf: r.PartOf, Retired: r.Retired,
		}
		for _, kept := range []struct {
			text string
			into *[]string
		}{{r.BarLabels, &m.BarLabels}, {r.Notes, &m.Notes}, {r.Tags, &m.Tags}} {
			if err := listed(kept.text, kept.into); err != nil {
				return nil, fmt.Errorf("material %s: %w", r.ID, err)
			}
		}
		var err error
		if m.Loads, err = document.ReadLoads(r.Loads); err != nil {
			return nil, fmt.Errorf("loads of material %s: %w", r.ID, err)
		}
		at[r.ID] = m
	}
	for _, r := range demands {
		d := material.Demand{Skill: r.Skill, Weight: r.Weight, Origin: r.Origin}
		if err := listed(r.Bars, &d.Bars); err != nil {
			return nil, fmt.Errorf("demand %s of material %s: %w", r.Skill, r.MaterialID, err)
		}
		if m := at[r.MaterialID]; m != nil { // one that was added between two of the queries waits for the next reading
			m.Demands = append(m.Demands, d)
		}
	}
	for _, r := range points {
		if m := at[r.MaterialID]; m != nil {
			m.FocusPoints = append(m.FocusPoints, material.FocusPoint{ID: r.ID, Text: r.Words})
		}
	}
	lib := make(material.Library, len(list))
	for _, m := range list {
		lib[m.ID] = m
	}
	return lib, nil
}

// listed reads a JSON array; an empty one leaves nil.
func listed[T any](text string, into *[]T) error {
	if text == "[]" || text == "null" {
		return nil
	}
	return json.Unmarshal([]byte(text), into)
}

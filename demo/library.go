package demo

import (
	"context"
	"encoding/json"
	"fmt"
	"sort"
	"time"

	"patientladder/core/library/material"
	"patientladder/core/notation/musicxml"
	"patientladder/core/reading/analysis"
	"patientladder/core/reading/demand"
	"patientladder/core/reading/overrule"
	"patientladder/store"
)

type curriculum struct {
	// Sources are what the students go through.
	Sources []book `json:"sources"`
	// Shelved are books of the studio that stand on no ladder yet.
	Shelved []book `json:"shelved"`
	// Plain are materials without a score; what they ask for is set by hand.
	Plain []struct {
		Title      string             `json:"title"`
		Composer   string             `json:"composer"`
		Instrument string             `json:"instrument"`
		Strand     material.Strand    `json:"strand"`
		Tempo      float64            `json:"tempo"`
		Texture    material.Texture   `json:"texture"`
		Demands    map[string]float64 `json:"demands"`
		Focus      []string           `json:"focus"`
	} `json:"plain"`
}

// book is a source with its pieces in their order.
type book struct {
	Title      string `json:"title"` // empty for pieces that belong to no book
	Instrument string `json:"instrument"`
	Materials  []struct {
		Score  string          `json:"score"` // file name in scores/ without its ending
		Strand material.Strand `json:"strand"`
		Unit   string          `json:"unit"`
		Page   int             `json:"page"`
		Focus  []string        `json:"focus"`
	} `json:"materials"`
}

// addLibrary puts the books into the store and returns the materials and the order in which they are placed on ladders.
func addLibrary(
	ctx context.Context,
	st *store.Store,
	studio string,
	ids *ids,
	day time.Time,
	table demand.Table,
) (material.Library, []string, error) {
	var c curriculum
	data, err := files.ReadFile("curriculum.json")
	if err != nil {
		return nil, nil, err
	}
	if err := json.Unmarshal(data, &c); err != nil {
		return nil, nil, fmt.Errorf("curriculum.json: %w", err)
	}
	s := shelves{ctx: ctx, st: st, studio: studio, ids: ids, day: day, table: table, lib: material.Library{}}
	for _, b := range c.Sources {
		if err := s.book(b); err != nil {
			return nil, nil, err
		}
	}
	if err := s.plain(c); err != nil {
		return nil, nil, err
	}
	placed := s.order
	// Ids of their own: what follows stays the same with one book more.
	s.ids = newIDs(shelvedIDs)
	for _, b := range c.Shelved {
		if err := s.book(b); err != nil {
			return nil, nil, err
		}
	}
	return s.lib, placed, nil
}

// shelvedIDs is the seed of the ids of shelved books, far from those of students.
const shelvedIDs = 1 << 40

// shelves is a library in the making.
type shelves struct {
	ctx    context.Context
	st     *store.Store
	studio string
	ids    *ids
	day    time.Time
	table  demand.Table

	lib   material.Library
	order []string
}

func (s *shelves) add(m material.Material, focus []string, file *store.ScoreFile) error {
	for _, text := range focus {
		m.FocusPoints = append(m.FocusPoints, material.FocusPoint{ID: s.ids.next(s.day), Text: text})
	}
	s.lib[m.ID] = m
	s.order = append(s.order, m.ID)
	_, err := s.st.AddMaterial(s.ctx, s.studio, m, file)
	return err
}

func (s *shelves) book(b book) error {
	source := store.Source{Title: b.Title, Instrument: b.Instrument}
	if b.Title != "" {
		source.ID = s.ids.next(s.day)
		if err := s.st.AddSource(s.ctx, s.studio, source); err != nil {
			return err
		}
	}
	for i, row := range b.Materials {
		name := row.Score + ".musicxml"
		data, err := files.ReadFile("scores/" + name)
		if err != nil {
			return err
		}
		sc, err := musicxml.Read(data)
		if err != nil {
			return fmt.Errorf("%s: %w", name, err)
		}
		m := s.table.Describe(material.Material{
			ID: s.ids.next(s.day), Strand: row.Strand, Instrument: b.Instrument,
			SourceID: source.ID, Source: source.Title, Unit: row.Unit, Page: row.Page, Order: i + 1,
		}, analysis.Of(sc, b.Instrument))
		m.Music = overrule.Print(sc)
		m.Composer = ""
		if err := s.add(m, row.Focus, &store.ScoreFile{Name: name, Data: data}); err != nil {
			return fmt.Errorf("%s: %w", name, err)
		}
	}
	return nil
}

// plain adds the pieces without a score.
func (s *shelves) plain(c curriculum) error {
	for _, p := range c.Plain {
		m := material.Material{
			ID: s.ids.next(s.day), Title: p.Title, Composer: p.Composer, Instrument: p.Instrument, Strand: p.Strand, Tempo: p.Tempo,
			Texture: p.Texture,
		}
		for id, weight := range p.Demands {
			m.Demands = append(m.Demands, material.Demand{Skill: id, Weight: weight, Origin: "teacher"})
		}
		sort.Slice(m.Demands, func(a, b int) bool { return m.Demands[a].Skill < m.Demands[b].Skill })
		if err := s.add(m, p.Focus, nil); err != nil {
			return fmt.Errorf("%s: %w", p.Title, err)
		}
	}
	return nil
}

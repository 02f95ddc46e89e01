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
	Sources []struct {
		Title      string `json:"title"` // empty for pieces that belong to no book
		Instrument string `json:"instrument"`
		Materials  []struct {
			Score  string          `json:"score"` // file name in scores/ without its ending
			Strand material.Strand `json:"strand"`
			Unit   string          `json:"unit"`
			Page   int             `json:"page"`
			Focus  []string        `json:"focus"`
		} `json:"materials"`
	} `json:"sources"`
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

// addLibrary puts the books into the store and returns the materials and their order.
func addLibrary(ctx context.Context, st *store.Store, studio string, ids *ids, day time.Time, table demand.Table) (material.Library, []string, error) {
	var c curriculum
	data, err := files.ReadFile("curriculum.json")
	if err != nil {
		return nil, nil, err
	}
	if err := json.Unmarshal(data, &c); err != nil {
		return nil, nil, fmt.Errorf("curriculum.json: %w", err)
	}
	lib, order := material.Library{}, []string{}
	add := func(m material.Material, focus []string, file *store.ScoreFile) error {
		for _, text := range focus {
			m.FocusPoints = append(m.FocusPoints, material.FocusPoint{ID: ids.next(day), Text: text})
		}
		lib[m.ID] = m
		order = append(order, m.ID)
		_, err := st.AddMaterial(ctx, studio, m, file)
		return err
	}
	for _, src := range c.Sources {
		source := store.Source{Title: src.Title, Instrument: src.Instrument}
		if src.Title != "" {
			source.ID = ids.next(day)
			if err := st.AddSource(ctx, studio, source); err != nil {
				return nil, nil, err
			}
		}
		for i, row := range src.Materials {
			name := row.Score + ".musicxml"
			data, err := files.ReadFile("scores/" + name)
			if err != nil {
				return nil, nil, err
			}
			sc, err := musicxml.Read(data)
			if err != nil {
				return nil, nil, fmt.Errorf("%s: %w", name, err)
			}
			m := table.Describe(material.Material{
				ID: ids.next(day), Strand: row.Strand, Instrument: src.Instrument,
				SourceID: source.ID, Source: source.Title, Unit: row.Unit, Page: row.Page, Order: i + 1,
			}, analysis.Of(sc, src.Instrument))
			m.Music = overrule.Print(sc)
			m.Composer = ""
			if err := add(m, row.Focus, &store.ScoreFile{Name: name, Data: data}); err != nil {
				return nil, nil, fmt.Errorf("%s: %w", name, err)
			}
		}
	}
	for _, p := range c.Plain {
		m := material.Material{
			ID: ids.next(day), Title: p.Title, Composer: p.Composer, Instrument: p.Instrument, Strand: p.Strand, Tempo: p.Tempo, Texture: p.Texture,
		}
		for id, weight := range p.Demands {
			m.Demands = append(m.Demands, material.Demand{Skill: id, Weight: weight, Origin: "teacher"})
		}
		sort.Slice(m.Demands, func(a, b int) bool { return m.Demands[a].Skill < m.Demands[b].Skill })
		if err := add(m, p.Focus, nil); err != nil {
			return nil, nil, fmt.Errorf("%s: %w", p.Title, err)
		}
	}
	return lib, order, nil
}

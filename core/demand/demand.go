// Package demand finds the skills that a score asks for. What counts as a
// feature of a score is code (features.go); which feature asks for which
// skill, and how strongly, is data (table.json).
package demand

import (
	_ "embed"
	"encoding/json"
	"fmt"
	"sort"

	"patientladder/core/material"
	"patientladder/core/pattern"
	"patientladder/core/score"
	"patientladder/core/skill"
)

// Row maps a feature to a skill.
type Row struct {
	Feature string `json:"feature"`
	Skill   string `json:"skill"`
	// Weight is above 0 and at most 2.
	Weight float64 `json:"weight"`
	// Families limit the row; empty means all.
	Families []material.Family `json:"families,omitempty"`
	// MinBars is the fewest bars in which the feature must occur. Default 1.
	MinBars int `json:"minBars,omitempty"`
}

// Table is a checked list of rows.
type Table struct{ byFeature map[string][]Row }

//go:embed table.json
var standard []byte

// Standard returns the table that ships with the program, checked against a catalogue.
func Standard(c skill.Catalogue) (Table, error) { return Parse(standard, c) }

// Parse reads a table from JSON and checks that its skills exist and its weights lie in range.
func Parse(data []byte, c skill.Catalogue) (Table, error) {
	var rows []Row
	if err := json.Unmarshal(data, &rows); err != nil {
		return Table{}, fmt.Errorf("demand table: %w", err)
	}
	t := Table{byFeature: map[string][]Row{}}
	for i, r := range rows {
		if _, ok := c.Get(r.Skill); !ok {
			return Table{}, fmt.Errorf("demand table, row %d: the skill %q is not in the catalogue", i+1, r.Skill)
		}
		if r.Weight <= 0 || r.Weight > 2 {
			return Table{}, fmt.Errorf("demand table, row %d (%s): the weight %g is not above 0 and at most 2", i+1, r.Skill, r.Weight)
		}
		t.byFeature[r.Feature] = append(t.byFeature[r.Feature], r)
	}
	return t, nil
}

// Find returns the demands of a score, by skill id. A skill found through
// several features has the bars of all and the largest weight.
func (t Table) Find(s *score.Score, family material.Family) []material.Demand {
	bySkill := map[string]*material.Demand{}
	bars := map[string]map[int]bool{}
	for name, at := range Features(s, family) {
		for _, r := range t.byFeature[name] {
			if len(at) < r.MinBars || !r.in(family) {
				continue
			}
			d := bySkill[r.Skill]
			if d == nil {
				d = &material.Demand{Skill: r.Skill, Origin: "score"}
				bySkill[r.Skill], bars[r.Skill] = d, map[int]bool{}
			}
			d.Weight = max(d.Weight, r.Weight)
			for _, b := range at {
				bars[r.Skill][b] = true
			}
		}
	}
	out := make([]material.Demand, 0, len(bySkill))
	for id, d := range bySkill {
		for b := range bars[id] {
			d.Bars = append(d.Bars, b)
		}
		sort.Ints(d.Bars)
		if len(d.Bars) == len(s.Bars) {
			d.Bars = nil // the whole piece
		}
		out = append(out, *d)
	}
	sort.Slice(out, func(a, b int) bool { return out[a].Skill < out[b].Skill })
	return out
}

func (r Row) in(f material.Family) bool {
	for _, x := range r.Families {
		if x == f {
			return true
		}
	}
	return len(r.Families) == 0
}

// Describe fills in what a score says about a material: title, composer,
// tempo, bars, length, texture and demands. Fields that the teacher has set
// (a title, a tempo) stay.
func (t Table) Describe(m material.Material, s *score.Score) material.Material {
	family, _ := material.FamilyOf(m.Instrument)
	if m.Title == "" {
		m.Title = s.Title
	}
	if m.Composer == "" {
		m.Composer = s.Composer
	}
	if m.Tempo == 0 {
		m.Tempo = s.Tempo
	}
	load := pattern.Of(s)
	m.Bars, m.DistinctBars, m.Quarters = load.Bars, load.Distinct, s.Length().Float()
	m.BarLabels = s.Labels()
	m.Texture = TextureOf(s, family)
	m.Demands = t.Find(s, family)
	return m
}

// Package demand finds the skills that a piece asks for. What is found in a
// score is the work of package analysis; which finding asks for which skill,
// and how strongly, is data (table.json).
package demand

import (
	_ "embed"
	"encoding/json"
	"fmt"
	"sort"

	"patientladder/core/base/finding"
	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/reading/analysis"
	"patientladder/core/reading/reading"
)

// Row maps a feature (a finding of package analysis) to a skill.
type Row struct {
	Feature string `json:"feature"`
	Skill   string `json:"skill"`
	// Weight is above 0 and at most 2.
	Weight float64 `json:"weight"`
	// Families limit the row; empty means all.
	Families []instrument.Family `json:"families,omitempty"`
	// MinBars is the fewest bars in which the feature must occur. Default 1.
	MinBars int `json:"minBars,omitempty"`
}

// Table is a checked list of rows.
type Table struct{ byFeature map[string][]Row }

//go:embed table.json
var standard []byte

// Standard returns the table that ships with the program, checked against a catalogue.
func Standard(c skill.Catalogue) (Table, error) { return Parse(standard, c) }

// Shipped returns the catalogue and the table that ship with the program.
func Shipped() (skill.Catalogue, Table, error) {
	c, err := skill.Standard()
	if err != nil {
		return c, Table{}, err
	}
	t, err := Standard(c)
	return c, t, err
}

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

// Find returns the demands of a piece, by skill id. A skill found through
// several features has the bars of all and the largest weight.
func (t Table) Find(p *analysis.Piece) []material.Demand {
	family, _ := instrument.FamilyOf(p.Instrument)
	bySkill := map[string]*material.Demand{}
	bars := map[string]finding.Set{}
	for name, at := range p.Features() {
		for _, r := range t.byFeature[name] {
			if len(at) < r.MinBars || !r.in(family) {
				continue
			}
			d := bySkill[r.Skill]
			if d == nil {
				d = &material.Demand{Skill: r.Skill, Origin: "score"}
				bySkill[r.Skill], bars[r.Skill] = d, finding.Set{}
			}
			d.Weight = max(d.Weight, r.Weight)
			bars[r.Skill]["bars"] = append(bars[r.Skill]["bars"], at...)
		}
	}
	out := make([]material.Demand, 0, len(bySkill))
	for id, d := range bySkill {
		d.Bars = bars[id].Settle()["bars"]
		if len(d.Bars) == len(p.Score.Bars) {
			d.Bars = nil // the whole piece
		}
		out = append(out, *d)
	}
	sort.Slice(out, func(a, b int) bool { return out[a].Skill < out[b].Skill })
	return out
}

// Finds says that some row of the table leads to a skill.
func (t Table) Finds(skill string) bool {
	for _, rows := range t.byFeature {
		for _, r := range rows {
			if r.Skill == skill {
				return true
			}
		}
	}
	return false
}

func (r Row) in(f instrument.Family) bool {
	for _, x := range r.Families {
		if x == f {
			return true
		}
	}
	return len(r.Families) == 0
}

// RulesVersion grows whenever the findings or the table change, so that scores
// that were read by older rules are read again.
const RulesVersion = 7

// Describe fills in what a score says about a material: title, composer,
// tempo, bars, length, texture, notes and demands. Fields that the teacher has
// set (a title, a tempo) stay.
func (t Table) Describe(m material.Material, p *analysis.Piece) material.Material {
	s := p.Score
	if m.Title == "" {
		m.Title = s.Title
	}
	if m.Composer == "" {
		m.Composer = s.Composer
	}
	if m.Tempo == 0 {
		m.Tempo = s.Tempo
	}
	m.Bars, m.DistinctBars, m.Quarters = p.Load.Bars, p.Load.Distinct, s.Length().Float()
	m.BarLabels = s.Labels()
	m.Texture = p.TextureName()
	m.Notes = nil
	seen := map[string]bool{}
	for _, l := range p.Lines {
		if !p.Plays[l.Part] {
			continue
		}
		for _, u := range reading.NotesUsed(s, l.Line) {
			if !seen[u.Pitch] {
				seen[u.Pitch] = true
				m.Notes = append(m.Notes, u.Pitch)
			}
		}
	}
	m.Loads = p.Loads(m.Tempo)
	m.Demands, m.Rules = t.Find(p), RulesVersion
	return m
}

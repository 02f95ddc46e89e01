// Package section cuts a piece into named sections, each a material of its own.
package section

import (
	"errors"
	"slices"

	"patientladder/core/library/material"
	"patientladder/core/reading/chunk"
)

// What cannot be about sections; core/wording says each in a sentence.
var (
	ErrSectionBars   = errors.New("the bars of a section are not in the piece, or overlap with another")
	ErrSectionOfPart = errors.New("a section cannot be split again")
	ErrSplitTwice    = errors.New("the piece is split already")
	ErrNotSplit      = errors.New("the piece is not split")
)

// Section is a named stretch of a unit; its bars are positions from 1, both included, zero where they are not known.
type Section struct {
	ID, Title string
	From, To  int
}

// How many sections are proposed at the most, and of how many bars at the least (default).
const (
	mostSections  = 8
	leastSections = 4
)

// Propose cuts a piece where its chunks meet, from the whole downwards, the longest part first, until
// there are about as many as eight bars each; nothing for what is shorter than sixteen bars.
func Propose(tree chunk.Chunk) []Section {
	bars := func(c chunk.Chunk) int { return c.To - c.From + 1 }
	if bars(tree) < 4*leastSections {
		return nil
	}
	parts := []chunk.Chunk{tree}
	for len(parts) < mostSections {
		longest := -1
		for i, c := range parts {
			if len(c.Parts) > 0 && bars(c) > 2*leastSections && (longest < 0 || bars(c) > bars(parts[longest])) {
				longest = i
			}
		}
		if longest < 0 {
			break
		}
		parts = slices.Replace(parts, longest, longest+1, parts[longest].Parts...)
	}
	out := make([]Section, len(parts))
	for i, c := range parts {
		out[i] = Section{From: c.From, To: c.To}
		if i > 0 && c.From <= parts[i-1].To {
			out[i].From = parts[i-1].To + 1 // where an upbeat belongs to both bars
		}
	}
	return slices.DeleteFunc(out, func(s Section) bool { return s.From > s.To })
}

// Split makes materials of the sections of a unit: each asks for what the unit asks for in its bars. point
// makes the ids of their focus points. It refuses bars that are not in the unit, or in two sections.
func Split(unit material.Material, sections []Section, point func() string) ([]material.Material, error) {
	if unit.PartOf != "" {
		return nil, ErrSectionOfPart
	}
	out := make([]material.Material, len(sections))
	for i, s := range sections {
		if s.From > 0 || s.To > 0 {
			if s.From < 1 || s.To < s.From || unit.Bars > 0 && s.To > unit.Bars {
				return nil, ErrSectionBars
			}
			for _, o := range sections[:i] {
				if o.From > 0 && s.From <= o.To && o.From <= s.To {
					return nil, ErrSectionBars
				}
			}
		}
		m := unit
		m.ID, m.Title, m.PartOf, m.Order = s.ID, s.Title, unit.ID, i+1
		m.HasScore, m.Music, m.BarLabels, m.FocusPoints, m.Tags = false, "", nil, nil, nil
		for _, f := range unit.FocusPoints {
			m.FocusPoints = append(m.FocusPoints, material.FocusPoint{ID: point(), Text: f.Text})
		}
		share := 1 / float64(len(sections))
		if s.From > 0 && unit.Bars > 0 {
			m.Bars = s.To - s.From + 1
			share = float64(m.Bars) / float64(unit.Bars)
			for bar := s.From; bar <= s.To; bar++ {
				m.BarLabels = append(m.BarLabels, unit.BarLabel(bar))
			}
			m.Demands = within(unit.Demands, s)
		} else {
			m.Bars = 0
		}
		m.Quarters *= share
		m.DistinctBars = int(float64(unit.DistinctBars)*share + 0.5)
		out[i] = m
	}
	return out, nil
}

// within are the demands that come up in the bars of a section, counted from its first bar.
func within(demands []material.Demand, s Section) (out []material.Demand) {
	for _, d := range demands {
		if len(d.Bars) > 0 {
			var bars []int
			for _, b := range d.Bars {
				if b >= s.From && b <= s.To {
					bars = append(bars, b-s.From+1)
				}
			}
			if len(bars) == 0 {
				continue
			}
			d.Bars = bars
		}
		out = append(out, d)
	}
	return out
}

package app

import (
	"context"
	"strings"

	"github.com/oklog/ulid/v2"

	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/planning/curriculum"
	"patientladder/core/planning/ladder"
	"patientladder/core/wording"
	"patientladder/store"
)

// Renamed is what is changed of a piece; nil tags and points stay as they are.
type Renamed struct {
	Title, Composer string
	Tags, Points    []string
}

// ChangeMaterial changes title, composer, tags and focus points of a piece.
func ChangeMaterial(ctx context.Context, d *open.Loader, id string, to Renamed) error {
	b, m, err := d.Material(ctx, id)
	if err != nil {
		return err
	}
	m = b.AsKept()[m.ID]
	if to.Tags != nil {
		m.Tags = to.Tags
	}
	m.Title, m.Composer = strings.TrimSpace(to.Title), strings.TrimSpace(to.Composer)
	if m.Title == "" {
		return refusal.Invalid("A piece needs a title.")
	}
	return d.Store.Together(ctx, func(ctx context.Context) error {
		if err := d.Store.SaveReading(ctx, b.Tenant.ID, store.Reading{Material: m}); err != nil || to.Points == nil {
			return err
		}
		return d.Store.SetFocusPoints(ctx, b.Tenant.ID, m.ID, PointsOf(m, to.Points, func() string { return ulid.Make().String() }))
	})
}

// PointsOf gives focus points their ids: a text that is there already keeps its id, and with it the marks that it got.
func PointsOf(m material.Material, texts []string, id func() string) []material.FocusPoint {
	ids := map[string]string{}
	for _, p := range m.FocusPoints {
		ids[p.Text] = p.ID
	}
	out := []material.FocusPoint{}
	for _, text := range texts {
		text = strings.TrimSpace(text)
		known, there := ids[text]
		if !there {
			known = id()
		}
		delete(ids, text) // the same words twice are two points
		out = append(out, material.FocusPoint{ID: known, Text: text})
	}
	return out
}

// PlaceOnLadders puts a piece onto several ladders, all or none.
func PlaceOnLadders(ctx context.Context, d *open.Loader, id string, ladders []string) error {
	b, m, err := d.Material(ctx, id)
	if err != nil {
		return err
	}
	for _, id := range ladders {
		l, err := d.Ladder(ctx, id)
		if err != nil {
			return err
		}
		if l.Instrument != m.Instrument {
			return refusal.Invalid(wording.OtherInstrument(m.Title, m.Instrument, l.Instrument))
		}
	}
	return d.Store.Together(ctx, func(ctx context.Context) error {
		for _, id := range ladders {
			if err := d.Store.PlaceRungs(ctx, b.Tenant.ID, id, ladder.Whole(b.Library, m)); err != nil {
				return err
			}
		}
		return nil
	})
}

// Brought are books with their pieces and the skills that are new with them, and the studio's own words for skills in them.
type Brought struct {
	Words     curriculum.Words
	Skills    []skill.Skill
	Sources   []store.Source
	Materials []material.Material
}

// BringIn takes books into the library of a studio.
func BringIn(ctx context.Context, d *open.Loader, studio string, x Brought) error {
	if len(x.Materials) == 0 {
		return refusal.Invalid("There is nothing in it to bring in.")
	}
	return d.Store.Together(ctx, func(ctx context.Context) error {
		if err := d.Store.SetSkillWords(ctx, studio, x.Words); err != nil {
			return err
		}
		return d.Store.Import(ctx, studio, x.Skills, x.Sources, x.Materials)
	})
}

package api

import (
	"context"
	"encoding/json"
	"fmt"
	"math"

	"patientladder/api/contract"
	"patientladder/core/calendar"
	"patientladder/core/forecast"
	"patientladder/core/material"
	"patientladder/core/outlook"
	"patientladder/core/standing"
	"patientladder/store"
)

// forecasts learns from every piece that was cleared in the studio.
func (s *Server) forecasts(ctx context.Context, b book, breaks []calendar.Break) (*forecast.Model, error) {
	ladders, err := s.store.Ladders(ctx, b.studio.ID)
	if err != nil {
		return nil, err
	}
	kept, err := s.store.Observed(ctx, b.studio.ID)
	if err != nil {
		return nil, err
	}
	var obs []forecast.Observation
	for _, l := range ladders {
		clearings, err := s.clearings(ctx, b, l, kept[l.ID])
		if err != nil {
			return nil, err
		}
		obs = append(obs, outlook.Observed(l.ID, clearings, b.lib, breaks, b.day)...)
	}
	return forecast.Fit(obs, forecast.DefaultPrior()), nil
}

func (s *Server) clearings(ctx context.Context, b book, l store.Ladder, k store.Kept) ([]standing.Clearing, error) {
	sh, err := b.on(l)
	if err != nil {
		return nil, err
	}
	var out []standing.Clearing
	if k.ObservedKey == sh.observedKey() && json.Unmarshal(k.Observed, &out) == nil {
		return out, nil
	}
	if err := s.fold(ctx, &sh); err != nil {
		return nil, err
	}
	return sh.standing.Clearings(), nil
}

// howLong says how many weeks a piece takes a student, in whole weeks.
func howLong(model *forecast.Model, ladder string, m material.Material, leap float64) contract.HowLong {
	r := model.Weeks(ladder, leap, m.DistinctBars)
	low, high := int(math.Floor(r.Low)), int(math.Ceil(r.High))
	words := fmt.Sprintf("usually %d to %d weeks", low, high)
	if high == 1 {
		words = "usually a week"
	}
	return contract.HowLong{
		Low: r.Low, Median: r.Median, High: r.High, Words: words,
		Why: fmt.Sprintf("Four times of five between %.1f and %.1f weeks, as likely under as over %.1f: %s. An estimate, by the leap, the length and the student.", r.Low, r.High, r.Median, r.Why),
	}
}

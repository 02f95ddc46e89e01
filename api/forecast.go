package api

import (
	"context"
	"fmt"
	"math"

	"patientladder/api/contract"
	"patientladder/core/forecast"
	"patientladder/core/material"
)

// forecasts learns from every piece that was cleared in the studio.
func (s *Server) forecasts(ctx context.Context, b book) (*forecast.Model, error) {
	all, err := s.shelves(ctx, b, "")
	if err != nil {
		return nil, err
	}
	var obs []forecast.Observation
	for _, sh := range all {
		for _, c := range sh.standing.Clearings() {
			obs = append(obs, forecast.Observation{Student: sh.ladder.ID, Leap: c.Leap, DistinctBars: b.lib[c.Material].DistinctBars, Weeks: c.Weeks})
		}
	}
	return forecast.Fit(obs, forecast.DefaultPrior()), nil
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

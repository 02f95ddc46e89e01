package api

import (
	"context"
	"encoding/json"
	"fmt"
	"math"

	"patientladder/api/contract"
	"patientladder/core/base/calendar"
	"patientladder/core/library/material"
	"patientladder/core/planning/forecast"
	"patientladder/core/planning/outlook"
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
	of := make(map[string]forecast.Moments, len(ladders))
	for _, l := range ladders {
		if of[l.ID], err = s.observed(ctx, b, l, kept[l.ID], breaks); err != nil {
			return nil, err
		}
	}
	return forecast.Learn(of, forecast.DefaultPrior()), nil
}

// observed is what the forecasts learn from one ladder, as it was kept or computed anew.
func (s *Server) observed(ctx context.Context, b book, l store.Ladder, k store.Kept, breaks []calendar.Break) (forecast.Moments, error) {
	var out forecast.Moments
	sh, err := b.on(l)
	if err != nil {
		return out, err
	}
	key := digest(sh.folded(), sh.studio.Timezone, breaks)
	if k.Key == key && json.Unmarshal(k.Body, &out) == nil {
		return out, nil
	}
	if sh, err = s.open(ctx, b, l); err != nil {
		return out, err
	}
	out = forecast.MomentsOf(outlook.Observed(l.ID, sh.standing.Clearings(), b.lib, breaks, b.day))
	body, err := json.Marshal(out)
	if err != nil {
		return out, err
	}
	return out, s.store.SaveObserved(ctx, b.studio.ID, l.ID, store.Kept{Key: key, Body: body})
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
		Low: thousandths(r.Low), Median: thousandths(r.Median), High: thousandths(r.High), Words: words,
		Why: fmt.Sprintf("Four times of five between %.1f and %.1f weeks, as likely under as over %.1f: %s. An estimate, by the leap, the length and the student.", r.Low, r.High, r.Median, r.Why),
	}
}

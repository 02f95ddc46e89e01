package open

import (
	"context"
	"encoding/json"
	"fmt"
	"slices"

	"patientladder/core/planning/forecast"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/outlook"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/standing"
	"patientladder/store"
)

// Ahead is a student with what lies ahead.
type Ahead struct {
	studentplan.StudentOutlook
	Tenant store.Studio
	Row    store.Ladder
	// Opened is the student as it was opened, OpenHorizon the horizon.
	Opened      Student
	OpenHorizon Horizon
}

// Of is the studio of the student.
func (a Ahead) Of() Studio { return a.Opened.Of() }

// Horizon is what the outlooks of a studio share.
type Horizon struct {
	studentplan.Horizon
	// key names everything that it came from.
	key string
}

// Horizon opens what the forecasts have learned.
func (d *Loader) Horizon(ctx context.Context, s Studio) (Horizon, error) {
	model, key, err := d.forecasts(ctx, s)
	return Horizon{studentplan.Horizon{Model: model}, digest(s.Holidays, key)}, err
}

// Shared opens a studio with what all its outlooks share.
func (d *Loader) Shared(ctx context.Context) (s Studio, h Horizon, err error) {
	if s, err = d.Studio(ctx); err != nil {
		return s, h, err
	}
	h, err = d.Horizon(ctx, s)
	return s, h, err
}

// Whole opens a studio with what the outlooks of all its students need.
func (d *Loader) Whole(ctx context.Context) (s Studio, h Horizon, rungs map[string][]ladder.Placed, err error) {
	if s, h, err = d.Shared(ctx); err != nil {
		return s, h, nil, err
	}
	rungs, err = d.Store.AllRungs(ctx, s.Tenant.ID)
	return s, h, rungs, err
}

// Ahead opens a student with the outlook.
func (d *Loader) Ahead(ctx context.Context, id string, o studentplan.Options) (Ahead, error) {
	s, err := d.Student(ctx, id)
	if err != nil {
		return Ahead{}, err
	}
	h, err := d.Horizon(ctx, s.Of())
	if err != nil {
		return Ahead{}, err
	}
	key := s.outlookKey(h, o)
	if kept, ok := d.kept.outlooks.Get(key); ok {
		kept.Student = s.Student // the time has gone on
		return Ahead{StudentOutlook: kept, Tenant: s.Tenant, Row: s.Row, Opened: s, OpenHorizon: h}, nil
	}
	placed, err := d.Store.Rungs(ctx, s.Tenant.ID, id)
	if err != nil {
		return Ahead{}, err
	}
	a := s.Look(h, placed, o)
	d.kept.outlooks.Add(ctx, key, a.StudentOutlook)
	return a, nil
}

// outlookKey names everything that an outlook comes from.
func (s Student) outlookKey(h Horizon, o studentplan.Options) Key {
	return keyOf(s.Tenant.ID, keptOutlook, s.standingKey(), s.Row.RungsVersion, s.Profile, s.policyKey(), h.key, o)
}

// Look makes the outlook of a student with the rungs in some order.
func (s Student) Look(h Horizon, placed []ladder.Placed, o studentplan.Options) Ahead {
	return Ahead{StudentOutlook: s.Ahead(h.Horizon, placed, o), Tenant: s.Tenant, Row: s.Row, Opened: s, OpenHorizon: h}
}

// forecasts learns from every piece that was cleared in the studio before today: what is cleared
// in the lessons of a day moves the dates of the others from the next day on, and not with
// every mark. The key names everything that it came from.
func (d *Loader) forecasts(ctx context.Context, s Studio) (*forecast.Model, string, error) {
	ladders, err := d.Store.Ladders(ctx, s.Tenant.ID)
	if err != nil {
		return nil, "", err
	}
	kept, err := d.Store.Observed(ctx, s.Tenant.ID)
	if err != nil {
		return nil, "", err
	}
	sum := []any{}
	bodies := make([]string, len(ladders))
	for i, l := range ladders {
		if bodies[i], err = d.observed(ctx, s, l, kept[l.ID]); err != nil {
			return nil, "", err
		}
		sum = append(sum, l.ID, bodies[i])
	}
	key := keyOf(s.Tenant.ID, keptModel, sum...)
	model, ok := d.kept.models.Get(key)
	if ok {
		return model, key.String(), nil
	}
	of := make(map[string]forecast.Moments, len(ladders))
	for i, l := range ladders {
		var m forecast.Moments
		if err := json.Unmarshal([]byte(bodies[i]), &m); err != nil {
			return nil, "", fmt.Errorf("what was learned from ladder %s is damaged: %w", l.ID, err)
		}
		of[l.ID] = m
	}
	model = forecast.Learn(of, forecast.DefaultPrior())
	d.kept.models.Add(ctx, key, model)
	return model, key.String(), nil
}

// observed is what the forecasts learn from one student (forecast.Moments as JSON), as it was kept or computed anew.
func (d *Loader) observed(ctx context.Context, s Studio, l store.Ladder, k store.Kept) (string, error) {
	x, err := d.For(s, l)
	if err != nil {
		return "", err
	}
	breaks := x.Timetable().Breaks()
	key := keyOf(s.Tenant.ID, keptObserved, x.standingKey(), breaks).String()
	if k.Key == key && len(k.Body) > 0 {
		return string(k.Body), nil
	}
	if x, err = d.Open(ctx, s, l); err != nil {
		return "", err
	}
	before := slices.DeleteFunc(x.Standing.Clearings(), func(c standing.Clearing) bool { return !s.Local(c.To).Before(s.Today) })
	body, err := json.Marshal(forecast.MomentsOf(outlook.Observed(l.ID, before, s.Library, breaks, s.Local)))
	if err != nil {
		return "", err
	}
	return string(body), d.Store.SaveObserved(ctx, s.Tenant.ID, l.ID, store.Kept{Key: key, Body: body})
}

package api

import (
	"cmp"
	"context"
	"fmt"
	"slices"
	"time"

	openapi_types "github.com/oapi-codegen/runtime/types"

	"patientladder/api/contract"
	"patientladder/core/base/metronome"
	"patientladder/core/student/studentlog"
	"patientladder/core/technique/exercise"
	"patientladder/core/technique/keycycle"
	"patientladder/core/technique/scale"
)

// GetTempi returns a mark of the metronome for each week of a climb.
func (s *Server) GetTempi(_ context.Context, r contract.GetTempiRequestObject) (contract.GetTempiResponseObject, error) {
	marks, err := metronome.Ladder(r.Params.From, r.Params.To, r.Params.Weeks)
	if err != nil {
		return nil, invalid(capital(err.Error()) + ".")
	}
	return contract.GetTempi200JSONResponse{Marks: marks}, nil
}

// TryCycle lays the keys over a student's lessons, the holidays of the studio and the lessons
// that did not take place left out; nothing is kept.
func (s *Server) TryCycle(ctx context.Context, r contract.TryCycleRequestObject) (contract.TryCycleResponseObject, error) {
	a, err := s.ahead(ctx, r.Ladder, lens{near: true})
	if err != nil {
		return nil, err
	}
	x, err := instrumentOf(a.ladder.Instrument)
	if err != nil {
		return nil, err
	}
	p := r.Params
	c := studentlog.Cycle{Type: p.Type, Step: p.Step, Kind: cmp.Or(p.Kind, string(scale.Major)), First: p.Key, Order: string(p.Order), From: p.From.Format(time.DateOnly), Before: p.Before}
	if p.From.IsZero() {
		c.From = a.today.Format(time.DateOnly)
	}
	if t, ok := exercise.CycleType(x.Family); ok && c.Type == "" {
		c.Type = t.ID
	}
	if t, ok := exercise.TypeOf(c.Type); ok && c.Step == "" {
		c.Step = t.Steps[0].ID
	}
	for _, d := range p.Missed {
		a.standing.Missed = append(a.standing.Missed, d.Format(time.DateOnly))
	}
	out, _, err := a.cycle(c, exercise.Climb(x, a.progress(), exercise.Wish{}, a.studio.Words))
	if err != nil {
		return nil, invalid(capital(err.Error()) + ".")
	}
	return contract.TryCycle200JSONResponse(out), nil
}

// cycle lays a cycle over the lessons of a student; it returns the exercise of each week, too.
func (a ahead) cycle(c studentlog.Cycle, stairs []exercise.Stair) (contract.Cycle, []exercise.Exercise, error) {
	list, err := a.round(c)
	if err != nil {
		return contract.Cycle{}, nil, err
	}
	from, err := time.Parse(time.DateOnly, c.From)
	if err != nil {
		return contract.Cycle{}, nil, fmt.Errorf("%q is not a day", c.From)
	}
	var keys []scale.Tonic
	for _, e := range list {
		keys = append(keys, e.Key)
	}
	var missed []time.Time
	for _, d := range a.standing.Missed {
		if day, err := time.Parse(time.DateOnly, d); err == nil {
			missed = append(missed, day)
		}
	}
	plan, err := keycycle.Lay(keys, from, a.ladder.Weekday, breaks(a.holidays, nil), missed, c.Before)
	if err != nil {
		return contract.Cycle{}, nil, err
	}
	t := list[0].Type
	pass := slices.IndexFunc(t.Steps, func(s exercise.Step) bool { return s.ID == c.Step })
	out := contract.Cycle{Type: c.Type, Step: c.Step, Kind: c.Kind, Pass: pass, End: date(plan.End), Passes: []contract.Choice{}, Weeks: []contractCycleWeek{}}
	for _, s := range t.Steps {
		out.Passes = append(out.Passes, contract.Choice{Id: s.ID, Name: s.Name})
	}
	stair := stairs[slices.IndexFunc(stairs, func(s exercise.Stair) bool { return s.Type.ID == t.ID })]
	off := 0
	for i, w := range plan.Weeks {
		week := contractCycleWeek{
			Key: a.studio.Words.Key(w.Key.String()), Exercise: list[i].ID(), Day: date(w.Day), Heard: date(w.Heard), Late: w.Heard.Sub(w.Day) > 7*24*time.Hour,
			State: a.weekState(w, stair, list[i], pass), Missed: []openapi_types.Date{}, Held: []openapi_types.Date{},
		}
		since := func(d time.Time) bool {
			return d.Before(w.Day) && !d.Before(from) && (i == 0 || d.After(plan.Weeks[i-1].Day))
		}
		for _, d := range plan.Missed {
			if since(d) {
				week.Missed = append(week.Missed, date(d))
			}
		}
		for _, d := range plan.Held {
			if since(d) {
				week.Held = append(week.Held, date(d))
			}
		}
		if i > 0 {
			week.Off = int(w.Day.Sub(plan.Weeks[i-1].Day).Hours()/24/7) - 1 - len(week.Held)
			off += week.Off
		}
		out.Weeks = append(out.Weeks, week)
	}
	out.Sentence = a.cycleSentence(plan, list, off)
	return out, list, nil
}

// round are the exercises of a cycle.
func (a ahead) round(c studentlog.Cycle) ([]exercise.Exercise, error) {
	x, err := instrumentOf(a.ladder.Instrument)
	if err != nil {
		return nil, err
	}
	t, ok := exercise.TypeOf(c.Type)
	if !ok || !t.Cycle || !slices.Contains(t.Families, x.Family) {
		return nil, fmt.Errorf("%q is not taken through the keys on the %s", c.Type, x.ID)
	}
	step, ok := t.StepOf(c.Step)
	if !ok {
		return nil, fmt.Errorf("there is no pass %q", c.Step)
	}
	kind := scale.Kind(c.Kind)
	if !slices.Contains(t.Kinds, kind) {
		return nil, fmt.Errorf("there is no kind %q to take through the keys", c.Kind)
	}
	first, err := scale.Parse(c.First, kind)
	if err != nil {
		return nil, err
	}
	return exercise.Round(exercise.Exercise{Type: t, Step: step, Kind: kind, Instrument: x}, first, keycycle.Order(c.Order))
}

// weekState says how the key of a week stands.
func (a ahead) weekState(w keycycle.Week, stair exercise.Stair, e exercise.Exercise, pass int) contract.CycleWeeksState {
	through, working := stair.Passed(e.Place())
	switch {
	case through >= pass:
		return contract.CycleWeeksStateThrough
	case !w.Day.After(a.today) && a.today.Before(w.Heard):
		return contract.CycleWeeksStateNow
	case working == pass:
		return contract.CycleWeeksStateBegun
	case !w.Day.After(a.today):
		return contract.CycleWeeksStateOpen
	}
	return contract.CycleWeeksStateAhead
}

func (a ahead) cycleSentence(p keycycle.Plan, list []exercise.Exercise, off int) string {
	words := a.studio.Words
	last := len(p.Weeks) - 1
	out := fmt.Sprintf("%s from %s to %s, %s: the last is heard on %s", capital(counted(len(list), "key")), words.Key(list[0].Key.String()), words.Key(list[last].Key.String()),
		list[0].Step.Name, p.End.Format("2 January 2006"))
	missed := 0
	for _, d := range p.Missed {
		if d.Before(p.End) {
			missed++
		}
	}
	if off == 0 {
		out += "; no lesson falls out"
	} else {
		out += fmt.Sprintf("; %s without a lesson", counted(off, "week"))
	}
	if n := len(p.Held); n > 0 {
		out += fmt.Sprintf("; no key is begun in %s right before a break", counted(n, "lesson"))
	}
	switch missed {
	case 0:
	case 1:
		out += ". A missed lesson moved the end by a week"
	default:
		out += fmt.Sprintf(". %s moved the end by %s", capital(counted(missed, "missed lesson")), counted(missed, "week"))
	}
	return out + "."
}

type contractCycleWeek = struct {
	Day      openapi_types.Date       `json:"day"`
	Exercise string                   `json:"exercise"`
	Heard    openapi_types.Date       `json:"heard"`
	Held     []openapi_types.Date     `json:"held"`
	Key      string                   `json:"key"`
	Late     bool                     `json:"late"`
	Missed   []openapi_types.Date     `json:"missed"`
	Off      int                      `json:"off"`
	State    contract.CycleWeeksState `json:"state"`
}

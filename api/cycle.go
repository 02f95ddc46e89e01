package api

import (
	"context"
	"fmt"
	"time"

	openapi_types "github.com/oapi-codegen/runtime/types"

	"patientladder/api/contract"
	"patientladder/core/keycycle"
	"patientladder/core/metronome"
	"patientladder/core/scale"
)

// GetTempi returns a mark of the metronome for each week of a climb.
func (s *Server) GetTempi(_ context.Context, r contract.GetTempiRequestObject) (contract.GetTempiResponseObject, error) {
	marks, err := metronome.Ladder(r.Params.From, r.Params.To, r.Params.Weeks)
	if err != nil {
		return nil, invalid(capital(err.Error()) + ".")
	}
	return contract.GetTempi200JSONResponse{Marks: marks}, nil
}

// TryCycle lays the twelve keys over a student's lessons, the holidays of the studio taken out.
func (s *Server) TryCycle(ctx context.Context, r contract.TryCycleRequestObject) (contract.TryCycleResponseObject, error) {
	b, err := s.ofLadder(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	l, err := s.store.Ladder(ctx, b.studio.ID, r.Ladder)
	if err != nil {
		return nil, err
	}
	holidays, err := s.store.Holidays(ctx, b.studio.ID)
	if err != nil {
		return nil, err
	}
	tonic, err := scale.Parse(r.Params.Key, scale.Major)
	if err != nil {
		return nil, invalid(capital(err.Error()) + ".")
	}
	keys, err := keycycle.Keys(tonic, keycycle.Order(r.Params.Order))
	if err != nil {
		return nil, invalid(capital(err.Error()) + ".")
	}
	from := r.Params.From.Time
	if from.IsZero() {
		from = b.today
	}
	var missed []time.Time
	for _, d := range r.Params.Missed {
		missed = append(missed, d.Time)
	}
	p, err := keycycle.Lay(keys, 0, from, l.Weekday, breaks(holidays, nil), missed)
	if err != nil {
		return nil, invalid(capital(err.Error()) + ".")
	}
	out := contract.Cycle{End: date(p.End), Passes: keycycle.Passes(), Weeks: []contractCycleWeek{}}
	off := 0
	for i, w := range p.Weeks {
		week := contractCycleWeek{Key: w.Key.String(), Day: date(w.Day), Heard: date(w.Heard)}
		if i > 0 {
			week.Off = int(w.Day.Sub(p.Weeks[i-1].Day).Hours()/24/7) - 1
			off += week.Off
		}
		out.Weeks = append(out.Weeks, week)
	}
	out.Sentence = fmt.Sprintf("Twelve keys from %s to %s: the last is heard on %s", p.Weeks[0].Key, p.Weeks[11].Key, p.End.Format("2 January 2006"))
	switch off {
	case 0:
		out.Sentence += "; no lesson falls out."
	default:
		out.Sentence += fmt.Sprintf("; %s without a lesson.", counted(off, "week"))
	}
	return contract.TryCycle200JSONResponse(out), nil
}

type contractCycleWeek = struct {
	Day   openapi_types.Date `json:"day"`
	Heard openapi_types.Date `json:"heard"`
	Key   string             `json:"key"`
	Off   int                `json:"off"`
}

package api

import (
	"context"
	"fmt"

	"patientladder/api/contract"
	"patientladder/core/student/setup"
)

// GetSetup returns how a student sits, and whether that is to be measured again.
func (s *Server) GetSetup(ctx context.Context, r contract.GetSetupRequestObject) (contract.GetSetupResponseObject, error) {
	sh, err := s.shelf(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	st := sh.standing
	out := contract.Setup{Student: student(sh.ladder, sh.today), Due: sh.setupDue(), Cautions: setup.Cautions(), School: contract.SetupSchool(sh.way.HandShape), Lean: contract.SetupLean(sh.way.BenchLean)}
	for _, school := range []setup.School{setup.Hanging, setup.Ball} {
		list := contractChecks{School: contract.SetupChecksSchool(school)}
		for _, c := range setup.Checks(school) {
			list.List = append(list.List, contractCheck{Id: c.ID, Look: c.Look, Child: c.Child})
		}
		out.Checks = append(out.Checks, list)
	}
	for _, f := range setup.Faults() {
		out.Faults = append(out.Faults, contractFaultOfSetup{Id: f.ID, Name: f.Name, Remedy: f.Remedy})
	}
	out.Sentence = "Nothing was measured yet: a tape and two minutes are enough."
	if st.Setup != nil {
		seat, err := st.Setup.Work()
		if err != nil {
			return nil, err
		}
		out.Measured, out.Measures, out.Seat = date(sh.day(st.SetupAt)), measuresOut(*st.Setup), seatOf(seat)
		out.Sentence = fmt.Sprintf("Measured on %s. %s", st.SetupAt.Format("2 January 2006"), seat.Says[0])
		if out.Due {
			out.Sentence = fmt.Sprintf("Measured on %s, and due again: children grow.", st.SetupAt.Format("2 January 2006"))
		}
	}
	return contract.GetSetup200JSONResponse(out), nil
}

// setupDue says that bench and feet are to be measured again, on instruments that are played sitting at keys.
func (sh shelf) setupDue() bool {
	return sh.family == "keyboard" && setup.Due(sh.standing.SetupAt, sh.today, sh.ladder.Age(sh.today), setup.Months)
}

// TrySetup works heights out; nothing is kept.
func (s *Server) TrySetup(ctx context.Context, r contract.TrySetupRequestObject) (contract.TrySetupResponseObject, error) {
	if _, err := s.store.Ladder(ctx, actor(ctx).studio, r.Ladder); err != nil {
		return nil, err
	}
	seat, err := measuresOf(r.Body).Work()
	if err != nil {
		return nil, invalid(capital(err.Error()) + ".")
	}
	return contract.TrySetup200JSONResponse(seatOf(seat)), nil
}

type contractCheck = struct {
	Child string `json:"child"`
	Id    string `json:"id"`
	Look  string `json:"look"`
}

type contractChecks = struct {
	List   []contractCheck            `json:"list"`
	School contract.SetupChecksSchool `json:"school"`
}

type contractFaultOfSetup = struct {
	Id     string `json:"id"`
	Name   string `json:"name"`
	Remedy string `json:"remedy"`
}

type contractMat = struct {
	Soft      bool    `json:"soft"`
	Thickness float64 `json:"thickness"`
}

func measuresOf(m *contract.Measures) setup.Measures {
	out := setup.Measures{KeyTop: m.KeyTop, Elbow: m.Elbow, Leg: m.Leg, BenchLow: m.BenchLow, BenchHigh: m.BenchHigh, Lean: setup.Lean(m.Lean)}
	for _, mat := range m.Mats {
		out.Mats = append(out.Mats, setup.Mat{Thickness: mat.Thickness, Soft: mat.Soft})
	}
	return out
}

func measuresOut(m setup.Measures) contract.Measures {
	out := contract.Measures{KeyTop: m.KeyTop, Elbow: m.Elbow, Leg: m.Leg, BenchLow: m.BenchLow, BenchHigh: m.BenchHigh, Lean: contract.MeasuresLean(m.Lean), Mats: []contractMat{}}
	for _, mat := range m.Mats {
		out.Mats = append(out.Mats, contractMat{Thickness: mat.Thickness, Soft: mat.Soft})
	}
	return out
}

func seatOf(r setup.Result) contract.Seat {
	return contract.Seat{
		Seat: r.Seat, Bench: r.Bench, Mats: append([]float64{}, r.Mats...), Platform: r.Platform, Off: r.Off, Possible: r.Possible,
		Says: append([]string{}, r.Says...), Refused: append([]string{}, r.Refused...),
	}
}

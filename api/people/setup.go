package people

import (
	"context"
	"fmt"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/api/open"
	"patientladder/api/problem"
	"patientladder/core/student/setup"
)

// GetSetup returns how a student sits, and whether that is to be measured again.
func (h *Handlers) GetSetup(ctx context.Context, r contract.GetSetupRequestObject) (contract.GetSetupResponseObject, error) {
	sh, err := h.Student(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	st := sh.Standing
	out := contract.Setup{Student: answer.Student(sh.Row, sh.Today), Due: sh.SetupDue(), Cautions: setup.Cautions(), School: contract.SetupSchool(sh.Way.HandShape), Lean: contract.SetupLean(sh.Way.BenchLean)}
	for _, school := range []setup.School{setup.Hanging, setup.Ball} {
		list := contract.SetupChecks{School: contract.SetupChecksSchool(school)}
		for _, c := range setup.Checks(school) {
			list.List = append(list.List, contract.SetupCheck{Id: c.ID, Look: c.Look, Child: c.Child})
		}
		out.Checks = append(out.Checks, list)
	}
	for _, f := range setup.Faults() {
		out.Faults = append(out.Faults, contract.SetupFault{Id: f.ID, Name: f.Name, Remedy: f.Remedy})
	}
	out.Sentence = "Nothing was measured yet: a tape and two minutes are enough."
	if st.Setup != nil {
		seat, err := st.Setup.Work()
		if err != nil {
			return nil, err
		}
		out.Measured, out.Measures, out.Seat = answer.Date(sh.Local(st.SetupAt)), answer.Measures(*st.Setup), seatOf(seat)
		out.Sentence = fmt.Sprintf("Measured on %s. %s", st.SetupAt.Format("2 January 2006"), seat.Says[0])
		if out.Due {
			out.Sentence = fmt.Sprintf("Measured on %s, and due again: children grow.", st.SetupAt.Format("2 January 2006"))
		}
	}
	return contract.GetSetup200JSONResponse(out), nil
}

// TrySetup works heights out; nothing is kept.
func (h *Handlers) TrySetup(ctx context.Context, r contract.TrySetupRequestObject) (contract.TrySetupResponseObject, error) {
	if _, err := h.Store.Ladder(ctx, open.Actor(ctx).Studio, r.Ladder); err != nil {
		return nil, err
	}
	seat, err := answer.MeasuresOf(r.Body).Work()
	if err != nil {
		return nil, problem.Because(err)
	}
	return contract.TrySetup200JSONResponse(seatOf(seat)), nil
}

func seatOf(r setup.Result) contract.Seat {
	return contract.Seat{
		Seat: r.Seat, Bench: r.Bench, Mats: append([]float64{}, r.Mats...), Platform: r.Platform, Off: r.Off, Possible: r.Possible,
		Says: append([]string{}, r.Says...), Refused: append([]string{}, r.Refused...),
	}
}

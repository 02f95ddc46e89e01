package people

import (
	"context"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/app/refusal"
	"patientladder/core/student/setup"
	"patientladder/core/wording"
)

// GetSetup returns how a student sits, and whether that is to be measured again.
func (h *Handlers) GetSetup(ctx context.Context, r contract.GetSetupRequestObject) (contract.GetSetupResponseObject, error) {
	sh, err := h.Student(ctx, r.Ladder)
	if err != nil {
		return nil, err
	}
	x := sh.OnInstrument()
	asked := setup.AskedFor(x)
	out := contract.Setup{
		Student: answer.Student(sh.Row, sh.Today), Due: sh.SetupDue(), Cautions: setup.Cautions(), School: contract.SetupSchool(sh.Way.HandShape),
		Lean:  contract.SetupLean(sh.Way.BenchLean),
		Asked: contract.SetupAsked(asked), Places: []contract.SetupPlace{}, Sentence: wording.Setup(sh.Student, asked),
	}
	for _, school := range []setup.School{setup.Hanging, setup.Ball} {
		list := contract.SetupChecks{School: contract.SetupChecksSchool(school)}
		for _, c := range setup.Checks(asked, school) {
			list.List = append(list.List, contract.SetupCheck{Id: c.ID, Look: c.Look, Child: c.Child})
		}
		out.Checks = append(out.Checks, list)
	}
	for _, f := range sh.UsualFaults() {
		fault := contract.SetupFault{Id: f.ID, Name: f.Name, Remedy: f.Remedy, State: contract.SetupFaultState(f.State)}
		if !f.Since.IsZero() {
			fault.Since = wording.DayAndYear(f.Since)
		}
		out.Faults = append(out.Faults, fault)
	}
	for _, place := range []setup.Place{setup.Studio, setup.Home} {
		m, measured := sh.Standing.Setups[place]
		if !measured {
			continue
		}
		seat, err := m.Measures.Work()
		if err != nil {
			return nil, err
		}
		at := contract.SetupPlace{
			Place:    contract.SetupPlacePlace(place),
			Measured: answer.Date(sh.Local(m.At)),
			Measures: answer.Measures(m.Measures),
			Seat:     seatOf(seat),
		}
		if m.Before != nil {
			at.Growth = wording.Growth(*m.Before, m.Measures, wording.DayAndYear(sh.Local(m.BeforeAt)))
		}
		out.Places = append(out.Places, at)
	}
	bench, err := h.Store.Bench(ctx, sh.Tenant.ID, asked)
	if err != nil {
		return nil, err
	}
	if bench != nil {
		out.Bench = contract.Bench{
			KeyTop:    bench.KeyTop,
			BenchLow:  bench.BenchLow,
			BenchHigh: bench.BenchHigh,
			Mats:      answer.Measures(setup.Measures{Mats: bench.Mats}).Mats,
		}
	}
	return contract.GetSetup200JSONResponse(out), nil
}

// TrySetup works heights out; nothing is kept.
func (h *Handlers) TrySetup(ctx context.Context, r contract.TrySetupRequestObject) (contract.TrySetupResponseObject, error) {
	if _, err := h.Ladder(ctx, r.Ladder); err != nil {
		return nil, err
	}
	seat, err := answer.MeasuresOf(r.Body).Work()
	if err != nil {
		return nil, refusal.Because(err)
	}
	return contract.TrySetup200JSONResponse(seatOf(seat)), nil
}

func seatOf(r setup.Result) contract.Seat {
	return contract.Seat{
		Seat: r.Seat, Bench: r.Bench, Mats: append([]float64{}, r.Mats...), Platform: r.Platform, Off: r.Off, Possible: r.Possible,
		Says: append([]string{}, r.Says...), Refused: append([]string{}, r.Refused...),
	}
}

package answer

import (
	"patientladder/api/contract"
	"patientladder/core/student/setup"
)

// MeasuresOf are the measures of a seat as core has them.
func MeasuresOf(m *contract.Measures) setup.Measures {
	out := setup.Measures{
		Place:     setup.Place(m.Place),
		Pedal:     m.Pedal,
		KeyTop:    m.KeyTop,
		Elbow:     m.Elbow,
		Leg:       m.Leg,
		BenchLow:  m.BenchLow,
		BenchHigh: m.BenchHigh,
		Lean:      setup.Lean(m.Lean),
	}
	for _, mat := range m.Mats {
		out.Mats = append(out.Mats, setup.Mat{Thickness: mat.Thickness, Soft: mat.Soft})
	}
	return out
}

// Measures are the measures of a seat.
func Measures(m setup.Measures) contract.Measures {
	out := contract.Measures{
		Place:     contract.MeasuresPlace(m.At()),
		Pedal:     m.Pedal,
		KeyTop:    m.KeyTop,
		Elbow:     m.Elbow,
		Leg:       m.Leg,
		BenchLow:  m.BenchLow,
		BenchHigh: m.BenchHigh,
		Lean:      contract.MeasuresLean(m.Lean),
		Mats:      []contract.Mat{},
	}
	for _, mat := range m.Mats {
		out.Mats = append(out.Mats, contract.Mat{Thickness: mat.Thickness, Soft: mat.Soft})
	}
	return out
}

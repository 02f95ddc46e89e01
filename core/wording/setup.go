package wording

import (
	"fmt"

	"patientladder/core/planning/studentplan"
	"patientladder/core/student/setup"
)

// Setup says how a student's seat stands. Nothing is advised before it was measured.
func Setup(s studentplan.Student, asked setup.Asked) string {
	m, measured := s.Standing.Setups[setup.Studio]
	switch {
	case asked == setup.Standing:
		return "Played standing: there is nothing to measure; look at what stands below."
	case !measured:
		return "Nothing was measured yet: a tape and two minutes are enough."
	case s.SetupDue():
		return fmt.Sprintf("Measured on %s, and due again: children grow.", DayAndYear(s.Local(m.At)))
	}
	seat, err := m.Measures.Work()
	if err != nil {
		return fmt.Sprintf("Measured on %s.", DayAndYear(s.Local(m.At)))
	}
	return fmt.Sprintf("Measured on %s. %s", DayAndYear(s.Local(m.At)), seat.Says[0])
}

// Growth says what has changed since a measurement on a day; empty for nothing.
func Growth(before, now setup.Measures, on string) string {
	g, ok := setup.GrowthOf(before, now)
	if !ok {
		return ""
	}
	var parts []string
	say := func(what string, by float64) {
		switch {
		case by > 0:
			parts = append(parts, fmt.Sprintf("the %s is %g cm longer", what, by))
		case by < 0:
			parts = append(parts, fmt.Sprintf("the %s is %g cm shorter: measure once more", what, -by))
		}
	}
	say("lower leg", g.Leg)
	say("upper arm", g.Elbow)
	return fmt.Sprintf("Since %s %s.", on, List(parts))
}

package studentplan_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/planning/plantest"
	"patientladder/core/reading/section"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
)

func TestAUnitIsSplitIntoSections(t *testing.T) {
	unit := plantest.Piece("theme", material.Repertoire)
	unit.Bars, unit.DistinctBars, unit.Quarters, unit.HasScore = 32, 16, 96, true
	unit.FocusPoints = []material.FocusPoint{{ID: "f", Text: "steady pulse"}}
	unit.Demands = []material.Demand{{Skill: "pulse", Weight: 1}, {Skill: "ties", Weight: 0.5, Bars: []int{2, 20}}}
	parts, err := section.Split(
		unit,
		[]section.Section{{ID: "one", Title: "Theme", From: 1, To: 8}, {ID: "two", Title: "Variations", From: 9, To: 32}},
		plantest.Counter(),
	)
	require.NoError(t, err)
	require.Equal(
		t,
		[]any{"theme", 1, 8, 4, 24.0, false},
		[]any{parts[0].PartOf, parts[0].Order, parts[0].Bars, parts[0].DistinctBars, parts[0].Quarters, parts[0].HasScore},
	)
	require.Equal(t, []material.Demand{{Skill: "pulse", Weight: 1}, {Skill: "ties", Weight: 0.5, Bars: []int{12}}}, parts[1].Demands)
	require.Equal(t, "9", parts[1].BarLabel(1))
	require.NotEqual(t, parts[0].FocusPoints[0].ID, parts[1].FocusPoints[0].ID)
	for _, bad := range [][]section.Section{{{From: 1, To: 33}, {From: 34, To: 35}}, {{From: 5, To: 4}, {}}, {{From: 1, To: 8}, {From: 8, To: 9}}} {
		_, err := section.Split(unit, bad, plantest.Counter())
		require.ErrorIs(t, err, section.ErrSectionBars)
	}
	_, err = section.Split(parts[0], []section.Section{{}, {}}, plantest.Counter())
	require.ErrorIs(t, err, section.ErrSectionOfPart)
	free, err := section.Split(unit, []section.Section{{ID: "x"}, {ID: "y"}}, plantest.Counter())
	require.NoError(t, err)
	require.Equal(t, []any{0, 8, 48.0}, []any{free[0].Bars, free[0].DistinctBars, free[0].Quarters}, "without bars, in equal shares")

	// The unit is cleared by its last section, is reviewed as a whole, and meanwhile its sections are worked at.
	s := plantest.Pupil(t, unit, parts[0], parts[1])
	s.Units = s.Library.Units()
	log := []studentlog.Entry{
		plantest.Entry("1", 9, studentlog.Assigned, studentlog.Entry{Material: "theme"}),
		plantest.Entry("2", 8, studentlog.Assigned, studentlog.Entry{Material: "one"}),
		plantest.Entry("3", 7, studentlog.Cleared, studentlog.Entry{Material: "one"}),
	}
	then := plantest.Folded(*s, log)
	require.Empty(t, then.In(standing.Working), "not the unit")
	require.Equal(t, []string{"one"}, then.Learned())
	then = plantest.Folded(*s, append(log, plantest.Entry("4", 1, studentlog.Cleared, studentlog.Entry{Material: "two"})))
	require.Equal(t, standing.AllSections, then.Standing.Materials["theme"].Why)
	require.Equal(t, []string{"theme"}, then.Learned(), "the sections rest in it")
}

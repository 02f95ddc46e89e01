package inweek

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/planning/plantest"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
)

// Days without anything to do are left out, and a week that begins before the one before it is over takes its days over.
func TestTheDaysOfPublishedWeeks(t *testing.T) {
	day := func(offset int, words string) week.Day {
		d := week.Day{Date: plantest.Monday.AddDate(0, 0, offset), Focus: words}
		if words != "" {
			d.Items = []week.Item{{Key: words}}
		}
		return d
	}
	rest := day(2, "rest")
	rest.Rest = true
	first := studentplan.SetWeek{Start: plantest.Monday, Plan: week.Plan{Days: []week.Day{day(0, "a"), day(1, ""), rest, day(3, "b"), day(4, "c"), day(5, "d")}}}
	second := studentplan.SetWeek{Start: plantest.Monday.AddDate(0, 0, 4), Plan: week.Plan{Days: []week.Day{day(4, "e"), day(9, "f")}}}
	var got []string
	for _, d := range PracticeDays([]studentplan.SetWeek{first, second}) {
		got = append(got, d.Focus)
	}
	require.Equal(t, []string{"a", "b", "e", "f"}, got)
	require.Empty(t, PracticeDays(nil))
	require.True(t, week.Holds(plantest.Monday, time.Time{}))
	require.False(t, week.Holds(plantest.Monday, plantest.Monday))
}

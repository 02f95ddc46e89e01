package brief

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/calendar"
	"patientladder/core/planning/plantest"
	"patientladder/core/planning/studentplan"
)

// Two students with three ladders: one every week for half an hour and on a second instrument, one every second week for an
// hour; who is gone counts no more.
func TestTheLoadOfATeacher(t *testing.T) {
	fortnight := calendar.Weekly(time.Tuesday, 600, 60, plantest.Monday.AddDate(-1, 0, 0))
	fortnight.Slots[0].Every = 2
	list := []studentplan.Profile{
		{Student: "a", Lessons: plantest.Mondays()}, {Student: "a", Lessons: plantest.Mondays()}, {Student: "b", Lessons: fortnight},
		{Student: "c", Lessons: plantest.Mondays(), Until: plantest.Monday.AddDate(0, 0, -3)},
	}
	require.Equal(t, Load{Students: 2, Minutes: 90}, LoadOf(list, plantest.Monday))
	require.Zero(t, LoadOf(nil, plantest.Monday))
}

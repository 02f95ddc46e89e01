package studentplan

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/calendar"
)

// Two students with three ladders: one every week for half an hour and on a second instrument, one every second week for an
// hour; who is gone counts no more.
func TestTheLoadOfATeacher(t *testing.T) {
	fortnight := calendar.Weekly(time.Tuesday, 600, 60, monday.AddDate(-1, 0, 0))
	fortnight.Slots[0].Every = 2
	list := []Profile{
		{Student: "a", Lessons: mondays()}, {Student: "a", Lessons: mondays()}, {Student: "b", Lessons: fortnight},
		{Student: "c", Lessons: mondays(), Until: monday.AddDate(0, 0, -3)},
	}
	require.Equal(t, Load{Students: 2, Minutes: 90}, LoadOf(list, monday))
	require.Zero(t, LoadOf(nil, monday))
}

package outlook

import (
	"time"

	"patientladder/core/base/calendar"
	"patientladder/core/library/material"
	"patientladder/core/planning/forecast"
	"patientladder/core/student/standing"
)

// Observed is what the forecasts learn from the pieces that a student cleared.
// Weeks in which there were no lessons or the piece rested do not count. Local
// turns a time into the studio's date, as midnight in UTC.
func Observed(
	student string,
	cleared []standing.Clearing,
	lib material.Library,
	breaks []calendar.Break,
	local func(time.Time) time.Time,
) []forecast.Observation {
	out := make([]forecast.Observation, len(cleared))
	for i, c := range cleared {
		weeks := c.To.Sub(c.From).Hours()/(24*7) - float64(c.Rested)/7 - float64(calendar.WeeksOff(local(c.From), local(c.To), breaks))
		out[i] = forecast.Observation{Student: student, Leap: c.Leap, DistinctBars: lib[c.Material].DistinctBars, Weeks: weeks}
	}
	return out
}

package inweek

import (
	"time"

	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
)

// PracticeDays are the days of published weeks, in the order in which they begin, on which there is something to do.
func PracticeDays(weeks []studentplan.SetWeek) (out []week.Day) {
	for i, w := range weeks {
		var next time.Time
		if i+1 < len(weeks) {
			next = weeks[i+1].Start
		}
		for _, d := range w.Plan.Days {
			if !d.Rest && len(d.Items) > 0 && week.Holds(d.Date, next) {
				out = append(out, d)
			}
		}
	}
	return out
}

package studentplan

import (
	"time"

	"patientladder/core/planning/week"
)

// SetWeek is a published week.
type SetWeek struct {
	Start time.Time
	Plan  week.Plan
}

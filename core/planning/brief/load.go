package brief

import (
	"time"

	"patientladder/core/planning/studentplan"
)

// Load is how much somebody teaches in a usual week.
type Load struct{ Students, Minutes int }

// LoadOf is the load of those who are taught on a day: each student once, whatever the number of instruments.
func LoadOf(list []studentplan.Profile, day time.Time) Load {
	var out Load
	seen := map[string]bool{}
	for _, p := range list {
		if p.Gone(day) {
			continue
		}
		if !seen[p.Student] {
			seen[p.Student] = true
			out.Students++
		}
		if slot, ok := p.Lessons.Usual(day); ok {
			out.Minutes += slot.Minutes / max(1, slot.Every)
		}
	}
	return out
}

// Package asked turns what was sent into the types of core.
package asked

import (
	"time"

	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/core/base/calendar"
)

// Slots are lesson times as the contract has them.
func Slots(list []contract.NewSlot) ([]calendar.Slot, error) {
	out := make([]calendar.Slot, len(list))
	for i, n := range list {
		at, err := open.Clock(n.StartsAt)
		if err != nil {
			return nil, err
		}
		out[i] = calendar.Slot{ID: n.Id, Weekday: time.Weekday(n.Weekday), StartsAt: at, Minutes: n.Minutes, Every: n.Every, Until: n.Until.Time}
	}
	return out, nil
}

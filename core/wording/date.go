package wording

import "time"

// Day writes "2 January".
func Day(t time.Time) string { return t.Format("2 January") }

// Month writes "Jan".
func Month(t time.Time) string { return t.Format("Jan") }

// DayAndYear writes "2 January 2006".
func DayAndYear(t time.Time) string { return t.Format("2 January 2006") }

const (
	// nearDays is for how long a range is said by its days (default); beyond, by its months.
	nearDays = 70
	// sameYearDays is for how long a date needs no year (default).
	sameYearDays = 200
	oneDay       = 24 * time.Hour
)

// Between says a range of days as coarsely as it is: the days for a near one, the months for a far one.
func Between(low, high, today time.Time) string {
	year := func(t time.Time) string {
		if t.Year() == today.Year() || t.Sub(today) < sameYearDays*oneDay {
			return ""
		}
		return t.Format(" 2006")
	}
	switch {
	case low.Equal(high):
		return low.Format("2 Jan") + year(low)
	case high.Sub(today) < nearDays*oneDay:
		return low.Format("2 Jan") + " – " + high.Format("2 Jan")
	case low.Year() == high.Year() && low.Month() == high.Month():
		return low.Format("January") + year(low)
	case low.Year() == high.Year():
		return low.Format("Jan") + " – " + high.Format("Jan") + year(high)
	}
	return low.Format("Jan") + year(low) + " – " + high.Format("Jan") + year(high)
}

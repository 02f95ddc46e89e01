package athome

import (
	"time"

	"patientladder/core/planning/week"
)

// LinkDays is for how long a family's link opens the page when nothing else is said: about a term (default).
const LinkDays = 120

// Link is how a family comes to its page.
type Link struct {
	// Token is what the address ends with; empty for no link.
	Token string
	// Expires is the last day on which it opens.
	Expires time.Time
}

// Opens says whether it opens the page on a day, as midnight in UTC.
func (l Link) Opens(day time.Time) bool { return l.Token != "" && !day.After(l.Expires) }

// Lasts says whether it may go into a letter on a day: it opens for longer than the week that the letter is about,
// however long lessons that fall out make it.
func (l Link) Lasts(day time.Time) bool { return l.Opens(day.AddDate(0, 0, week.MostDays+1)) }

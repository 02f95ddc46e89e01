package progress

import (
	"fmt"
	"slices"
	"time"

	"patientladder/core/base/calendar"
	"patientladder/core/base/civil"
)

// Span are the days from one to another, both included.
type Span struct{ From, To time.Time }

// Has says that a day lies in the span.
func (s Span) Has(day time.Time) bool { return !day.Before(s.From) && !day.After(s.To) }

// Days is how many there are.
func (s Span) Days() int { return civil.Between(s.From, s.To) + 1 }

// longestSpan is the longest that is looked at, in years.
const longestSpan = 60

// Check says in a sentence what is wrong with a span, or returns nil.
func (s Span) Check(today time.Time) error {
	says := func(t time.Time) string { return t.Format("2 January 2006") }
	switch {
	case s.To.Before(s.From):
		return fmt.Errorf("the span ends before it begins: from %s to %s", says(s.From), says(s.To))
	case s.From.After(today):
		return fmt.Errorf("%s is still ahead; there is nothing to look back at", says(s.From))
	case s.To.After(s.From.AddDate(longestSpan, 0, 0)):
		return fmt.Errorf("a span is at most %d years long", longestSpan)
	}
	return nil
}

const (
	// longBreak is from how many days on a holiday parts two terms (default).
	longBreak = 7
	// usualTerm is how many weeks are looked at where no holiday parts the terms (default).
	usualTerm = 13
)

// Term is the stretch of lessons in which a day lies: from the end of the last long holiday before it to the day
// before the next one. Without a holiday it is the last thirteen weeks.
func Term(day time.Time, breaks []calendar.Break) Span {
	out := Span{}
	for _, b := range breaks {
		if civil.Between(b.From, b.To)+1 < longBreak {
			continue
		}
		if b.To.Before(day) && b.To.AddDate(0, 0, 1).After(out.From) {
			out.From = b.To.AddDate(0, 0, 1)
		}
	}
	if out.From.IsZero() {
		out.From = day.AddDate(0, 0, -7*usualTerm+1)
	}
	out.To = day
	return out
}

// Stretch is the kind of a span that is offered.
type Stretch string

// The kinds.
const (
	Month    Stretch = "month"
	ThisTerm Stretch = "term"
	Year     Stretch = "year"
	All      Stretch = "all"
)

// Offer is a span that is worth looking at.
type Offer struct {
	Kind Stretch
	Span Span
}

// Offered are the spans worth looking at today, from the shortest: four weeks, the term, a year, and all of it. What began
// before the first lesson is left out, for the next longer one shows no more.
func Offered(first, today time.Time, breaks []calendar.Break) []Offer {
	out := []Offer{{Month, Span{today.AddDate(0, 0, -27), today}}}
	if first.IsZero() || !first.Before(out[0].Span.From) {
		return out
	}
	for _, o := range []Offer{{ThisTerm, Term(today, breaks)}, {Year, Span{today.AddDate(-1, 0, 1), today}}} {
		if o.Span.From.After(first) {
			out = append(out, o)
		}
	}
	return append(out, Offer{All, Span{first, today}})
}

// Breaks are the holidays and pauses that lie in the span, cut to it, from the first.
func (p Progress) Breaks(all []calendar.Break) []Span {
	var out []Span
	for _, b := range all {
		from, to := b.From, b.To
		if from.Before(p.Span.From) {
			from = p.Span.From
		}
		if to.After(p.Span.To) {
			to = p.Span.To
		}
		if !to.Before(from) {
			out = append(out, Span{from, to})
		}
	}
	slices.SortFunc(out, func(a, b Span) int { return a.From.Compare(b.From) })
	return out
}

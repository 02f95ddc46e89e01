package wording

import (
	"fmt"
	"strings"
	"time"

	"patientladder/core/library/material"
	"patientladder/core/planning/inweek"
	"patientladder/core/planning/week"
)

// Week says a week of practice in one sentence.
func Week(w inweek.Week) string {
	days := 0
	for _, d := range w.Plan.Days {
		if !d.Rest {
			days++
		}
	}
	switch {
	case len(w.Input.Works) == 0 && days > 0 && len(w.Input.Activities) > 0:
		return "No piece in work yet: " + Counted(days, "day") + " of games, never more than " + Counted(w.Input.MinutesADay(), "minute") + "."
	case len(w.Input.Works) == 0:
		return "There is no working piece: choose one on the ladder, then come back."
	case days == 0:
		return "No practice day is chosen: pick at least one below."
	}
	out := Capital(Counted(days, "day")) + ", never more than " + Counted(w.Input.MinutesADay(), "minute")
	if w.Input.BySound {
		out += ", by ear"
	}
	if n := len(w.Plan.LeftOut); n > 0 {
		return out + "; left for next week: " + Counted(n, "step") + "."
	}
	return out + "; short sections first, joined later in the week."
}

// Bars says a stretch of bars with its upbeat: “bars 3–4 with the upbeat”.
func Bars(m material.Material, from, to int, upbeat bool) string {
	words := m.Span(from, to)
	if upbeat {
		words += " with the upbeat"
	}
	return words
}

// WeekChanged says that a week would be planned otherwise than it was shown.
func WeekChanged(known bool) string {
	if known {
		return "Something happened since this week was shown, and it would be planned differently now. Nothing was published."
	}
	return "This week was planned again since it was shown. Nothing was published: look at it once more."
}

// mostChanges is how many changes of a week are said before the rest is counted.
const mostChanges = 6

// WeekChanges says what another plan has otherwise.
func (n Names) WeekChanges(changes []week.Change) []string {
	var out []string
	for _, c := range changes[:min(len(changes), mostChanges)] {
		out = append(out, n.weekChange(c))
	}
	if more := len(changes) - mostChanges; more > 0 {
		out = append(out, fmt.Sprintf("and %d more", more))
	}
	return out
}

func (n Names) weekChange(c week.Change) string {
	what := Quoted(c.Item.Title)
	if m, known := n.Library[c.Item.Material]; known && c.Item.Bars.From > 0 {
		what += ", " + Bars(m, c.Item.Bars.From, c.Item.Bars.To, c.Item.Bars.Upbeat)
	}
	switch c.Kind {
	case week.Added:
		return fmt.Sprintf("New: %s, on %s", what, dayNames(c.Days))
	case week.Removed:
		return fmt.Sprintf("Gone: %s, on %s before", what, dayNames(c.Days))
	case week.Moved:
		return fmt.Sprintf("Moved: %s, now on %s", what, dayNames(c.Days))
	}
	return "Different: " + what
}

func dayNames(days []time.Time) string {
	var out []string
	for _, d := range days {
		out = append(out, d.Format("Monday"))
	}
	return strings.TrimSpace(List(out))
}

// SentWhen says when a message is sent that is ready now.
func SentWhen(at, now time.Time) string {
	if !at.After(now) {
		return "at once"
	}
	return at.Format("Monday 2 January, 15:04")
}

package wording

import (
	"fmt"

	"patientladder/core/planning/inweek"
	"patientladder/core/planning/review"
)

// Review says how learned pieces are kept in the coming week.
func Review(r inweek.ReviewState) string {
	if r.Pieces == 0 {
		return "Nothing is learned yet, so there is nothing to review"
	}
	if !r.Planned {
		return "Nothing is planned for the coming week"
	}
	out := fmt.Sprintf("Review: %s of the coming week (aim %s)", Percent(r.Share), Percent(r.Aim))
	switch {
	case r.Short() && r.Starved > 0:
		out += fmt.Sprintf(
			"; %s not played for more than %s, %s",
			Counted(r.Starved, "piece"),
			Counted(r.Weeks, "week"),
			inTheWeek(r.Held, r.Starved),
		)
	case r.Short():
		out += "; the learned pieces are too few or too short for more"
	}
	return out
}

// inTheWeek says how many of some pieces the coming week holds.
func inTheWeek(held, of int) string {
	switch {
	case held == 0:
		return "and no room for " + pronoun(of)
	case held == of && of == 1:
		return "now in it"
	case held == of:
		return "now all in it"
	}
	return Numbered(held) + " of them now in it"
}

func pronoun(n int) string {
	if n == 1 {
		return "it"
	}
	return "them"
}

// Picked says why a learned piece was picked.
func Picked(r review.Reason) string {
	sure := fmt.Sprintf("%s sure after %s", Percent(r.Recall), Counted(r.Days, "day"))
	switch {
	case r.Elsewhere:
		sure = "learned elsewhere, and not heard here yet"
	case r.Days == 0:
		sure = fmt.Sprintf("%s sure, played today", Percent(r.Recall))
	}
	if r.LeftWeeks > 0 {
		return fmt.Sprintf("%s, not played for more than %s", sure, Counted(r.LeftWeeks, "week"))
	}
	if r.Refines {
		sure += ", and it practises what is needed next"
	}
	if r.Favourite {
		sure += ", a favourite"
	}
	return sure
}

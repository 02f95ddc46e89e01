package wording

import (
	"fmt"
	"time"

	"patientladder/core/base/civil"
	"patientladder/core/planning/agenda"
	"patientladder/core/planning/lookback"
)

// NothingEntered says that nothing is known of a day.
const NothingEntered = "Nothing was entered on this day."

// NotEntered says how many lessons wait to be entered.
func NotEntered(n int) string {
	if n == 0 {
		return "Every lesson of the last weeks is entered."
	}
	return Capital(Counted(n, "lesson")) + " not entered"
}

// Past says how many lessons were, or were found.
func Past(all []lookback.PastLesson, found int, searched bool) string {
	taught, open := 0, 0
	for _, p := range all {
		switch p.State {
		case lookback.Taught:
			taught++
		case lookback.NotEntered:
			open++
		}
	}
	if searched {
		return fmt.Sprintf("Found in %s.", Counted(found, "lesson"))
	}
	out := Capital(Counted(taught, "lesson")) + " entered"
	if open > 0 {
		out += fmt.Sprintf("; nothing was entered for %s lately", Numbered(open))
	}
	return out + "."
}

// PastLesson says a lesson that was in one sentence.
func (n Names) PastLesson(p lookback.PastLesson) string {
	switch p.State {
	case lookback.NotEntered:
		return "A lesson by the calendar; nothing of it was entered."
	case lookback.OnlyPlanned:
		return Capital(Counted(len(p.Entries), "entry")) + ", and no lesson."
	case lookback.WasMissed:
		return "It did not take place."
	case lookback.WasCanceled:
		return LessonDate(agenda.Lesson{Lesson: p.Dated}) + "."
	}
	switch {
	case len(p.Cleared) > 0:
		return "Cleared " + n.Titles(p.Cleared) + "."
	case len(p.Pieces) > 0:
		return fmt.Sprintf("%s with %s.", Capital(Counted(len(p.Entries), "entry")), Counted(len(p.Pieces), "piece"))
	}
	return Capital(Counted(len(p.Entries), "entry")) + "."
}

// WentWell and ToBring say what they are of words of the teacher's.
func WentWell(text string) string { return "Went well: " + text }

// ToBring says what is to be brought.
func ToBring(text string) string { return "To bring: " + text }

// LastTimeDay says when the last lesson was.
func LastTimeDay(day, today time.Time) string {
	switch days := civil.Between(day, today); {
	case days == 7:
		return "Last week"
	case days == 14:
		return "Two weeks ago"
	default:
		return "Last time, " + WeekdayAndDay(day)
	}
}

// LastTime says what is to be known of the last lesson: what was played and cleared, the notes, what is open,
// and what came from home since.
func (n Names) LastTime(l lookback.LastTime, home string) []string {
	out := []string{}
	if len(l.Pieces) > 0 {
		out = append(out, "Played "+n.Titles(l.Pieces[:min(len(l.Pieces), mostNames)])+more(len(l.Pieces)-mostNames)+".")
	}
	if len(l.Cleared) > 0 {
		out = append(out, "Cleared "+n.Titles(l.Cleared)+".")
	}
	out = append(out, l.Notes...)
	for _, text := range l.WentWell {
		out = append(out, WentWell(text))
	}
	for _, id := range sortedKeys(l.OpenSpots) {
		out = append(out, fmt.Sprintf("Still open: %s in %s.", Counted(l.OpenSpots[id], "hard spot"), n.Title(id)))
	}
	if home != "" {
		out = append(out, "From home: "+home+".")
	}
	return out
}

func more(n int) string {
	if n <= 0 {
		return ""
	}
	return fmt.Sprintf(" and %d more", n)
}

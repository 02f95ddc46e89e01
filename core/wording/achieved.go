package wording

import (
	"fmt"

	"patientladder/core/planning/progress"
)

// Lasting writes a playing time: "3:20", and nothing where nobody knows.
func Lasting(seconds int) string {
	if seconds == 0 {
		return ""
	}
	return fmt.Sprintf("%d:%02d", seconds/60, seconds%60)
}

// WhenLearned says when a piece was learned.
func WhenLearned(l progress.Learned) string {
	if l.Before {
		return "before"
	}
	return DayAndYear(l.Day)
}

// CertificateSays is the sentence between the name and what was gone through.
func CertificateSays(c progress.Certificate) string {
	if c.Staircase {
		return fmt.Sprintf("has climbed all %s of", Counted(c.Count, "step"))
	}
	return fmt.Sprintf("has learned all %s of", Counted(c.Count, "piece"))
}

// ProgrammeLasts says how long a recital takes.
func ProgrammeLasts(seconds, unknown, pieces int) string {
	if pieces == 0 {
		return "No piece is chosen yet."
	}
	out := fmt.Sprintf("%s, about %s with the time between", Capital(Counted(pieces, "piece")), Counted((seconds+30)/60, "minute"))
	if unknown > 0 {
		out += fmt.Sprintf("; of %s the time is not known", Numbered(unknown))
	}
	return out + "."
}

// RepertoireOf is the title of a repertoire list.
func RepertoireOf(name, instrument string) string {
	return fmt.Sprintf("Repertoire: %s, %s", name, instrument)
}

// Titled writes a title with its composer, where one is known.
func Titled(title, composer string) string {
	if composer == "" {
		return title
	}
	return title + ", " + composer
}

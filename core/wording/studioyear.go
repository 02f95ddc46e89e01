package wording

import (
	"fmt"
	"math"
	"time"

	"patientladder/core/planning/studioyear"
)

// StudioYear says the year of a studio in one sentence.
func StudioYear(y studioyear.Year) string {
	if y.Now == 0 {
		return "No students yet."
	}
	out := Capital(Counted(y.Now, "student"))
	if y.Joined > 0 {
		out += fmt.Sprintf(", %s new within the year", Numbered(y.Joined))
	}
	if y.Went > 0 {
		out += fmt.Sprintf(", %s left", Numbered(y.Went))
	}
	if n := len(y.Talk); n > 0 {
		out += fmt.Sprintf("; %s to talk to", Numbered(n))
	}
	return out + "."
}

// Stall says how much longer than expected a piece takes.
func (n Names) Stall(s studioyear.Stall) string {
	return fmt.Sprintf("%s takes %.1f times as long as expected.", n.Title(s.Material), s.Ratio)
}

// HadPiece says how long one student had a piece.
func HadPiece(h studioyear.Had) string {
	out := Weeks(h.Weeks)
	if h.Open {
		out += " so far"
	}
	return out
}

// OnlyIn says that a skill comes but once.
func (n Names) OnlyIn(o studioyear.Once) string {
	return fmt.Sprintf("%s, on the %s: only in %s.", Capital(n.Skills.Name(o.Skill)), o.Instrument, n.Title(o.Material))
}

// PreviewsPaid compares pieces whose new skills were planted with those whose were not.
func PreviewsPaid(y studioyear.Year) string {
	if !y.Says() {
		return "Too early to say: of each kind at least five pieces must be cleared."
	}
	one := func(a studioyear.Against) string {
		return fmt.Sprintf("%.1f weeks where %.1f were expected (%s)", a.Took, a.Expected, Counted(a.N, "piece"))
	}
	return fmt.Sprintf(
		"Planted before: %s. Not planted: %s. The pieces differ, so this is a hint and no proof.",
		one(y.Planted),
		one(y.Unplanted),
	)
}

// YearPace compares the pace of the last year with that of the year before.
func YearPace(y studioyear.Year) string {
	half := func(p studioyear.Pace) string {
		return fmt.Sprintf("half of %s took %s or less", Counted(p.Pieces, "piece"), Counted(int(math.Round(p.Weeks)), "week"))
	}
	switch {
	case y.Pace.Pieces == 0:
		return "No piece was cleared within a year."
	case y.Before.Pieces == 0:
		return Sentence(half(y.Pace))
	}
	return Sentence(half(y.Pace) + "; the year before, " + half(y.Before))
}

// WeekdayLoad says what a weekday holds.
func WeekdayLoad(d time.Weekday, l studioyear.Load) string {
	return fmt.Sprintf("%s: %s, %.0f minutes", d, Figures(int(math.Ceil(l.Lessons)), "lesson"), l.Minutes)
}

// Risk says why to talk to a student.
func (n Names) Risk(r studioyear.Reason) string {
	switch r.Why {
	case studioyear.Gone:
		return fmt.Sprintf("No lesson was entered for %s.", Counted(r.N, "week"))
	case studioyear.Missed:
		return fmt.Sprintf("%s of the last %s were missed.", Capital(Numbered(r.N)), Counted(r.Of, "lesson"))
	case studioyear.Stuck:
		return fmt.Sprintf("%s has had %s.", n.Title(r.Material), Counted(r.N, "week"))
	case studioyear.Unplayed:
		return fmt.Sprintf("Practised on %s of %s that were set.", Numbered(r.N), Counted(r.Of, "day"))
	case studioyear.Joyless:
		return "Little of what came from home was joyful."
	}
	return ""
}

// Doubt says how sure it is that a student is one to talk to.
func Doubt(r studioyear.Risk) string {
	if r.Thin {
		return "Known from the lessons alone: little came from home."
	}
	return "A reason to ask, no more."
}

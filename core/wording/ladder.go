package wording

import (
	"fmt"
	"strings"
	"time"

	"patientladder/core/planning/forecast"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/next"
	"patientladder/core/planning/outlook"
	"patientladder/core/planning/whatif"
	"patientladder/core/student/leap"
)

// Ladder says the three layers of the day: what is in work, what to prepare, and how review stands.
func (n Names) Ladder(s ladder.Summary, prepare []string, reviewShort bool) string {
	var parts []string
	say := func(ids []string, one, many string) {
		switch len(ids) {
		case 0:
		case 1:
			parts = append(parts, n.Title(ids[0])+" "+one)
		default:
			parts = append(parts, n.Titles(ids)+" "+many)
		}
	}
	say(s.RunDue, "is ready for a run", "are ready for a run")
	if len(s.Working) > 0 {
		parts = append(parts, "working on "+n.Titles(s.Working))
	}
	say(s.Cliffs, "is a big jump", "are big jumps")
	switch {
	case len(parts) > 0:
	case s.Empty:
		parts = append(parts, "the ladder is empty: put a first piece on it")
	default:
		parts = append(parts, "nothing in work: choose the next piece")
	}
	if len(prepare) > 0 {
		parts = append(parts, "prepare "+n.skillNames(prepare))
	}
	if reviewShort {
		parts = append(parts, "little review lately")
	}
	return Sentence(strings.Join(parts, "; "))
}

// Next says one reason for the next rung, as a sentence.
func (n Names) Next(r next.Reason) string {
	switch r.Kind {
	case next.Nothing:
		return "Nothing is ahead on this strand: put a piece on it."
	case next.Beginning:
		if r.Leap <= r.Reach {
			return fmt.Sprintf("It is the first on this strand; a jump of %.1f, within the comfortable %.1f.", r.Leap, r.Reach)
		}
		return fmt.Sprintf("It is the first on this strand; a jump of %.1f, for a beginning is always a large one.", r.Leap)
	case next.Easy:
		return fmt.Sprintf("The last was a stretch (%.1f); take an easy one: %.1f (comfortable %.1f).", r.Last[0], r.Leap, r.Reach)
	case next.Smallest:
		return fmt.Sprintf("The last was a stretch (%.1f); none of the next %d is easy, and this is the smallest: %.1f.", r.Last[0], r.Of, r.Leap)
	case next.Stretch:
		return fmt.Sprintf("A big jump: %s. Plan more weeks, or prepare its new skills first.", over(r.Leap, r.Reach))
	case next.Room:
		return fmt.Sprintf("The last two were easy (%.1f and %.1f): there is room for %.1f.", r.Last[0], r.Last[1], r.Leap)
	case next.Fits:
		if r.Leap == 0 {
			return "Nothing in it is a jump."
		}
		return fmt.Sprintf("A jump of %.1f, within the comfortable %.1f.", r.Leap, r.Reach)
	case next.Passed:
		why := fmt.Sprintf("is a jump of %.1f now", r.Leap)
		if len(r.Skills) > 0 {
			why = "first needs " + n.skillNames(r.Skills)
		}
		return fmt.Sprintf("%s comes first in the order but %s; it can follow.", n.Title(r.Material), why)
	case next.New:
		if len(r.Skills) == 0 {
			return "Nothing in it is new."
		}
		return "New in it: " + n.skillNames(r.Skills) + "."
	case next.TwoFirst:
		return "Two new things at once: " + n.skillNames(r.Skills) + "."
	case next.InOrder:
		return "It comes next in your order. Nobody has said what it needs: add its score or name its skills to know more."
	case next.Later:
		return fmt.Sprintf("In this way of teaching reading begins after %s of lessons: on %s.", Counted(r.Weeks, "week"), DayAndYear(r.From))
	}
	return ""
}

// NextAll says all reasons for the next rung.
func (n Names) NextAll(reasons []next.Reason) []string {
	out := []string{}
	for _, r := range reasons {
		out = append(out, n.Next(r))
	}
	return out
}

// Consequence says what another order changes.
func (n Names) Consequence(c whatif.Consequence) string {
	title := n.Title(c.Material)
	switch c.Kind {
	case whatif.LeapChanged:
		if c.Worse {
			return fmt.Sprintf("%s becomes a big jump: %s.", title, over(c.After, c.Reach))
		}
		return fmt.Sprintf("%s is no longer a big jump: %.1f instead of %.1f.", title, c.After, c.Before)
	case whatif.PreviewChanged:
		if c.Worse {
			return fmt.Sprintf("The preview of %s comes late: ready %s after %s begins.", n.Skills.Name(c.Skill), Counted(c.Late, "lesson"), title)
		}
		return fmt.Sprintf("%s is ready in time for %s.", Capital(n.Skills.Name(c.Skill)), title)
	case whatif.TargetChanged:
		return fmt.Sprintf("%s: the chance of %s goes from %s to %s.", c.Target, title, Percent(c.Before), Percent(c.After))
	case whatif.DateChanged:
		return fmt.Sprintf("%s begins about %s instead of %s.", title, Day(c.To), Day(c.From))
	}
	return ""
}

// Order says why an order of rungs cannot be.
func (n Names) Order(e whatif.OrderError, instrument string) string {
	m := n.Library[e.Material]
	switch e.Kind {
	case whatif.Twice:
		return fmt.Sprintf("%s stands there twice, at place %d.", Quoted(m.Title), e.Place)
	case whatif.OtherPlayer:
		return OtherInstrument(m.Title, m.Instrument, instrument)
	case whatif.BegunAlready:
		return fmt.Sprintf("%s has been begun; its place is history.", Quoted(m.Title))
	}
	return "There is no such piece."
}

// OtherInstrument says that a piece is for another instrument than the ladder.
func OtherInstrument(title, its, ladders string) string {
	return fmt.Sprintf("%s is for %s, and this ladder is for %s.", Quoted(title), its, ladders)
}

// Target is a target with what came out for it.
type Target struct {
	Material string
	Day      time.Time
	// Sure is the chance that is asked for, Polish the weeks between clearing and performing.
	Sure   float64
	Polish int
	// Latest is the lesson by which it should begin, Begins the range of days in which it would.
	Latest         time.Time
	BeginsFrom, To time.Time
	Today          time.Time
}

// Verdict says whether a piece will be ready on its day.
func (n Names) Verdict(t Target, v outlook.Verdict) string {
	out := fmt.Sprintf("%s is ready on %s with a chance of about %s", n.Title(t.Material), Day(t.Day), Percent(v.Chance))
	switch {
	case v.Begun && v.Chance >= t.Sure:
		return out + "; it is in work and in time."
	case v.Begun:
		return out + "; it is in work already."
	case !v.Possible:
		return out + fmt.Sprintf("; even begun in the next lesson it would be %s: choose another piece or another day.", Percent(v.Straight))
	}
	return out + fmt.Sprintf("; to be %s sure, begin it by %s.", Percent(t.Sure), Day(t.Latest))
}

// VerdictWhy says what a verdict rests on.
func VerdictWhy(t Target, v outlook.Verdict) []string {
	out := []string{
		fmt.Sprintf(
			"%s up to the day, of which the last %s are for polishing what is cleared.",
			Capital(Counted(v.Lessons, "lesson")),
			Counted(t.Polish, "week"),
		),
	}
	if !v.Begun {
		out = append(
			out,
			fmt.Sprintf(
				"As the ladder stands it begins %s, after %s before it.",
				Between(t.BeginsFrom, t.To, t.Today),
				Counted(len(v.Drops), "rung"),
			),
		)
	}
	return append(out,
		fmt.Sprintf("Chances come from %d simulated courses with what is known of this student and this studio: an estimate.", forecast.Draws),
		fmt.Sprintf("If the lessons of two more weeks fall out: %s.", Percent(v.WithoutTwo)))
}

// LeapSize says how large a leap is.
func LeapSize(l leap.Leap) string {
	if l.Unknown {
		return "not known yet"
	}
	return fmt.Sprintf("%.1f", l.Size)
}

// TooEarly says in place of a number that it is too early for one, and what would help.
func TooEarly(unknown bool, r forecast.Range) (words, why string) {
	if unknown {
		return "too early to say", "Nobody has said what this piece needs: add its score, or name its skills."
	}
	if r.Wide() {
		low, high := r.Whole()
		return "too early to say", fmt.Sprintf(
			"It is too far from what was cleared so far: anything from %d to %d weeks would be said.",
			low,
			high,
		)
	}
	return "too early to say", fmt.Sprintf("%s cleared so far: after three a range is worth saying.", Capital(Counted(r.Own, "piece")))
}

// HowLong says how many weeks a piece takes, in whole weeks, and what that rests on.
func HowLong(r forecast.Range) (words, why string) {
	low, high := r.Whole()
	sure := map[forecast.Sure]string{forecast.Often: "often", forecast.Usually: "usually", forecast.NearlyAlways: "nearly always"}[r.Sure()]
	switch {
	case high == 1:
		words = sure + " a week"
	case low == high:
		words = fmt.Sprintf("%s %d weeks", sure, high)
	default:
		words = fmt.Sprintf("%s %d to %d weeks", sure, low, high)
	}
	return words, fmt.Sprintf(
		"Four times of five between %.1f and %.1f weeks, as likely under as over %.1f: %s. An estimate, by the jump, the length and the student.",
		r.Low,
		r.High,
		r.Median,
		learnedFrom(r),
	)
}

// learnedFrom says from which pieces a forecast learned.
func learnedFrom(r forecast.Range) string {
	switch {
	case r.Own+r.Others == 0:
		return "from what is usual, as nothing was cleared here yet"
	case r.Own == 0:
		return fmt.Sprintf("from %s that others cleared", Counted(r.Others, "piece"))
	}
	return fmt.Sprintf("from %s of this student and %s of others", Counted(r.Own, "cleared piece"), Numbered(r.Others))
}

// NoDates says why a ladder has no dates.
const NoDates = "No lesson is in sight, so there are no dates."

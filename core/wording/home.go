package wording

import (
	"fmt"
	"strings"
	"time"

	"patientladder/core/planning/studentplan"
	"patientladder/core/student/enjoyment"
)

// Balance says practice against enjoyment and what to do, and from what it was weighed. For the
// teacher only; it is no judgement of a child.
func Balance(b enjoyment.Balance) (words, why string) {
	e := b.From
	why = fmt.Sprintf("Practised on %d of %s that were set; felt joyful %s, fine %s, hard %s; signs of liking: %d, of the opposite: %d, in eight weeks.",
		e.Practised, Figures(e.Set, "day"), Figures(e.Joyful, "time"), Figures(e.Fine, "time"), Figures(e.Hard, "time"), e.Liked, e.Disliked)
	return balance[b.Kind], why
}

var balance = map[enjoyment.Kind]string{
	enjoyment.Unknown: "Too early to say.",
	enjoyment.Quiet:   "Practises, and does not seem to enjoy it: the quiet one to notice. Talk with the family, and look at the pieces together.",
	enjoyment.Glowing: "Practises and enjoys it.",
	enjoyment.Playing: "Enjoys it and practises little: shorter and more often may help; playing is worth something by itself.",
	enjoyment.Away:    "Little practice and little joy: ask what is going on before asking for more.",
	enjoyment.Between: "In the middle on one of the two; nothing stands out.",
}

// Home says what came from home.
func (n Names) Home(h studentplan.Home) string {
	if h.Practised == 0 && len(h.First) == 0 {
		return "Nothing was reported from home"
	}
	parts := []string{fmt.Sprintf("Practised on %s of %s", Numbered(h.Practised), Counted(max(h.Days, h.Practised), "day"))}
	var felt []string
	for _, f := range []struct {
		n    int
		word string
	}{{h.Joyful, "joyful"}, {h.Fine, "fine"}, {h.Hard, "hard"}} {
		if f.n > 0 {
			felt = append(felt, f.word+" "+Figures(f.n, "time"))
		}
	}
	if len(felt) > 0 {
		parts = append(parts, List(felt))
	}
	if len(h.First) > 0 {
		parts = append(parts, "played "+n.Titles(h.First)+" first")
	}
	return strings.Join(parts, "; ")
}

// AtHome says what a family has before it today.
func AtHome(d studentplan.AtHome) string {
	lesson := "the next lesson is on " + d.NextLesson.Format("Monday")
	switch d.Kind {
	case studentplan.NothingSet:
		return "Nothing is set yet; " + lesson + "."
	case studentplan.Practice:
		return fmt.Sprintf("Today %s, about %s.", Counted(d.Things, "thing"), Figures(int(d.Minutes+0.5), "minute"))
	case studentplan.LessonDay:
		return "Lesson today, no practice."
	case studentplan.Rest:
		return "No practice today; " + lesson + "."
	case studentplan.LiesAhead:
		return "The new week begins on " + d.Begins.Format("Monday") + "."
	}
	return "This week is over; " + lesson + "."
}

// Path says how a material stands on the way so far.
func Path(s studentplan.PathStep) string {
	switch {
	case !s.Learned.IsZero():
		return "learned in " + s.Learned.Format("January 2006")
	case s.Points > 0:
		return fmt.Sprintf("%d of %s secure", s.Full, Figures(s.Points, "point"))
	}
	return "just begun"
}

// Caution stands wherever a dose is shown.
const Caution = "Pain, tingling or numbness means stop and rest; if it stays, see a doctor or physiotherapist. Short and often is better than long and rare."

// FamilyWeek names a published week on the family's page.
func FamilyWeek(start, today time.Time) string {
	if start.After(today) {
		return "The new week, from " + start.Format("Monday 2 January")
	}
	return "This week"
}

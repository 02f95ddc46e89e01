package progress

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"patientladder/core/planning/studentplan"
)

// Performed is a piece of a recital.
type Performed struct {
	Ladder, Material string
	// Name of who plays, and the age on the day.
	Name string
	Age  int
	// Seconds it takes; 0 where nobody knows.
	Seconds int
}

// between is how many seconds it takes until the next one is seated (default).
const between = 60

// InOrder are the pieces of a recital in the order that is usual: the youngest first, the longest of each age last (common
// practice). No one plays twice in a row where that can be helped.
func InOrder(pieces []Performed) []Performed {
	rest := slices.Clone(pieces)
	slices.SortStableFunc(rest, func(a, b Performed) int {
		return cmp.Or(a.Age-b.Age, strings.Compare(a.Name, b.Name), a.Seconds-b.Seconds)
	})
	var out []Performed
	for len(rest) > 0 {
		next := 0
		if len(out) > 0 {
			next = max(0, slices.IndexFunc(rest, func(p Performed) bool { return p.Ladder != out[len(out)-1].Ladder }))
		}
		out, rest = append(out, rest[next]), slices.Delete(rest, next, next+1)
	}
	return out
}

// Lasts is how many seconds a recital takes, with a minute between two pieces; Unknown is of how many pieces nobody knows.
func Lasts(pieces []Performed) (seconds, unknown int) {
	for _, p := range pieces {
		seconds += p.Seconds
		if p.Seconds == 0 {
			unknown++
		}
	}
	return seconds + max(0, len(pieces)-1)*between, unknown
}

// mostPerformed is how many pieces a recital may have.
const mostPerformed = 60

// CheckProgramme says in a sentence what is wrong with a programme, or returns nil.
func CheckProgramme(title string, pieces []Performed) error {
	switch {
	case strings.TrimSpace(title) == "":
		return fmt.Errorf("a programme needs a title")
	case len(pieces) == 0:
		return fmt.Errorf("choose at least one piece")
	case len(pieces) > mostPerformed:
		return fmt.Errorf("a programme has at most %d pieces", mostPerformed)
	}
	return nil
}

// Performable are the pieces that a student could play in a recital: those ready to be performed first, then what was
// learned last; what was known before the log began comes at the end.
func Performable(s studentplan.Student) []Learned {
	out := Repertoire(s)
	rank := func(l Learned) int {
		switch {
		case l.Polished:
			return 0
		case l.Before:
			return 2
		}
		return 1
	}
	slices.SortStableFunc(out, func(a, b Learned) int { return rank(a) - rank(b) })
	return out[:min(len(out), mostOffered)]
}

// mostOffered is how many pieces of a student are offered for a recital (default).
const mostOffered = 12

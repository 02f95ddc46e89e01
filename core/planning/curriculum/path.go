package curriculum

import (
	"patientladder/core/library/material"
	"patientladder/core/student/leap"
)

// Stop is one material of a path with the reason why it comes there.
type Stop struct {
	Material material.Material
	Leap     leap.Leap
	Cliff    bool
	Why      StopWhy
}

// StopWhy is why a material comes where it comes.
type StopWhy string

// The reasons.
const (
	TheBeginning StopWhy = "beginning" // the first of all
	AnEasyOne    StopWhy = "easy"      // a rest after a large leap
	TheSmallest  StopWhy = "smallest"  // all that is left lies beyond the reach
	TheBestStep  StopWhy = "best"      // the largest within the reach
)

// Path is a way through several books.
type Path struct {
	Stops []Stop
	// Left are the materials that would teach nothing any more, by title.
	Left []material.Material
	// Largest is the largest leap after the beginning; Books are the largest leaps
	// of the books played alone, in their order.
	Largest float64
	Books   []float64
	Reach   leap.Reach
}

// lookahead is how many materials of each book are considered at a time (default).
const lookahead = 3

// Cross builds a path through several books for a student who brings an
// ability. Each book keeps its order, but a material may be passed over for the
// next ones. Of what lies open it takes the one whose leap fits best: within the
// comfortable reach the largest, after a leap over the reach the smallest, and
// where all are over it the smallest. A material whose every skill is secure by
// then is left out unless the reach was just passed and a rest is due.
func Cross(books [][]material.Material, brings leap.Ability, p leap.Policy, reach leap.Reach) Path {
	out := Path{Reach: reach}
	left := make([][]material.Material, len(books))
	for k, book := range books {
		left[k] = append([]material.Material(nil), book...)
		largest := 0.0
		for i, l := range Profile(book, brings, p).Lines {
			if i > 0 {
				largest = max(largest, l.Leap.Size)
			}
		}
		out.Books = append(out.Books, largest)
	}
	ability := brings.Copy()
	rest := false
	for {
		book, place, l := choose(left, ability, p, reach, rest)
		if book < 0 {
			break
		}
		m := left[book][place]
		left[book] = append(left[book][:place:place], left[book][place+1:]...)
		if l.Size == 0 && !rest && len(out.Stops) > 0 {
			out.Left = append(out.Left, m)
			continue
		}
		s := Stop{Material: m, Leap: l, Cliff: leap.Beyond(l.Size, reach.Size) && len(out.Stops) > 0}
		switch {
		case len(out.Stops) == 0:
			s.Why = TheBeginning
		case rest:
			s.Why = AnEasyOne
		case s.Cliff:
			s.Why = TheSmallest
		default:
			s.Why = TheBestStep
		}
		if len(out.Stops) > 0 {
			out.Largest = max(out.Largest, l.Size)
		}
		rest = s.Cliff
		out.Stops = append(out.Stops, s)
		ability.Clear(m)
	}
	return out
}

// choose picks the next material; book is −1 when nothing is left.
func choose(left [][]material.Material, a leap.Ability, p leap.Policy, reach leap.Reach, rest bool) (book, place int, best leap.Leap) {
	book = -1
	for k := range left {
		for i, m := range left[k][:min(lookahead, len(left[k]))] {
			l := p.Of(m, a)
			if book < 0 || better(l.Size, best.Size, reach.Size, rest) {
				book, place, best = k, i, l
			}
		}
	}
	return book, place, best
}

// better says whether a leap is the better next one; of equal ones the earlier stays.
func better(l, than, reach float64, rest bool) bool {
	fits, fitted := l <= reach, than <= reach
	if fits != fitted {
		return fits
	}
	if rest || !fits {
		return l < than
	}
	return l > than
}

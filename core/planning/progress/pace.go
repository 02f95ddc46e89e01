package progress

import (
	"cmp"
	"math"
	"slices"
	"strings"

	"patientladder/core/planning/forecast"
	"patientladder/core/student/standing"
)

// Pace is how often what had been forecast came true.
type Pace struct {
	// Ranges are the last ones, the latest first.
	Ranges []Range
	// Held counts those in which the piece was cleared.
	Held int
}

// Range is a piece with the whole weeks that had been forecast on the day on which it was begun, as the screen says them.
type Range struct {
	Piece
	Low, High int
	// Took is how many weeks it took, to the nearest: lessons are a week apart.
	Took int
	// Held says that it was cleared within the range; Late that it took longer.
	Held, Late bool
}

// lastRanges is how many are counted (default).
const lastRanges = 20

// expectations are the ranges of some pieces as they were on the day on which each was begun: learned from what had been
// cleared in the studio before that day. Where it was too early to say there is none.
func (in Input) expectations(pieces []Piece) map[string]forecast.Range {
	out := map[string]forecast.Range{}
	wanted := slices.DeleteFunc(slices.Clone(pieces), func(p Piece) bool {
		return p.From.IsZero() || p.Unknown || in.Standing.Materials[p.Material].Before == nil
	})
	slices.SortStableFunc(wanted, func(a, b Piece) int { return a.From.Compare(b.From) })
	seen := slices.Clone(in.Seen)
	slices.SortStableFunc(seen, func(a, b Seen) int { return a.Day.Compare(b.Day) })
	known := map[string]forecast.Moments{}
	var model *forecast.Model
	next := 0
	for _, p := range wanted {
		added := false
		for ; next < len(seen) && seen[next].Day.Before(p.From); next++ {
			o := seen[next].Observation
			known[o.Student] = known[o.Student].And(forecast.MomentsOf([]forecast.Observation{o}))
			added = true
		}
		if model == nil || added {
			model = forecast.Learn(known, forecast.DefaultPrior())
		}
		if r := model.Weeks(in.Ladder, p.Leap, in.Library[p.Material].DistinctBars); !r.Early() {
			out[p.Material] = r
		}
	}
	return out
}

// answered are the last twenty pieces that were cleared by the end of the span, the latest first.
func (in Input) answered(pieces []Piece) []Piece {
	var cleared []Piece
	for _, p := range pieces {
		if !p.From.IsZero() && p.To.After(p.From) && !p.To.After(in.Span.To) {
			cleared = append(cleared, p)
		}
	}
	slices.SortStableFunc(cleared, func(a, b Piece) int { return b.To.Compare(a.To) })
	return cleared[:min(len(cleared), lastRanges)]
}

// pace holds the ranges of the last twenty pieces against what came.
func pace(answered []Piece, expected map[string]forecast.Range) Pace {
	var out Pace
	for _, p := range answered {
		r, known := expected[p.Material]
		if !known {
			continue
		}
		x := Range{Piece: p, Took: max(1, int(math.Round(p.Weeks)))}
		x.Low, x.High = r.Whole()
		x.Held, x.Late = x.Took >= x.Low && x.Took <= x.High, x.Took > x.High
		if x.Held {
			out.Held++
		}
		out.Ranges = append(out.Ranges, x)
	}
	return out
}

// StayWhy is the kind of a reason for a long stay.
type StayWhy string

// The kinds of reasons.
const (
	GreatLeap   StayWhy = "leap"     // it asked for much more than usual
	Missed      StayWhy = "missed"   // lessons fell out meanwhile
	LongRest    StayWhy = "rest"     // it was put away for a time
	Unpractised StayWhy = "practice" // few of the days that were set were practised
	NotSeen     StayWhy = ""         // nothing in the log says why
)

// Stay is a piece that took long.
type Stay struct {
	Piece
	// Ready says that it is ready for a run: it may be cleared in the next lesson.
	Ready bool
	// Usual is the longest that nine of ten such pieces had taken, in whole weeks; 0 where it was too early to say.
	Usual int
	Why   StayWhy
	// Number goes with the reason: the leap, the lessons that fell out, the days of rest, the practised days of Of.
	Number float64
	Of     int
}

const (
	// mostStays is how many are told, leastStay how many weeks make a stay long (defaults); where a range was said it is
	// long from overMiddle weeks over its middle on.
	mostStays, leastStay, overMiddle = 3, 4, 1
	// greatLeap is how many times the usual leap of the student is great (default).
	greatLeap = 1.5
	// littlePractice is the share of set days under which practice may be why (default), of at least leastSet days.
	littlePractice, leastSet = 0.5, 6
)

// mostLooked is at how many long pieces is looked for those that took longer than was to be expected.
const mostLooked = 12

// long are the pieces of the span that took longest, the longest first.
func (in Input) long(pieces []Piece) []Piece {
	var list []Piece
	for _, p := range pieces {
		ends := p.To
		if ends.IsZero() {
			ends = in.Span.To
		}
		if !p.From.IsZero() && !p.From.After(in.Span.To) && !ends.Before(in.Span.From) && p.Weeks >= leastStay && p.State != standing.Resting {
			list = append(list, p)
		}
	}
	slices.SortStableFunc(list, func(a, b Piece) int {
		return cmp.Or(cmp.Compare(b.Weeks, a.Weeks), strings.Compare(a.Material, b.Material))
	})
	return list[:min(len(list), mostLooked)]
}

// stays are those of the long pieces that took longer than was to be expected, with what the log says of why.
func (in Input) stays(list, pieces []Piece, expected map[string]forecast.Range) []Stay {
	usual := usualLeap(pieces)
	var out []Stay
	for _, p := range list {
		x := Stay{Piece: p, Ready: in.Standing.Materials[p.Material].RunDue}
		if r, known := expected[p.Material]; known {
			if p.Weeks <= r.Median+overMiddle {
				continue
			}
			x.Usual = int(math.Ceil(r.High))
		}
		if len(out) == mostStays {
			break
		}
		during := in
		during.Span = Span{p.From, p.To}
		if p.To.IsZero() {
			during.Span.To = in.Span.To
		}
		rested := 0
		for _, r := range p.Rests {
			rested += r.Days() - 1
		}
		practice, missed := during.practice(), during.missed()
		switch {
		case rested >= 7:
			x.Why, x.Number = LongRest, float64(rested)
		case missed >= 2 && float64(missed) >= p.Weeks/4:
			x.Why, x.Number = Missed, float64(missed)
		case usual > 0 && p.Leap >= greatLeap*usual:
			x.Why, x.Number = GreatLeap, p.Leap
		case practice.Set >= leastSet && float64(practice.Practised) < littlePractice*float64(practice.Set):
			x.Why, x.Number, x.Of = Unpractised, float64(practice.Practised), practice.Set
		}
		out = append(out, x)
	}
	return out
}

// usualLeap is the middle one of the leaps that are known; 0 for none.
func usualLeap(pieces []Piece) float64 {
	var leaps []float64
	for _, p := range pieces {
		if !p.From.IsZero() && !p.Unknown && p.Leap > 0 {
			leaps = append(leaps, p.Leap)
		}
	}
	if len(leaps) == 0 {
		return 0
	}
	slices.Sort(leaps)
	return leaps[len(leaps)/2]
}

// Package setup works out how a student sits: the height of the seat, what to
// lay on it, and what to put under the feet, from a few measures.
//
//	setup.go   measures in, heights out
//	family.go  what each family of instruments asks for
//	growth.go  what has changed since the last time
//	checks.go  what to look at, the cautions
//	fault.go   the usual faults, and which of an exercise are the same
//
// All lengths are in centimetres.
package setup

import (
	"fmt"
	"math"
	"strings"
)

// Lean is where the forearm lies against level.
type Lean string

// The leans. Teachers differ; each is two centimetres at the elbow (default).
const (
	Level Lean = "level"
	Above Lean = "above"
	Below Lean = "below"
)

// Known says whether there is such a lean.
func (l Lean) Known() bool { _, known := leans[l]; return known }

var leans = map[Lean]float64{Level: 0, Above: 2, Below: -2}

// Place is where it was measured.
type Place string

// The places.
const (
	Studio Place = "studio"
	Home   Place = "home"
)

// Measures are taken once with a tape. On a chair without keys KeyTop and Elbow are 0.
type Measures struct {
	// Place is where; empty for the studio.
	Place Place `json:"place,omitempty"`
	// KeyTop is the height of the top of the white keys above the floor, 55 to 90.
	KeyTop float64 `json:"keyTop"`
	// Elbow is the height of the elbow above the seat, the upper arm hanging, 8 to 35.
	Elbow float64 `json:"elbow"`
	// Leg is the lower leg from the hollow of the knee to the floor, with the shoe, 15 to 60.
	Leg float64 `json:"leg"`
	// BenchLow and BenchHigh are the heights that the bench can be set to.
	BenchLow  float64 `json:"benchLow"`
	BenchHigh float64 `json:"benchHigh"`
	Lean      Lean    `json:"lean"`
	// Mats at hand, each firm, with its thickness; those that are soft are refused.
	Mats []Mat `json:"mats,omitempty"`
	// Pedal says that the piece in hand uses the pedal.
	Pedal bool `json:"pedal,omitempty"`
}

// Bench is what belongs to a place and not to a body: it is measured once.
type Bench struct {
	KeyTop    float64 `json:"keyTop"`
	BenchLow  float64 `json:"benchLow"`
	BenchHigh float64 `json:"benchHigh"`
	Mats      []Mat   `json:"mats,omitempty"`
}

// Bench is the part of the measures that belongs to the place.
func (m Measures) Bench() Bench { return Bench{m.KeyTop, m.BenchLow, m.BenchHigh, m.Mats} }

// At is the place that was measured.
func (m Measures) At() Place {
	if m.Place == "" {
		return Studio
	}
	return m.Place
}

// Chair says that there are no keys to sit at.
func (m Measures) Chair() bool { return m.KeyTop == 0 && m.Elbow == 0 }

// Mat is something to lay on the seat.
type Mat struct {
	Thickness float64 `json:"thickness"`
	// Soft says that it gives way, as a cushion does.
	Soft bool `json:"soft,omitempty"`
}

// Result is how to sit.
type Result struct {
	// Seat is the height of the seat for the chosen lean, with whatever lies on it.
	Seat float64
	// Bench is the height to set the bench to, Mats the thicknesses to lay on it.
	Bench float64
	Mats  []float64
	// Platform is the height to put under the feet; 0 when they stand on the floor.
	Platform float64
	// Extender is how high the plate of a pedal extender stands, where the pedal is used and the feet do not reach; 0 for none.
	Extender float64
	// Off is by how much the seat comes out too high (above 0) or too low.
	Off float64
	// Possible says that it can be done with what is at hand, within Play.
	Possible bool
	// Says are sentences: what to do, and why.
	Says []string
	// Refused are sentences about what was not used.
	Refused []string
}

// Play is by how much a seat may miss its height without anybody noticing (default).
const Play = 1.0

// least is the gap under the feet that is worth a platform.
const least = 1.0

// Check says which measures cannot be right.
func (m Measures) Check() error {
	var wrong []string
	between := func(name string, x, low, high float64) {
		if !(x >= low && x <= high) {
			wrong = append(wrong, fmt.Sprintf("%s must lie between %g and %g cm, not %g", name, low, high, x))
		}
	}
	if !m.Chair() {
		between("the height of the keys", m.KeyTop, 55, 90)
		between("the elbow above the seat", m.Elbow, 8, 35)
	}
	if m.Place != "" && m.Place != Studio && m.Place != Home {
		wrong = append(wrong, fmt.Sprintf("%q is not a place", m.Place))
	}
	between("the lower leg", m.Leg, 15, 60)
	between("the lowest height of the bench", m.BenchLow, 20, 80)
	between("the greatest height of the bench", m.BenchHigh, 20, 80)
	if m.BenchHigh < m.BenchLow {
		wrong = append(wrong, "the greatest height of the bench lies under its lowest")
	}
	if !m.Lean.Known() {
		wrong = append(wrong, fmt.Sprintf("%q is not a lean", m.Lean))
	}
	if len(m.Mats) > 8 {
		wrong = append(wrong, "at most eight mats can be chosen from")
	}
	for _, mat := range m.Mats {
		between("a mat", mat.Thickness, 0.2, 15)
	}
	if len(wrong) == 0 {
		return nil
	}
	return fmt.Errorf("%s", strings.Join(wrong, "; "))
}

// Work works the heights out. The elbow is as high as the keys (or the lean
// above or below them), so the seat lies the elbow's height beneath; the thighs
// are level, so the feet stand the lower leg beneath the seat. Of the mats those
// are chosen that come nearest, the fewest of equal ones.
func (m Measures) Work() (Result, error) {
	if err := m.Check(); err != nil {
		return Result{}, err
	}
	r := Result{Seat: round(m.KeyTop + leans[m.Lean] - m.Elbow)}
	if m.Chair() { // level thighs, the feet flat
		r.Seat = round(m.Leg)
	}
	firm, refused := m.firm()
	r.Refused = refused
	r.Bench = math.Min(math.Max(r.Seat, m.BenchLow), m.BenchHigh)
	if need := r.Seat - m.BenchHigh; need > 0.3 {
		r.Mats = nearest(firm, need, m.BenchHigh-m.BenchLow)
		// With mats on it the bench is set so that the sum is right.
		r.Bench = math.Min(math.Max(r.Seat-sum(r.Mats), m.BenchLow), m.BenchHigh)
	}
	r.Bench = round(r.Bench)
	reached := r.Bench + sum(r.Mats)
	r.Off = round(reached - r.Seat)
	r.Possible = math.Abs(r.Off) <= Play
	if gap := reached - m.Leg; gap >= least {
		r.Platform = round(gap)
	}
	if r.Platform > 0 && m.Pedal {
		r.Extender = r.Platform
	}
	r.say(m)
	return r, nil
}

func (m Measures) firm() (firm []float64, refused []string) {
	for _, mat := range m.Mats {
		if mat.Soft {
			refused = append(
				refused,
				fmt.Sprintf(
					"The cushion of %g cm is not used: it gives way and wobbles, so that the student balances instead of sitting. Take something firm.",
					mat.Thickness,
				),
			)
			continue
		}
		firm = append(firm, mat.Thickness)
	}
	return firm, refused
}

// nearest chooses the mats whose sum comes nearest to a need, the fewest of
// equal ones. What they are too thick by, the bench can go down within its give.
func nearest(mats []float64, need, give float64) []float64 {
	miss := func(chosen []float64) float64 {
		off := sum(chosen) - need
		if off < 0 {
			return -off
		}
		return math.Max(0, off-give)
	}
	var best []float64
	for set := range 1 << len(mats) {
		var chosen []float64
		for i, thick := range mats {
			if set>>i&1 == 1 {
				chosen = append(chosen, thick)
			}
		}
		now, old := miss(chosen), miss(best)
		if now < old-1e-9 || now < old+1e-9 && len(chosen) < len(best) {
			best = chosen
		}
	}
	return best
}

func sum(list []float64) (out float64) {
	for _, x := range list {
		out += x
	}
	return out
}

// round to the half centimetre that a tape can tell.
func round(x float64) float64 { return math.Round(2*x) / 2 }

func (r *Result) say(m Measures) {
	bench := fmt.Sprintf("Set the bench to %g cm", r.Bench)
	switch len(r.Mats) {
	case 0:
	case 1:
		bench += fmt.Sprintf(" and lay the firm mat of %g cm on it", r.Mats[0])
	default:
		var words []string
		for _, t := range r.Mats {
			words = append(words, fmt.Sprintf("%g", t))
		}
		bench += fmt.Sprintf(" and lay the firm mats of %s cm on it", strings.Join(words, " and "))
	}
	if m.Chair() {
		bench = strings.Replace(bench, "the bench", "the chair", 1)
		r.Says = append(r.Says, fmt.Sprintf("%s: the thighs are level when the seat is as high as the lower leg, %g cm.", bench, m.Leg))
	} else {
		r.Says = append(r.Says, fmt.Sprintf("%s: the seat lies %g cm under the keys, as the elbow is %g cm above the seat.", bench, round(m.KeyTop-r.Bench-sum(r.Mats)), m.Elbow))
	}
	switch {
	case r.Off < -Play:
		r.Says = append(r.Says, fmt.Sprintf("It is still %g cm too low: another firm mat of about that height is needed.", -r.Off))
	case r.Off > Play:
		r.Says = append(r.Says, fmt.Sprintf("The bench cannot go low enough: it is %g cm too high. Another bench or chair is needed.", r.Off))
	}
	if r.Platform > 0 {
		r.Says = append(
			r.Says,
			fmt.Sprintf(
				"Put a platform of %g cm under both feet: the lower leg is %g cm, and feet that hang make the whole back hold on.",
				r.Platform,
				m.Leg,
			),
		)
	} else {
		r.Says = append(r.Says, "Both feet stand on the floor; no platform is needed.")
	}
	if r.Extender > 0 {
		r.Says = append(
			r.Says,
			fmt.Sprintf(
				"The pedal is out of reach: use a pedal extender whose plate stands %g cm high, in place of the platform; without one leave the pedal for later.",
				r.Extender,
			),
		)
	}
}

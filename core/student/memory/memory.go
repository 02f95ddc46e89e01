// Package memory says how well a learned piece is still there: a memory state
// that each hearing changes and that fades with the days between.
//
// The model is FSRS-6, the open Free Spaced Repetition Scheduler (the formulas
// and the default parameters are those published with it; outside/ compares
// this package with the reference implementation ts-fsrs).
package memory

import "math"

// Rating is how a hearing went.
type Rating int

// The ratings of a hearing.
const (
	FellApart Rating = 1
	Shaky     Rating = 2
	Solid     Rating = 3
	Easy      Rating = 4
)

// State is what is remembered of a piece. The zero value is a piece never heard.
type State struct {
	// Stability is the number of days after which it is recalled nine times in ten.
	Stability float64 `json:"stability"`
	// Difficulty lies between 1 and 10.
	Difficulty float64 `json:"difficulty"`
}

// Params are the twenty-one parameters w0 to w20 of FSRS-6.
type Params [21]float64

// DefaultParams are the published defaults of FSRS-6, fitted to people who
// learned other things than pieces of music; nothing better is known yet.
func DefaultParams() Params {
	return Params{
		0.212, 1.2931, 2.3065, 8.2956, 6.4133, 0.8334, 3.0194, 0.001, 1.8722, 0.1666, 0.796, 1.4835, 0.0614, 0.2629,
		1.6483, 0.6014, 1.8729, 0.5425, 0.0912, 0.0658, 0.1542,
	}
}

// The bounds of stability, in days.
const least, most = 0.001, 36500

// Heard says that there is something to remember.
func (s State) Heard() bool { return s.Stability > 0 }

// Recall is the chance, 0 to 1, that a piece still goes so many days after it
// was played last: (1 + f·t/S)^(−w20), with f such that it is 0.9 at t = S. A
// piece never heard has 0; days below 0 count as 0.
func (p *Params) Recall(s State, days float64) float64 { return p.recall(s, days, p.factor()) }

// factor is f in the curve of recall.
func (p *Params) factor() float64 { return math.Pow(0.9, -1/p[20]) - 1 }

func (p *Params) recall(s State, days, factor float64) float64 {
	if !s.Heard() {
		return 0
	}
	return math.Pow(1+factor*math.Max(days, 0)/s.Stability, -p[20])
}

// Curve is a set of parameters with what follows from them, for many hearings at once.
type Curve struct {
	p *Params
	// factor is that of the curve of recall, growth e^w8, easiest the difficulty of an easy piece.
	factor, growth, easiest float64
}

// Curve prepares the parameters; they must not change while it is used.
func (p *Params) Curve() Curve {
	return Curve{p: p, factor: p.factor(), growth: math.Exp(p[8]), easiest: p.firstDifficulty(Easy)}
}

// Recall is as that of the parameters.
func (c Curve) Recall(s State, days float64) float64 { return c.p.recall(s, days, c.factor) }

// Lasts is for how many times its stability a piece stays at least so sure, 0 to
// 1 without either: (recall^(−1/w20) − 1) ÷ f.
func (p *Params) Lasts(recall float64) float64 {
	return (math.Pow(recall, -1/p[20]) - 1) / p.factor()
}

// Next is the state after a hearing so many whole days after the one before.
// Ratings outside 1 to 4 are taken as the nearest of them.
func (p *Params) Next(s State, days int, r Rating) State { return p.Curve().Next(s, days, r) }

// Next is as that of the parameters.
func (c Curve) Next(s State, days int, r Rating) State {
	p := c.p
	r = max(FellApart, min(r, Easy))
	if !s.Heard() {
		return State{Stability: math.Max(p[r-1], least), Difficulty: clamp(p.firstDifficulty(r), 1, 10)}
	}
	next := State{Difficulty: c.difficulty(s.Difficulty, r)}
	switch {
	case days <= 0:
		next.Stability = p.sameDay(s.Stability, r)
	case r == FellApart:
		next.Stability = p.forgotten(s, c.Recall(s, float64(days)))
	default:
		next.Stability = c.recalled(s, c.Recall(s, float64(days)), r)
	}
	next.Stability = clamp(next.Stability, least, most)
	return next
}

// firstDifficulty is w4 − e^(w5·(r−1)) + 1.
func (p *Params) firstDifficulty(r Rating) float64 { return p[4] - math.Exp(p[5]*float64(r-1)) + 1 }

// difficulty moves by −w6·(r−3), less the nearer it is to 10, and is drawn a
// little towards that of an easy piece.
func (c Curve) difficulty(d float64, r Rating) float64 {
	p := c.p
	moved := d - p[6]*float64(r-3)*(10-d)/9
	return clamp(p[7]*c.easiest+(1-p[7])*moved, 1, 10)
}

// recalled grows: more for an easy piece, for a weak memory, and the nearer it was to being lost.
func (c Curve) recalled(s State, recall float64, r Rating) float64 {
	p := c.p
	hard, easy := 1.0, 1.0
	switch r {
	case Shaky:
		hard = p[15]
	case Easy:
		easy = p[16]
	}
	return s.Stability * (1 + c.growth*(11-s.Difficulty)*math.Pow(s.Stability, -p[9])*(math.Exp(p[10]*(1-recall))-1)*hard*easy)
}

// forgotten falls back, never above what a hearing on the same day would leave.
func (p *Params) forgotten(s State, recall float64) float64 {
	after := p[11] * math.Pow(s.Difficulty, -p[12]) * (math.Pow(s.Stability+1, p[13]) - 1) * math.Exp(p[14]*(1-recall))
	return math.Min(clamp(after, least, most), s.Stability/math.Exp(p[17]*p[18]))
}

// sameDay is a second hearing on one day: it never weakens what went at all.
func (p *Params) sameDay(stability float64, r Rating) float64 {
	change := math.Exp(p[17]*(float64(r-3)+p[18])) * math.Pow(stability, -p[19])
	if r >= Shaky {
		change = math.Max(change, 1)
	}
	return stability * change
}

func clamp(x, low, high float64) float64 { return math.Max(low, math.Min(x, high)) }

// Scaled are the parameters of a memory that holds so many times as long: the first stabilities, w0 to w3, are multiplied,
// and all later ones grow from them.
func (p Params) Scaled(by float64) Params {
	for i := range 4 {
		p[i] *= by
	}
	return p
}

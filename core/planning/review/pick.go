// Package review chooses which learned pieces are kept alive in a week.
package review

import (
	"cmp"
	"math"
	"slices"
	"strings"
)

// Piece is a learned piece that could be played.
type Piece struct {
	ID string
	// Minutes is how long it takes to play once, above 0.
	Minutes float64
	// Recall is the chance that it still goes, 0 to 1.
	Recall float64
	// Days since it was played last.
	Days int
	// Useful is the share of the skills of the working pieces and of those that are
	// being planted for that it refines, 0 to 1.
	Useful float64
	// Favourite says that the student likes it.
	Favourite bool
	// Elsewhere says that it was learned before and was never heard here: how well it goes nobody knows.
	Elsewhere bool
}

// Policy decides what a piece is worth.
type Policy struct {
	// StarvedAfterDays without being heard a piece comes before everything else. Default 42: six weeks.
	StarvedAfterDays int
	// UsefulWeight is what a piece is worth that refines everything, beside one
	// that is certainly lost (worth 1). Default 0.5.
	UsefulWeight float64
	// Favourite is what a piece is worth more that the student likes. Default 0.15.
	Favourite float64
	// Variety is what every piece is worth by itself. Default 0.05.
	Variety float64
}

// DefaultPolicy are the defaults above.
func DefaultPolicy() Policy {
	return Policy{StarvedAfterDays: 42, UsefulWeight: 0.5, Favourite: 0.15, Variety: 0.05}
}

// Chosen is a piece that was picked, with its worth and what it was picked for.
type Chosen struct {
	Piece
	Worth float64
	Why   Reason
}

// Reason is what a piece was picked for, as facts.
type Reason struct {
	// Recall is the chance that it still goes, 0 to 1, after so many Days.
	Recall float64 `json:"recall"`
	Days   int     `json:"days"`
	// LeftWeeks is after how many weeks a piece comes before all others, when it was left for
	// longer; 0 when it was not.
	LeftWeeks int `json:"leftWeeks,omitempty"`
	// Refines says that it has half of what is needed next, Favourite that the student likes it.
	Refines   bool `json:"refines,omitempty"`
	Favourite bool `json:"favourite,omitempty"`
	// Elsewhere says that it was learned before and was never heard here.
	Elsewhere bool `json:"elsewhere,omitempty"`
}

// step is the grain of the minutes.
const step = 0.5

// starved is the worth beyond all others of a piece that was left too long.
const starved = 100

// Pick chooses, exactly, the pieces of the largest worth that fit into the
// minutes (a knapsack by dynamic programming in half-minutes). A piece that
// was left too long counts before all others. Of equal choices it takes the one
// in which earlier ids are played. The chosen come in the order of their worth.
func Pick(pieces []Piece, minutes float64, p Policy) []Chosen {
	list := append([]Piece(nil), pieces...)
	slices.SortFunc(list, func(a, b Piece) int { return strings.Compare(a.ID, b.ID) })
	room := int(math.Max(0, math.Min(minutes, 24*60)) / step)
	sizes, worths := make([]int, len(list)), make([]float64, len(list))
	for k, x := range list {
		sizes[k], worths[k] = size(x), p.worth(x)
	}
	// Before piece k, best holds the largest worth of the pieces after it in 0 to
	// room half-minutes; taken says for each k whether the best choice plays it.
	best := make([]float64, room+1)
	taken := make([]bool, len(list)*(room+1))
	for k := len(list) - 1; k >= 0; k-- {
		if worths[k] <= 0 {
			continue
		}
		plays, size, worth := taken[k*(room+1):(k+1)*(room+1)], sizes[k], worths[k]
		for m := room; m >= size; m-- {
			if with := worth + best[m-size]; with >= best[m] {
				best[m], plays[m] = with, true
			}
		}
	}
	var out []Chosen
	for k, m := 0, room; k < len(list); k++ {
		if taken[k*(room+1)+m] {
			out = append(out, Chosen{Piece: list[k], Worth: worths[k], Why: p.why(list[k])})
			m -= sizes[k]
		}
	}
	slices.SortStableFunc(out, func(a, b Chosen) int { return cmp.Compare(b.Worth, a.Worth) })
	return out
}

func size(x Piece) int { return max(1, int(math.Ceil(x.Minutes/step-1e-9))) }

// worth is how near the piece is to being lost, a part for its use to the
// working pieces, and a little for variety.
func (p Policy) worth(x Piece) float64 {
	w := (1 - x.Recall) + p.UsefulWeight*x.Useful + p.Variety
	if x.Favourite {
		w += p.Favourite
	}
	if p.left(x) {
		w += starved
	}
	return w
}

// left says that a piece was left too long. One that was never heard here was not left by anybody.
func (p Policy) left(x Piece) bool { return x.Days > p.StarvedAfterDays && !x.Elsewhere }

// refines is the share of what is needed next from which on a piece is said to refine it.
const refines = 0.5

func (p Policy) why(x Piece) Reason {
	r := Reason{Recall: x.Recall, Days: x.Days, Refines: x.Useful >= refines, Favourite: x.Favourite, Elsewhere: x.Elsewhere}
	if p.left(x) {
		r.LeftWeeks = p.StarvedAfterDays / 7
	}
	return r
}

package learning

import (
	"math"
	"slices"
	"time"

	"patientladder/core/base/civil"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/memory"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
)

// Heard is one time that a learned piece was heard as a whole.
type Heard struct {
	At time.Time
	// On is its day in the studio.
	On     civil.Day
	Rating memory.Rating
	// Rated says that it was rated in a lesson: it tells how well the piece was there. A clearing or a run does not.
	Rated bool
}

// HeardBy are the histories of the learned pieces of a student, by the log as it counts.
func HeardBy(s studentplan.Student, live []*studentlog.Entry) [][]Heard {
	by := map[string][]Heard{}
	for id, m := range s.Standing.Materials {
		if m.ClearedAt.IsZero() || m.Why == standing.FromBefore {
			continue
		}
		by[id] = append(by[id], Heard{At: m.ClearedAt, On: s.Standing.Day(m.ClearedAt), Rating: memory.Solid})
		for _, r := range m.Runs {
			if r.At.After(m.ClearedAt) {
				rating := memory.Shaky
				if r.Cleared {
					rating = memory.Solid
				}
				by[id] = append(by[id], Heard{At: r.At, On: s.Standing.Day(r.At), Rating: rating})
			}
		}
	}
	for _, e := range live {
		list, learned := by[e.Material]
		if !learned || e.At.Before(list[0].At) {
			continue
		}
		switch e.Kind {
		case studentlog.Hearing:
			by[e.Material] = append(list, Heard{At: e.At, On: s.Standing.Day(e.At), Rating: memory.Rating(e.Rating), Rated: true})
		case studentlog.Polished:
			by[e.Material] = append(list, Heard{At: e.At, On: s.Standing.Day(e.At), Rating: memory.Easy})
		}
	}
	out := make([][]Heard, 0, len(by))
	for _, id := range slices.Sorted(keys(by)) {
		slices.SortStableFunc(by[id], func(a, b Heard) int { return a.At.Compare(b.At) })
		out = append(out, by[id])
	}
	return out
}

func keys(by map[string][]Heard) func(yield func(string) bool) {
	return func(yield func(string) bool) {
		for id := range by {
			if !yield(id) {
				return
			}
		}
	}
}

const (
	// scaleSpread is how far the logarithm of the scale is believed to lie from 0, as a standard deviation (default).
	scaleSpread = 0.5
	// farthest is the largest logarithm of a scale that is tried, steps in how many it is divided to each side.
	farthest, steps = 1.5, 30
)

// Fade is how much longer, or shorter, than the published memory says the pieces of a studio stay.
type Fade struct {
	// Scale is by how much the stability of a piece just learned is multiplied; four times of five it lies between Low and High.
	Scale, Low, High float64
	Verdict
	// Heard is from how many rated hearings it was learned.
	Heard int
}

// one is a rated hearing: the chance that each scale gave to its coming out as it did.
type one struct {
	at  time.Time
	log [2*steps + 1]float64
}

// LearnFade learns the scale from the histories of all learned pieces of a studio. The scale has a prior around 1; its
// posterior is computed on a grid.
func LearnFade(histories [][]Heard, p memory.Params) Fade {
	var heard []one
	for _, h := range histories {
		var list []one
		for k := range 2*steps + 1 {
			q := p.Scaled(scaleAt(k))
			curve := q.Curve()
			state, n := memory.State{}, 0
			for i, x := range h {
				days := 0
				if i > 0 {
					days = int(x.On - h[i-1].On)
				}
				if x.Rated && state.Heard() && days > 0 {
					if k == 0 {
						list = append(list, one{at: x.At})
					}
					list[n].log[k] = outcome(curve.Recall(state, float64(days)), x.Rating)
					n++
				}
				state = curve.Next(state, days, x.Rating)
			}
		}
		heard = append(heard, list...)
	}
	slices.SortStableFunc(heard, func(a, b one) int { return a.at.Compare(b.at) })
	out := Fade{Heard: len(heard)}
	weights := posterior(heard)
	out.Scale, out.Low, out.High = summary(weights)
	var gains []float64
	cuts := unseen(len(heard))
	for i, at := range cuts {
		end := len(heard)
		if i+1 < len(cuts) {
			end = cuts[i+1]
		}
		w := posterior(heard[:at])
		for _, x := range heard[at:end] {
			mixed := 0.0
			for k, share := range w {
				mixed += share * math.Exp(x.log[k])
			}
			gains = append(gains, math.Log(mixed)-x.log[steps])
		}
	}
	out.Verdict = verdict(gains)
	return out
}

// outcome is the logarithm of the chance of a rating: that it was still there, or that it fell apart.
func outcome(recall float64, r memory.Rating) float64 {
	recall = math.Max(0.001, math.Min(0.999, recall))
	if r == memory.FellApart {
		return math.Log(1 - recall)
	}
	return math.Log(recall)
}

// scaleAt is a scale of the grid; the middle one is 1.
func scaleAt(k int) float64 { return math.Exp(farthest * float64(k-steps) / steps) }

// posterior are the shares of the scales after some hearings.
func posterior(heard []one) (out [2*steps + 1]float64) {
	best := math.Inf(-1)
	for k := range out {
		x := farthest * float64(k-steps) / steps / scaleSpread
		out[k] = -x * x / 2
		for _, h := range heard {
			out[k] += h.log[k]
		}
		best = math.Max(best, out[k])
	}
	sum := 0.0
	for k := range out {
		out[k] = math.Exp(out[k] - best)
		sum += out[k]
	}
	for k := range out {
		out[k] /= sum
	}
	return out
}

// summary are the middle of the scales and the ends of the range in which four fifths of them lie.
func summary(w [2*steps + 1]float64) (middle, low, high float64) {
	at := func(share float64) float64 {
		sum := 0.0
		for k, x := range w {
			if sum += x; sum >= share {
				return scaleAt(k)
			}
		}
		return scaleAt(2 * steps)
	}
	return at(0.5), at(0.1), at(0.9)
}

// Fading counts the learned pieces that are not surely there on a day, of all, under a memory.
func Fading(histories [][]Heard, p memory.Params, day time.Time) (fading, of int) {
	curve := p.Curve()
	for _, h := range histories {
		state := memory.State{}
		for i, x := range h {
			days := 0
			if i > 0 {
				days = int(x.On - h[i-1].On)
			}
			state = curve.Next(state, days, x.Rating)
		}
		if len(h) == 0 {
			continue
		}
		of++
		if curve.Recall(state, math.Max(0, float64(civil.On(day)-h[len(h)-1].On))) < studentplan.Fading {
			fading++
		}
	}
	return fading, of
}

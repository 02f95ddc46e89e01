package lessonplan

import (
	"patientladder/core/base/sorting"

	"cmp"
	"math"
	"slices"
)

// solve chooses exactly, by dynamic programming over the minutes taken, those of
// review among them, and whether something new was begun. What is due has its least share first. Of all
// other choices it takes the one that is worth most, where each minute by which review misses its aim by
// more than ReviewPlay costs something; of equal choices the one with more minutes. The aim is the share of
// review, or less where the learned pieces that fade or refine something do not fill it: the time goes to work.
func solve(list []option, l Limits, h Hand) Plan {
	aim := l.aim(list)
	width, deep := l.Minutes+1, 2
	at := func(t, r, n int) int { return (t*width+r)*deep + n }
	best := make([]float64, width*width*deep)
	for i := range best {
		best[i] = math.Inf(-1)
	}
	best[0] = 0
	// took[i] holds, for each state after candidate i, what it has there.
	took := make([][]step, len(list))
	reached := 0 // no choice so far takes more minutes
	for i, o := range list {
		next := make([]float64, len(best))
		took[i] = make([]step, len(best))
		for k := range next {
			next[k] = math.Inf(-1)
		}
		for t := 0; t <= reached; t++ {
			for r := 0; r <= t; r++ {
				for n := range deep {
					v := best[at(t, r, n)]
					if math.IsInf(v, -1) {
						continue
					}
					if k := at(t, r, n); !o.forced && v > next[k] {
						next[k], took[i][k] = v, step{0, uint8(n)}
					}
					begun := n
					if o.New && l.OneNew {
						if n == 1 && !o.forced {
							continue
						}
						begun = 1
					}
					if o.out != nil {
						continue
					}
					for m := o.from; m <= o.to && t+m < width; m++ {
						rm := 0
						if o.Layer == Heard {
							rm = m
						}
						k := at(t+m, r+rm, begun)
						w := v + o.worth(m)
						if o.Due {
							w += dueWorth
						}
						if w > next[k] {
							next[k], took[i][k] = w, step{uint8(m), uint8(n)}
						}
					}
				}
			}
		}
		reached = min(l.Minutes, reached+o.to)
		best = next
	}
	t, r, n := choose(best, at, width, aim)
	plan := Plan{Minutes: l.Minutes, Aim: aim, Review: r, Free: l.Minutes - t, Segments: []Chosen{}, Left: []Left{}}
	minutes := make([]int, len(list))
	for i := len(list) - 1; i >= 0; i-- {
		s := took[i][at(t, r, n)]
		minutes[i], n = int(s.minutes), int(s.begun)
		t -= minutes[i]
		if list[i].Layer == Heard {
			r -= minutes[i]
		}
	}
	for i, o := range list {
		if minutes[i] > 0 {
			_, pinned := h.Pins[o.ID]
			plan.Segments = append(plan.Segments, Chosen{Segment: o.Segment, Minutes: minutes[i], Pinned: pinned})
			plan.Worth += o.worth(minutes[i])
		}
	}
	for i, o := range list {
		if minutes[i] == 0 {
			plan.Left = append(plan.Left, Left{o.Segment, plan.why(o, l)})
		}
	}
	plan.arrange(h.Order)
	return plan
}

// step is how a state was reached: the minutes of the candidate, and whether
// something had been begun before it.
type step struct{ minutes, begun uint8 }

// aim is how many minutes of review a lesson aims at.
func (l Limits) aim(list []option) int {
	filled := 0
	for _, o := range list {
		if o.Layer == Heard && !o.Sure && o.out == nil {
			filled += o.to
		}
	}
	return min(int(math.Round(l.ReviewShare*float64(l.Minutes))), filled)
}

// miss is by how many minutes review misses its aim beyond its play.
func miss(review, aim int) int { return max(0, abs(review-aim)-ReviewPlay) }

// choose finds the end of the best choice.
func choose(best []float64, at func(t, r, n int) int, width, aim int) (t, r, n int) {
	top, most := math.Inf(-1), -1
	for tt := range width {
		for rr := 0; rr <= tt; rr++ {
			for nn := range 2 {
				v := best[at(tt, rr, nn)]
				if math.IsInf(v, -1) {
					continue
				}
				if v -= missed * float64(miss(rr, aim)); v > top+1e-9 || v > top-1e-9 && tt > most {
					top, most = v, tt
					t, r, n = tt, rr, nn
				}
			}
		}
	}
	return t, r, n
}

func abs(x int) int { return max(x, -x) }

// why says why a candidate stayed out of a plan.
func (p Plan) why(o option, l Limits) Waiting {
	switch {
	case o.out != nil && !(o.Sure && o.out.Kind == EnoughHeard):
		return *o.out
	case o.New && l.OneNew && slices.ContainsFunc(p.Segments, func(c Chosen) bool { return c.New }):
		return Waiting{Kind: OneNew}
	case o.Sure:
		return Waiting{Kind: SureNow}
	case o.Layer == Heard && p.Review+o.from > p.Aim+ReviewPlay:
		return Waiting{Kind: ReviewFull, Count: p.Review}
	case o.from > p.Free && p.Free >= 0:
		return Waiting{Kind: NoRoom, Count: o.from}
	}
	return Waiting{Kind: WorthLess}
}

// arrange puts the segments into their order: the opening first, the closing
// last, between them as the hand has it, or as a lesson goes; of a kind what was hard at home first.
func (p *Plan) arrange(byHand []string) {
	slices.SortStableFunc(p.Segments, func(a, b Chosen) int {
		return cmp.Or(a.place()-b.place(), sorting.TrueFirst(a.because(HardAtHome), b.because(HardAtHome)))
	})
	place := map[string]int{}
	for i, id := range byHand {
		place[id] = i
	}
	// Those that the hand names change places among themselves; the others stay.
	var slots []int
	var named []Chosen
	for i, c := range p.Segments {
		if _, is := place[c.ID]; is && c.Kind != Opening && c.Kind != Closing {
			slots = append(slots, i)
			named = append(named, c)
		}
	}
	slices.SortStableFunc(named, func(a, b Chosen) int { return place[a.ID] - place[b.ID] })
	for k, i := range slots {
		p.Segments[i] = named[k]
	}
}

// because says that a segment is there for a reason.
func (s Segment) because(why Why) bool {
	return slices.ContainsFunc(s.Why, func(r Reason) bool { return r.Kind == why })
}

// Waiting are the segments that have to wait for the next lesson, the ones of the highest value first; what was
// left out by hand does not wait, and of what only serves to fill minutes nothing is left behind: other ways
// of an activity, and learned pieces that are sure.
func (p Plan) Waiting() []Left {
	out := slices.DeleteFunc(slices.Clone(p.Left), func(l Left) bool { return !l.waits() })
	slices.SortStableFunc(out, func(a, b Left) int { return cmp.Or(sorting.TrueFirst(a.Due, b.Due), cmp.Compare(b.Value, a.Value)) })
	return out
}

// Others are the segments that are not in the lesson and do not wait, in their order.
func (p Plan) Others() []Left {
	return slices.DeleteFunc(slices.Clone(p.Left), Left.waits)
}

func (l Left) waits() bool {
	return l.Reason.Kind != ByHand && l.Reason.Kind != EnoughHeard && !l.Sure && l.Kind != Activity && l.Kind != Climb && l.Kind != Posture
}

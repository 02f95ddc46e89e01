package position

// free is the place of a grip that any place of the hand can play: open strings.
const free = -1 << 20

// grip is one way to play what is struck at one moment.
type grip struct {
	// place is where the hand lies: for a keyboard the staff step under its
	// lowest finger, for strings the semitones from the nut to the first finger.
	place   int
	stretch bool
	// effort counts an opened hand and, on strings, the way from the first position.
	effort int
	// strange is 0 for a place that a teacher would think of first: it orders
	// places that are equal in all else.
	strange int
	// fingers and strings are parallel to the notes of the onset; strings is nil on a keyboard.
	fingers []int
	strings []int
}

// cost orders ways through a piece: first the fewest shifts, then the least
// effort, then shifts that come at a rest or under the thumb, then the
// shortest way, then the places that come to mind first.
type cost struct{ shifts, effort, awkward, distance, strange int }

func (a cost) less(b cost) bool {
	switch {
	case a.shifts != b.shifts:
		return a.shifts < b.shifts
	case a.effort != b.effort:
		return a.effort < b.effort
	case a.awkward != b.awkward:
		return a.awkward < b.awkward
	case a.distance != b.distance:
		return a.distance < b.distance
	}
	return a.strange < b.strange
}

// state is the best way to have played everything up to an onset and to be in
// a place after it.
type state struct {
	place int
	cost  cost
	grip  int // of this onset
	from  int // the state before
}

// solve finds the cheapest choice of one grip for each of n onsets, exactly:
// a shortest path through the places of the hand (dynamic programming over the
// onsets; the number of places at one onset is bounded by the hand, so that
// the work grows with the number of onsets). awkward judges a change of place
// between the grip at an onset and the one before. A shift costs as much as so
// much effort; 0 where no effort makes up for a shift. It returns the grips and the places.
func solve(n int, grips func(i int) []grip, awkward func(i int, before, now *grip) int, shiftEffort int) (chosen []grip, places []int) {
	all := make([][]grip, n)
	states := make([][]state, n)
	last := []state{{place: free}}
	for i := range n {
		all[i] = grips(i)
		for g := range all[i] {
			x := &all[i][g]
			for k := range last {
				p := &last[k]
				next := state{place: x.place, cost: p.cost, grip: g, from: k}
				if x.place == free {
					next.place = p.place
				}
				next.cost.effort += x.effort
				next.cost.strange += x.strange
				if p.place != free && next.place != p.place {
					if next.cost.effort += shiftEffort; shiftEffort == 0 {
						next.cost.shifts++
					}
					next.cost.distance += max(next.place-p.place, p.place-next.place)
					if i > 0 {
						next.cost.awkward += awkward(i, &all[i-1][p.grip], x)
					}
				}
				states[i] = better(states[i], next)
			}
		}
		last = states[i]
	}
	chosen, places = make([]grip, n), make([]int, n)
	best := 0
	for k := range last {
		if last[k].cost.less(last[best].cost) {
			best = k
		}
	}
	for i := n - 1; i >= 0; i-- {
		st := states[i][best]
		chosen[i], places[i] = all[i][st.grip], st.place
		best = st.from
	}
	return chosen, places
}

// better keeps the cheapest state of each place and, since what comes next may
// depend on the finger, of each grip.
func better(states []state, next state) []state {
	for k := range states {
		if states[k].place == next.place && states[k].grip == next.grip {
			if next.cost.less(states[k].cost) {
				states[k] = next
			}
			return states
		}
	}
	return append(states, next)
}

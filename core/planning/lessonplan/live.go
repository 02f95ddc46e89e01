package lessonplan

import "slices"

// ChangeKind is how a segment differs between two plans.
type ChangeKind string

// The kinds, in the order in which they are listed.
const (
	Added   ChangeKind = "added"   // it was not in
	Removed ChangeKind = "removed" // it is not in any more
	Altered ChangeKind = "altered" // it has other minutes, or is about something else now
)

// Change is one segment that differs.
type Change struct {
	Kind    ChangeKind
	Segment Segment
	// Before and Minutes are those it had and those it has; 0 where it is not in.
	Before, Minutes int
}

// Differences lists what another plan has otherwise, in the order of the plans.
func Differences(previous, then Plan) []Change {
	var out []Change
	at := func(p Plan, id string) int {
		return slices.IndexFunc(p.Segments, func(c Chosen) bool { return c.ID == id })
	}
	for _, c := range then.Segments {
		if at(previous, c.ID) < 0 {
			out = append(out, Change{Kind: Added, Segment: c.Segment, Minutes: c.Minutes})
		}
	}
	for _, c := range previous.Segments {
		if at(then, c.ID) < 0 {
			out = append(out, Change{Kind: Removed, Segment: c.Segment, Before: c.Minutes})
		}
	}
	for _, c := range then.Segments {
		i := at(previous, c.ID)
		if i < 0 {
			continue
		}
		if was := previous.Segments[i]; was.Minutes != c.Minutes || !slices.Equal(was.Focus, c.Focus) || was.Step != c.Step {
			out = append(out, Change{Kind: Altered, Segment: c.Segment, Before: was.Minutes, Minutes: c.Minutes})
		}
	}
	return out
}

// Without is what was set by hand but for what is about segments that are no candidates any more.
func (h Hand) Without(candidates ...[]Segment) Hand {
	known := func(id string) bool {
		return slices.ContainsFunc(candidates, func(list []Segment) bool {
			return slices.ContainsFunc(list, func(s Segment) bool { return s.ID == id })
		})
	}
	out := Hand{Minutes: h.Minutes, Pins: map[string]int{}}
	for id, minutes := range h.Pins {
		if known(id) {
			out.Pins[id] = minutes
		}
	}
	for _, id := range h.Drops {
		if known(id) {
			out.Drops = append(out.Drops, id)
		}
	}
	for _, id := range h.Order {
		if known(id) {
			out.Order = append(out.Order, id)
		}
	}
	return out
}

// Untouched says that nothing was set by hand.
func (h Hand) Untouched() bool {
	return h.Minutes == 0 && len(h.Pins)+len(h.Drops)+len(h.Order) == 0
}

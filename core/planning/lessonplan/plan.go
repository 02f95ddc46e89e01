// Package lessonplan puts a lesson together within its minutes: an exact choice
// of segments under the limits of the student's age and way of being taught,
// each with its reason.
//
//	plan.go        segments, limits, what the teacher set by hand, the plan
//	reason.go      why a segment is in a plan, or stays out
//	solve.go       the exact choice
//	live.go        how two plans differ, and what of the teacher's hand still holds
//	candidates.go  what could be in the lesson of a student
//	pool.go        activities that rotate
//	ask.go         the questions to ask before a piece is played
package lessonplan

import (
	"cmp"
	"fmt"
	"slices"
)

// Kind says what a segment is.
type Kind string

// The kinds, in the order in which a lesson goes through them (default).
const (
	Opening   Kind = "opening"
	Posture   Kind = "posture"
	Technique Kind = "technique"
	Run       Kind = "run"
	Working   Kind = "working"
	Spots     Kind = "spots"
	Preview   Kind = "preview"
	Reading   Kind = "reading"
	Begin     Kind = "begin"
	Activity  Kind = "activity"
	Climb     Kind = "stair"
	Review    Kind = "review"
	Closing   Kind = "closing"
)

var order = []Kind{Opening, Posture, Technique, Run, Working, Spots, Preview, Reading, Begin, Climb, Activity, Review, Closing}

// place is where a segment stands in a lesson: by its kind, a tune of one's own just before the closing.
func (s Segment) place() int {
	if s.Goal == OwnTune {
		return 2*slices.Index(order, Closing) - 1
	}
	return 2 * slices.Index(order, s.Kind)
}

// Layer is which of the three layers a segment belongs to, or the frame around them.
type Layer string

// The layers.
const (
	Frame   Layer = "frame"
	Now     Layer = "working"
	Planted Layer = "preview"
	Heard   Layer = "review"
)

// Segment is one thing that a lesson could hold. Minutes are whole.
type Segment struct {
	// ID names it from one week to the next, such as "working 01H…".
	ID    string
	Kind  Kind
	Layer Layer
	// Material is what it is about; empty for the frame, bites and activities.
	Material string
	// Skill and Step, from 1, are those of a preview bite.
	Skill string
	Step  int
	// Goal and Option, from 1 of Options, are those of an activity (see Pool); of a step of ear or rhythm Goal is the stair.
	Goal            string
	Option, Options int
	// Lead offers that the child leads it.
	Lead bool
	// Fault is the one that is looked after, as fault.too-close; empty for none.
	Fault string
	// Exercise is that of a segment in which one is begun, by its id, on the instrument Player; empty otherwise.
	Exercise, Player string
	// Gestures are gone through before a piece that is begun, by skill: a new level of its book begins with it.
	Gestures []string
	// Focus are the points of a piece that are still open, in the teacher's words, the next one first.
	Focus []string
	// Least is what it takes to be worth beginning, Most what it can use; 1 ≤ Least ≤ Usual ≤ Most.
	Least, Usual, Most int
	// Value is what its usual minutes are worth, above 0; a working piece that goes its way is worth 2.
	Value float64
	// Must stands in every lesson.
	Must bool
	// Due has its least share before anything else is weighed: working pieces, and what is due in technique.
	Due bool
	// Sure says of a learned piece that it is surer than 95 % and refines nothing: it fills no share of review.
	Sure bool
	// Quarter says that it has at least a quarter of the lesson: the working piece that is least secure.
	Quarter bool
	// New says that something is begun in it.
	New bool
	// Blocked says why it cannot be in, whatever the minutes; nil when it can.
	Blocked *Waiting
	// Why are the facts behind it, the most important first.
	Why []Reason
}

// worth is what so many minutes of a segment are worth: three quarters of its
// value at the least, all of it at the usual, a tenth more at the most, and
// straight lines between.
func (s Segment) worth(minutes int) float64 {
	line := func(from, to int, low, high float64) float64 {
		if from == to {
			return s.Value * high
		}
		return s.Value * (low + (high-low)*float64(minutes-from)/float64(to-from))
	}
	if minutes <= s.Usual {
		return line(s.Least, s.Usual, 0.75, 1)
	}
	return line(s.Usual, s.Most, 1, 1.1)
}

// Limits are what a lesson must keep to.
type Limits struct {
	// Minutes of the lesson, 5 to 180.
	Minutes int
	// ReviewShare of them is for learned pieces, 0 to 0.9, give or take ReviewPlay minutes.
	ReviewShare float64
	// OneNew lets only one thing be begun (the very young).
	OneNew bool
	// Longest is the attention of the student in minutes for one segment; 0 for no limit.
	Longest int
}

// ReviewPlay is by how many minutes the review of a lesson may miss its share (default).
const ReviewPlay = 2

const (
	// mostReviews is how many learned pieces a lesson hears, unless more than mostlyReview of it is for them (default).
	mostReviews, mostlyReview = 4, 0.5
	// dueWorth is what something due is worth beyond its value when it is in: more than anything that could take its place.
	dueWorth = 5
	// missed is what each minute costs by which review misses its share beyond ReviewPlay (default): a share is an aim.
	missed = 0.2
)

// Hand is what the teacher set by hand.
type Hand struct {
	// Minutes of this lesson, when they are not the usual ones; 0 for the usual.
	Minutes int
	// Pins are segments that must be in, with their minutes, or 0 for any.
	Pins map[string]int
	// Drops are segments that must not.
	Drops []string
	// Order is the order of segments; those not named keep theirs.
	Order []string
}

// Chosen is a segment of the plan.
type Chosen struct {
	Segment
	Minutes int
	Pinned  bool
}

// Left is a segment that stayed out.
type Left struct {
	Segment
	// Reason says why.
	Reason Waiting
}

// Plan is a lesson.
type Plan struct {
	Minutes  int
	Segments []Chosen
	// Left waits for next week.
	Left []Left
	// Free are minutes that nothing needs.
	Free int
	// Review are the minutes for learned pieces, Aim those that the way asks for.
	Review int
	Aim    int
	// Worth is the sum of what the segments are worth.
	Worth float64
	// Begun says that the lesson has begun: the plan stays as it is.
	Begun bool
}

// Make chooses the segments of the largest worth. It refuses minutes out of
// bounds, a pin that no segment has or that lies outside its minutes, and pins
// that do not fit together; then nothing is planned.
func Make(candidates []Segment, l Limits, h Hand) (Plan, error) {
	if h.Minutes != 0 {
		l.Minutes = h.Minutes
	}
	if l.Minutes < 5 || l.Minutes > 180 {
		return Plan{}, fmt.Errorf("a lesson lasts from 5 to 180 minutes, not %d", l.Minutes)
	}
	list, err := within(candidates, l, h)
	if err != nil {
		return Plan{}, err
	}
	return solve(list, l, h), nil
}

// option is a candidate with the minutes that it may take; none at all when From is 0.
type option struct {
	Segment
	from, to int
	forced   bool
	// out says why it cannot be in; nil when it can.
	out *Waiting
}

// fewReviews leaves out learned pieces beyond the few that a lesson hears, those of the highest value and those that the teacher
// wants staying; where most of the lesson is for them there are as many as its share asks for.
func (l Limits) fewReviews(list []option) {
	if l.ReviewShare > mostlyReview {
		return
	}
	room := mostReviews
	var others []int
	for i, o := range list {
		switch {
		case o.Layer != Heard || o.out != nil:
		case o.forced:
			room--
		default:
			others = append(others, i)
		}
	}
	slices.SortStableFunc(others, func(a, b int) int { return cmp.Compare(list[b].Value, list[a].Value) })
	for _, i := range others[min(max(room, 0), len(others)):] {
		list[i].out = &Waiting{Kind: EnoughHeard, Count: mostReviews}
	}
}

// within applies the limits and the hand to each candidate.
func within(candidates []Segment, l Limits, h Hand) ([]option, error) {
	list := make([]option, len(candidates))
	known := map[string]bool{}
	least := 0
	for i, s := range candidates {
		known[s.ID] = true
		o := option{Segment: s, from: s.Least, to: s.Most, forced: s.Must}
		if s.Quarter {
			o.from = max(o.from, min((l.Minutes+3)/4, o.to))
		}
		if l.Longest > 0 && !s.Must {
			if o.to = min(o.to, l.Longest); o.from > o.to {
				o.from = o.to // in bites as long as the attention lasts
			}
		}
		if minutes, pinned := h.Pins[s.ID]; pinned { // the teacher's hand counts more than a rule
			o.forced = true
			if minutes != 0 {
				if minutes < 1 || minutes > l.Minutes {
					return nil, PinError{Segment: s, Minutes: minutes, Of: l.Minutes}
				}
				o.from, o.to = minutes, minutes
			}
		} else if slices.Contains(h.Drops, s.ID) && !s.Must {
			o.out = &Waiting{Kind: ByHand}
		} else {
			o.out = s.Blocked
		}
		if o.forced {
			least += o.from
		}
		list[i] = o
	}
	l.fewReviews(list)
	for id := range h.Pins {
		if !known[id] {
			return nil, fmt.Errorf("there is no segment %q to pin", id)
		}
	}
	if least > l.Minutes {
		return nil, fmt.Errorf("what must be in takes %d of the %d minutes: unpin or shorten something", least, l.Minutes)
	}
	return list, nil
}

// IsPlayed says that a piece is played in such a segment, so that questions can be asked before.
func (k Kind) IsPlayed() bool { return k == Working || k == Begin || k == Reading }

// Reviews are the learned pieces that the plan has, in its order.
func (p Plan) Reviews() (out []string) {
	for _, s := range p.Segments {
		if s.Kind == Review {
			out = append(out, s.Material)
		}
	}
	return out
}

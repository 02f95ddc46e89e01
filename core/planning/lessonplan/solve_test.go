package lessonplan

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func someSegments(t *rapid.T, most int) (list []Segment) {
	for i := range rapid.IntRange(1, most).Draw(t, "segments") {
		s := Segment{
			ID: fmt.Sprint("s", i), Kind: rapid.SampledFrom(order[1:11]).Draw(t, "kind"),
			Layer: rapid.SampledFrom([]Layer{Now, Planted, Heard, Frame}).Draw(t, "layer"),
			Least: rapid.IntRange(1, 4).Draw(t, "least"), Value: rapid.Float64Range(0.1, 2).Draw(t, "value"), New: rapid.Bool().Draw(t, "new"),
			Due: rapid.Bool().Draw(t, "due"), Sure: rapid.Bool().Draw(t, "sure"),
		}
		s.Usual = s.Least + rapid.IntRange(0, 2).Draw(t, "usual")
		s.Most = s.Usual + rapid.IntRange(0, 2).Draw(t, "most")
		list = append(list, s)
	}
	return list
}

// trial is one choice of minutes for every candidate.
type trial struct {
	// goal is what is as large as can be: the worth, what is due, less what review misses of its share.
	goal, worth float64
	miss        int
}

// exhaust tries every choice and returns the best by the rules of Make.
func exhaust(list []Segment, l Limits, pins map[string]int, drops map[string]bool) (trial, bool) {
	aim, filled := int(math.Round(l.ReviewShare*float64(l.Minutes))), 0
	for _, s := range list {
		most := s.Most
		if l.Longest > 0 {
			most = min(most, l.Longest)
		}
		if pin := pins[s.ID]; pin > 0 {
			most = pin
		}
		if s.Layer == Heard && !s.Sure && !drops[s.ID] {
			filled += most
		}
	}
	aim = min(aim, filled)
	best, found := trial{goal: math.Inf(-1)}, false
	var try func(i, minutes, review, begun, due int, worth float64)
	try = func(i, minutes, review, begun, due int, worth float64) {
		if minutes > l.Minutes {
			return
		}
		if i == len(list) {
			miss := max(0, max(review-aim, aim-review)-ReviewPlay)
			if goal := worth + 5*float64(due) - 0.2*float64(miss); goal > best.goal {
				best, found = trial{goal, worth, miss}, true
			}
			return
		}
		s := list[i]
		pin, pinned := pins[s.ID]
		if !pinned {
			try(i+1, minutes, review, begun, due, worth)
			if drops[s.ID] || s.New && l.OneNew && begun > 0 {
				return
			}
		}
		for m := 1; m <= s.Most; m++ {
			least, most := s.Least, s.Most
			if l.Longest > 0 {
				most = min(most, l.Longest)
				least = min(least, most)
			}
			if pin > 0 {
				least, most = pin, pin
			}
			if m < least || m > most {
				continue
			}
			r, n := review, begun
			if s.Layer == Heard {
				r += m
			}
			if s.New {
				n++
			}
			d := due
			if s.Due {
				d++
			}
			try(i+1, minutes+m, r, n, d, worth+s.worth(m))
		}
	}
	try(0, 0, 0, 0, 0, 0)
	return best, found
}

// The plan is worth exactly as much as the best of all choices, with pins,
// drops, the share of review, attention and one new thing at a time.
func TestThePlanIsAsGoodAsTryingEverything(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		list := someSegments(t, 6)
		l := Limits{
			Minutes:     rapid.IntRange(5, 20).Draw(t, "minutes"),
			ReviewShare: rapid.Float64Range(0, 0.9).Draw(t, "share"),
			OneNew:      rapid.Bool().Draw(t, "one new"),
			Longest:     rapid.IntRange(0, 4).Draw(t, "longest"),
		}
		h := Hand{Pins: map[string]int{}}
		drops := map[string]bool{}
		if rapid.Bool().Draw(t, "pin") {
			s := list[rapid.IntRange(0, len(list)-1).Draw(t, "pinned")]
			h.Pins[s.ID] = rapid.SampledFrom([]int{0, s.Least}).Draw(t, "pin minutes")
		}
		if s := list[0]; rapid.Bool().Draw(t, "drop") {
			if _, pinned := h.Pins[s.ID]; !pinned {
				h.Drops, drops[s.ID] = []string{s.ID}, true
			}
		}
		want, ok := exhaust(list, l, h.Pins, drops)
		p, err := Make(list, l, h)
		require.Equal(t, ok, err == nil)
		if err != nil {
			return
		}
		sum, worth, review, begun, due := 0, 0.0, 0, 0, 0
		for _, c := range p.Segments {
			if c.Due {
				due++
			}
			sum, worth = sum+c.Minutes, worth+c.worth(c.Minutes)
			if c.Layer == Heard {
				review += c.Minutes
			}
			if c.New && !c.Pinned {
				begun++
			}
			require.False(t, drops[c.ID])
		}
		require.Equal(t, l.Minutes-sum, p.Free)
		require.Equal(t, review, p.Review)
		require.InDelta(t, p.Worth, worth, 1e-9)
		require.InDelta(t, want.goal, worth+5*float64(due)-0.2*float64(max(0, abs(p.Review-p.Aim)-ReviewPlay)), 1e-9)
		require.False(t, l.OneNew && begun > 1)
		require.Equal(t, len(list), len(p.Segments)+len(p.Left), "every candidate is in or left")
		for _, left := range p.Left {
			require.NotEmpty(t, left.Reason.Kind)
		}
	})
}

func TestWhatCannotBePlannedIsRefused(t *testing.T) {
	list := []Segment{
		{ID: "open", Kind: Opening, Least: 2, Usual: 2, Most: 3, Value: 1, Must: true},
		{ID: "piece", Kind: Working, Least: 4, Usual: 8, Most: 12, Value: 1},
	}
	for says, h := range map[string]Hand{
		"from 5 to 180 minutes, not -10":                 {Minutes: -10},
		"segment \"piece\" cannot take 40 of 30 minutes": {Pins: map[string]int{"piece": 40}},
		"no segment \"gone\" to pin":                     {Pins: map[string]int{"gone": 0}},
		"must be in takes 31 of the 30 minutes":          {Pins: map[string]int{"piece": 29}},
	} {
		_, err := Make(list, Limits{Minutes: 30}, h)
		require.ErrorContains(t, err, says)
	}
}

func TestTheOrderOfALesson(t *testing.T) {
	s := func(id string, k Kind) Segment {
		return Segment{ID: id, Kind: k, Least: 1, Usual: 1, Most: 1, Value: 1, Must: k == Opening || k == Closing}
	}
	list := []Segment{s("close", Closing), s("hear", Review), s("piece", Working), s("scale", Technique), s("open", Opening)}
	ids := func(h Hand) (out []string) {
		p, err := Make(list, Limits{Minutes: 10, ReviewShare: 0.1}, h)
		require.NoError(t, err)
		require.Equal(t, 5, p.Free)
		require.Empty(t, p.Waiting())
		for _, c := range p.Segments {
			out = append(out, c.ID)
		}
		return out
	}
	require.Equal(t, []string{"open", "scale", "piece", "hear", "close"}, ids(Hand{}))
	require.Equal(t, []string{"open", "hear", "piece", "scale", "close"}, ids(Hand{Order: []string{"hear", "piece", "scale", "open"}}))
}

// A first lesson at three has fifteen minutes and at least fifteen activities of
// at most a minute each; what was not used comes in later weeks, and nothing
// comes again before all of it was used (common practice).
func TestFirstLessonsAtThree(t *testing.T) {
	frame := []Segment{
		{ID: "open", Kind: Opening, Layer: Frame, Least: 1, Usual: 1, Most: 1, Value: 1, Must: true},
		{ID: "close", Kind: Closing, Layer: Frame, Least: 1, Usual: 1, Most: 1, Value: 1, Must: true},
	}
	used := Used{}
	for week := range 6 {
		list := Shipped().Activities("piano", 3, used)
		require.GreaterOrEqual(t, len(list), 15)
		p, err := Make(append(frame, list...), Limits{Minutes: 15, Longest: 1}, Hand{})
		require.NoError(t, err)
		require.Zero(t, p.Free)
		require.NotEmpty(t, p.Left)
		fresh := 0
		for _, s := range list {
			var k int
			goal := ""
			_, err := fmt.Sscanf(s.ID, "activity %s %d", &goal, &k)
			require.NoError(t, err)
			if used[goal][k] == 0 {
				fresh++
			}
		}
		for _, c := range p.Segments {
			require.Equal(t, 1, c.Minutes)
			var k int
			goal := ""
			if _, err := fmt.Sscanf(c.ID, "activity %s %d", &goal, &k); err != nil {
				continue
			}
			if used[goal] == nil {
				used[goal] = map[int]int{}
			}
			if used[goal][k] > 0 {
				require.Less(t, fresh, 13, "week %d: %s again while others wait", week, c.ID)
				for other := 1; other <= 3; other++ {
					require.Positive(t, used[goal][other], "week %d: %s again before all of its ways were used", week, goal)
				}
			}
			used[goal][k]++
		}
	}
}

// What stays out says why, and what is worth a word waits for the next lesson.
func TestWhyASegmentStaysOut(t *testing.T) {
	s := func(id string, layer Layer, minutes int, value float64) Segment {
		return Segment{ID: id, Kind: Working, Layer: layer, Least: minutes, Usual: minutes, Most: minutes, Value: value}
	}
	far := s("far", Now, 3, 1)
	far.Blocked = &Waiting{Kind: FarLesson, Count: 21}
	one, two := s("one", Now, 2, 3), s("two", Now, 1, 2)
	one.New, two.New = true, true
	list := []Segment{
		s("piece", Now, 5, 5),
		far,
		one,
		two,
		s("heard", Heard, 2, 1),
		s("unheard", Heard, 2, 0.7),
		s("dropped", Now, 1, 1),
		s("large", Now, 9, 4),
		s("small", Now, 1, 0.5),
	}
	p, err := Make(list, Limits{Minutes: 10, ReviewShare: 0.1, OneNew: true}, Hand{Drops: []string{"dropped"}})
	require.NoError(t, err)
	got := map[string]Waiting{}
	for _, l := range p.Left {
		got[l.ID] = l.Reason
	}
	require.Equal(t, map[string]Waiting{
		"far": {FarLesson, 21}, "two": {Kind: OneNew}, "unheard": {ReviewFull, 2}, "dropped": {Kind: ByHand}, "large": {NoRoom, 9},
	}, got)
	var waiting []string
	for _, s := range p.Waiting() {
		waiting = append(waiting, s.ID)
	}
	require.Equal(t, []string{"large", "two", "far", "unheard"}, waiting, "what is worth most first")
	require.Equal(t, 10, p.Minutes-p.Free)
	// A segment that would fit but is worth nothing beside the others says so.
	p, err = Make([]Segment{s("a", Heard, 1, 1), s("b", Now, 1, 1)}, Limits{Minutes: 30, ReviewShare: 0.5}, Hand{})
	require.NoError(t, err)
	require.Empty(t, p.Left)
}

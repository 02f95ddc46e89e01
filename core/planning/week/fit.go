package week

import (
	"cmp"
	"math"
	"slices"
	"strings"
	"time"

	"patientladder/core/library/material"
)

// fill puts the staircases into the days. The minutes of a day are a hard
// limit: a step that does not fit moves to the next day, and what is left
// after the last day is listed. What was pinned to a day comes before the rest.
func fill(in Input, p *Plan) {
	s := &sieve{hand: in.Hand, pinned: map[string][]Item{}}
	climbs := make([]*climb, len(in.Works))
	for i, w := range in.Works {
		climbs[i] = &climb{work: w, spots: s.through(spots(w, in)), steps: s.through(staircase(w, in))}
		climbs[i].total = len(climbs[i].steps)
	}
	reviews, bites, listen := s.through(reviewsOf(in)), s.through(bitesOf(in)), s.through(listening(in))
	days := practiceDays(p)
	reviewed := 0
	for n, d := range days {
		day := &p.Days[d]
		date := day.Date.Format(time.DateOnly)
		for _, it := range s.pinned[date] {
			if day.add([]Item{it}, float64(in.Minutes)-day.Minutes) == 0 {
				p.LeftOut = append(p.LeftOut, it)
			}
		}
		delete(s.pinned, date)
		day.turn(bites, n, in.Minutes)
		day.turn(listen, n, in.Minutes)
		forWork := float64(in.Minutes)
		if len(reviews) > 0 {
			forWork *= 1 - in.ReviewShare
		}
		// First each piece has its share of the minutes, then what one has left
		// over goes to the others.
		share := (forWork - day.Minutes) / float64(len(climbs))
		for _, c := range climbs {
			c.begin(day, float64(n+1)/float64(len(days)), share, in.Hand)
		}
		for _, c := range climbs {
			c.climb(day, forWork-day.Minutes)
		}
		if !day.works() {
			// A step longer than its share still gets the day if the day can hold it.
			for _, c := range climbs {
				c.climb(day, float64(in.Minutes)-day.Minutes)
			}
		}
		reviewed += day.reviews(in, reviews, reviewed)
		day.order(in.Works)
		day.Focus = focusOf(in, n)
	}
	p.Dropped = s.dropped
	for _, c := range climbs {
		p.LeftOut = append(p.LeftOut, c.steps...)
		p.Dropped = append(p.Dropped, c.dropped...)
	}
	for _, day := range p.Days { // what was pinned to a day of rest
		p.LeftOut = append(p.LeftOut, s.pinned[day.Date.Format(time.DateOnly)]...)
	}
}

// turn adds the nth of some items in turn, if it takes but a small part of the
// minutes of the day and what is set already leaves it room.
func (d *Day) turn(items []Item, n, minutes int) {
	if len(items) > 0 {
		d.add([]Item{items[n%len(items)]}, min(small*float64(minutes), float64(minutes)-d.Minutes))
	}
}

// works says that something of a working piece is set.
func (d *Day) works() bool {
	return slices.ContainsFunc(d.Items, func(it Item) bool { return rank(it.Kind) == 0 })
}

// rank orders the kinds within a day: the working pieces while the head is
// fresh, then what is planted, then what is learned, then listening.
func rank(k Kind) int {
	switch k {
	case Preview:
		return 1
	case Review:
		return 2
	case Listen:
		return 3
	}
	return 0
}

// order puts what belongs together side by side, in the order in which it was set.
func (d *Day) order(works []Work) {
	place := map[string]int{}
	for i, w := range works {
		place[w.Material.ID] = i
	}
	slices.SortStableFunc(d.Items, func(a, b Item) int {
		return cmp.Or(rank(a.Kind)-rank(b.Kind), place[a.Material]-place[b.Material])
	})
}

// climb is the way up one staircase over the days.
type climb struct {
	work Work
	// spots are practised every day, steps once and in order.
	spots, steps []Item
	// dropped are repetitions that were taken out by hand.
	dropped []Item
	total   int
	// last is the step that a day begins with again; quota is how many new ones it may still have.
	last  *Item
	quota int
}

// begin opens a day for a piece: its spots, the last step again, then new
// steps. The staircase is spread evenly: by the end of a day no more of it is
// climbed than of the week has gone (0 to 1). On a day without a new step the
// last one is practised in full once more.
func (c *climb) begin(day *Day, gone, room float64, h Hand) {
	climbed := c.total - len(c.steps)
	c.quota = int(math.Ceil(gone*float64(c.total)-1e-9)) - climbed
	room -= day.add(c.spots, room)
	if c.last != nil {
		if it := again(*c.last, c.quota <= 0); !h.dropped(it.Key) {
			room -= day.add([]Item{it}, room)
		} else if !slices.ContainsFunc(c.dropped, func(d Item) bool { return d.Key == it.Key }) {
			c.dropped = append(c.dropped, it)
		}
	}
	c.climb(day, room)
}

// climb takes steps while they fit into the room and the quota of the day.
func (c *climb) climb(day *Day, room float64) {
	for ; c.quota > 0 && len(c.steps) > 0 && c.steps[0].Minutes <= room; c.quota-- {
		step := c.steps[0]
		c.steps = c.steps[1:]
		room -= day.add([]Item{step}, room)
		if step.Kind != Look {
			c.last = &step
		}
	}
}

func practiceDays(p *Plan) []int {
	var days []int
	for i := range p.Days {
		if !p.Days[i].Rest {
			days = append(days, i)
		}
	}
	return days
}

// add puts those items on the day that fit into the room and returns the minutes they take.
func (d *Day) add(items []Item, room float64) float64 {
	taken := 0.0
	for _, it := range items {
		if taken+it.Minutes <= room {
			d.Items = append(d.Items, it)
			d.Minutes += it.Minutes
			taken += it.Minutes
		}
	}
	return taken
}

// mostReviews is how many learned pieces a day holds at the most, by the share
// of review: three up to a third of the time (default), ten for all of it. The
// week lets all of them come round, and a day may end early.
func mostReviews(share float64) int { return max(3, int(math.Ceil(10*share))) }

// reviews adds learned pieces in turn, beginning after those of earlier days:
// the first whenever it fits, more within the share of the minutes that is
// kept for review. It returns how many it added.
func (d *Day) reviews(in Input, pieces []Item, from int) int {
	kept := in.ReviewShare * float64(in.Minutes)
	added := 0
	for added < min(mostReviews(in.ReviewShare), len(pieces)) {
		it := pieces[(from+added)%len(pieces)]
		if added > 0 && it.Minutes > kept || d.add([]Item{it}, float64(in.Minutes)-d.Minutes) == 0 {
			break
		}
		kept -= it.Minutes
		added++
	}
	return added
}

// ReviewMinutes is how long it takes to play a learned piece once.
func ReviewMinutes(m material.Material) float64 {
	if m.Quarters > 0 {
		return minutes(m.Quarters/breath*practiceTempo, m.Tempo, 1, false)
	}
	return plainMinutes
}

func reviewsOf(in Input) []Item {
	var out []Item
	for _, m := range in.Reviews {
		it := Item{Kind: Review, Material: m.ID, Title: m.Title, End: m.Quarters, Times: 1, Minutes: ReviewMinutes(m), Words: "Play it for pleasure, once, from start to end."}
		it.Key = keyOf(it)
		out = append(out, it)
	}
	return out
}

func bitesOf(in Input) []Item {
	var out []Item
	for _, b := range in.Bites {
		it := Item{Kind: Preview, Material: b.Skill, Title: capital(b.Name), Times: 1, Minutes: biteMinutes, Words: b.Words}
		if b.Exercise != "" {
			it.Words += " (" + b.Exercise + ")"
		}
		it.Key = keyOf(it)
		out = append(out, it)
	}
	return out
}

func listening(in Input) []Item {
	var out []Item
	for _, m := range in.Listen {
		it := Item{Kind: Listen, Material: m.ID, Title: m.Title, End: m.Quarters, Times: 1, Minutes: ReviewMinutes(m), Words: "Listen with the eyes closed; do not play along yet."}
		it.Key = keyOf(it)
		out = append(out, it)
	}
	return out
}

func capital(s string) string {
	if s == "" {
		return s
	}
	r := []rune(s)
	return strings.ToUpper(string(r[:1])) + string(r[1:])
}

func spots(w Work, in Input) []Item {
	var out []Item
	for _, b := range merged(w.Spots) {
		start, end := w.span(b)
		out = append(out, w.over(Spot, b, start, end, w.Hand(), in))
	}
	return out
}

// again begins a day with the last step: in full where nothing new follows,
// else twice, to begin with.
func again(step Item, full bool) Item {
	step.Kind = Again
	step.Key = keyOf(step)
	if full {
		step.Words = "The same once more: it is still settling."
		return step
	}
	step.Times, step.InRow = 2, false
	step.Minutes = max(1, step.Minutes/2)
	step.Words = "Start with the section from last time."
	return step
}

// focusOf picks what to listen for on the nth practice day: the student's own
// points and the open points of the pieces in turn.
func focusOf(in Input, n int) string {
	var all []string
	all = append(all, in.Own...)
	for _, w := range in.Works {
		all = append(all, w.Focus...)
	}
	if len(all) == 0 {
		return ""
	}
	return all[n%len(all)]
}

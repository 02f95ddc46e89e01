package week

import (
	"math"

	"patientladder/core/material"
)

// fill puts the staircases into the days. The minutes of a day are a hard
// limit: a step that does not fit moves to the next day, and what is left
// after the last day is listed.
func fill(in Input, p *Plan) {
	climbs := make([]*climb, len(in.Works))
	for i, w := range in.Works {
		climbs[i] = &climb{work: w, steps: staircase(w, in)}
		climbs[i].total = len(climbs[i].steps)
	}
	days := practiceDays(p)
	reviewed := 0
	for n, d := range days {
		day := &p.Days[d]
		forWork := float64(in.Minutes)
		if len(in.Reviews) > 0 {
			forWork *= 1 - in.ReviewShare
		}
		// First each piece has its share of the minutes, then what one has left
		// over goes to the others.
		for _, c := range climbs {
			c.begin(day, float64(n+1)/float64(len(days)), forWork/float64(len(climbs)), in)
		}
		for _, c := range climbs {
			c.climb(day, forWork-day.Minutes)
		}
		if len(day.Items) == 0 {
			// A step longer than its share still gets the day if the day can hold it.
			for _, c := range climbs {
				c.climb(day, float64(in.Minutes)-day.Minutes)
			}
		}
		reviewed += day.reviews(in, reviewed)
		day.Focus = focusOf(in, n)
	}
	for _, c := range climbs {
		p.LeftOut = append(p.LeftOut, c.steps...)
	}
}

// climb is the way up one staircase over the days.
type climb struct {
	work  Work
	steps []Item
	total int
	// last is the step that a day begins with again; quota is how many new ones it may still have.
	last  *Item
	quota int
}

// begin opens a day for a piece: its spots, the last step again, then new
// steps. The staircase is spread evenly: by the end of a day no more of it is
// climbed than of the week has gone (0 to 1). On a day without a new step the
// last one is practised in full once more.
func (c *climb) begin(day *Day, gone, room float64, in Input) {
	climbed := c.total - len(c.steps)
	c.quota = int(math.Ceil(gone*float64(c.total)-1e-9)) - climbed
	room -= day.add(spots(c.work, in), room)
	if c.last != nil {
		room -= day.add([]Item{again(*c.last, c.quota <= 0)}, room)
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

// reviews adds review pieces in turn, beginning after those of earlier days:
// the first whenever it fits, more within the share of the minutes that is
// kept for review. It returns how many it added.
func (d *Day) reviews(in Input, from int) int {
	kept := in.ReviewShare * float64(in.Minutes)
	added := 0
	for added < min(mostReviews(in.ReviewShare), len(in.Reviews)) {
		it := review(in.Reviews[(from+added)%len(in.Reviews)])
		if added > 0 && it.Minutes > kept || d.add([]Item{it}, float64(in.Minutes)-d.Minutes) == 0 {
			break
		}
		kept -= it.Minutes
		added++
	}
	return added
}

// ReviewShareOf is the share, 0 to 1, of a week's practice that its learned
// pieces take: as near to the share that is kept as they fill it.
func ReviewShareOf(in Input) float64 {
	played, reviewed, days := 0.0, 0, 0
	for _, practises := range in.Practises {
		if practises {
			var d Day
			reviewed += d.reviews(in, reviewed)
			played += d.Minutes
			days++
		}
	}
	if days == 0 || in.Minutes == 0 {
		return 0
	}
	return played / float64(days*in.Minutes)
}

// ReviewMinutes is how long it takes to play a learned piece once.
func ReviewMinutes(m material.Material) float64 {
	if m.Quarters > 0 {
		return minutes(m.Quarters/breath*practiceTempo, m.Tempo, 1, false)
	}
	return plainMinutes
}

func review(m material.Material) Item {
	return Item{Kind: Review, Material: m.ID, Title: m.Title, Times: 1, Minutes: ReviewMinutes(m),
		Words: "Play it for pleasure, once, from start to end."}
}

func spots(w Work, in Input) []Item {
	var out []Item
	for _, b := range merged(w.Spots) {
		it := w.over(Spot, b, w.quarters(b), in)
		out = append(out, it)
	}
	return out
}

// again begins a day with the last step: in full where nothing new follows,
// else twice, to begin with.
func again(step Item, full bool) Item {
	step.Kind = Again
	if full {
		step.Words = "The same once more: it is still settling."
		return step
	}
	step.Times, step.InRow = 2, false
	step.Minutes = max(1, step.Minutes/2)
	step.Words = "Again from last time, to begin with."
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

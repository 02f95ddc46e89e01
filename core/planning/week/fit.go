package week

import (
	"patientladder/core/base/sorting"

	"cmp"
	"math"
	"slices"
	"strings"
	"time"

	"patientladder/core/library/material"
)

// paces are how much faster than evenly a staircase may be climbed. A week is laid out evenly where that
// holds everything; only what would be left out makes it faster.
var paces = []float64{1, 1.5, 2, 3, math.Inf(1)}

// fill puts the practice into the days: the minutes of a day are a hard limit, and what is left after the last
// day is listed. Of the paces it takes the first that leaves out nothing, else the one that leaves out the least.
func fill(in Input, p *Plan) {
	var best Plan
	for i, pace := range paces {
		try := lay(in, *p, pace)
		if i == 0 || left(try) < left(best) {
			best = try
		}
		if left(best) == 0 {
			break
		}
	}
	*p = best
}

// left counts the minutes that did not fit, but for what was pinned to a full day.
func left(p Plan) (minutes float64) {
	for _, it := range p.LeftOut {
		if !it.Pinned {
			minutes += it.Minutes
		}
	}
	return minutes
}

// lay lays the week out at a pace, day by day. Who comes first on a day: what was pinned to it; for every working
// piece what was new last time and the next step of its staircase; what is due in technique; review as near to
// its share as that allows, first what was cleared a short while ago; preview bites and listening; further steps; and what minutes
// are left go to the working pieces once more (spare.go), to learned pieces again, and to games. What found no day is then put
// wherever it fits.
func lay(in Input, p Plan, pace float64) Plan {
	p.Days = slices.Clone(p.Days)
	s := &sieve{hand: in.Hand, pinned: map[string][]Item{}}
	var climbs []*climb
	var drills []*drillTurn
	for _, w := range in.Works {
		if w.Drill != nil {
			drills = append(drills, &drillTurn{items: s.through(drilled(w, in))})
			continue
		}
		c := &climb{work: w, had: w.goes(in), spots: s.through(spots(w, in)), steps: s.through(staircase(w, in))}
		c.total = len(c.steps)
		c.times, c.row = in.dose()
		climbs = append(climbs, c)
	}
	reviews, small := newTurn(s.through(reviewsOf(in))), []*turn{newTurn(s.through(bitesOf(in))), newTurn(s.through(listening(in)))}
	settling := newTurn((&sieve{hand: in.Hand, pinned: map[string][]Item{}}).through(settlingOf(in)))
	settling.had = reviews.had
	games := newTurn(s.through(gamesOf(in)))
	days := practiceDays(&p)
	heard := 0.0
	for n, d := range days {
		day := &p.Days[d]
		room := func() float64 { return float64(in.Minutes) - day.Minutes }
		date := day.Date.Format(time.DateOnly)
		for _, it := range s.pinned[date] {
			if day.add([]Item{it}, room()) == 0 {
				p.LeftOut = append(p.LeftOut, it)
			}
		}
		delete(s.pinned, date)
		var offers []offer
		for _, c := range climbs {
			c.open(pace*float64(n+1)/float64(len(days)), in.Hand)
			offers = append(offers, offer{c.ways(), c.days})
		}
		for _, t := range drills {
			offers = append(offers, offer{t.ways(), t.days})
		}
		for i, k := range choose(offers, room()) {
			if k < 0 {
				continue
			}
			way := offers[i].ways[k]
			day.add(way.items, room())
			if i < len(climbs) {
				climbs[i].take(way)
			} else {
				drills[i-len(climbs)].days++
			}
		}
		heard += settling.most(day, n, room())
		heard += reviews.near(day, in.ReviewShare*float64(in.Minutes*(n+1))-heard, room())
		for _, t := range small {
			t.one(day, min(smallShare*float64(in.Minutes), room()))
		}
		if len(climbs)+len(drills) == 0 {
			games.some(day, n, room())
		}
		for more := true; more; {
			more = false
			for _, c := range climbs {
				more = c.climb(day, room()) || more
			}
		}
		for _, c := range climbs { // a step more than evenly, where minutes are left
			c.quota = 1
			c.climb(day, room())
		}
		for _, c := range climbs {
			c.spare(day, room)
		}
		for _, c := range climbs {
			c.earlier(day, room)
		}
		heard += reviews.fill(day, room, float64(in.Minutes))
		for more := true; more && wanting(room(), float64(in.Minutes)); {
			more = false
			for _, c := range climbs {
				more = c.earlier(day, room) || more
			}
		}
		games.some(day, n, room())
	}
	p.Dropped = s.dropped
	var waiting []Item
	for _, c := range climbs {
		waiting = append(waiting, c.steps...)
		p.Dropped = append(p.Dropped, c.dropped...)
	}
	for _, t := range drills {
		if t.days == 0 {
			waiting = append(waiting, t.items...)
		}
	}
	for _, t := range append(small, reviews) {
		waiting = append(waiting, t.never()...)
	}
	p.LeftOut = append(p.LeftOut, anywhere(&p, days, waiting, in.Minutes)...)
	for i := range p.Days {
		p.LeftOut = append(p.LeftOut, s.pinned[p.Days[i].Date.Format(time.DateOnly)]...) // what was pinned to a day of rest
	}
	for n, d := range days {
		p.Days[d].order(in.Works)
		p.Days[d].Focus = focusOf(in, n)
	}
	return p
}

// anywhere puts what found no day on the first day that has room for it, and returns what none has. A step of a
// staircase goes on the last such day, so that it stays behind those before it where it can.
func anywhere(p *Plan, days []int, items []Item, minutes int) (none []Item) {
	for _, it := range items {
		placed := false
		for i := range days {
			d := days[i]
			if rank(it.Kind) == 0 && it.Kind != Drilled {
				d = days[len(days)-1-i]
			}
			if day := &p.Days[d]; day.add([]Item{it}, float64(minutes)-day.Minutes) > 0 {
				placed = true
				break
			}
		}
		if !placed {
			none = append(none, it)
		}
	}
	return none
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
	case Game:
		return 4
	}
	return 0
}

// inOneGo says that an item puts a piece together at the end of a day.
func (it Item) inOneGo(whole Bars) bool {
	return it.Kind == Whole || it.Purpose == SoFar || it.Kind == Again && it.Bars.From > 0 && it.Bars == whole
}

// order puts what belongs together side by side, in the order in which it was set, and what puts a piece together behind its sections.
func (d *Day) order(works []Work) {
	place, whole := map[string]int{}, map[string]Bars{}
	for i, w := range works {
		if place[w.Material.ID] = i; w.Tree != nil {
			whole[w.Material.ID] = barsOf(*w.Tree)
		}
	}
	last := func(it Item) bool { return it.inOneGo(whole[it.Material]) }
	slices.SortStableFunc(d.Items, func(a, b Item) int {
		return cmp.Or(rank(a.Kind)-rank(b.Kind), place[a.Material]-place[b.Material], sorting.FalseFirst(last(a), last(b)))
	})
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

// ReviewMinutes is how long it takes to play a learned piece once.
func ReviewMinutes(m material.Material) float64 {
	if m.Quarters > 0 {
		return minutes(m.Quarters/breath*PracticeTempo, m.Tempo, 1, false)
	}
	return plainMinutes
}

// reviewsOf are the learned pieces, those that are settling behind the others.
func reviewsOf(in Input) (out []Item) {
	settling := settlingOf(in)
	for _, m := range in.Reviews {
		it := reviewOf(m, "Play it for pleasure, once, from start to end.")
		if !slices.ContainsFunc(settling, func(s Item) bool { return s.Key == it.Key }) {
			out = append(out, it)
		}
	}
	return append(out, settling...)
}

func settlingOf(in Input) (out []Item) {
	for _, m := range in.Settling {
		it := reviewOf(m, "Just learned: once on most days, so that it stays.")
		it.Purpose = Cleared
		out = append(out, it)
	}
	return out
}

func reviewOf(m material.Material, words string) Item {
	it := Item{Kind: Review, Material: m.ID, Title: m.Title, End: m.Quarters, Times: 1, Minutes: ReviewMinutes(m), Words: words}
	if m.Exercise != "" {
		it.Words = "Once through, evenly."
	}
	it.Key = keyOf(it)
	return it
}

func bitesOf(in Input) []Item {
	var out []Item
	for _, b := range in.Bites {
		it := Item{
			Kind:     Preview,
			Material: b.Skill,
			Title:    capital(b.Name),
			Times:    1,
			Minutes:  biteMinutes,
			Words:    b.Words,
			Exercise: b.ExerciseID,
		}
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
		it := Item{
			Kind:     Listen,
			Material: m.ID,
			Title:    m.Title,
			End:      m.Quarters,
			Times:    1,
			Minutes:  ReviewMinutes(m),
			Words:    "Listen with the eyes closed; do not play along yet.",
		}
		it.Key = keyOf(it)
		out = append(out, it)
	}
	return out
}

func gamesOf(in Input) []Item {
	var out []Item
	for _, a := range in.Activities {
		it := Item{Kind: Game, Material: a.ID, Title: a.Title, Times: 1, Minutes: a.Minutes, Words: a.Words}
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
		for _, s := range w.played(stretch{b, start, end}, w.Hand()) {
			out = append(out, w.over(Spot, s.bars, s.start, s.end, w.Hand(), in))
		}
	}
	return out
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

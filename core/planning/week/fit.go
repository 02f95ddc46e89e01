package week

import (
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
// its share as that allows; preview bites and listening; further steps; and what minutes are left go to
// learned pieces again, and to games. What found no day is then put wherever it fits.
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
		c := &climb{work: w, spots: s.through(spots(w, in)), steps: s.through(staircase(w, in))}
		c.total = len(c.steps)
		climbs = append(climbs, c)
	}
	reviews, small := newTurn(s.through(reviewsOf(in))), []*turn{newTurn(s.through(bitesOf(in))), newTurn(s.through(listening(in)))}
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
		heard += reviews.near(day, in, in.ReviewShare*float64(in.Minutes*(n+1))-heard, room())
		for _, t := range small {
			t.one(day, min(smallShare*float64(in.Minutes), room()))
		}
		if len(climbs)+len(drills) == 0 {
			games.all(day, room())
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
		heard += reviews.fill(day, in, room())
		games.all(day, room())
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
	for _, t := range append(small, games, reviews) {
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

// drillTurn is a drill on its way through the days: all its items each day.
type drillTurn struct {
	items []Item
	days  int
}

func (t *drillTurn) ways() []way {
	if len(t.items) == 0 {
		return nil
	}
	out := []way{{items: t.items, due: true, both: true}}
	for i := range t.items { // where the day is too short for both hands, one of them
		if len(t.items) > 1 {
			out = append(out, way{items: t.items[(i+t.days)%len(t.items):][:1], due: true})
		}
	}
	return out
}

// turn is a list of which the days take some in turn.
type turn struct {
	items []Item
	next  int
	had   map[string]bool
}

func newTurn(items []Item) *turn { return &turn{items: items, had: map[string]bool{}} }

// put puts an item on a day.
func (t *turn) put(day *Day, it Item) {
	day.add([]Item{it}, it.Minutes)
	t.had[it.Key] = true
}

// one adds the next that fits into the room.
func (t *turn) one(day *Day, room float64) {
	for range t.items {
		it := t.items[t.next%len(t.items)]
		t.next++
		if it.Minutes <= room {
			t.put(day, it)
			return
		}
	}
}

// all adds those that fit into the room, in turn.
func (t *turn) all(day *Day, room float64) {
	from := t.next
	for i := range t.items {
		it := t.items[(from+i)%len(t.items)]
		if today := slices.ContainsFunc(day.Items, func(d Item) bool { return d.Key == it.Key }); !today && it.Minutes <= room {
			t.put(day, it)
			room -= it.Minutes
			t.next = from + i + 1
		}
	}
}

// near adds learned pieces in turn for as long as the minutes come nearer to the aim and they fit; it returns the
// minutes it added. One that does not fit stays the first of the next day.
func (t *turn) near(day *Day, in Input, aim, room float64) float64 {
	return t.review(day, in, room, func(added, minutes float64) bool {
		return math.Abs(added+minutes-aim) < math.Abs(added-aim)
	})
}

// fill adds learned pieces for the minutes that nothing else needs.
func (t *turn) fill(day *Day, in Input, room float64) float64 {
	return t.review(day, in, room, func(float64, float64) bool { return true })
}

func (t *turn) review(day *Day, in Input, room float64, wanted func(added, minutes float64) bool) float64 {
	added := 0.0
	count := 0
	today := map[string]bool{}
	for _, it := range day.Items {
		if today[it.Key] = true; it.Kind == Review {
			count++
		}
	}
	start := t.next
	skipped := false
	for i := range t.items {
		it := t.items[(start+i)%len(t.items)]
		switch {
		case count == mostReviews(in.ReviewShare):
			return added
		case today[it.Key]:
		case it.Minutes > room-added || !wanted(added, it.Minutes):
			skipped = true
			continue
		default:
			t.put(day, it)
			added += it.Minutes
			count++
		}
		if !skipped {
			t.next = start + i + 1
		}
	}
	return added
}

// never are the items that no day had.
func (t *turn) never() (out []Item) {
	for _, it := range t.items {
		if !t.had[it.Key] {
			out = append(out, it)
		}
	}
	return out
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
	// fresh is what was new on the last day on which it was practised, last the last step of all; quota is how many
	// new steps the day may still have; days counts those on which it was practised.
	fresh []Item
	last  *Item
	quota int
	days  int
	// today is what is new on the day that is being laid out, repeats what it begins with.
	today, repeats []Item
	hand           Hand
}

// open opens a day: by its end no more of the staircase is climbed than of the week has gone (0 to 1, more at a
// faster pace). The day begins with all that was new last time; where no step follows, the last one is practised in
// full.
func (c *climb) open(gone float64, h Hand) {
	c.hand = h
	c.fresh, c.today = append(c.fresh, c.today...), nil
	climbed := c.total - len(c.steps)
	c.quota = len(c.steps)
	if even := gone * float64(c.total); even < float64(c.total) {
		c.quota = int(math.Ceil(even-1e-9)) - climbed
	}
	c.repeats = c.repeats[:0:0]
	if c.last == nil {
		return
	}
	full, again := len(c.steps) == 0, c.fresh
	switch {
	case full:
		again = slices.DeleteFunc(slices.Clone(again), func(it Item) bool { return it.within(*c.last) })
	case len(again) == 0:
		again = []Item{*c.last}
	}
	for _, it := range joined(again) {
		c.repeat(repeated(it, c.work, false))
	}
	if full {
		c.repeat(repeated(*c.last, c.work, true))
	}
}

// within says that all bars of an item lie in another for the same hand.
func (it Item) within(other Item) bool {
	return it.Hand == other.Hand && it.Bars.From >= other.Bars.From && it.Bars.To <= other.Bars.To
}

// repeat begins the day with an item again, unless it was taken out by hand.
func (c *climb) repeat(it Item) {
	switch {
	case slices.ContainsFunc(c.repeats, func(r Item) bool { return r.Key == it.Key }):
	case !c.hand.dropped(it.Key):
		c.repeats = append(c.repeats, it)
	case !slices.ContainsFunc(c.dropped, func(d Item) bool { return d.Key == it.Key }):
		c.dropped = append(c.dropped, it)
	}
}

// ways are what a day can hold of the piece.
func (c *climb) ways() []way {
	var out []way
	step := []Item(nil)
	if c.quota > 0 && len(c.steps) > 0 {
		step = c.steps[:1]
	}
	for mask := 1; mask < 8; mask++ {
		again, goes, spots := mask&1 > 0, mask&2 > 0, mask&4 > 0
		if again && len(c.repeats) == 0 || goes && step == nil || spots && len(c.spots) == 0 {
			continue
		}
		w := way{serves: true, again: again, step: goes, spots: spots}
		if spots {
			w.items = append(w.items, c.spots...)
		}
		if again {
			w.items = append(w.items, c.repeats...)
		}
		if goes {
			w.items = append(w.items, step...)
		}
		out = append(out, w)
	}
	return out
}

// take notes what a day has of the piece.
func (c *climb) take(w way) {
	c.days++
	if w.again {
		c.fresh = nil
	}
	if w.step {
		c.taken()
	}
}

// taken moves the first step to what is new today.
func (c *climb) taken() {
	step := c.steps[0]
	c.steps = c.steps[1:]
	c.quota--
	if step.Kind != Look && step.Kind != Hear {
		c.last = &step
		c.today = append(c.today, step)
	}
}

// climb takes the next step if the day has room and the pace allows it.
func (c *climb) climb(day *Day, room float64) bool {
	if c.quota <= 0 || len(c.steps) == 0 || day.add(c.steps[:1], room) == 0 {
		return false
	}
	c.taken()
	return true
}

// joined are items over neighbouring bars of one hand as one, in their order: what was new in two short sections is
// played again in one go.
func joined(items []Item) []Item {
	var out []Item
	for _, it := range items {
		if n := len(out); n > 0 && out[n-1].Hand == it.Hand && it.Bars.From == out[n-1].Bars.To+1 && it.Kind != Whole {
			last := &out[n-1]
			last.Bars.To, last.End = it.Bars.To, it.End
			last.Minutes += it.Minutes
			continue
		}
		out = append(out, it)
	}
	return out
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

// ReviewMinutes is how long it takes to play a learned piece once.
func ReviewMinutes(m material.Material) float64 {
	if m.Quarters > 0 {
		return minutes(m.Quarters/breath*PracticeTempo, m.Tempo, 1, false)
	}
	return plainMinutes
}

func reviewsOf(in Input) []Item {
	var out []Item
	for _, m := range in.Reviews {
		it := Item{
			Kind:     Review,
			Material: m.ID,
			Title:    m.Title,
			End:      m.Quarters,
			Times:    1,
			Minutes:  ReviewMinutes(m),
			Words:    "Play it for pleasure, once, from start to end.",
		}
		it.Key = keyOf(it)
		out = append(out, it)
	}
	return out
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

// repeated is a step with which a day begins again: in full where nothing new follows, else twice, to begin with.
func repeated(step Item, w Work, full bool) Item {
	step.Kind = Again
	step.Key = keyOf(step)
	if full {
		step.Words = "The same once more: it is still settling."
		return step
	}
	if step.End > step.Start {
		step.Minutes = minutes(step.End-step.Start, w.Material.Tempo, 2, false)
	} else {
		step.Minutes = max(1, math.Ceil(step.Minutes)/2)
	}
	step.Times, step.InRow = 2, false
	step.Words = "Start with what was new last time."
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

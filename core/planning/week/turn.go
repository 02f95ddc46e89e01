package week

import (
	"math"
	"slices"
)

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

const (
	// mostGames is how many games a day has at the most, and gamesOn by how many the next day goes on (defaults): a game comes on two or
	// three days, so that it is known, and then gives way.
	mostGames = 5
	gamesOn   = 2
)

// some adds the games of the nth day that fit into the room.
func (t *turn) some(day *Day, n int, room float64) {
	for i := range min(mostGames, len(t.items)) {
		it := t.items[(gamesOn*n+i)%len(t.items)]
		if today := slices.ContainsFunc(day.Items, func(d Item) bool { return d.Key == it.Key }); !today && it.Minutes <= room {
			t.put(day, it)
			room -= it.Minutes
		}
	}
}

// most adds what is played on most days, two of three, each beginning on another one.
func (t *turn) most(day *Day, n int, room float64) (added float64) {
	for i, it := range t.items {
		if (n+i)%3 != 2 && it.Minutes <= room-added {
			t.put(day, it)
			added += it.Minutes
		}
	}
	return added
}

// near adds learned pieces in turn for as long as the minutes come nearer to the aim and they fit; it returns the
// minutes it added. One that does not fit stays the first of the next day.
func (t *turn) near(day *Day, aim, room float64) float64 {
	return t.review(day, room, func(added, minutes float64) bool {
		return math.Abs(added+minutes-aim) < math.Abs(added-aim)
	})
}

// fill adds learned pieces beyond their share until a day wants for nothing.
func (t *turn) fill(day *Day, room func() float64, minutes float64) float64 {
	free := room()
	return t.review(day, free, func(added, _ float64) bool { return wanting(free-added, minutes) })
}

const (
	// mostFree is how many minutes of a day may stay free where something could fill them, and freeShare which share of it (defaults):
	// who is done earlier may stop.
	mostFree  = 10
	freeShare = 0.25
)

// wanting says that a day of so many minutes has so many free that more is put into it.
func wanting(free, minutes float64) bool { return free >= min(mostFree, freeShare*minutes) }

func (t *turn) review(day *Day, room float64, wanted func(added, minutes float64) bool) float64 {
	added := 0.0
	today := map[string]bool{}
	for _, it := range day.Items {
		today[it.Key] = true
	}
	start := t.next
	skipped := false
	for i := range t.items {
		it := t.items[(start+i)%len(t.items)]
		switch {
		case today[it.Key]:
		case it.Minutes > room-added || !wanted(added, it.Minutes):
			skipped = true
			continue
		default:
			t.put(day, it)
			added += it.Minutes
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

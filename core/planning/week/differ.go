package week

import (
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"reflect"
	"time"
)

// Fingerprint names a plan: the same plan has the same print, and another one has another.
func (p Plan) Fingerprint() string {
	data, err := json.Marshal(p)
	if err != nil {
		panic("week: a plan of plain fields always has JSON: " + err.Error())
	}
	sum := sha256.Sum256(data)
	return hex.EncodeToString(sum[:])
}

// ChangeKind is how an item differs between two plans.
type ChangeKind string

// The kinds, in the order in which they are listed.
const (
	Added   ChangeKind = "added"   // it was not there
	Removed ChangeKind = "removed" // it is not there any more
	Moved   ChangeKind = "moved"   // it is on other days
	Altered ChangeKind = "altered" // it is played another number of times, or otherwise
)

// Change is one item that differs between two plans.
type Change struct {
	Kind ChangeKind
	Item Item
	// Days on which it is now; on which it was, for one that was removed.
	Days []time.Time
}

// Differences lists what another plan has otherwise, item by item in the order of the plans: what was
// added, what was removed, what moved, what is played otherwise.
func Differences(previous, then Plan) []Change {
	before, order := byKey(previous)
	now, more := byKey(then)
	for _, key := range more {
		if before[key] == nil {
			order = append(order, key)
		}
	}
	found := map[ChangeKind][]Change{}
	for _, key := range order {
		a, b := before[key], now[key]
		add := func(kind ChangeKind, p *placed) { found[kind] = append(found[kind], Change{kind, p.item, p.days}) }
		switch {
		case a == nil:
			add(Added, b)
		case b == nil:
			add(Removed, a)
		case !sameDays(a.days, b.days):
			add(Moved, b)
		case !reflect.DeepEqual(a.item, b.item):
			add(Altered, b)
		}
	}
	var out []Change
	for _, kind := range []ChangeKind{Added, Removed, Moved, Altered} {
		out = append(out, found[kind]...)
	}
	return out
}

// placed is an item with its days.
type placed struct {
	item Item
	days []time.Time
}

func byKey(p Plan) (map[string]*placed, []string) {
	out := map[string]*placed{}
	var order []string
	for _, d := range p.Days {
		for _, it := range d.Items {
			x := out[it.Key]
			if x == nil {
				x = &placed{item: it}
				out[it.Key] = x
				order = append(order, it.Key)
			}
			x.days = append(x.days, d.Date)
		}
	}
	return out, order
}

func sameDays(a, b []time.Time) bool {
	if len(a) != len(b) {
		return false
	}
	for i := range a {
		if !a[i].Equal(b[i]) {
			return false
		}
	}
	return true
}

// MinutesADay is the hard limit of a day: what was set by hand for this week, else the usual.
func (in Input) MinutesADay() int {
	if in.Hand.Minutes > 0 {
		return in.Hand.Minutes
	}
	return in.Minutes
}

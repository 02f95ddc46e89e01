package studentlog

import (
	"encoding/json"
	"sort"
)

// Live returns the entries that count, in the order in which they happened
// (time, then id): each id once, without corrections and without what they
// correct. The result depends only on the set of entries, not on their order
// or number of arrivals.
//
// A correction can itself be corrected, which brings its target back.
// Corrections that correct each other in a circle cancel out.
func Live(entries []Entry) []Entry {
	byID := unique(entries)
	correctors := map[string][]string{} // target → corrections of it
	for id, e := range byID {
		if e.Kind == Correction && e.Corrects != id {
			correctors[e.Corrects] = append(correctors[e.Corrects], id)
		}
	}
	standing := settle(byID, correctors)
	live := make([]Entry, 0, len(byID))
	for id, e := range byID {
		if e.Kind != Correction && standing[id] {
			live = append(live, e)
		}
	}
	sort.Slice(live, func(a, b int) bool {
		if !live[a].At.Equal(live[b].At) {
			return live[a].At.Before(live[b].At)
		}
		return live[a].ID < live[b].ID
	})
	return live
}

// unique keeps one entry for each id. Two different entries under one id can
// only come from a broken writer; the choice between them must not depend on
// the order, so the one whose JSON sorts first stays.
func unique(entries []Entry) map[string]Entry {
	byID := make(map[string]Entry, len(entries))
	for _, e := range entries {
		old, seen := byID[e.ID]
		if !seen || canonical(e) < canonical(old) {
			byID[e.ID] = e
		}
	}
	return byID
}

func canonical(e Entry) string {
	e.At = e.At.UTC()
	data, err := json.Marshal(e)
	if err != nil {
		panic("studentlog: an entry of plain fields always has JSON: " + err.Error())
	}
	return string(data)
}

// settle decides which entries stand. An entry stands when none of its
// corrections stands; decisions spread from the entries nobody corrects.
func settle(byID map[string]Entry, correctors map[string][]string) map[string]bool {
	standing := make(map[string]bool, len(byID))
	waiting := map[string]int{} // undecided corrections of an entry
	var ready []string
	for id := range byID {
		if n := len(correctors[id]); n > 0 {
			waiting[id] = n
		} else {
			standing[id] = true
			ready = append(ready, id)
		}
	}
	struck := map[string]bool{}
	for len(ready) > 0 {
		id := ready[len(ready)-1]
		ready = ready[:len(ready)-1]
		e := byID[id]
		target := e.Corrects
		if e.Kind != Correction || target == id {
			continue
		}
		if _, known := byID[target]; !known {
			continue // what it corrects has not arrived yet
		}
		if standing[id] {
			struck[target] = true
		}
		if waiting[target]--; waiting[target] == 0 {
			delete(waiting, target)
			standing[target] = !struck[target]
			ready = append(ready, target)
		}
	}
	// What is left waits on a circle of corrections: those void each other.
	for id := range waiting {
		standing[id] = byID[id].Kind != Correction && !struck[id]
	}
	return standing
}

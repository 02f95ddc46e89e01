package studentlog

import (
	"encoding/json"
	"slices"
	"strings"
)

// Live returns the entries that count, in the order in which they happened
// (time, then id): each id once, without corrections and without what they
// correct. The result depends only on the set of entries, not on their order
// or number of arrivals.
//
// A correction can itself be corrected, which brings its target back.
// Corrections that correct each other in a circle cancel out.
func Live(entries []Entry) []*Entry {
	kept, corrections := unique(entries)
	var standing map[string]bool // nil: nothing is corrected, everything stands
	if corrections {
		byID := make(map[string]*Entry, len(kept))
		for _, e := range kept {
			byID[e.ID] = e
		}
		standing = settle(byID)
	}
	live := kept[:0]
	for _, e := range kept {
		if e.Kind != Correction && (standing == nil || standing[e.ID]) {
			live = append(live, e)
		}
	}
	slices.SortFunc(live, func(a, b *Entry) int {
		if c := a.At.Compare(b.At); c != 0 {
			return c
		}
		return strings.Compare(a.ID, b.ID)
	})
	return live
}

// unique keeps one entry for each id, and says whether there are corrections.
// Two different entries under one id can only come from a broken writer; the
// choice between them must not depend on the order, so the one whose JSON sorts
// first stays.
func unique(entries []Entry) (kept []*Entry, corrections bool) {
	kept = make([]*Entry, 0, len(entries))
	growing := true // the ids, as they do when one device writes
	for i := range entries {
		corrections = corrections || entries[i].Kind == Correction
		growing = growing && (i == 0 || entries[i-1].ID < entries[i].ID)
		kept = append(kept, &entries[i])
	}
	if growing {
		return kept, corrections
	}
	at := make(map[string]int, len(entries))
	kept = kept[:0]
	for i := range entries {
		e := &entries[i]
		old, seen := at[e.ID]
		switch {
		case !seen:
			at[e.ID] = len(kept)
			kept = append(kept, e)
		case canonical(*e) < canonical(*kept[old]):
			kept[old] = e
		}
	}
	return kept, corrections
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
func settle(byID map[string]*Entry) map[string]bool {
	correctors := map[string][]string{} // target → corrections of it
	for id, e := range byID {
		if e.Kind == Correction && e.Corrects != id {
			correctors[e.Corrects] = append(correctors[e.Corrects], id)
		}
	}
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

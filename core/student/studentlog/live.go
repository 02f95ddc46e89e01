package studentlog

import (
	"crypto/sha256"
	"encoding/json"
	"slices"
	"strings"
	"time"
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

// Renamed are entries in which materials that another one stands for bear the name of that one. Without
// any they are the same.
func Renamed(entries []Entry, into map[string]string) []Entry {
	if len(into) == 0 {
		return entries
	}
	out := slices.Clone(entries)
	for i := range out {
		if other, merged := into[out[i].Material]; merged {
			out[i].Material = other
		}
	}
	return out
}

// Undo is the correction of an entry. Its id follows from that of the entry, so that undoing twice is undoing once.
func Undo(entry, actor string, at time.Time) Entry {
	return Entry{ID: undoID(entry), At: at.UTC().Truncate(time.Millisecond), Actor: actor, Kind: Correction, Corrects: entry}
}

// undoID is an id that follows from another: 130 bits of its SHA-256 in the alphabet of ULIDs.
func undoID(id string) string {
	const letters = "0123456789ABCDEFGHJKMNPQRSTVWXYZ"
	sum := sha256.Sum256([]byte("undo " + id))
	out := make([]byte, 26)
	for i := range out {
		out[i] = letters[sum[i]%32]
	}
	out[0] = letters[sum[0]%8] // a ULID begins with 0 to 7
	return string(out)
}

// MarksOf are the marks that each focus point of a material was given, in their order.
func MarksOf(live []*Entry, material string) map[string][]Mark {
	out := map[string][]Mark{}
	for _, e := range live {
		if e.Kind == MarkGiven && e.Material == material {
			out[e.Focus] = append(out[e.Focus], e.Mark)
		}
	}
	return out
}

// LastMarks are the last marks of each focus point of a material among entries, by the focus point.
func LastMarks(entries []*Entry, material string) map[string]*Entry {
	out := map[string]*Entry{}
	for _, e := range entries {
		if e.Kind == MarkGiven && e.Material == material {
			out[e.Focus] = e
		}
	}
	return out
}

// Taken is an entry that was taken back, with the correction that did.
type Taken struct{ Entry, By *Entry }

// TakenBack are the entries that do not count because a correction takes them back that stands itself, the
// latest correction first. live are the entries that count.
func TakenBack(entries []Entry, live []*Entry) []Taken {
	counts := make(map[string]bool, len(live))
	for _, e := range live {
		counts[e.ID] = true
	}
	byID := make(map[string]*Entry, len(entries))
	for i := range entries {
		byID[entries[i].ID] = &entries[i]
	}
	corrected := map[string]bool{}
	for _, e := range entries {
		if e.Kind == Correction {
			corrected[e.Corrects] = true
		}
	}
	var out []Taken
	for i := range entries {
		by := &entries[i]
		if of := byID[by.Corrects]; by.Kind == Correction && !corrected[by.ID] && of != nil && of.Kind != Correction && !counts[of.ID] {
			out = append(out, Taken{of, by})
		}
	}
	slices.SortStableFunc(out, func(a, b Taken) int { return b.By.At.Compare(a.By.At) })
	return out
}

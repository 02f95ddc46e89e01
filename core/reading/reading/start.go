package reading

import (
	"fmt"
	"sort"
	"strconv"
	"strings"

	"patientladder/core/notation/score"
)

// Start is what a student looks for first: which hand, which finger, which key.
type Start struct {
	Hand Hand `json:"hand"`
	// Finger is 1 to 5, 0 for an open string, −1 when neither given nor clear.
	Finger int `json:"finger"`
	// FingerGiven says that the finger is printed; otherwise it is proposed from the hand's position.
	FingerGiven bool `json:"fingerGiven"`
	// Key is the first note, lowest first for a chord: "C4", "F#3".
	Key []string `json:"key"`
	// BlackKey says that the outer note lies on a black key.
	BlackKey bool `json:"blackKey"`
	Bar      int  `json:"bar"`
	// WeakFinger says that the hand starts on finger 4 or 5 (keyboard).
	WeakFinger bool `json:"weakFinger"`
}

// FindStart returns the start of a line; ok is false for a line with no notes.
// Where no finger is printed it is the one that proposed returns for the outer
// note of the first onset, by its index in Score.Notes: −1 for none (see
// package position).
func FindStart(s *score.Score, l Line, proposed func(note int) int) (st Start, ok bool) {
	if len(l.Onset) == 0 {
		return Start{}, false
	}
	first := l.Onset[0]
	st = Start{Hand: l.Hand, Finger: -1, Bar: first.Bar}
	for _, i := range first.Notes {
		st.Key = append(st.Key, s.Notes[i].Pitch.String())
	}
	outer := &s.Notes[first.Outer]
	st.BlackKey = score.BlackKey(outer.Pitch.Semitone())
	if f, err := strconv.Atoi(outer.Fingering); err == nil && f >= 0 && f <= 5 {
		st.Finger, st.FingerGiven = f, true
	} else if proposed != nil {
		st.Finger = proposed(first.Outer)
	}
	st.WeakFinger = l.Hand != Whole && st.Finger >= 4
	return st, true
}

// UsedNote is one pitch that a line uses.
type UsedNote struct {
	Pitch string `json:"pitch"`
	MIDI  int    `json:"midi"`
	Count int    `json:"count"`
	// FirstBar is where it is met first, from 1.
	FirstBar int `json:"firstBar"`
}

// NotesUsed returns the written pitches of a line, lowest first.
func NotesUsed(s *score.Score, l Line) []UsedNote {
	at := map[score.Pitch]int{}
	var used []UsedNote
	for _, o := range l.Onset {
		for _, i := range o.Notes {
			n := &s.Notes[i]
			if k, ok := at[n.Pitch]; ok {
				used[k].Count++
				continue
			}
			at[n.Pitch] = len(used)
			used = append(used, UsedNote{Pitch: n.Pitch.String(), MIDI: n.MIDI, Count: 1, FirstBar: n.Bar})
		}
	}
	sort.SliceStable(used, func(a, b int) bool { return used[a].MIDI < used[b].MIDI })
	return used
}

// Words says a start for a practice sheet: "right hand, finger 2 on E". Name
// says a note name in the words of the studio.
func (st Start) Words(name func(string) string) string {
	keys := make([]string, len(st.Key))
	for i, k := range st.Key {
		keys[i] = name(strings.TrimRight(k, "-0123456789"))
		if k == "C4" {
			keys[i] = "middle " + name("C")
		}
	}
	on := keys[0]
	if n := len(keys); n > 1 {
		on = strings.Join(keys[:n-1], ", ") + " and " + keys[n-1]
		if st.Hand != Whole && st.Finger > 0 {
			return fmt.Sprintf("the %s hand on %s, finger %d on the outside", st.Hand, on, st.Finger)
		}
	}
	switch {
	case st.Hand == Whole && st.Finger < 0:
		return on
	case st.Hand == Whole && st.Finger == 0:
		return "the open string " + on
	case st.Hand == Whole:
		return fmt.Sprintf("finger %d on %s", st.Finger, on)
	case st.Finger < 0:
		return fmt.Sprintf("the %s hand on %s", st.Hand, on)
	}
	return fmt.Sprintf("the %s hand, finger %d on %s", st.Hand, st.Finger, on)
}

// Opening says where a piece begins: the start of each line that begins with
// the first sound. Beside hands, the lines of other players do not count.
// Starts are parallel to the lines; name says a note name in the words of the studio.
func Opening(lines []Line, starts []Start, name func(string) string) string {
	hands := false
	for _, l := range lines {
		hands = hands || l.Hand != Whole
	}
	counts := func(l Line) bool { return len(l.Onset) > 0 && (l.Hand != Whole || !hands) }
	var words []string
	for i, l := range lines {
		if !counts(l) {
			continue
		}
		first := true
		for _, other := range lines {
			if counts(other) && other.Onset[0].At.Less(l.Onset[0].At) {
				first = false
			}
		}
		if first {
			words = append(words, starts[i].Words(name))
		}
	}
	return strings.Join(words, " and ")
}

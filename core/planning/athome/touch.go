package athome

import (
	"cmp"
	"slices"
	"strconv"

	"patientladder/core/library/instrument"
	"patientladder/core/notation/score"
	"patientladder/core/planning/week"
	"patientladder/core/reading/analysis"
	"patientladder/core/reading/position"
	"patientladder/core/reading/reading"
	"patientladder/core/technique/plucked"
)

// Hand is a hand that plays in a thing to do; a part that is not divided by hands counts as one.
type Hand struct {
	Hand reading.Hand
	// Finger it begins with: 1 to 5, 0 for an open string, −1 where it is not known.
	Finger int
	// Keys are the pitches it begins with, lowest first: "C4".
	Keys []string
	// At is when it begins, in quarter notes from the start of the piece.
	At float64
	// String it begins on, 1 for the highest; 0 on a keyboard or where it is not known.
	String int
	// Touches are all that lies under the hand in it, lowest first.
	Touches []Touch
	// Moves says that the hand changes its place on the way.
	Moves bool
	// Chord names the shape where one of several chords is drawn; empty otherwise. All of its touches are held at once.
	Chord string
}

// Touch is a key, or a place on a string, with the finger that plays it first.
type Touch struct {
	Pitch string
	MIDI  int
	// Finger is 1 to 5, 0 for an open string, −1 where it is not known.
	Finger int
	// String counts from 1, Above in semitones from the open string; 0 and 0 on a keyboard.
	String, Above int
	// First says that it begins here.
	First bool
}

// Sign is what stands on a touch: the number of its finger; empty where nobody knows it.
func (t Touch) Sign() string {
	if t.Finger < 0 {
		return ""
	}
	return strconv.Itoa(t.Finger)
}

// OnStrings are the touches that are drawn on a neck, OnKeys those that are drawn on a keyboard: of a
// part that is not divided by hands and has no strings nothing can be drawn.
func (h Hand) OnStrings() (out []Touch) {
	for _, t := range h.Touches {
		if t.String > 0 {
			out = append(out, t)
		}
	}
	return out
}

// OnKeys is described with OnStrings.
func (h Hand) OnKeys() (out []Touch) {
	for _, t := range h.Touches {
		if t.String == 0 && h.Hand != reading.Whole {
			out = append(out, t)
		}
	}
	return out
}

// staffHand says whether a line belongs to a hand as a week names it: "right hand", or "" for as written.
func staffHand(l analysis.Line, hand string) bool {
	return hand == "" || l.Hand == reading.Whole || string(l.Hand)+" hand" == hand
}

// lines are those of the student that a thing to do is about.
func lines(it week.Item, p *analysis.Piece) (out []analysis.Line) {
	hands := slices.ContainsFunc(p.Lines, func(l analysis.Line) bool { return l.Hand != reading.Whole })
	for _, l := range p.Lines {
		if p.Plays[l.Part] && staffHand(l, it.Hand) && (!hands || l.Hand != reading.Whole) {
			out = append(out, l)
		}
	}
	return out
}

// within are the onsets of a line from one time to another; all where there is no stretch.
func within(l analysis.Line, it week.Item) (out []reading.Onset) {
	for _, o := range l.Onset {
		if at := o.At.Float(); it.End <= it.Start || at >= it.Start-1e-9 && at < it.End-1e-9 {
			out = append(out, o)
		}
	}
	return out
}

// handsOf are the hands that play in a thing to do, in the order in which they begin.
func handsOf(it week.Item, p *analysis.Piece) []Hand {
	tuning := instrument.Tuning(p.Instrument)
	var out []Hand
	for _, l := range lines(it, p) {
		on := within(l, it)
		if len(on) == 0 {
			continue
		}
		h := Hand{Hand: l.Hand, Finger: -1, At: on[0].At.Float()}
		fingers, strings := map[int]int{}, map[int]int{}
		for _, f := range l.Position.Fingers {
			fingers[f.Note], strings[f.Note] = f.Finger, f.String
		}
		if shapes := shapesOf(l, on, func(n int) Touch { return touchOf(p.Score, n, fingers, strings, tuning) }, p.Score, p.Instrument); len(shapes) > 0 {
			out = append(out, shapes...)
			continue
		}
		at := map[[2]int]int{}
		for i, o := range on {
			for _, n := range o.Notes {
				t := touchOf(p.Score, n, fingers, strings, tuning)
				t.First = i == 0
				if i == 0 {
					h.Keys = append(h.Keys, t.Pitch)
					if n == o.Outer {
						h.Finger, h.String = t.Finger, t.String
					}
				}
				place := [2]int{t.MIDI, t.String}
				if _, there := at[place]; !there {
					at[place] = len(h.Touches)
					h.Touches = append(h.Touches, t)
				}
			}
		}
		slices.SortStableFunc(h.Touches, func(a, b Touch) int { return cmp.Or(a.MIDI-b.MIDI, a.String-b.String) })
		h.Moves = moved(l, on)
		out = append(out, h)
	}
	slices.SortStableFunc(out, func(a, b Hand) int { return cmp.Compare(a.At, b.At) })
	return out
}

const (
	// leastOfChord is how many strings make a chord, mostShapes how many chords are drawn of one thing to do (default).
	leastOfChord, mostShapes = 3, 4
)

// shapesOf are the chords that a hand holds on strings one after the other, each with its own fingers; none where it does not play
// chords all along.
func shapesOf(l analysis.Line, on []reading.Onset, touch func(note int) Touch, s *score.Score, player string) (out []Hand) {
	seen := map[string]bool{}
	for _, o := range on {
		h := Hand{Hand: l.Hand, Finger: -1, At: o.At.Float()}
		key := ""
		for _, n := range o.Notes {
			t := touch(n)
			if t.String == 0 {
				return nil
			}
			t.First = true
			h.Touches, key = append(h.Touches, t), key+strconv.Itoa(t.String)+"."+strconv.Itoa(t.Above)+" "
			h.Finger = max(h.Finger, t.Finger)
		}
		if len(h.Touches) < leastOfChord {
			return nil
		}
		if seen[key] || len(out) == mostShapes {
			continue
		}
		seen[key] = true
		for _, x := range s.Signs {
			if x.Kind == score.Chord && !o.At.Less(x.At) {
				h.Chord = x.Text
			}
		}
		slices.SortStableFunc(h.Touches, func(a, b Touch) int { return b.String - a.String })
		h.held(player)
		out = append(out, h)
	}
	return out
}

// held gives a chord that is known by its name the fingers with which it is held, where they are on these frets.
func (h *Hand) held(player string) {
	x, _ := instrument.Of(player)
	shape, err := plucked.Chord(x, h.Chord)
	if err != nil {
		return
	}
	for _, t := range h.Touches {
		if t.String > len(shape.Frets) || shape.Frets[t.String-1] != t.Above {
			return
		}
	}
	h.Finger = 0
	for i := range h.Touches {
		h.Touches[i].Finger = shape.Fingers[h.Touches[i].String-1]
		h.Finger = max(h.Finger, h.Touches[i].Finger)
	}
}

// touchOf is how a note is touched: a printed finger before a proposed one.
func touchOf(s *score.Score, note int, fingers, strings map[int]int, tuning []int) Touch {
	n := &s.Notes[note]
	t := Touch{Pitch: n.Pitch.String(), MIDI: n.MIDI, Finger: -1}
	if f, proposed := fingers[note]; proposed {
		t.Finger = f
	}
	if f := position.Given(n); f >= 0 {
		t.Finger = f
	}
	if str := strings[note]; str > 0 && str <= len(tuning) {
		t.String, t.Above = str, n.MIDI-tuning[str-1]
	}
	return t
}

// moved says whether a hand leaves its place between the first and the last of some onsets.
func moved(l analysis.Line, on []reading.Onset) bool {
	first, last := on[0].At, on[len(on)-1].At
	return slices.ContainsFunc(l.Position.Shifts, func(x shift) bool { return first.Less(x.At) && !last.Less(x.At) })
}

// inTurn says that two hands play in it, one after the other.
func inTurn(hands []Hand, it week.Item, p *analysis.Piece) bool {
	if len(hands) != 2 || hands[0].Hand == hands[1].Hand {
		return false
	}
	at := map[float64]int{}
	for _, l := range lines(it, p) {
		for _, o := range within(l, it) {
			if at[o.At.Float()]++; at[o.At.Float()] > 1 {
				return false
			}
		}
	}
	return true
}

// lookedFor are keys that are looked for, by no hand in particular; none for none.
func lookedFor(keys []int) []Hand {
	if len(keys) == 0 {
		return nil
	}
	h := Hand{Hand: reading.Either, Finger: -1}
	for _, k := range keys {
		h.Touches = append(h.Touches, Touch{MIDI: k, Finger: -1, First: true})
	}
	return []Hand{h}
}

// Package bowed finds how keys lie under the left hand of a bowed instrument:
// the finger pattern of every string, and scales over the strings; and the plans
// by which they are bowed.
//
//	pattern.go  the finger pattern of a string in a key
//	scale.go    scales and arpeggios over the strings
//	bow.go      bow plans
package bowed

import (
	"fmt"
	"strconv"
	"strings"

	"patientladder/core/library/instrument"
	"patientladder/core/notation/score"
	"patientladder/core/reading/position"
	"patientladder/core/technique/scale"
)

// Stop is a note on a string with its finger.
type Stop struct {
	Pitch score.Pitch
	// Above is how many semitones it lies above the open string.
	Above int
	// Finger is 0 for the open string, 1 to 4.
	Finger int
	// Place is where the first finger lies, in semitones above the open string; 0 for an open string.
	Place int
	// Extended says that the hand is opened beyond its rest for it.
	Extended bool
}

// Pattern is how the notes of a key lie on one string.
type Pattern struct {
	// String counts from 1.
	String int
	Open   score.Pitch
	// Stops are upwards; the open string is one where the key has it.
	Stops []Stop
	// ID names the shape of the hand, the same for the same shape on any string: "1-3-4",
	// "close-1-2".
	ID string
	// Words say it: "1 3 4, the fourth finger reaches forward".
	Words string
	// Moves is how often the hand must move to another place on this string.
	Moves int
}

// Patterns returns the finger pattern of every string, string 1 first, for a key
// in first position. It refuses an instrument that is not bowed.
func Patterns(player instrument.Instrument, t scale.Tonic, k scale.Kind) ([]Pattern, error) {
	if err := bowable(player); err != nil {
		return nil, err
	}
	x := strung{player}
	s, err := scale.Of(t, k, 1)
	if err != nil {
		return nil, err
	}
	in := spelled(s)
	var out []Pattern
	for i := range x.Open {
		p := Pattern{String: i + 1, Open: x.Open[i]}
		var stops []Stop
		for above := 0; above <= x.top(i, in); above++ {
			pitch, ok := in.at(x.Open[i].Semitone() + above)
			if ok && !x.below(i, pitch) && !x.over(i, pitch) {
				stops = append(stops, Stop{Pitch: pitch, Above: above})
			}
		}
		p.Stops = x.finger(i, stops, in)
		p.ID, p.Words = x.shape(p.Stops)
		p.Moves = moves(p.Stops)
		out = append(out, p)
	}
	return out, nil
}

func bowable(x instrument.Instrument) error {
	if x.Family != instrument.Bowed {
		return fmt.Errorf("finger patterns are for bowed strings; %s has none", x.ID)
	}
	return nil
}

// strung is an instrument with what is asked of its strings.
type strung struct{ instrument.Instrument }

// top is how far up a string a key is played in first position: to the note
// below the next open string, to the fourth finger on the first string, and to
// the note in the place of the next open string where the key alters that one and
// each finger takes a letter.
func (x strung) top(i int, in spelling) int {
	if i == 0 {
		if x.Hand.By == "letters" {
			return x.Hand.First + x.Hand.Span
		}
		return x.Hand.First + x.Hand.Reach
	}
	next := x.Open[i-1].Semitone() - x.Open[i].Semitone()
	if p, has := in.at(x.Open[i-1].Semitone()); x.Hand.By != "letters" || has && !x.below(i-1, p) {
		return next - 1
	}
	return next + 1
}

// below says that a note belongs to the fourth finger on the string below: a key
// puts it in the place of the open string, and each finger takes a letter.
func (x strung) below(i int, p score.Pitch) bool {
	if x.Hand.By != "letters" || i+1 == len(x.Open) {
		return false
	}
	letters := steps(x.Open[i], p)
	return letters < 0 || letters == 0 && p.Semitone() != x.Open[i].Semitone()
}

// over says that a note belongs to the next string: it is not below its open string, nor does the key put it there.
func (x strung) over(i int, p score.Pitch) bool {
	return i > 0 && p.Semitone() >= x.Open[i-1].Semitone() && !x.below(i-1, p)
}

// spelling is the notes of a key by their place in the octave.
type spelling map[int]score.Pitch

func spelled(s scale.Scale) spelling {
	out := spelling{}
	for _, p := range append(append([]score.Pitch{}, s.Up.Notes...), s.Down.Notes...) {
		out[p.Semitone()%12] = p
	}
	return out
}

// at is the note of the key at a sounding pitch.
func (s spelling) at(midi int) (score.Pitch, bool) {
	p, ok := s[midi%12]
	if ok {
		p.Octave += (midi - p.Semitone()) / 12
	}
	return p, ok
}

// hold is a place of the hand with the finger that it leaves over each note.
type hold struct {
	// place is where the first finger lies, in semitones above the open string.
	place    int
	extended bool
	fingers  []int
}

// finger gives the stops of one string their fingers: the open string open, then as few places of the hand as will do. The
// hand shifts to a low finger, on the way up after a half-step or an open string, and is at rest rather than extended; of
// several such ways it goes the shortest, from first position on (common practice).
func (x strung) finger(str int, stops []Stop, in spelling) []Stop {
	out := append([]Stop{}, stops...)
	first := 0
	for first < len(out) && out[first].Above == 0 {
		first++
	}
	// best is the cheapest way to play from stop i on, for the place from which the hand comes.
	type way struct {
		cost effort
		hold hold
	}
	holds := make([][]hold, len(out))
	for i := first; i < len(out); i++ {
		holds[i] = x.holds(x.Open[str], out[i:], in)
	}
	known := map[[2]int]way{}
	var best func(i, place int) way
	best = func(i, place int) way {
		if i == len(out) {
			return way{}
		}
		if w, done := known[[2]int{i, place}]; done {
			return w
		}
		var found way
		for _, h := range holds[i] {
			for n := len(h.fingers); n > 0; n-- { // it need not reach as far as it can
				cost := x.arriving(out, i, first, place, h)
				if found.hold.fingers != nil && !cost.less(found.cost) {
					break // what follows costs something, too
				}
				if cost = cost.plus(best(i+n, h.place).cost); found.hold.fingers == nil || cost.less(found.cost) {
					found = way{cost, hold{h.place, h.extended, h.fingers[:n]}}
				}
				if i+n == len(out) {
					break // nothing is left to play
				}
			}
		}
		known[[2]int{i, place}] = found
		return found
	}
	place := x.Hand.First
	for i := first; i < len(out); {
		h := best(i, place).hold
		for k, f := range h.fingers {
			out[i+k].Finger, out[i+k].Place, out[i+k].Extended = f, h.place, h.extended
		}
		place = h.place
		i += max(1, len(h.fingers))
	}
	return out
}

// effort is what a way of fingering costs, the first figure before the second and so on: places of the hand, extended
// ones, how awkward the shifts are, how far the hand moves.
type effort [4]int

func (e effort) plus(other effort) effort {
	for i := range e {
		e[i] += other[i]
	}
	return e
}

func (e effort) less(other effort) bool {
	for i := range e {
		if e[i] != other[i] {
			return e[i] < other[i]
		}
	}
	return false
}

// arriving is the effort of a hand that comes from a place to hold the stops from i on; first is the first that is stopped.
func (x strung) arriving(stops []Stop, i, first, from int, h hold) effort {
	e := effort{1, 0, 0, abs(h.place - from)}
	if h.extended {
		e[1] = 1
	}
	if i == first { // the string begins here: the hand comes to it at ease
		return e
	}
	e[2] = h.fingers[0] - 1 // a low finger
	if before := stops[i-1].Above; before != 0 && (i == 1 || before-stops[i-2].Above != 1) {
		e[2]++ // neither after an open string nor after a half-step
	}
	return e
}

// holds are all places of the hand that reach the first of the stops.
func (x strung) holds(open score.Pitch, stops []Stop, in spelling) []hold {
	var out []hold
	cover := func(h hold, finger func(Stop) int) {
		for _, s := range stops {
			f := finger(s)
			if f < 1 || f > 4 {
				break
			}
			h.fingers = append(h.fingers, f)
		}
		if len(h.fingers) > 0 {
			out = append(out, h)
		}
	}
	if x.Hand.By == "letters" {
		for first := 0; first <= steps(open, stops[0].Pitch); first++ {
			place := x.letter(open, first, in)
			if place < 1 {
				continue
			}
			h := hold{place: place}
			cover(h, func(s Stop) int {
				if s.Above-place > x.Hand.Reach {
					return 0
				}
				return steps(open, s.Pitch) - first + 1
			})
		}
		return out
	}
	for place := max(1, stops[0].Above-x.Hand.Reach); place <= stops[0].Above; place++ {
		cover(hold{place: place}, func(s Stop) int { return s.Above - place + 1 })
		if x.Hand.Reach > x.Hand.Span { // the hand opens after the first finger
			cover(hold{place: place, extended: true}, func(s Stop) int {
				if s.Above == place {
					return 1
				}
				if f := s.Above - place; f > 1 {
					return f
				}
				return 0
			})
		}
	}
	return out
}

// letter is where the note of the key that lies so many letters above an open
// string is found, in semitones; 0 where the key has none on this string.
func (x strung) letter(open score.Pitch, steps int, in spelling) int {
	for above := 1; above <= highest+x.Hand.Reach; above++ {
		if p, ok := in.at(open.Semitone() + above); ok && p.StaffStep()-open.StaffStep() == steps {
			return above
		}
	}
	return 0
}

func abs(n int) int { return max(n, -n) }

// steps is how many letters a pitch lies above another.
func steps(from, to score.Pitch) int { return to.StaffStep() - from.StaffStep() }

// moves counts the places after the first.
func moves(stops []Stop) int {
	n, last := 0, 0
	for _, s := range stops {
		if s.Place != 0 && last != 0 && s.Place != last {
			n++
		}
		if s.Place != 0 {
			last = s.Place
		}
	}
	return n
}

// shape names the hand on one string.
func (x strung) shape(stops []Stop) (id, words string) {
	var stopped []Stop
	for _, s := range stops {
		if s.Finger > 0 {
			stopped = append(stopped, s)
		}
	}
	if len(stopped) == 0 {
		return "open", "the open string alone"
	}
	if moves(stops) > 0 {
		var parts []string
		for _, s := range stopped {
			parts = append(parts, strconv.Itoa(s.Finger))
		}
		return "moves-" + strings.Join(parts, "-"), strings.Join(parts, " ") + ", the hand moves on this string"
	}
	if x.Hand.By == "letters" {
		return x.letters(stopped)
	}
	var ids []string
	extended := false
	for _, s := range stopped {
		ids = append(ids, strconv.Itoa(s.Finger))
		extended = extended || s.Extended
	}
	id, words = strings.Join(ids, "-"), strings.Join(ids, " ")
	switch place := stopped[0].Place; {
	case extended && place < x.Hand.First:
		return id + "-back", words + ", the first finger reaches back"
	case extended:
		return id + "-forward", words + ", the hand opens after the first finger"
	case place < x.Hand.First:
		return id + "-half", words + " in " + position.PlaceName(x.Instrument, place)
	}
	return id, words
}

// letters names a hand by where two fingers lie close together.
func (x strung) letters(stopped []Stop) (id, words string) {
	var close []string
	var parts []string
	if s := stopped[0]; s.Finger == 1 && s.Above < x.Hand.First {
		close, parts = append(close, "0-1"), append(parts, "the first finger low, beside the nut")
	}
	for i := 1; i < len(stopped); i++ {
		a, b := stopped[i-1], stopped[i]
		switch gap := b.Above - a.Above; {
		case gap == 1:
			close = append(close, fmt.Sprintf("%d-%d", a.Finger, b.Finger))
			parts = append(parts, fmt.Sprintf("%d and %d close together", a.Finger, b.Finger))
		case gap > 2:
			close = append(close, fmt.Sprintf("wide-%d-%d", a.Finger, b.Finger))
			parts = append(parts, fmt.Sprintf("wide between %d and %d", a.Finger, b.Finger))
		}
	}
	if len(close) == 0 {
		return "all-whole", "all fingers a whole step apart"
	}
	return "close-" + strings.Join(close, "-and-"), strings.Join(parts, "; ")
}

package position

import (
	"patientladder/core/library/instrument"
	"patientladder/core/notation/score"
	"patientladder/core/reading/reading"
)

// furthest is the highest place of the first finger above the nut that is tried, in semitones.
const furthest = 12

// stringed gives the grips of the left hand on strings: the first finger at a
// place, the others a semitone apart, where a bowed hand may open by one more
// semitone between the first and the second; or each finger on the next letter.
type stringed struct {
	s      *score.Score
	l      reading.Line
	open   []int
	player instrument.Instrument
	usual  int // the place of the first position
	byNote map[int][]stop
}

// stop is one way to play a single pitch.
type stop struct {
	str, place, finger int
	extended           bool
}

func newStringed(s *score.Score, l reading.Line, player string) *stringed {
	x := &stringed{s: s, l: l, open: instrument.Tuning(player), byNote: map[int][]stop{}}
	x.player, _ = instrument.Of(player)
	x.usual = x.player.Hand.First
	return x
}

func (x *stringed) stops(midi int) []stop {
	if list, ok := x.byNote[midi]; ok {
		return list
	}
	var list []stop
	for str, open := range x.open {
		d := midi - open
		switch {
		case d == 0:
			list = append(list, stop{str + 1, free, 0, false})
		case d > 0 && d <= furthest+x.player.Hand.Reach:
			for f := 1; f <= 4; f++ {
				for _, o := range x.offsets(f) {
					if place := d - o.semitones; place >= 1 && place <= furthest {
						list = append(list, stop{str + 1, place, f, o.extended})
					}
				}
			}
		}
	}
	x.byNote[midi] = list
	return list
}

// offset is how far a finger lies above the first.
type offset struct {
	semitones int
	extended  bool
}

func (x *stringed) offsets(finger int) []offset {
	switch h := x.player.Hand; {
	case h.By == "letters" && finger > 1: // a half or a whole step from finger to finger, at most one half among three
		return []offset{{2*finger - 3, false}, {2*finger - 2, false}}
	case finger > 1 && h.Reach > h.Span:
		return []offset{{finger - 1, false}, {finger, true}}
	}
	return []offset{{finger - 1, false}}
}

func (x *stringed) grips(i int) []grip {
	notes := x.l.Onset[i].Notes
	if len(notes) > len(x.open) {
		return []grip{{place: free, fingers: make([]int, len(notes)), strings: make([]int, len(notes))}}
	}
	var out []grip
	if g, ok := x.at(notes, free); ok {
		g.effort += x.crooked(notes, g)
		out = append(out, g)
	}
	for place := 1; place <= furthest; place++ {
		if g, ok := x.at(notes, place); ok {
			g.effort += max(place-x.usual, x.usual-place) + x.crooked(notes, g)
			out = append(out, g)
		}
	}
	if len(out) == 0 { // beyond the instrument: the hand stays where it is
		out = []grip{{place: free, fingers: unknown(len(notes)), strings: make([]int, len(notes))}}
	}
	return out
}

// smallShift is how much effort a shift is worth on frets (default): the hand goes up for a note and comes back
// rather than to stay up for the sake of one note, but does not go to and fro for each.
const smallShift = 2

// shiftEffort: on frets open position comes first and small shifts are easy (common practice); elsewhere the fewest shifts count.
func (x *stringed) shiftEffort() int {
	if x.player.Family == instrument.Plucked {
		return smallShift
	}
	return 0
}

// crookedEffort is what it takes to find a note of a melody on a string that is out of its turn (default).
const crookedEffort = 2

// crooked is the effort of single notes on strings that are tuned out of their turn, such as a high string beside the
// lowest: a melody goes over the others (common practice). Chords use all strings.
func (x *stringed) crooked(notes []int, g grip) int {
	if len(notes) > 1 || g.strings[0] < 2 || x.s.Notes[notes[0]].String > 0 {
		return 0
	}
	if str := g.strings[0] - 1; x.open[str] > x.open[str-1] {
		return crookedEffort
	}
	return 0
}

// unknown are fingers that cannot be told.
func unknown(n int) []int {
	out := make([]int, n)
	for i := range out {
		out[i] = -1
	}
	return out
}

// at finds the best stops for all notes with the hand at one place (free: on
// open strings alone), each note on a string of its own.
func (x *stringed) at(notes []int, place int) (grip, bool) {
	best, found := grip{}, false
	current := grip{place: place, fingers: make([]int, len(notes)), strings: make([]int, len(notes))}
	used := make([]bool, len(x.open)+1)
	stopped := false
	var try func(k int)
	try = func(k int) {
		if k == len(notes) {
			if place != free && !stopped {
				return // open strings alone are the free grip
			}
			if !found || current.effort < best.effort {
				best, found = current, true
				best.fingers, best.strings = append([]int{}, current.fingers...), append([]int{}, current.strings...)
			}
			return
		}
		n := &x.s.Notes[notes[k]]
		for _, st := range x.stops(n.MIDI) {
			if used[st.str] || st.place != free && st.place != place {
				continue
			}
			if g := Given(n); g >= 0 && g != st.finger || n.String > 0 && n.String != st.str {
				continue
			}
			saved, wasStopped := current, stopped
			used[st.str] = true
			current.fingers[k], current.strings[k] = st.finger, st.str
			if st.extended && !current.stretch {
				current.stretch, current.effort = true, current.effort+1
			}
			stopped = stopped || st.place != free
			try(k + 1)
			used[st.str] = false
			fingers, strs := current.fingers, current.strings
			current, stopped = saved, wasStopped
			current.fingers, current.strings = fingers, strs
		}
	}
	try(0)
	return best, found
}

func (x *stringed) awkward(i int, _, _ *grip) int {
	if atRest(x.l.Onset[i-1], x.l.Onset[i]) {
		return 0
	}
	return 1
}

// placeNames are the positions of a hand whose fingers lie a semitone apart, by the
// semitones from the nut to the first finger (common practice).
var placeNames = map[int]string{
	1: "half position",
	2: "first position",
	3: "second position",
	4: "raised second position",
	5: "third position",
	6: "raised third position",
	7: "fourth position",
}

// letterNames are those of a hand whose fingers lie a letter apart: the first
// finger may be low or high (common practice).
var letterNames = []string{"first", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth", "ninth", "tenth"}

// PlaceName names the place of the first finger of a bowed instrument, in semitones from the nut.
func PlaceName(x instrument.Instrument, place int) string {
	name := placeNames[place]
	if at := (place - 1) / 2; x.Hand.By == "letters" {
		name = ""
		if at < len(letterNames) {
			name = letterNames[at] + " position"
		}
	}
	if name == "" {
		return "a high position"
	}
	return name
}

// LetterName names the position of a hand whose first finger lies so many letters above an open string (common practice).
func LetterName(letters int) string {
	switch {
	case letters < 1:
		return "half position"
	case letters > len(letterNames):
		return "a high position"
	}
	return letterNames[letters-1] + " position"
}

// keys are where the four fingers lie at rest.
func (x *stringed) keys(place int) []int {
	if x.player.Hand.By == "letters" {
		return []int{place, place + 2, place + 3, place + 5}
	}
	return []int{place, place + 1, place + 2, place + 3}
}

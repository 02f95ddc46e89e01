// Package position finds the fewest hand positions that cover a line, and the
// finger that each leaves over each note.
//
//	position.go  Of: positions, shifts, stretches and fingers of a line
//	solve.go     the exact search
//	keyboard.go  a hand on a keyboard
//	strings.go   a left hand on bowed or plucked strings
package position

import (
	"fmt"
	"strconv"

	"patientladder/core/base/rational"
	"patientladder/core/library/instrument"
	"patientladder/core/notation/score"
	"patientladder/core/reading/reading"
)

// Result is how a line lies under the hand.
type Result struct {
	Positions []Position `json:"positions"`
	Shifts    []Shift    `json:"shifts"`
	// Stretches are the bars in which the hand must open beyond its five keys.
	Stretches []int `json:"stretches"`
	// Fingers hold a finger for every note that is struck.
	Fingers []Finger `json:"fingers"`
	// Sure says that the whole line lies in one position without a stretch, so
	// that a proposed finger follows from the position alone; otherwise it is a suggestion.
	Sure bool `json:"sure"`
}

// Position is one place of the hand from an onset to another.
type Position struct {
	// Name is "C position" (by the lowest key) or "first position".
	Name string `json:"name"`
	// Keys are the keys under the five fingers, lowest first, as sounding MIDI
	// pitches; on strings the frets or semitones of the four fingers from the nut.
	Keys []int `json:"keys"`
	// FromBar and ToBar are positions of bars from 1; From and To are times.
	FromBar int          `json:"fromBar"`
	ToBar   int          `json:"toBar"`
	From    rational.Rat `json:"from"`
	To      rational.Rat `json:"to"`
}

// Until is up to when each position is held: until the next is taken, the last to the end of the piece.
func (r Result) Until(end rational.Rat) []rational.Rat {
	out := make([]rational.Rat, len(r.Positions))
	for i := range out {
		if out[i] = end; i+1 < len(out) {
			out[i] = r.Positions[i+1].From
		}
	}
	return out
}

// Shift is a move of the hand to another position.
type Shift struct {
	Bar  int          `json:"bar"`
	At   rational.Rat `json:"at"`
	From string       `json:"from"`
	To   string       `json:"to"`
	// How is "thumb under", "over the thumb", "at a rest" or "jump".
	How string `json:"how"`
}

// Finger is the finger for a note.
type Finger struct {
	// Note is the index in Score.Notes.
	Note int `json:"note"`
	// Finger is 1 to 5, 0 for an open string, −1 when it cannot be told.
	Finger int `json:"finger"`
	// String counts from 1 on strings; 0 on a keyboard.
	String int `json:"string,omitempty"`
	// Given says that the finger is printed; otherwise it is proposed.
	Given bool `json:"given"`
}

// Write writes the fingers that are proposed to notes that have none printed, but for those that the teacher set.
func (r Result) Write(s *score.Score, set map[int]bool) {
	for _, f := range r.Fingers {
		if n := &s.Notes[f.Note]; n.Fingering == "" && f.Finger >= 0 && !set[f.Note] {
			n.Fingering = strconv.Itoa(f.Finger)
		}
	}
}

// Given returns the finger printed at a note: 0 to 5, or −1.
func Given(n *score.Note) int {
	if f, err := strconv.Atoi(n.Fingering); err == nil && f >= 0 && f <= 5 {
		return f
	}
	return -1
}

// Of finds the fewest positions that cover a line, given fingerings obeyed; of
// several such ways the one with the fewest stretches, then with the shifts
// where they are easy. A line of a part that is not played by hands on a known
// instrument has no positions.
func Of(s *score.Score, l reading.Line, player string) Result {
	r := Result{Positions: []Position{}, Shifts: []Shift{}, Stretches: []int{}, Fingers: []Finger{}}
	if len(l.Onset) == 0 {
		return r
	}
	var grips []grip
	var places []int
	var name func(place, from, to int) Position
	switch family, known := instrument.FamilyOf(player); {
	case known && family == instrument.Keyboard && l.Hand != reading.Whole:
		k := newKeyboard(s, l)
		grips, places = solve(len(l.Onset), k.grips, k.awkward, 0)
		name = k.position
	case known && family != instrument.Keyboard && instrument.Tuning(player) != nil:
		x := newStringed(s, l, player)
		grips, places = solve(len(l.Onset), x.grips, x.awkward, x.shiftEffort())
		settle(places)
		name = x.position
	default:
		return r
	}
	from := 0
	for i := range places {
		if grips[i].stretch && (len(r.Stretches) == 0 || r.Stretches[len(r.Stretches)-1] != l.Onset[i].Bar) {
			r.Stretches = append(r.Stretches, l.Onset[i].Bar)
		}
		for k, n := range l.Onset[i].Notes {
			f := Finger{Note: n, Finger: grips[i].fingers[k], Given: Given(&s.Notes[n]) >= 0}
			if grips[i].strings != nil {
				f.String = grips[i].strings[k]
			}
			r.Fingers = append(r.Fingers, f)
		}
		if last := i == len(places)-1; last || places[i+1] != places[i] {
			p := name(places[i], from, i)
			p.FromBar, p.ToBar, p.From, p.To = l.Onset[from].Bar, l.Onset[i].Bar, l.Onset[from].At, l.Onset[i].At
			if n := len(r.Positions); n > 0 {
				r.Shifts = append(
					r.Shifts,
					Shift{Bar: l.Onset[from].Bar, At: l.Onset[from].At, From: r.Positions[n-1].Name, To: p.Name, How: how(s, l, from, grips)},
				)
			}
			r.Positions = append(r.Positions, p)
			from = i + 1
		}
	}
	r.Sure = len(r.Positions) == 1 && len(r.Stretches) == 0
	return r
}

// settle gives open strings before the first stopped note its place.
func settle(places []int) {
	first := free
	for _, p := range places {
		if p != free {
			first = p
			break
		}
	}
	for i := range places {
		if places[i] != free {
			break
		}
		places[i] = first
	}
}

// how says in what way the hand comes to the position that begins at an onset.
func how(s *score.Score, l reading.Line, i int, grips []grip) string {
	a, b := l.Onset[i-1], l.Onset[i]
	if atRest(a, b) {
		return "at a rest"
	}
	if l.Hand != reading.Whole && len(a.Notes) == 1 && len(b.Notes) == 1 {
		c := crossing(s.Notes[a.Notes[0]].MIDI, s.Notes[b.Notes[0]].MIDI, grips[i-1].fingers[0], grips[i].fingers[0], l.Hand == reading.Left)
		if c != "" {
			return c
		}
	}
	return "jump"
}

// position names the place of a hand by its lowest key, as it is altered in
// the music there or else by the key signature.
func (k *keyboard) position(place, from, to int) Position {
	var keys []int
	name := ""
	for step := place; step <= place+reach; step++ {
		p := score.Pitch{Step: "CDEFGAB"[((step%7)+7)%7], Octave: floorDiv(step, 7)}
		p.Alter = score.KeyAlter(p.Step, k.s.Bars[k.l.Onset[from].Bar-1].Fifths)
	search:
		for i := from; i <= to; i++ {
			for _, n := range k.l.Onset[i].Notes {
				if used := k.s.Notes[n].Pitch; used.StaffStep() == step {
					p.Alter = used.Alter
					break search
				}
			}
		}
		if step == place {
			name = p.Name()
		}
		keys = append(keys, p.Semitone())
	}
	return Position{Name: name + " position", Keys: keys}
}

func (x *stringed) position(place, _, _ int) Position {
	if place == free {
		return Position{Name: "open strings", Keys: []int{}}
	}
	name := fmt.Sprintf("fret %d", place)
	if x.player.Family == instrument.Bowed {
		name = PlaceName(x.player, place)
	}
	return Position{Name: name, Keys: x.keys(place)}
}

func floorDiv(a, b int) int {
	if a < 0 {
		return -((-a + b - 1) / b)
	}
	return a / b
}

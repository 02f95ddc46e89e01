package plucked

import (
	"fmt"
	"slices"
	"strings"

	"patientladder/core/library/instrument"
	"patientladder/core/technique/scale"
)

// Shape is a chord under the left hand.
type Shape struct {
	// Name is as it was asked for: "C", "Am", "G7".
	Name string
	// Frets for each string, string 1 first: 0 open, −1 not played.
	Frets []int
	// Fingers for each string: 1 to 4, 0 for none. The same finger on two strings lies
	// flat over both.
	Fingers []int
}

// qualities are the semitones of the notes of a chord above its root.
var qualities = map[string][]int{
	"":     {0, 4, 7},
	"m":    {0, 3, 7},
	"7":    {0, 4, 7, 10},
	"m7":   {0, 3, 7, 10},
	"maj7": {0, 4, 7, 11},
	"dim":  {0, 3, 6},
}

// topFret is as far up as chords of the first years lie.
const topFret = 4

// Shapes are the shapes of some chords, each once, in the order in which they come; what is no chord, or has no shape on the
// first frets, is left out.
func Shapes(x instrument.Instrument, names []string) (out []Shape) {
	seen := map[string]bool{}
	for _, name := range names {
		if shape, err := Chord(x, name); err == nil && !seen[name] {
			seen[name] = true
			out = append(out, shape)
		}
	}
	return out
}

// Chord finds the easiest shape of a chord on the first frets: all its notes and no
// other, the root lowest where strings may be left out; then most strings, fewest
// fingers, no finger lying flat, lowest frets. It refuses what is no chord and what
// the first frets do not hold.
func Chord(x instrument.Instrument, name string) (Shape, error) {
	if x.Family != instrument.Plucked {
		return Shape{}, fmt.Errorf("chord shapes are for plucked strings; %s has none", x.ID)
	}
	notes, root, err := chordNotes(name)
	if err != nil {
		return Shape{}, err
	}
	best := easiest(x, name, notes, root)
	if best.Frets == nil && len(notes) == 4 { // a chord of four notes may do without its fifth (common practice)
		delete(notes, (root+qualities["7"][2])%12)
		best = easiest(x, name, notes, root)
	}
	if best.Frets == nil {
		return Shape{}, fmt.Errorf("%s is not found on the first %d frets of the %s", name, topFret, x.ID)
	}
	return best, nil
}

// easiest is the easiest shape that sounds some notes, all of them and no other; without frets where there is none.
func easiest(x instrument.Instrument, name string, notes map[int]bool, root int) Shape {
	n := len(x.Open)
	best, bestCost := Shape{}, 1<<30
	frets := make([]int, n)
	var try func(str int)
	try = func(str int) {
		if str < 0 {
			if !whole(x, frets, notes, root) {
				return
			}
			s := Shape{Name: name, Frets: slices.Clone(frets)}
			fingers, cost := place(frets)
			if fingers == nil {
				return
			}
			if cost < bestCost {
				s.Fingers = fingers
				best, bestCost = s, cost
			}
			return
		}
		drone := slices.Contains(x.Drone, str+1)
		for fret := -1; fret <= topFret; fret++ {
			if fret == -1 && !drone && !omits(x, frets, str) || drone && fret > 0 {
				continue
			}
			if fret >= 0 && !notes[(x.Open[str].Semitone()+fret)%12] {
				continue
			}
			frets[str] = fret
			try(str - 1)
		}
	}
	try(n - 1)
	return best
}

// chordNotes reads a name: a note and a quality.
func chordNotes(name string) (map[int]bool, int, error) {
	at := 1
	if len(name) > 1 && (name[1] == '#' || name[1] == 'b') {
		at = 2
	}
	if name != "" {
		steps, known := qualities[name[min(at, len(name)):]]
		tonic, err := scale.Parse(name[:min(at, len(name))], scale.Chromatic)
		if known && err == nil {
			root := tonic.Class()
			out := map[int]bool{}
			for _, s := range steps {
				out[(root+s)%12] = true
			}
			return out, root, nil
		}
	}
	return nil, 0, fmt.Errorf("%q is not a chord: write a note and nothing, m, 7, m7, maj7 or dim, as in C, Am, Bb7", name)
}

// omits says that a string may be left out: on instruments of more than four
// strings, those below the lowest that sounds.
func omits(x instrument.Instrument, frets []int, str int) bool {
	if len(x.Open)-len(x.Drone) < 5 {
		return false
	}
	for lower := str + 1; lower < len(x.Open); lower++ {
		if frets[lower] >= 0 {
			return false
		}
	}
	return true
}

// whole says that every note of the chord sounds, the root lowest where strings may be left out.
func whole(x instrument.Instrument, frets []int, notes map[int]bool, root int) bool {
	sounding := map[int]bool{}
	lowest := 1 << 20
	for i, f := range frets {
		if f >= 0 {
			midi := x.Open[i].Semitone() + f
			sounding[midi%12] = true
			lowest = min(lowest, midi)
		}
	}
	if len(x.Open)-len(x.Drone) >= 5 && lowest%12 != root {
		return false
	}
	return len(sounding) == len(notes)
}

// place gives the stopped strings their fingers, the lowest fret first, each
// finger near its own fret; one that must serve for two lies flat over all strings between.
// It returns what the shape costs, and nil for what no hand can do.
func place(frets []int) ([]int, int) {
	type stop struct{ str, fret int }
	var stops []stop
	cost, lowest, highest := 0, 99, 0
	for str := len(frets) - 1; str >= 0; str-- {
		switch f := frets[str]; {
		case f > 0:
			stops = append(stops, stop{str, f})
			lowest, highest = min(lowest, f), max(highest, f)
			cost += f
		case f < 0:
			cost += 200
		}
	}
	if len(stops) > 0 && highest-lowest > 3 {
		return nil, 0
	}
	slices.SortStableFunc(stops, func(a, b stop) int { return a.fret - b.fret })
	fingers := make([]int, len(frets))
	if len(stops) > 4 { // the first finger lies flat over the lowest fret
		flat := 0
		for _, s := range stops {
			if s.fret == lowest {
				fingers[s.str] = 1
				flat++
			}
		}
		for _, f := range frets {
			if f == 0 {
				return nil, 0 // an open string under it would not sound
			}
		}
		stops = stops[flat:]
		if len(stops) > 3 {
			return nil, 0
		}
		next := 2
		for _, s := range stops {
			fingers[s.str] = next
			next++
		}
		return fingers, cost + 100*(1+len(stops)) + 400
	}
	cost += 100 * len(stops)
	if len(stops) == 0 {
		return fingers, cost
	}
	if len(stops) == 4 && stops[1].fret == lowest && stops[2].fret > lowest && stops[0].str+stops[1].str == 1 {
		// Four stops of which the lowest two lie on the first two strings: the first finger lies over both, as charts print F
		// on the guitar (common practice).
		fingers[0], fingers[1] = 1, 1
		fingers[stops[2].str], fingers[stops[3].str] = 2, 3
		return fingers, cost
	}
	// The fingers go up with the frets; of all ways the one nearest to a finger a fret.
	var best []int
	bestOff := 1 << 20
	var try func(i, from, off int, chosen []int)
	try = func(i, from, off int, chosen []int) {
		if i == len(stops) {
			if off < bestOff {
				best, bestOff = slices.Clone(chosen), off
			}
			return
		}
		for f := from; f <= 4; f++ {
			try(i+1, f+1, off+abs(f-stops[i].fret), append(chosen, f))
		}
	}
	try(0, 1, 0, nil)
	for i, f := range best {
		fingers[stops[i].str] = f
	}
	return fingers, cost
}

// Move is what one finger does from one shape to the next.
type Move struct {
	Finger int
	// How is "stays", "slides" along its string, "moves" to another, "lifts" or "sets".
	How string
	// FromString and FromFret are where it was, ToString and ToFret where it goes; 0 for nowhere.
	FromString, FromFret, ToString, ToFret int
}

// Change is a change of chords, finger by finger.
type Change struct {
	From, To Shape
	Moves    []Move
	// Words say what to hold on to.
	Words string
}

// ChangeOf compares two shapes.
func ChangeOf(a, b Shape) Change {
	c := Change{From: a, To: b}
	where := func(s Shape, finger int) (str, fret int) {
		for i, f := range s.Fingers {
			if f == finger {
				return i + 1, s.Frets[i]
			}
		}
		return 0, 0
	}
	var stay, slide []string
	for f := 1; f <= 4; f++ {
		m := Move{Finger: f}
		m.FromString, m.FromFret = where(a, f)
		m.ToString, m.ToFret = where(b, f)
		switch {
		case m.FromString == 0 && m.ToString == 0:
			continue
		case m.FromString == 0:
			m.How = "sets"
		case m.ToString == 0:
			m.How = "lifts"
		case m.FromString == m.ToString && m.FromFret == m.ToFret:
			m.How = "stays"
			stay = append(stay, fmt.Sprint(f))
		case m.FromString == m.ToString:
			m.How = "slides"
			slide = append(slide, fmt.Sprint(f))
		default:
			m.How = "moves"
		}
		c.Moves = append(c.Moves, m)
	}
	switch {
	case len(stay) > 0:
		c.Words = "Finger " + strings.Join(stay, " and ") + " stays down; the others move around it."
	case len(slide) > 0:
		c.Words = "Finger " + strings.Join(slide, " and ") + " slides along its string and leads the hand."
	default:
		c.Words = "No finger stays: lift all together, see the next shape in the air, set all together."
	}
	return c
}

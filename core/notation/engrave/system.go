package engrave

import (
	"math"
	"sort"

	"patientladder/core/notation/score"
)

// The measures of a system.
const (
	thin       = 0.13 // a line of the staff, a stem, a bar line
	thick      = 0.5  // the last bar line, a beam
	staffDrop  = 9.0  // from the top line of a staff to that of the next
	afterClef  = 0.7
	afterBar   = 1.0
	least      = 1.5 // the room of the shortest note
	perQuarter = 1.7 // and what a quarter note has beyond it
)

// system is one system in the making.
type system struct {
	*engraver
	shapes []Shape
	heads  []Head
	texts  []Text
	x      float64
	// marks and lines are what tablature needs: its numbers, and where the bar lines stand.
	marks []mark
	lines []barLine
	// arcs are ties and slurs that wait for their end.
	arcs openArcs
}

// newSystem begins with clefs and key, and on the first system with the time.
func newSystem(e *engraver, bar int, first bool) *system {
	s := &system{engraver: e, arcs: openArcs{}}
	widest := 0.0
	for i := range e.staves {
		st := &e.staves[i]
		start := max(e.from, e.score.Bars[bar-1].Start.Float())
		if c, ok := clefAt(e.score, st.Staff, start); ok {
			st.clef = c
		}
		x := 0.4
		x += s.clef(i, x) + afterClef
		x = s.key(i, x, e.score.Bars[bar-1].Fifths)
		if b := e.score.Bars[bar-1]; first && b.Beats > 0 {
			x += s.time(i, x, b.Beats, b.BeatUnit) + 0.3
		}
		widest = max(widest, x)
	}
	s.x = widest + 0.6
	return s
}

// clef draws the clef of the ith staff and returns its width; that of percussion is two strokes.
func (s *system) clef(i int, x float64) float64 {
	c := s.staves[i].clef
	if c.Sign == "percussion" {
		s.add(box(x+0.3, s.top(i)+1, thick, 2))
		s.add(box(x+1.1, s.top(i)+1, thick, 2))
		return 1.9
	}
	return s.glyph("clef "+c.Sign, x, s.top(i)+float64(5-lineOf(c)))
}

// top is the y of the top line of the ith staff.
func (s *system) top(i int) float64 { return staffDrop * float64(i) }

func (s *system) add(shape Shape) { s.shapes = append(s.shapes, shape) }

// glyph draws a sign and returns its width.
func (s *system) glyph(name string, x, y float64) float64 { return s.scaled(name, 1, x, y) }

func (s *system) scaled(name string, scale, x, y float64) float64 {
	g, ok := glyphs()[name]
	if !ok {
		return 0
	}
	s.add(g.shape.placed(scale, x, y))
	return scale * g.advance
}

// The places of the sharps and flats of a key under the G clef, as heights
// below the top line.
var (
	sharpHeights = []float64{0, 1.5, -0.5, 1, 2.5, 0.5, 2}
	flatHeights  = []float64{2, 0.5, 2.5, 1, 3, 1.5, 3.5}
)

func (s *system) key(staff int, x float64, fifths int) float64 {
	name, heights := "sharp", sharpHeights
	if fifths < 0 {
		name, heights = "flat", flatHeights
	}
	clef := s.staves[staff].clef
	if clef.Sign == "percussion" {
		return x
	}
	// Under other clefs the same signs stand where the same notes are.
	shift := height(score.Pitch{Step: 'F', Octave: 5}, clef)
	shift -= math.Round(shift/3.5) * 3.5
	for i := range min(int(math.Abs(float64(fifths))), len(heights)) {
		x += s.glyph(name, x, s.top(staff)+heights[i]+shift)
	}
	if fifths != 0 {
		x += 0.4
	}
	return x
}

func (s *system) time(staff int, x float64, beats, unit int) float64 {
	width := 0.0
	for row, n := range []int{beats, unit} {
		at := x
		for _, digit := range digits(n) {
			at += s.glyph("time "+digit, at, s.top(staff)+1+2*float64(row))
		}
		width = max(width, at-x)
	}
	return width
}

func digits(n int) []string {
	var out []string
	for ; n > 0; n /= 10 {
		out = append([]string{string(rune('0' + n%10))}, out...)
	}
	return out
}

// column is what begins at one time in a bar.
type column struct {
	at float64
	// signs says that an accidental stands before it.
	signs  bool
	graces int
}

// columns are the times of a bar at which something begins.
func (s *system) columns(bar int) []column {
	found := map[float64]*column{}
	for _, c := range s.chords(bar) {
		at := c.at()
		if found[at] == nil {
			found[at] = &column{at: at}
		}
		found[at].signs = found[at].signs || len(c.accidentals) > 0
		if c.grace() {
			found[at].graces++
		}
	}
	var out []column
	for _, c := range found {
		out = append(out, *c)
	}
	sort.Slice(out, func(i, k int) bool { return out[i].at < out[k].at })
	return out
}

// places are the x of the columns of a bar from its beginning, and its width.
func (s *system) places(bar int) (map[float64]float64, float64) {
	b := s.score.Bars[bar-1]
	end := min(b.Start.Float()+b.Length.Float(), s.to)
	list := s.columns(bar)
	out := map[float64]float64{}
	x := afterBar
	for i, c := range list {
		next := end
		if i+1 < len(list) {
			next = list[i+1].at
		}
		if c.signs {
			x += 1.0
		}
		x += 1.1 * float64(c.graces)
		out[c.at] = x
		x += least + perQuarter*math.Sqrt(max(0, next-c.at))
	}
	return out, max(x, 4)
}

func (s *system) barWidth(bar int) float64 {
	_, width := s.places(bar)
	return width
}

// bar draws one bar at the end of the system.
func (s *system) bar(bar int) {
	places, width := s.places(bar)
	b := s.score.Bars[bar-1]
	if b.RepeatStart && b.Start.Float() >= s.from-epsilon {
		s.repeat(s.x+0.35, true)
	}
	for i := range s.staves {
		s.voices(bar, i, places)
	}
	s.x += width
	whole := b.Start.Float()+b.Length.Float() <= s.to+epsilon
	switch {
	case !whole: // the stretch ends inside the bar
	case b.RepeatEnd > 0:
		s.repeat(s.x-0.35, false)
		s.line(s.x-thick, thick)
	case bar == len(s.score.Bars):
		s.line(s.x-thick-0.55, thin)
		s.line(s.x-thick, thick)
	default:
		s.line(s.x, thin)
	}
}

// line is a bar line through all staves.
func (s *system) line(x, width float64) {
	s.add(box(x, -thin/2, width, s.top(len(s.staves)-1)+4+thin))
	s.lines = append(s.lines, barLine{x, width})
}

func (s *system) repeat(x float64, begins bool) {
	dots := x - 1.1
	if begins {
		dots = x + 0.35
	}
	s.line(x-0.35*float64(one(!begins)), thin)
	for i := range s.staves {
		s.glyph("dot", dots, s.top(i)+1.5)
		s.glyph("dot", dots, s.top(i)+2.5)
	}
}

func one(yes bool) int {
	if yes {
		return 1
	}
	return 0
}

// close draws the lines of the staves under all of it.
func (s *system) close() {
	s.finishArcs()
	for i := range s.staves {
		for l := range 5 {
			s.add(box(0, s.top(i)+float64(l)-thin/2, s.x, thin))
		}
	}
	if len(s.staves) > 1 {
		s.line(0, thin)
	}
	s.tablature()
}

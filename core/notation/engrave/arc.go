package engrave

import (
	"cmp"
	"maps"
	"math"
	"slices"
)

// openArcs are ties, by staff and place of the note, and slurs, by staff and
// voice, that wait for their end.
type openArcs map[arcKey]arcStart

type arcKey struct {
	staff Staff
	voice string
	step  int
	slur  bool
}

type arcStart struct {
	x, y float64
	up   bool // the arc bends upwards
}

// arcsOf begins and ends the ties and slurs of a chord.
func (s *system) arcsOf(c *chord, staff int) {
	for _, n := range c.notes {
		st := Staff{n.Part, n.Staff}
		tie := arcKey{st, n.Voice, n.Pitch.StaffStep(), false}
		x, y := c.x+headWidth/2, s.y(n, staff)
		if from, ok := s.arcs[tie]; n.TieStop && ok {
			s.arc(from.x+0.5, from.y, x-0.5, y, from.up)
			delete(s.arcs, tie)
		}
		if n.TieStart {
			s.arcs[tie] = arcStart{x, y, !c.up}
		}
		slur := arcKey{st, n.Voice, 0, true}
		if from, ok := s.arcs[slur]; n.SlurStop && ok {
			s.arc(from.x, from.y, x, s.slurEnd(c, staff, from.up), from.up)
			delete(s.arcs, slur)
		}
		if n.SlurStart {
			s.arcs[slur] = arcStart{x, s.slurEnd(c, staff, !c.up), !c.up}
		}
	}
}

// slurEnd is where a slur touches a chord.
func (s *system) slurEnd(c *chord, staff int, up bool) float64 {
	low, high := s.y(c.notes[0], staff), s.y(c.notes[len(c.notes)-1], staff)
	if up {
		if c.up && c.tip != 0 {
			return c.tip - 0.4
		}
		return high - 0.9
	}
	if !c.up && c.tip != 0 {
		return c.tip + 0.4
	}
	return low + 0.9
}

// finishArcs draws what goes on beyond the system as far as its end.
func (s *system) finishArcs() {
	open := slices.SortedFunc(maps.Values(s.arcs), func(a, b arcStart) int { return cmp.Or(cmp.Compare(a.x, b.x), cmp.Compare(a.y, b.y)) })
	for _, from := range open {
		if from.x < s.x-1 {
			s.arc(from.x+0.5, from.y, s.x-0.3, from.y, from.up)
		}
	}
}

// arc draws a tie or a slur: two curves with the thickness between them.
func (s *system) arc(x1, y1, x2, y2 float64, up bool) {
	bend := min(2.2, 0.6+0.09*math.Abs(x2-x1))
	if up {
		bend = -bend
	}
	third := (x2 - x1) / 3
	// Out along the inner curve and back along the outer one, or the other way
	// round, so that it turns as the outlines of the glyphs do.
	out, back := bend, bend-0.22
	if !up {
		out, back = bend+0.22, bend
	}
	s.add(Shape{
		{'M', [6]float64{x1, y1}},
		{'C', [6]float64{x1 + third, y1 + out, x2 - third, y2 + out, x2, y2}},
		{'C', [6]float64{x2 - third, y2 + back, x1 + third, y1 + back, x1, y1}},
		{Op: 'Z'},
	})
}

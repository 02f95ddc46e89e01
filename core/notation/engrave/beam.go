package engrave

import (
	"math"

	"patientladder/core/notation/score"
)

const (
	stemLength = 3.5
	beamGap    = 0.75 // from one beam to the next
)

// beat is the length in quarter notes within which notes are beamed.
func beat(b score.Bar) float64 {
	if b.BeatUnit == 8 && b.Beats%3 == 0 {
		return 1.5
	}
	return 1
}

// beamed draws the chords of one voice in a bar: those shorter than a quarter
// note that follow each other within a beat under one beam.
func (s *system) beamed(bar, staff int, list []*chord, several bool) {
	b := s.score.Bars[bar-1]
	offset := 0.0
	if b.Short && b.BeatUnit > 0 { // a pickup is counted from its end
		full := 4 * float64(b.Beats) / float64(b.BeatUnit)
		offset = full - b.Length.Float()
	}
	of := func(c *chord) int { return int(math.Floor((c.at()-b.Start.Float()+offset)/beat(b) + epsilon)) }
	var group []*chord
	flush := func() {
		if len(group) > 1 {
			s.beam(group, staff, several)
		} else if len(group) == 1 {
			s.stem(group[0], staff)
		}
		group = nil
	}
	for _, c := range list {
		switch {
		case c.rest():
			flush()
			s.restAt(c, bar, staff, several)
		case c.grace():
			s.stem(c, staff)
		case c.value() < 1:
			flush()
			s.stem(c, staff)
		default:
			if len(group) > 0 && of(group[0]) != of(c) {
				flush()
			}
			group = append(group, c)
		}
	}
	flush()
	s.tuplets(list, staff)
	for _, c := range list {
		if c.rest() {
			continue
		}
		s.drawHeads(c, staff)
		s.fingers(c, staff)
		s.arcsOf(c, staff)
	}
}

// stemX is where a stem stands on its head.
func (c *chord) stemX() float64 {
	x, width := c.x, headWidth
	if c.grace() {
		x, width = c.x-1.3, 0.62*headWidth
	}
	if c.up {
		return x + width - thin
	}
	return x
}

// stem draws the stem of a chord by itself, with its flags.
func (s *system) stem(c *chord, staff int) {
	v := c.value()
	if v <= -2 {
		return
	}
	low, high := s.y(c.notes[0], staff), s.y(c.notes[len(c.notes)-1], staff)
	length := stemLength
	if c.grace() {
		c.up, length = true, 2.3
	}
	middle := s.top(staff) + 2
	from := low
	if c.up {
		c.tip = high - length
		if !c.grace() {
			c.tip = min(c.tip, middle) // stems of ledger lines reach the middle line
		}
	} else {
		from, c.tip = high, max(low+length, middle)
	}
	s.add(box(c.stemX(), min(from, c.tip), thin, math.Abs(from-c.tip)))
	name := map[int]string{1: "eighth", 2: "16th", 3: "32nd"}[min(v, 3)]
	if name == "" {
		return
	}
	scale := 1.0
	if c.grace() {
		scale = 0.62
	}
	way := " down"
	if c.up {
		way = " up"
	}
	s.scaled("flag "+name+way, scale, c.stemX(), c.tip)
}

// beam draws stems and beams of a group.
func (s *system) beam(group []*chord, staff int, several bool) {
	if !several {
		pull := 0.0
		for _, c := range group {
			pull += s.y(c.notes[0], staff) + s.y(c.notes[len(c.notes)-1], staff) - 2*(s.top(staff)+2)
		}
		for _, c := range group {
			c.up = pull > epsilon
		}
	}
	up := group[0].up
	end := func(c *chord) float64 { // the head nearest to the beam
		if up {
			return s.y(c.notes[len(c.notes)-1], staff)
		}
		return s.y(c.notes[0], staff)
	}
	first, last := group[0], group[len(group)-1]
	run := last.stemX() - first.stemX()
	slope := 0.0
	if run > 0 {
		slope = max(-0.25, min(0.25, 0.5*(end(last)-end(first))/run))
	}
	// The beam lies as near as the shortest stem allows.
	base := math.Inf(1)
	if !up {
		base = math.Inf(-1)
	}
	for _, c := range group {
		at := slope * (c.stemX() - first.stemX())
		if up {
			base = min(base, end(c)-stemLength+0.4-at)
		} else {
			base = max(base, end(c)+stemLength-0.4-at)
		}
	}
	y := func(x float64) float64 { return base + slope*(x-first.stemX()) }
	for _, c := range group {
		c.tip = y(c.stemX())
		from := s.y(c.notes[0], staff)
		if !up {
			from = s.y(c.notes[len(c.notes)-1], staff)
		}
		s.add(box(c.stemX(), min(from, c.tip), thin, math.Abs(from-c.tip)))
	}
	toward := beamGap // from the tip towards the heads
	depth := thick
	if !up {
		toward, depth = -beamGap, -thick
	}
	for level := 1; level <= 3; level++ {
		for i := 0; i < len(group); i++ {
			if group[i].value() < level {
				continue
			}
			k := i
			for k+1 < len(group) && group[k+1].value() >= level {
				k++
			}
			from, to := group[i].stemX(), group[k].stemX()+thin
			if i == k { // a stub, towards the group
				if i > 0 {
					from = to - 1.1
				} else {
					to = from + 1.1
				}
			}
			shift := toward * float64(level-1)
			s.add(polygon(from, y(from)+shift, to, y(to)+shift, to, y(to)+shift+depth, from, y(from)+shift+depth))
			i = k
		}
	}
}

// tuplets writes the number of each tuplet on the side of the stems.
func (s *system) tuplets(list []*chord, staff int) {
	for i := 0; i < len(list); {
		c := list[i]
		t := c.first().Tuplet
		if t.Actual == 0 || c.grace() {
			i++
			continue
		}
		k, units := i, 0.0
		unit := c.first().Duration.Float()
		for k < len(list) && list[k].first().Tuplet == t && units < float64(t.Actual)*unit-epsilon {
			units += list[k].first().Duration.Float()
			k++
		}
		x := (c.x+list[k-1].x+headWidth)/2 - 0.5
		y := s.top(staff) - 1
		for _, m := range list[i:k] {
			if m.tip != 0 && m.up {
				y = min(y, m.tip-0.6)
			}
		}
		if !c.up && c.tip != 0 {
			y = s.top(staff) + 5.6
			for _, m := range list[i:k] {
				y = max(y, m.tip+1.4)
			}
		}
		for _, digit := range digits(t.Actual) {
			x += s.glyph("tuplet "+digit, x, y)
		}
		i = k
	}
}

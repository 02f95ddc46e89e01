// Package load measures how hard a score is to play in each dimension (see package dimension), at a tempo.
//
//	load.go    Of, and what is measured hand by hand
//	window.go  the windows of two beats, and what lies in nine of ten of them
//	pair.go    what two hands do beside each other
//	pace.go    how fast a piece goes
//
// All loads are linear in the number of notes. Each is made so that it keeps what a teacher takes for granted: faster is never
// easier, a note more in a hand is never less for that hand, and the same music in another key differs in black keys and in
// reading alone. What a hand does is measured by the harder hand; a hand alone has no independence.
package load

import (
	"math"
	"slices"

	"patientladder/core/base/rational"
	"patientladder/core/library/dimension"
	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/notation/score"
	"patientladder/core/reading/position"
	"patientladder/core/reading/reading"
)

// Line is what one hand or part plays, with what was found of its fingers.
type Line struct {
	reading.Line
	Position position.Result
}

// Of measures the lines that the student plays, for a family of instruments. Loads of 0 are left out; the others stand in the
// order of the dimensions of the family, each with the bars where it is highest.
func Of(s *score.Score, lines []Line, f instrument.Family, p Pace) []material.Load {
	g := gridOf(s, p)
	m := meter{s: s, grid: g, family: f, best: map[dimension.ID]*measured{}}
	for i := range lines {
		m.line(&lines[i])
	}
	for i := 0; i+1 < len(lines); i++ {
		if r, l := lines[i], lines[i+1]; r.Hand == reading.Right && l.Hand == reading.Left && r.Part == l.Part {
			m.offer(dimension.Independence, g.pair(s, r.Line, l.Line))
		}
	}
	m.divisions(lines)
	m.reads(lines)
	m.beside(lines)
	var out []material.Load
	for _, d := range dimension.Of(f) {
		if best := m.best[d.ID]; best != nil && best.value > 0 {
			out = append(out, material.Load{Dimension: d.ID, Value: math.Round(100*best.value) / 100, Bars: best.bars})
		}
	}
	return slices.DeleteFunc(out, func(l material.Load) bool { return l.Value == 0 })
}

// measured is the load of one hand in one dimension.
type measured struct {
	value float64
	bars  []int
}

// meter collects the loads; of several hands the harder one counts.
type meter struct {
	s      *score.Score
	grid   *grid
	family instrument.Family
	best   map[dimension.ID]*measured
}

func (m *meter) offer(d dimension.ID, x measured) {
	if best := m.best[d]; best == nil || x.value > best.value {
		m.best[d] = &x
	}
}

const (
	// octave is how far a hand reaches without being thrown, and fifth what lies under five fingers, in semitones.
	octave, fifth = 12, 7
	// frame is how wide a hand opens in one place: a sixth.
	frame = 9
	// grip is the widest that fingers hold at once; what sounds further away is held by a pedal.
	grip = 16
	// runGap is the pause in seconds from which on a hand has rested.
	runGap = 0.35
	// breath is the rest in seconds in which a breath is taken.
	breath = 0.25
)

// line measures what one hand or part does by itself.
func (m *meter) line(l *Line) {
	s, g := m.s, m.grid
	n := len(g.cells)
	onsets, notes, over, held := make([]float64, n), make([]float64, n), make([]float64, n), make([]float64, n)
	low, high := make([]int, n), make([]int, n)
	pitches := make([]keys, len(s.Bars))
	type note struct {
		midi int
		end  float64
	}
	var sounding []note
	run, longest, runFrom, last := 0, 0, 0, math.Inf(-1)
	var runBars [2]int
	frames, lo, hi := 0, 0, 0
	for _, o := range l.Onset {
		c := g.at(o.Bar, o.At)
		at := g.seconds(c, o.At)
		onsets[c]++
		sounding = slices.DeleteFunc(sounding, func(x note) bool { return x.end <= at+1e-9 })
		stays := false
		for _, i := range o.Notes {
			midi := s.Notes[i].MIDI
			notes[c]++
			if low[c] == 0 || midi < low[c] {
				low[c] = midi
			}
			high[c] = max(high[c], midi)
			pitches[o.Bar-1].add(midi)
			if frames == 0 || max(hi, midi)-min(lo, midi) > frame {
				frames, lo, hi = frames+1, midi, midi
			}
			lo, hi = min(lo, midi), max(hi, midi)
			for _, x := range sounding {
				if d := abs(x.midi - midi); d <= grip {
					stays = true
					over[c] = max(over[c], float64(d))
				}
			}
		}
		bottom, top := s.Notes[o.Notes[0]].MIDI, s.Notes[o.Notes[len(o.Notes)-1]].MIDI
		over[c] = max(over[c], float64(top-bottom))
		if stays {
			held[c]++
		}
		for k, i := range o.Notes {
			if len(sounding) < mostSounding {
				sounding = append(sounding, note{s.Notes[i].MIDI, at + g.lasts(c, o.Ends[k].Sub(o.At))})
			}
		}
		if at-last > runGap {
			run, runFrom = 0, o.Bar
		}
		if run++; run > longest {
			longest, runBars = run, [2]int{runFrom, o.Bar}
		}
		last = at
	}
	m.offer(dimension.Speed, g.rate(onsets))
	m.offer(dimension.Density, g.rate(notes))
	m.offer(dimension.Voices, g.perBeat(held))
	m.offer(dimension.Jumps, g.thrown(low, high))
	switch m.family {
	case instrument.Bowed, instrument.Plucked:
		m.strings(l)
	default:
		for c := range over {
			over[c] = max(0, over[c]-fifth)
		}
		m.offer(dimension.Span, g.top(over))
		m.offer(dimension.Shifts, measured{value: float64(max(0, frames-1)) / max(g.total, 1)})
	}
	if m.family == instrument.Wind || m.family == instrument.Voice {
		m.offer(dimension.Endurance, m.breathless(l))
	} else if longest > 1 {
		m.offer(dimension.Endurance, measured{float64(longest), between(runBars[0], runBars[1])})
	}
	kinds := make([]float64, len(s.Bars))
	black := make([]float64, len(s.Bars))
	for b, p := range pitches {
		kinds[b], black[b] = max(0, float64(p.count()-1)), float64(p.black())
	}
	m.offer(dimension.Variety, topOf(kinds, func(b int) int { return b + 1 }))
	if m.family == instrument.Keyboard {
		m.offer(dimension.BlackKeys, topOf(black, func(b int) int { return b + 1 }))
	}
}

// mostSounding is how many notes of one hand are followed at once; more come from damaged files.
const mostSounding = 16

// breathless is the longest time in seconds that a part plays without a rest or a mark for a breath.
func (m *meter) breathless(l *Line) measured {
	var best measured
	from, fromBar, until := 0.0, 0, math.Inf(-1)
	for _, o := range l.Onset {
		c := m.grid.at(o.Bar, o.At)
		at := m.grid.seconds(c, o.At)
		if at-until > breath {
			from, fromBar = at, o.Bar
		}
		until = at + m.grid.lasts(c, o.Ends[len(o.Ends)-1].Sub(o.At))
		if until-from > best.value {
			best = measured{until - from, between(fromBar, o.Bar)}
		}
		if m.s.Notes[o.Notes[0]].Breath() {
			until = math.Inf(-1)
		}
	}
	return best
}

// strings measures what the hands do on strings: shifts, stretches and changes of string, from the fingers that were found.
func (m *meter) strings(l *Line) {
	n := len(m.grid.cells)
	crossings := make([]float64, n)
	last := 0
	for _, x := range l.Position.Fingers {
		note := &m.s.Notes[x.Note]
		if x.String == 0 {
			continue
		}
		if last != 0 && x.String != last && !note.Chord {
			crossings[m.grid.at(note.Bar, note.Onset)]++
		}
		last = x.String
	}
	m.offer(dimension.Crossings, m.grid.rate(crossings))
	shifts := measured{value: float64(len(l.Position.Shifts)) / max(m.grid.total, 1)}
	for _, x := range l.Position.Shifts {
		shifts.bars = appendBar(shifts.bars, x.Bar)
	}
	m.offer(dimension.Shifts, shifts)
	if stretches := l.Position.Stretches; len(stretches) > 0 {
		m.offer(dimension.Span, measured{4 * float64(len(stretches)) / float64(max(4, len(m.s.Bars))), slices.Compact(slices.Clone(stretches))})
	}
}

// divisions measures in how many equal parts the beats must be thought so that every onset of all hands falls on one, as doublings.
func (m *meter) divisions(lines []Line) {
	parts := make([]int64, len(m.grid.cells))
	for c := range parts {
		parts[c] = 1
	}
	for i := range lines {
		for _, o := range lines[i].Onset {
			c := m.grid.at(o.Bar, o.At)
			if d := m.grid.division(c, o.At); d <= mostParts {
				if lcm, ok := rational.LCM(parts[c], d); ok && lcm <= mostParts {
					parts[c] = lcm
					continue
				}
			}
			parts[c] = mostParts
		}
	}
	out := make([]float64, len(parts))
	for c, p := range parts {
		out[c] = math.Log2(float64(p))
	}
	m.offer(dimension.Rhythm, m.grid.top(out))
}

// mostParts is the finest division of a beat that is told apart.
const mostParts = 64

func between(from, to int) []int {
	if from < 1 || to < from {
		return nil
	}
	out := make([]int, 0, to-from+1)
	for b := from; b <= to; b++ {
		out = append(out, b)
	}
	return out
}

func appendBar(bars []int, bar int) []int {
	if n := len(bars); n > 0 && bars[n-1] == bar {
		return bars
	}
	return append(bars, bar)
}

func abs(x int) int { return max(x, -x) }

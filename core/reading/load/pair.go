package load

import (
	"slices"

	"patientladder/core/library/dimension"
	"patientladder/core/library/instrument"
	"patientladder/core/notation/score"
	"patientladder/core/reading/pitch"
	"patientladder/core/reading/reading"
)

// pair measures how much both hands have to say at once that is not the same: in two beats, the moves to another key of the
// hand that has fewer of them, times the share of the onsets at which the hands do not go together. Where one hand holds or
// repeats, or both go the same way, it is little.
func (g *grid) pair(s *score.Score, r, l reading.Line) measured {
	n := len(g.cells)
	apart, all := make([]float64, n), make([]float64, n)
	places := [2][]keys{make([]keys, n), make([]keys, n)} // of each hand: the staff steps of its outer notes in each cell
	last := [2]int{-1, -1}
	next := [2]int{}
	hands := [2][]reading.Onset{r.Onset, l.Onset}
	for next[0] < len(hands[0]) || next[1] < len(hands[1]) {
		cmp := 0
		switch {
		case next[0] == len(hands[0]):
			cmp = 1
		case next[1] == len(hands[1]):
			cmp = -1
		default:
			cmp = hands[0][next[0]].At.Cmp(hands[1][next[1]].At)
		}
		c := 0
		var moved [2]int
		for h := range hands {
			if h == 0 && cmp > 0 || h == 1 && cmp < 0 {
				continue
			}
			o := &hands[h][next[h]]
			next[h]++
			c = g.at(o.Bar, o.At)
			step := s.Notes[o.Outer].Pitch.StaffStep()
			if last[h] >= 0 {
				moved[h] = step - last[h]
			}
			last[h] = step
			places[h][c].add(max(0, step))
		}
		all[c]++
		if cmp != 0 || moved[0] != moved[1] {
			apart[c]++
		}
	}
	out := make([]float64, n)
	for c := range out {
		_, after := g.window(c)
		x, y := apart[c]+apart[after], all[c]+all[after] // where there is none after, both are doubled
		if y > 0 {
			out[c] = float64(max(0, min(together(places[0], c, after), together(places[1], c, after))-1)) * x / y
		}
	}
	return topOf(out, g.bar)
}

// together is how many different places two cells have.
func together(of []keys, a, b int) int {
	both := keys{of[a][0] | of[b][0], of[a][1] | of[b][1]}
	return both.count()
}

// reads measures what there is to read beside plain notes: in each bar the notes that a sign alters, by the key or by
// themselves, each once, the ledger lines of the furthest notes, and two for a change of clef.
func (m *meter) reads(lines []Line) {
	s := m.s
	bars := make([]float64, len(s.Bars))
	parts := map[int]bool{}
	for i := range lines {
		l := &lines[i]
		parts[l.Part] = true
		low, high := pitch.Staff(s, l.Line)
		var seen []score.Pitch // of the bar: few
		bar := 0
		above, below := 0, 0
		settle := func() {
			if bar > 0 {
				bars[bar-1] += float64(above + below)
			}
			above, below = 0, 0
		}
		for _, o := range l.Onset {
			if o.Bar != bar {
				settle()
				bar = o.Bar
				seen = seen[:0]
			}
			for _, i := range o.Notes {
				p := s.Notes[i].Pitch
				above, below = max(above, (p.StaffStep()-high)/2), max(below, (low-p.StaffStep())/2)
				key := score.KeyAlter(p.Step, s.Bars[bar-1].Fifths)
				p.Octave = 0
				if (p.Alter != 0 || key != 0) && !slices.Contains(seen, p) {
					seen = append(seen, p)
					bars[bar-1]++
					if p.Alter != key {
						bars[bar-1]++ // a sign of its own is read twice: that it stands there, and until where it holds
					}
				}
			}
		}
		settle()
	}
	for _, x := range s.Signs {
		if x.Kind == score.ClefChange && parts[x.Part] && x.Bar >= 1 && x.Bar <= len(bars) {
			bars[x.Bar-1] += 2
		}
	}
	m.offer(dimension.Signs, topOf(bars, func(b int) int { return b + 1 }))
}

// beside counts ornaments, pedals and the lengths of slurs.
func (m *meter) beside(lines []Line) {
	s := m.s
	mine := make(map[int]bool, len(lines))
	for i := range lines {
		mine[lines[i].Part] = true
	}
	var ornaments, pedals measured
	slurs := make([]map[int]bool, len(s.Bars))
	open := map[int]int{} // notes under the slur of a part
	for i := range s.Notes {
		n := &s.Notes[i]
		if n.Rest || !mine[n.Part] {
			continue
		}
		if n.Grace || len(n.Ornaments) > 0 || n.Rolled {
			ornaments.value += 4 / float64(max(4, len(s.Bars)))
			ornaments.bars = append(ornaments.bars, n.Bar)
		}
		if n.Grace || m.family != instrument.Bowed {
			continue
		}
		length := 1
		if n.SlurStart {
			open[n.Part] = 0
		}
		if k, on := open[n.Part]; on {
			open[n.Part] = k + 1
			if !n.SlurStop {
				continue
			}
			length = k + 1
			delete(open, n.Part)
		}
		if slurs[n.Bar-1] == nil {
			slurs[n.Bar-1] = map[int]bool{}
		}
		slurs[n.Bar-1][length] = true
	}
	ornaments.bars = sortedBars(ornaments.bars)
	m.offer(dimension.Ornament, ornaments)
	for _, x := range s.Signs {
		if x.Kind == score.PedalDown && mine[x.Part] {
			pedals.value += 1 / max(m.grid.total, 1)
			pedals.bars = append(pedals.bars, x.Bar)
		}
	}
	pedals.bars = sortedBars(pedals.bars)
	m.offer(dimension.Pedal, pedals)
	kinds := make([]float64, len(slurs))
	for b, of := range slurs {
		kinds[b] = max(0, float64(len(of)-1))
	}
	m.offer(dimension.Bowing, topOf(kinds, func(b int) int { return b + 1 }))
}

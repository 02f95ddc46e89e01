package load

import (
	"math"
	"math/bits"
	"slices"
	"sort"

	"patientladder/core/base/rational"
	"patientladder/core/notation/score"
)

// cell is one beat of the piece as it is written.
type cell struct {
	bar         int
	start, beat rational.Rat // in quarter notes from the beginning of the piece
	// from is when it begins, seconds how long it lasts, and whole how long a full beat would.
	from, seconds, whole float64
}

// grid cuts a piece into beats, with their times.
type grid struct {
	cells []cell
	first []int // of each bar
	total float64
}

// mostCells is how many beats of a bar are told apart; a longer one is no bar of music.
const mostCells = 64

func gridOf(s *score.Score, p Pace) *grid {
	g := &grid{first: make([]int, len(s.Bars)+1)}
	quarter := p.seconds(s)
	for i := range s.Bars {
		b := &s.Bars[i]
		g.first[i] = len(g.cells)
		beat := b.Beat()
		q := quarter[i]
		add := func(start, length rational.Rat) {
			seconds := length.Float() * q
			g.cells = append(g.cells, cell{bar: i + 1, start: start, beat: beat, from: g.total, seconds: seconds, whole: beat.Float() * q})
			g.total += seconds
		}
		end := b.Start.Add(b.Length)
		if b.Length.Num() <= 0 || !b.Length.Less(beat.Mul(rational.Int(mostCells))) {
			add(b.Start, b.Length)
			continue
		}
		for at := b.Start; at.Less(end); at = at.Add(beat) {
			length := beat
			if end.Less(at.Add(beat)) {
				length = end.Sub(at)
			}
			add(at, length)
		}
	}
	g.first[len(s.Bars)] = len(g.cells)
	return g
}

// at is the cell of a time in a bar.
func (g *grid) at(bar int, t rational.Rat) int {
	from, to := g.first[bar-1], g.first[bar]
	if to-from < 2 {
		return from
	}
	k := sort.Search(to-from, func(i int) bool { return t.Less(g.cells[from+i].start) })
	return from + max(k-1, 0)
}

// seconds is when a time in a cell comes, lasts how long a length that begins in it sounds.
func (g *grid) seconds(c int, t rational.Rat) float64 {
	x := &g.cells[c]
	return x.from + g.lasts(c, t.Sub(x.start))
}

func (g *grid) lasts(c int, length rational.Rat) float64 {
	x := &g.cells[c]
	return length.Float() * x.whole / x.beat.Float()
}

// division is in how many equal parts the beat of a cell is cut so that a time falls on one.
func (g *grid) division(c int, t rational.Rat) int64 {
	x := &g.cells[c]
	into := t.Sub(x.start)
	return rational.New(into.Num()*x.beat.Den(), into.Den()*x.beat.Num()).Den()
}

// window is how long the two beats from a cell on last, and the cell after the first, which is the first itself at the end.
func (g *grid) window(c int) (seconds float64, next int) {
	x := &g.cells[c]
	if c+1 == len(g.cells) {
		return 2 * x.whole, c
	}
	return max(2*x.whole, x.seconds+g.cells[c+1].seconds), c + 1
}

// rate is how often something counted by cells comes in a second, over windows of two beats.
func (g *grid) rate(count []float64) measured {
	out := make([]float64, len(count))
	for c := range count {
		seconds, next := g.window(c)
		sum := count[c]
		if next != c {
			sum += count[next]
		}
		if seconds > 0 {
			out[c] = sum / seconds
		}
	}
	return topOf(out, g.bar)
}

// perBeat is how often something counted by cells comes in a beat, over windows of two.
func (g *grid) perBeat(count []float64) measured {
	out := make([]float64, len(count))
	for c := range count {
		out[c] = count[c] / 2
		if _, next := g.window(c); next != c {
			out[c] += count[next] / 2
		}
	}
	return topOf(out, g.bar)
}

// top is for what is measured by cells and is no rate: the larger of two beats.
func (g *grid) top(value []float64) measured {
	out := make([]float64, len(value))
	for c := range value {
		_, next := g.window(c)
		out[c] = max(value[c], value[next])
	}
	return topOf(out, g.bar)
}

// thrown is how far a hand goes beyond an octave within a beat or two, in semitones a second. Low and high are the lowest and
// the highest pitch struck in each cell, 0 for none.
func (g *grid) thrown(low, high []int) measured {
	out := make([]float64, len(low))
	for c := range low {
		seconds, next := g.window(c)
		if low[c] == 0 || seconds == 0 {
			continue
		}
		out[c] = beyond(low[c], high[c]) / g.cells[c].whole
		if low[next] != 0 {
			out[c] = max(out[c], beyond(min(low[c], low[next]), max(high[c], high[next]))/seconds)
		}
	}
	return topOf(out, g.bar)
}

func beyond(low, high int) float64 { return max(0, float64(high-low-octave)) }

func (g *grid) bar(c int) int { return g.cells[c].bar }

// share is which part of the windows lies at or under a load.
const share = 0.9

// topOf is the value that nine of ten do not exceed (nearest rank), and the bars of those that come near it.
func topOf(values []float64, bar func(i int) int) measured {
	if len(values) == 0 {
		return measured{}
	}
	sorted := slices.Clone(values)
	slices.Sort(sorted)
	m := measured{value: sorted[int(math.Ceil(share*float64(len(sorted))))-1]}
	if m.value <= 0 {
		return measured{}
	}
	for i, v := range values {
		if v >= m.value*(1-1e-9) {
			m.bars = appendBar(m.bars, bar(i))
		}
	}
	return m
}

// keys are pitches, each once.
type keys [2]uint64

func (k *keys) add(midi int) { k[midi>>6&1] |= 1 << (midi & 63) }

func (k *keys) count() int { return bits.OnesCount64(k[0]) + bits.OnesCount64(k[1]) }

// blackKeys are those of the whole keyboard.
var blackKeys = func() (k keys) {
	for midi := range 128 {
		if score.BlackKey(midi) {
			k.add(midi)
		}
	}
	return k
}()

func (k *keys) black() int {
	return bits.OnesCount64(k[0]&blackKeys[0]) + bits.OnesCount64(k[1]&blackKeys[1])
}

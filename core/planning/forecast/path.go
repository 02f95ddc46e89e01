package forecast

import (
	"hash/fnv"
	"math"
	"math/rand/v2"
	"slices"

	"gonum.org/v1/gonum/mat"
	"gonum.org/v1/gonum/stat/distuv"
)

// Draws is how many courses are simulated (default).
const Draws = 256

// Stage is one piece on the way.
type Stage struct {
	// ID keeps the chance of a stage its own: moved elsewhere it has the same luck,
	// so that two plans can be compared.
	ID           string
	Leap         float64
	DistinctBars int
	// Begun says that it is in work; Elapsed are the weeks from its beginning to
	// the next lesson.
	Begun   bool
	Elapsed float64
}

// Lane is one strand: its stages in their order. When nothing on it is begun
// the first begins in the lesson From at the earliest.
type Lane struct {
	From   int
	Stages []Stage
	// Of the stages that are not begun, those after the first Least that are as
	// likely as not to begin later than the lesson Beyond are left out; with
	// neither, none is.
	Least, Beyond int
}

// Course is what was drawn for one stage: the lesson in which it begins and
// that in which it is cleared, from 0 for the next lesson, draw by draw.
type Course struct{ Begin, Clear []int32 }

// Paths draws how the strands of one student go on. Each lane is worked through
// in its order; the stages that are begun run side by side, and when one of
// them is cleared the next begins in that lesson. What is not known of the
// student, of the studio and of each piece is drawn anew in every draw, so that
// the spread of a sum is honest. The same seed gives the same courses.
func (m *Model) Paths(student string, lanes []Lane, draws int, seed uint64) [][]Course {
	beliefs := outlasted(m.beliefs(student, draws, seed), lanes)
	out := make([][]Course, len(lanes))
	for k, lane := range lanes {
		out[k] = run(lane, beliefs, seed)
	}
	return out
}

// belief is one draw of what is not known: the constant with the student's
// effect, the weights of leap and length, and the noise.
type belief struct{ base, leap, length, noise float64 }

func (m *Model) beliefs(student string, draws int, seed uint64) []belief {
	random := source(seed, student)
	// What is drawn from: the constant with the student's effect, leap, length.
	var centre [fixed]float64
	cov := mat.NewSymDense(fixed, nil)
	for i := range fixed {
		centre[i] = m.mean.AtVec(i)
		for j := i; j < fixed; j++ {
			cov.SetSym(i, j, m.cov.At(i, j))
		}
	}
	if at, known := m.students[student]; known {
		centre[0] += m.mean.AtVec(at)
		cov.SetSym(0, 0, cov.At(0, 0)+2*m.cov.At(0, at)+m.cov.At(at, at))
		for j := 1; j < fixed; j++ {
			cov.SetSym(0, j, cov.At(0, j)+m.cov.At(at, j))
		}
	} else {
		cov.SetSym(0, 0, cov.At(0, 0)+m.spread*m.spread)
	}
	var chol mat.Cholesky
	chol.Factorize(cov)
	var l mat.TriDense
	chol.LTo(&l)
	gamma := distuv.Gamma{Alpha: m.shape, Beta: m.scale, Src: random}
	out := make([]belief, draws)
	for d := range out {
		noise := 1 / math.Sqrt(gamma.Rand())
		z := [fixed]float64{random.NormFloat64(), random.NormFloat64(), random.NormFloat64()}
		var b [fixed]float64
		for i := range fixed {
			b[i] = centre[i]
			for j := 0; j <= i; j++ {
				b[i] += noise * l.At(i, j) * z[j]
			}
		}
		out[d] = belief{b[0], b[1], b[2], noise}
	}
	return out
}

// source is a stream of chance of its own for each name.
func source(seed uint64, name string) *rand.Rand {
	h := fnv.New64a()
	h.Write([]byte(name)) // a hash never fails
	return rand.New(rand.NewPCG(seed, h.Sum64()))
}

// mean is the expected logarithm of the weeks.
func (b belief) mean(x [fixed]float64) float64 { return b.base + b.leap*x[1] + b.length*x[2] }

func (s Stage) row() [fixed]float64 {
	return row(Observation{Leap: s.Leap, DistinctBars: s.DistinctBars})
}

// known is how many weeks a piece in work is known to take at least: a piece of
// so many whole weeks would have been cleared in the lesson before.
func (s Stage) known() float64 { return math.Max(s.Elapsed-0.5, 0) }

// outlasted draws the beliefs again by how well they explain that the pieces in
// work are not cleared yet: a piece that takes long tells of the student too.
func outlasted(beliefs []belief, lanes []Lane) []belief {
	weight := make([]float64, len(beliefs))
	for d := range weight {
		weight[d] = 1
	}
	for _, lane := range lanes {
		for _, s := range lane.Stages {
			if !s.Begun || s.known() <= 0 {
				continue
			}
			x, known := s.row(), math.Log(s.known())
			for d, b := range beliefs {
				weight[d] *= distuv.UnitNormal.Survival((known - b.mean(x)) / b.noise)
			}
		}
	}
	return resampled(beliefs, weight)
}

// resampled takes each belief as often as its weight says, to within one; the
// beliefs as they were when nothing weighs anything. (Systematic resampling.)
func resampled(beliefs []belief, weight []float64) []belief {
	sum := 0.0
	for _, w := range weight {
		sum += w
	}
	if sum < 1e-9 { // beyond anything foreseen: it tells nothing
		return beliefs
	}
	out := make([]belief, len(beliefs))
	at, below := 0, weight[0]
	for d := range out {
		for want := (float64(d) + 0.5) / float64(len(out)) * sum; below < want && at < len(beliefs)-1; {
			at++
			below += weight[at]
		}
		out[d] = beliefs[at]
	}
	return out
}

func run(lane Lane, beliefs []belief, seed uint64) []Course {
	out := make([]Course, 0, len(lane.Stages))
	// A lane has as many hands as pieces are begun on it, one at the least. Free
	// holds, for each draw, the lessons in which each of them may begin the next.
	hands := 0
	for _, s := range lane.Stages {
		if s.Begun {
			hands++
		}
	}
	begun, ahead := 0, 0
	hands = max(1, hands)
	free := make([]int32, hands*len(beliefs))
	for i := range free { // where nothing is begun
		free[i] = int32(lane.From)
	}
	for _, s := range lane.Stages {
		random := source(seed, s.ID)
		x, known := s.row(), math.Log(s.known())
		both := make([]int32, 2*len(beliefs))
		c := Course{both[:len(beliefs):len(beliefs)], both[len(beliefs):]}
		for d, b := range beliefs {
			mu, mine := b.mean(x), free[d*hands:(d+1)*hands]
			if s.Begun {
				c.Clear[d] = remaining(random, mu, b.noise, s.Elapsed, known)
				mine[begun] = c.Clear[d]
				continue
			}
			first := 0
			for j := 1; j < hands; j++ {
				if mine[j] < mine[first] {
					first = j
				}
			}
			c.Begin[d] = mine[first]
			c.Clear[d] = c.Begin[d] + weeks(mu+b.noise*random.NormFloat64())
			mine[first] = c.Clear[d]
		}
		out = append(out, c)
		if s.Begun {
			begun++
			continue
		}
		ahead++
		if lane.Beyond > 0 && ahead >= lane.Least && medianAfter(c.Begin, lane.Beyond) {
			break // what follows begins no earlier
		}
	}
	return out
}

// longest is more weeks than any piece is worked at.
const longest = 1 << 20

// halves are the logarithms of 1.5, 2.5 and so on: between them the weeks are one number.
var halves = func() (out [64]float64) {
	for i := range out {
		out[i] = math.Log(float64(i) + 1.5)
	}
	return out
}()

// weeks are whole, because pieces begin and are cleared in lessons; at least one.
// They are given by their logarithm.
func weeks(log float64) int32 {
	from := 0
	if log > 0 && log < float64(len(starts))/perLog {
		from = int(starts[int(log*perLog)])
	}
	for i := from; i < len(halves); i++ {
		if log < halves[i] {
			return int32(i) + 1
		}
	}
	return int32(math.Min(math.Round(math.Exp(log)), longest))
}

// starts are, for every thirty-second of a logarithm, the first of the halves above it: where a search begins.
var starts = func() (out [4 * perLog]int8) {
	for i := range out {
		for halves[out[i]] < float64(i)/perLog {
			out[i]++
		}
	}
	return out
}()

// perLog is how finely the beginnings of a search lie.
const perLog = 32.0

// remaining draws the lesson in which a piece that has been in work for so many
// weeks is cleared, given that it was not cleared before; known is the
// logarithm of the weeks that it is known to take, −∞ for none.
func remaining(random *rand.Rand, mu, noise, elapsed, known float64) int32 {
	u := random.Float64()
	if !math.IsInf(known, -1) {
		past := distuv.UnitNormal.CDF((known - mu) / noise)
		u = past + u*(1-past) // the same luck as without the past, in what is left of the distribution
	}
	if u >= 1-1e-12 {
		return 1 // far beyond anything foreseen: soon, as far as anyone can say
	}
	z := distuv.UnitNormal.Quantile(math.Max(u, 1e-12))
	w := math.Min(math.Exp(mu+noise*z), longest)
	return int32(math.Max(0, math.Round(math.Max(w, 1)-elapsed)))
}

// Span is a range of lessons.
type Span struct {
	// Median is as likely too late as too early; four times of five the truth lies
	// from Low to High.
	Low, Median, High int
}

// rank is where in so many ordered lessons the share p of them lies before.
func rank(p float64, of int) int { return int(p*float64(of-1) + 0.5) }

// medianAfter says that the median of drawn lessons, as SpanOf finds it, is later than a lesson.
func medianAfter(lessons []int32, lesson int) bool {
	before := 0
	for _, l := range lessons {
		if int(l) <= lesson {
			before++
		}
	}
	return len(lessons) > 0 && before <= rank(0.5, len(lessons))
}

// SpanOf finds the range of drawn lessons; zero without any.
func SpanOf(lessons []int32) Span {
	if len(lessons) == 0 {
		return Span{}
	}
	low, high := lessons[0], lessons[0]
	for _, l := range lessons {
		low, high = min(low, l), max(high, l)
	}
	rank := func(p float64) int { return rank(p, len(lessons)) }
	if high-low >= near {
		sorted := slices.Clone(lessons)
		slices.Sort(sorted)
		return Span{Low: int(sorted[rank(0.1)]), Median: int(sorted[rank(0.5)]), High: int(sorted[rank(0.9)])}
	}
	var counts [near]int32
	for _, l := range lessons {
		counts[l-low]++
	}
	at := func(p float64) int {
		left := rank(p)
		for i, n := range counts {
			if left -= int(n); left < 0 {
				return int(low) + i
			}
		}
		return int(high)
	}
	return Span{Low: at(0.1), Median: at(0.5), High: at(0.9)}
}

// near is a spread of lessons that is counted rather than sorted.
const near = 256

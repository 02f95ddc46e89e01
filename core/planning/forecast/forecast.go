// Package forecast says how many weeks a piece will take, as a range.
//
// The logarithm of the weeks is a linear function of the leap and of the
// length, with an effect of the student: a Bayesian linear regression with a
// conjugate (normal, inverse gamma) prior, in closed form. The student's effect
// is one more coefficient, drawn towards zero by a prior of its own, so that a
// new student is forecast like the studio and an old one like himself.
//
// Source of the formulas: Gelman et al., Bayesian Data Analysis, 3rd edition,
// section 14.8, and Murphy, Machine Learning (2012), section 7.6.3 (from memory;
// checked against least squares and by simulation).
package forecast

import (
	"math"
	"sort"

	"gonum.org/v1/gonum/mat"
	"gonum.org/v1/gonum/stat/distuv"
)

// Observation is a piece that was cleared.
type Observation struct {
	Student string
	// Leap is the leap as it was when the piece was begun.
	Leap float64
	// DistinctBars is how many different bars it has; 0 without a score.
	DistinctBars int
	// Weeks from its beginning to its clearing; below 1 they count as 1.
	Weeks float64
}

// Prior is what is believed before anything was observed.
type Prior struct {
	// Mean and Spread of the constant, the weight of the leap and the weight of
	// the length, in logarithms of weeks; spreads are in units of the noise.
	Mean, Spread [3]float64
	// StudentSpread is that of the students' effects, in units of the noise. SpreadDoubt is how sure that is: the standard
	// deviation of its logarithm; 0 takes it as it is.
	StudentSpread, SpreadDoubt float64
	// NoiseShape and NoiseScale are those of the inverse gamma of the noise's variance.
	NoiseShape, NoiseScale float64
}

// DefaultPrior is ours: a piece without anything new takes about a week, a leap
// of two and sixteen bars about three (common practice: one piece takes a week,
// another ten).
func DefaultPrior() Prior {
	return Prior{
		Mean:          [3]float64{0.1, 0.3, 0.25},
		Spread:        [3]float64{1, 0.4, 0.5},
		StudentSpread: 0.7,
		SpreadDoubt:   0.5,
		NoiseShape:    4,
		NoiseScale:    0.75,
	}
}

// Model is a prior with what was observed.
type Model struct {
	students map[string]int // column of each student's effect
	counts   map[string]int
	all      int
	mean     *mat.VecDense
	// cov is the posterior covariance over the noise's variance.
	cov          mat.SymDense
	shape, scale float64
	// spread is that of the students' effects, as it was learned.
	spread float64
	// tail is the point of a standard t distribution of 2·shape degrees of freedom
	// beyond which a tenth lies.
	tail float64
}

// columns of the constant, the leap and the length.
const fixed = 3

func row(o Observation) [fixed]float64 {
	return [fixed]float64{1, o.Leap, math.Log2(1 + float64(o.DistinctBars)/8)}
}

// Moments are what the regression needs of one student's observations: their
// number and the sums of the products of the predictors and the logarithm of the weeks.
type Moments struct {
	N int `json:"n"`
	// XX holds the upper triangle of Σ x·xᵀ by rows, XY is Σ x·y and YY Σ y².
	XX [fixed * (fixed + 1) / 2]float64 `json:"xx"`
	XY [fixed]float64                   `json:"xy"`
	YY float64                          `json:"yy"`
}

// MomentsOf sums the observations of one student.
func MomentsOf(observations []Observation) Moments {
	var m Moments
	for _, o := range observations {
		x, y := row(o), math.Log(math.Max(o.Weeks, 1))
		m.N++
		k := 0
		for i := range fixed {
			for j := i; j < fixed; j++ {
				m.XX[k] += x[i] * x[j]
				k++
			}
			m.XY[i] += x[i] * y
		}
		m.YY += y * y
	}
	return m
}

// And are the moments of these observations and others of the same student.
func (m Moments) And(o Moments) Moments {
	m.N += o.N
	for i, x := range o.XX {
		m.XX[i] += x
	}
	for i, x := range o.XY {
		m.XY[i] += x
	}
	m.YY += o.YY
	return m
}

// Fit learns from observations; with none it is the prior.
func Fit(observations []Observation, prior Prior) *Model {
	by := map[string][]Observation{}
	for _, o := range observations {
		by[o.Student] = append(by[o.Student], o)
	}
	moments := make(map[string]Moments, len(by))
	for student, list := range by {
		moments[student] = MomentsOf(list)
	}
	return Learn(moments, prior)
}

// Learn is Fit from the moments of each student.
func Learn(of map[string]Moments, prior Prior) *Model {
	m := &Model{students: map[string]int{}, counts: map[string]int{}}
	var names []string
	for name, sums := range of {
		if sums.N > 0 {
			names = append(names, name)
			m.counts[name] = sums.N
			m.all += sums.N
		}
	}
	sort.Strings(names)
	n := fixed + len(names)
	precision := mat.NewSymDense(n, nil)
	pull := mat.NewVecDense(n, nil) // precision times mean
	sum := 2 * prior.NoiseScale
	for i := range fixed {
		p := 1 / (prior.Spread[i] * prior.Spread[i])
		precision.SetSym(i, i, p)
		pull.SetVec(i, p*prior.Mean[i])
		sum += p * prior.Mean[i] * prior.Mean[i]
	}
	add := func(i, j int, by float64) { precision.SetSym(i, j, precision.At(i, j)+by) }
	for k, name := range names {
		sums, at := of[name], fixed+k
		m.students[name] = at
		sum += sums.YY
		triangle := 0
		for i := range fixed {
			for j := i; j < fixed; j++ {
				add(i, j, sums.XX[triangle])
				triangle++
			}
			add(i, at, sums.XX[i]) // the first predictor is 1: its row holds the sums of the others
			pull.SetVec(i, pull.AtVec(i)+sums.XY[i])
		}
		add(at, at, float64(sums.N))
		pull.SetVec(at, pull.AtVec(at)+sums.XY[0])
	}
	m.shape = prior.NoiseShape + float64(m.all)/2
	m.mean = mat.NewVecDense(n, nil)
	var best mat.Cholesky
	score := math.Inf(-1)
	for k, spread := range prior.spreads(len(names)) {
		var chol mat.Cholesky
		mean, scale := posterior(precision, pull, &chol, spread, sum)
		// The logarithm of the chance of what was seen under this spread, but for what is the same under all of them
		// (Gelman et al., sections 5.3 and 14.8, from memory), with the prior of its own.
		x := 0.0
		if prior.SpreadDoubt > 0 {
			x = math.Log(spread/prior.StudentSpread) / prior.SpreadDoubt
		}
		here := -float64(len(names))*math.Log(spread) - chol.LogDet()/2 - m.shape*math.Log(scale) - x*x/2
		if k == 0 || here > score {
			score, best = here, chol
			m.mean.CopyVec(mean)
			m.scale, m.spread = scale, spread
		}
	}
	_ = best.InverseTo(&m.cov)
	m.tail = distuv.StudentsT{Sigma: 1, Nu: 2 * m.shape}.Quantile(0.9)
	return m
}

// Spread is that of the students' effects, in units of the noise, as it was learned.
func (m *Model) Spread() float64 { return m.spread }

// leastStudents is from how many students on the spread of their effects is learned (default).
const leastStudents = 3

// spreads are those of the students' effects that are tried: around the prior's, or that one alone.
func (p Prior) spreads(students int) []float64 {
	if p.SpreadDoubt == 0 || students < leastStudents {
		return []float64{p.StudentSpread}
	}
	var out []float64
	for k := -2; k <= 3; k++ {
		out = append(out, p.StudentSpread*math.Pow(2, float64(k)/2))
	}
	return out
}

// posterior is the mean of the coefficients and the scale of the noise under a spread of the students' effects.
func posterior(precision *mat.SymDense, pull *mat.VecDense, chol *mat.Cholesky, spread, sum float64) (*mat.VecDense, float64) {
	n := pull.Len()
	full := mat.NewSymDense(n, nil)
	full.CopySym(precision)
	for i := fixed; i < n; i++ {
		full.SetSym(i, i, full.At(i, i)+1/(spread*spread))
	}
	chol.Factorize(full) // positive definite: the prior's diagonal is
	mean := mat.NewVecDense(n, nil)
	// The one error there can be is a warning of a large condition number; the
	// solution stands all the same.
	_ = chol.SolveVecTo(mean, pull)
	return mean, math.Max((sum-mat.Dot(mean, pull))/2, 1e-9)
}

// Range is a forecast in weeks.
type Range struct {
	// Median is as likely too high as too low; four times of five the truth lies
	// between Low and High.
	Median, Low, High float64
	// Own and Others count the cleared pieces of this student and of others that it rests on.
	Own, Others int
	// From and To are the ends of the range as they are said, in whole weeks, and Share is how likely a piece takes so many
	// weeks, as they are counted: rounded, and at least one.
	From, To int
	Share    float64
}

// Whole are the ends of the range as they are said: in whole weeks.
func (r Range) Whole() (low, high int) {
	if r.To == 0 { // not of a model
		return int(math.Floor(r.Low)), int(math.Ceil(r.High))
	}
	return r.From, r.To
}

// Sure is a word for how likely something is.
type Sure int

// What can be said of a range: that it holds more often than not, four times of five, or nearly always.
const (
	Often Sure = iota
	Usually
	NearlyAlways
)

// Sure is the word that belongs to the whole range: four times of five is from 76 to 84 of a hundred.
func (r Range) Sure() Sure {
	switch {
	case r.To == 0 || r.Share >= 0.76 && r.Share <= 0.84:
		return Usually
	case r.Share > 0.84:
		return NearlyAlways
	}
	return Often
}

// whole finds the whole weeks that hold as nearly four times of five as can be: each end is rounded to the side on which they do.
func (r *Range) whole(under func(weeks float64) float64) {
	best := math.Inf(1)
	for _, from := range []float64{math.Floor(r.Low), math.Ceil(r.Low)} {
		for _, to := range []float64{math.Ceil(r.High), math.Floor(r.High)} {
			if to < from {
				continue
			}
			share := under(to + 0.5)
			if from > 1 { // what takes less than a week counts as one
				share -= under(from - 0.5)
			}
			if off := math.Abs(share - 0.8); off < best-1e-12 {
				best, r.From, r.To, r.Share = off, int(from), int(to), share
			}
		}
	}
}

const (
	// enoughOwn cleared pieces of the student, or enoughOthers of the studio's others, make a range worth saying (defaults).
	enoughOwn, enoughOthers = 3, 20
	// widest is how many times its low end the high end of a range may be to say anything (default).
	widest = 6
)

// Early says that it is too early to say how long: too little was cleared here to learn from, or the range says nothing.
func (r Range) Early() bool {
	return r.few() || r.spread()
}

// Wide says that enough was cleared here to learn from, and still the range says nothing.
func (r Range) Wide() bool { return !r.few() && r.spread() }

func (r Range) few() bool { return r.Own < enoughOwn && r.Others < enoughOthers }

func (r Range) spread() bool { return r.High > widest*math.Max(1, r.Low) }

// Weeks forecasts how long a piece takes a student: never under one lesson
// interval, a week. A student who was never observed has the spread of students.
func (m *Model) Weeks(student string, leap float64, distinctBars int) Range {
	centre, scale := m.predictive(student, leap, distinctBars)
	at := func(t float64) float64 { return math.Max(1, math.Exp(centre+t*scale)) }
	r := Range{Median: at(0), Low: at(-m.tail), High: at(m.tail), Own: m.counts[student], Others: m.all - m.counts[student]}
	t := distuv.StudentsT{Sigma: 1, Nu: 2 * m.shape}
	r.whole(func(weeks float64) float64 { return t.CDF((math.Log(weeks) - centre) / scale) })
	return r
}

// predictive returns the centre and the scale of the logarithm of the weeks,
// which has a t distribution with 2·shape degrees of freedom.
func (m *Model) predictive(student string, leap float64, distinctBars int) (centre, scale float64) {
	x := row(Observation{Leap: leap, DistinctBars: distinctBars})
	at, known := m.students[student]
	spread := 0.0
	for i, v := range x {
		centre += v * m.mean.AtVec(i)
		for j, w := range x {
			spread += v * w * m.cov.At(i, j)
		}
		if known {
			spread += 2 * v * m.cov.At(i, at)
		}
	}
	if known {
		centre += m.mean.AtVec(at)
		spread += m.cov.At(at, at)
	} else {
		spread += m.spread * m.spread
	}
	return centre, math.Sqrt(m.scale / m.shape * (1 + spread))
}

package forecast

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/mat"
	"gonum.org/v1/gonum/stat/distmv"
)

// dense is the same regression the long way: every observation is a row, every student a column, and
// how likely the data are under a spread of the students is the density of a multivariate t
// distribution, by gonum (Murphy, Machine Learning (2012), section 7.6.3.3, from memory).
type dense struct {
	x      *mat.Dense
	y      *mat.VecDense
	prior  Prior
	column map[string]int
}

func densely(obs []Observation, names []string, p Prior) dense {
	d := dense{mat.NewDense(len(obs), fixed+len(names), nil), mat.NewVecDense(len(obs), nil), p, map[string]int{}}
	for k, n := range names {
		d.column[n] = fixed + k
	}
	for i, o := range obs {
		d.x.SetRow(i, append([]float64{1, o.Leap, math.Log2(1 + float64(o.DistinctBars)/8)}, make([]float64, len(names))...))
		d.x.Set(i, d.column[o.Student], 1)
		d.y.SetVec(i, math.Log(math.Max(1, o.Weeks)))
	}
	return d
}

// before are the mean and the variances of the coefficients that are believed beforehand.
func (d dense) before(spread float64) (*mat.VecDense, *mat.DiagDense) {
	_, n := d.x.Dims()
	mean, variance := mat.NewVecDense(n, nil), mat.NewDiagDense(n, nil)
	for i := range n {
		s := spread
		if i < fixed {
			mean.SetVec(i, d.prior.Mean[i])
			s = d.prior.Spread[i]
		}
		variance.SetDiag(i, s*s)
	}
	return mean, variance
}

func (d dense) likely(t *testing.T, spread float64) float64 {
	n, _ := d.x.Dims()
	mean, variance := d.before(spread)
	var centre mat.VecDense
	centre.MulVec(d.x, mean)
	var a, wide mat.Dense
	a.Mul(d.x, variance)
	wide.Mul(&a, d.x.T())
	sigma := mat.NewSymDense(n, nil)
	for i := range n {
		for j := i; j < n; j++ {
			v := wide.At(i, j)
			if i == j {
				v++
			}
			sigma.SetSym(i, j, v*d.prior.NoiseScale/d.prior.NoiseShape)
		}
	}
	dist, ok := distmv.NewStudentsT(centre.RawVector().Data, sigma, 2*d.prior.NoiseShape, nil)
	require.True(t, ok)
	return dist.LogProb(d.y.RawVector().Data)
}

// after are the mean and the covariance of the coefficients over the variance of the noise, with the
// scale of that: (XᵀX + V⁻¹)⁻¹ (Xᵀy + V⁻¹m), and b + ½ (yᵀy + mᵀV⁻¹m − the same of what comes out).
func (d dense) after(t *testing.T, spread float64) (mean *mat.VecDense, cov *mat.Dense, scale float64) {
	before, variance := d.before(spread)
	_, n := d.x.Dims()
	precision, pull := mat.NewDense(n, n, nil), mat.NewVecDense(n, nil)
	precision.Mul(d.x.T(), d.x)
	pull.MulVec(d.x.T(), d.y)
	sum := mat.Dot(d.y, d.y)
	for i := range n {
		p := 1 / variance.At(i, i)
		precision.Set(i, i, precision.At(i, i)+p)
		pull.SetVec(i, pull.AtVec(i)+p*before.AtVec(i))
		sum += p * before.AtVec(i) * before.AtVec(i)
	}
	cov, mean = &mat.Dense{}, &mat.VecDense{}
	require.NoError(t, cov.Inverse(precision))
	mean.MulVec(cov, pull)
	var back mat.VecDense
	back.MulVec(precision, mean)
	return mean, cov, d.prior.NoiseScale + (sum-mat.Dot(mean, &back))/2
}

// Whatever was observed, what is learned is what the textbook says, computed the long way: the spread of the
// students under which the data are likeliest, the coefficients with their covariance, and what follows from
// them for a student who was observed and for one who was not.
func TestWhatIsLearnedIsTheTextbooks(t *testing.T) {
	p := DefaultPrior()
	seen := map[float64]bool{}
	for round := range 60 {
		random := rand.New(rand.NewPCG(uint64(round), 77))
		tr := drawn(p, random)
		var obs []Observation
		var names []string
		apart := []float64{0.1, 0.7, 3}[round%3]
		for i := range []int{1, 2, 3, 8, 20}[round%5] {
			name := fmt.Sprintf("s%02d", i)
			names = append(names, name)
			effect := tr.noise * apart * tr.normal.Rand()
			for range 1 + random.IntN(6) {
				o := anyPiece(random, name)
				o.Weeks = tr.weeks(effect, o)
				obs = append(obs, o)
			}
		}
		m, d := Fit(obs, p), densely(obs, names, p)

		best, score := p.StudentSpread, math.Inf(-1)
		if len(names) >= 3 { // fewer say nothing of how far apart they are
			for k := -2.0; k <= 3; k++ {
				spread := p.StudentSpread * math.Pow(2, k/2)
				x := math.Log(spread/p.StudentSpread) / p.SpreadDoubt
				if here := d.likely(t, spread) - x*x/2; here > score {
					best, score = spread, here
				}
			}
		}
		require.InDelta(t, best, m.Spread(), 1e-12, "round %d: the spread", round)
		seen[math.Round(best*100)] = true

		mean, cov, scale := d.after(t, best)
		require.InDelta(t, scale, m.scale, 1e-9)
		require.InDelta(t, p.NoiseShape+float64(len(obs))/2, m.shape, 1e-12)
		n := mean.Len()
		require.Equal(t, n, m.mean.Len())
		for i := range n {
			require.InDelta(t, mean.AtVec(i), m.mean.AtVec(i), 1e-9)
			for j := range n {
				require.InDelta(t, cov.At(i, j), m.cov.At(i, j), 1e-9)
			}
		}
		for _, who := range []string{names[0], "new"} {
			x := mat.NewVecDense(n, nil)
			x.SetVec(0, 1)
			x.SetVec(1, 1.3)
			x.SetVec(2, math.Log2(1+20.0/8))
			spread := 1.0
			if at, known := d.column[who]; known {
				x.SetVec(at, 1)
			} else {
				spread += best * best
			}
			var to mat.VecDense
			to.MulVec(cov, x)
			centre, wide := m.predictive(who, 1.3, 20)
			require.InDelta(t, mat.Dot(mean, x), centre, 1e-9)
			require.InDelta(t, math.Sqrt(scale/m.shape*(spread+mat.Dot(x, &to))), wide, 1e-9)
		}
	}
	require.Equal(
		t,
		map[float64]bool{49: true, 70: true, 99: true, 140: true, 198: true},
		seen,
		"more than one spread is the best of some studio",
	)
}

// What is drawn for dates is drawn from what was learned: the mean and the covariance of the beliefs are
// those of the coefficients, also for a student who was not observed.
func TestBeliefsAreDrawnFromWhatWasLearned(t *testing.T) {
	p := DefaultPrior()
	random := rand.New(rand.NewPCG(4, 77))
	tr := drawn(p, random)
	var obs []Observation
	for i := range 12 {
		name, effect := fmt.Sprint("s", i), tr.noise*3*tr.normal.Rand()
		for range 5 {
			o := anyPiece(random, name)
			o.Weeks = tr.weeks(effect, o)
			obs = append(obs, o)
		}
	}
	m := Fit(obs, p)
	require.Greater(t, m.Spread(), 1.0)
	const draws = 40000
	variance := m.scale / (m.shape - 1) // the mean of an inverse gamma
	for _, who := range []string{"s3", "new"} {
		beliefs := m.beliefs(who, draws, 9)
		var mean, second [fixed]float64
		noise := 0.0
		for _, b := range beliefs {
			for i, v := range []float64{b.base, b.leap, b.length} {
				mean[i] += v / draws
			}
			noise += b.noise * b.noise / draws
		}
		for _, b := range beliefs {
			for i, v := range []float64{b.base, b.leap, b.length} {
				second[i] += (v - mean[i]) * (v - mean[i]) / draws
			}
		}
		want := [fixed]float64{m.mean.AtVec(0), m.mean.AtVec(1), m.mean.AtVec(2)}
		wide := [fixed]float64{m.cov.At(0, 0), m.cov.At(1, 1), m.cov.At(2, 2)}
		if at, known := m.students[who]; known {
			want[0] += m.mean.AtVec(at)
			wide[0] += 2*m.cov.At(0, at) + m.cov.At(at, at)
		} else {
			wide[0] += m.Spread() * m.Spread()
		}
		// How the constant goes with leap and length: what one explains the other need not.
		for j := 1; j < fixed; j++ {
			got, wanted := 0.0, m.cov.At(0, j)
			for _, b := range beliefs {
				got += (b.base - mean[0]) * ([]float64{b.base, b.leap, b.length}[j] - mean[j]) / draws
			}
			if at, known := m.students[who]; known {
				wanted += m.cov.At(at, j)
			}
			require.InDelta(t, 1, got/(variance*wanted), 0.1, "%s 0 %d", who, j)
		}
		require.InDelta(t, 1, noise/variance, 0.02)
		for i := range fixed {
			require.InDelta(t, want[i], mean[i], 0.02, "%s %d", who, i)
			require.InDelta(t, 1, second[i]/(variance*wide[i]), 0.05, "%s %d", who, i)
		}
	}
}

// Too early to say: fewer than three pieces of one's own and twenty of others, or a range that says nothing.
func TestWhenItIsTooEarlyToSay(t *testing.T) {
	for _, x := range []struct {
		r    Range
		want bool
	}{
		{Range{Low: 2, High: 5, Own: 3}, false}, {Range{Low: 2, High: 5, Own: 2, Others: 19}, true},
		{Range{Low: 2, High: 5, Own: 0, Others: 20}, false},
		{Range{Low: 2, High: 12, Own: 9}, false}, {Range{Low: 2, High: 12.1, Own: 9}, true}, {Range{Low: 0.5, High: 6, Own: 9}, false},
		{Range{Low: 0.5, High: 6.1, Own: 9}, true},
	} {
		require.Equal(t, x.want, x.r.Early(), "%v", x.r)
		require.Equal(t, x.want && x.r.Own >= 3, x.r.Wide(), "%v", x.r)
	}
	low, high := Range{Low: 1.9, High: 4.1}.Whole()
	require.Equal(t, []int{1, 5}, []int{low, high})
}

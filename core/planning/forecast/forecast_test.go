package forecast

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat"
)

// Anscombe's first data set (The American Statistician 27, 1973): the line
// 3.00 + 0.500 x with a residual standard error of 1.237.
var anscombeX = []float64{10, 8, 13, 9, 11, 14, 6, 4, 12, 7, 5}
var anscombeY = []float64{8.04, 6.95, 7.58, 8.81, 8.33, 9.96, 7.24, 4.26, 10.84, 4.82, 5.68}

// vague knows next to nothing, and holds the length and the students at zero.
func vague() Prior {
	return Prior{Spread: [3]float64{1e4, 1e4, 1e-6}, StudentSpread: 1e-6, NoiseShape: -1, NoiseScale: 0}
}

// With a vague prior the forecast is least squares: the published line, the
// same line by gonum, and the textbook interval for a new observation
// (t with n−2 degrees of freedom, s²·(1 + 1/n + (x−mean)²/Sxx)).
func TestAVaguePriorIsLeastSquares(t *testing.T) {
	var obs []Observation
	for i, x := range anscombeX {
		obs = append(obs, Observation{Student: "s", Leap: x, Weeks: math.Exp(anscombeY[i])})
	}
	m := Fit(obs, vague())
	require.InDelta(t, 3.00, m.mean.AtVec(0), 0.005)
	require.InDelta(t, 0.500, m.mean.AtVec(1), 0.0005)
	alpha, beta := stat.LinearRegression(anscombeX, anscombeY, nil, false)
	require.InDelta(t, alpha, m.mean.AtVec(0), 1e-5)
	require.InDelta(t, beta, m.mean.AtVec(1), 1e-6)

	n := float64(len(anscombeX))
	mean, variance := stat.MeanVariance(anscombeX, nil)
	rss := 0.0
	for i, x := range anscombeX {
		r := anscombeY[i] - alpha - beta*x
		rss += r * r
	}
	s := math.Sqrt(rss / (n - 2))
	require.InDelta(t, 1.237, s, 0.001)
	for _, x := range []float64{4, 9, 13} {
		centre, scale := m.predictive("s", x, 0)
		require.InDelta(t, alpha+beta*x, centre, 1e-5)
		d := x - mean
		require.InDelta(t, s*math.Sqrt(1+1/n+d*d/(variance*(n-1))), scale, 1e-4)
	}
	require.InDelta(t, n-2, 2*m.shape, 1e-9, "degrees of freedom")
}

// With nothing observed the forecast is the prior's own.
func TestWithoutDataItIsThePrior(t *testing.T) {
	p := DefaultPrior()
	m := Fit(nil, p)
	centre, scale := m.predictive("anyone", 2, 8)
	require.InDelta(t, p.Mean[0]+2*p.Mean[1]+p.Mean[2], centre, 1e-12)
	spread := 1 + p.Spread[0]*p.Spread[0] + 4*p.Spread[1]*p.Spread[1] + p.Spread[2]*p.Spread[2] + p.StudentSpread*p.StudentSpread
	require.InDelta(t, math.Sqrt(p.NoiseScale/p.NoiseShape*spread), scale, 1e-9)
	r := m.Weeks("anyone", 0, 0)
	require.GreaterOrEqual(t, r.Low, 1.0, "never under a week")
	require.Less(t, r.Low, r.High)
	require.Zero(t, r.Own+r.Others, "it rests on no piece")
}

// Studios drawn from the prior, with known truth: four of five forecasts hold.
func TestTheRangeHoldsFourTimesOfFive(t *testing.T) {
	p := DefaultPrior()
	random := rand.New(rand.NewPCG(5, 14))
	held, all := 0, 0
	said, kept, hoped := map[Sure]int{}, map[Sure]int{}, map[Sure]float64{}
	for range 1500 {
		tr := drawn(p, random)
		var obs []Observation
		effects := map[string]float64{}
		for _, student := range []string{"a", "b", "c", "d"} {
			effects[student] = tr.noise * p.StudentSpread * tr.normal.Rand()
			for range random.IntN(12) {
				o := anyPiece(random, student)
				o.Weeks = tr.weeks(effects[student], o)
				obs = append(obs, o)
			}
		}
		m := Fit(obs, p)
		for _, student := range []string{"a", "b", "c", "d"} {
			effect := effects[student]
			o := anyPiece(random, student)
			w := math.Max(1, tr.weeks(effect, o))
			r := m.Weeks(student, o.Leap, o.DistinctBars)
			if w >= r.Low && w <= r.High {
				held++
			}
			all++
			said[r.Sure()]++
			hoped[r.Sure()] += r.Share
			if n := int(math.Round(w)); n >= r.From && n <= r.To {
				kept[r.Sure()]++
			}
		}
	}
	// What is said in whole weeks holds as its word says.
	for _, sure := range []Sure{Often, Usually, NearlyAlways} {
		of, n := float64(kept[sure])/float64(said[sure]), float64(said[sure])
		t.Logf("%d of %d whole ranges of kind %d hold: %.3f, said %.3f", kept[sure], said[sure], sure, of, hoped[sure]/n)
		require.InDelta(t, hoped[sure]/n, of, 0.03)
	}
	require.InDelta(t, 0.8, float64(kept[Usually])/float64(said[Usually]), 0.04)
	require.Greater(t, said[Usually], all/3)
	share := float64(held) / float64(all)
	t.Logf("%d of %d forecasts hold: %.1f %%", held, all, 100*share)
	require.Greater(t, share, 0.76)
	require.Less(t, share, 0.84)
}

// A student who takes long is forecast longer, but drawn towards the others;
// a bigger leap never shortens a forecast learned from such pieces.
func TestStudentsAreShrunk(t *testing.T) {
	var obs []Observation
	for i := range 12 {
		leap := float64(i%4) / 2
		obs = append(
			obs,
			Observation{Student: "quick", Leap: leap, DistinctBars: 8, Weeks: 1 + leap},
			Observation{Student: "others", Leap: leap, DistinctBars: 8, Weeks: 2 + leap},
		)
	}
	obs = append(obs, Observation{Student: "slow", Leap: 1, DistinctBars: 8, Weeks: 9})
	m := Fit(obs, DefaultPrior())
	quick, slow, fresh := m.Weeks("quick", 1, 8), m.Weeks("slow", 1, 8), m.Weeks("new", 1, 8)
	require.Less(t, quick.Median, fresh.Median)
	require.Less(t, fresh.Median, slow.Median)
	require.Less(t, slow.Median, 9.0, "one slow piece does not make a slow student")
	require.Less(t, m.Weeks("quick", 0, 8).Median, m.Weeks("quick", 2, 8).Median)
	require.Equal(t, []int{1, 24}, []int{slow.Own, slow.Others})
	require.Equal(t, []int{0, 25}, []int{fresh.Own, fresh.Others})
}

// The students of some studios differ more than is usual, or less: how much is learned, so that four of five forecasts
// hold for a new student as well.
func TestTheRangeHoldsForNewStudentsOfAVariedStudio(t *testing.T) {
	p := DefaultPrior()
	for name, spread := range map[string]float64{"as usual": 0.7, "varied": 1.6, "alike": 0.3} {
		random := rand.New(rand.NewPCG(9, uint64(spread*10)))
		held, all, learned := 0, 0, 0.0
		for range 400 {
			tr := drawn(p, random)
			var obs []Observation
			for i := range 14 {
				student := string(rune('a' + i))
				effect := tr.noise * spread * tr.normal.Rand()
				for range 4 + random.IntN(8) {
					o := anyPiece(random, student)
					o.Weeks = tr.weeks(effect, o)
					obs = append(obs, o)
				}
			}
			m := Fit(obs, p)
			learned += m.spread / 400
			for range 4 {
				o := anyPiece(random, "new")
				w := math.Max(1, tr.weeks(tr.noise*spread*tr.normal.Rand(), o))
				if r := m.Weeks("new", o.Leap, o.DistinctBars); w >= r.Low && w <= r.High {
					held++
				}
				all++
			}
		}
		share := float64(held) / float64(all)
		t.Logf("%s: %.1f %% hold; a spread of %.2f was learned", name, 100*share, learned)
		require.Greater(t, share, 0.76, name)
		require.Less(t, share, 0.84, name)
	}
}

// With two students nothing is learned of how much they differ.
func TestTwoStudentsTellNothingOfTheirSpread(t *testing.T) {
	obs := []Observation{{Student: "a", Leap: 1, Weeks: 1}, {Student: "b", Leap: 1, Weeks: 9}}
	require.Equal(t, 0.7, Fit(obs, DefaultPrior()).spread)
	require.Equal(t, 0.7, Fit(nil, DefaultPrior()).spread)
	require.Equal(t, []float64{0.7}, Prior{StudentSpread: 0.7}.spreads(9))
}

package learning

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/mat"
	"gonum.org/v1/gonum/stat/distuv"

	"patientladder/core/base/civil"
	"patientladder/core/planning/forecast"
	"patientladder/core/student/memory"
)

var monday = time.Date(2026, 5, 4, 15, 0, 0, 0, time.UTC)

// world makes pieces of whose truth all is known.
type world struct {
	r *rand.Rand
	// factor is how many times the table's weight each skill asks for.
	factor map[string]float64
	// noise draws what is left to chance, drift is added as time goes on, missed is how often a week is lost.
	noise  func() float64
	drift  float64
	missed float64
}

func newWorld(seed uint64, spread float64) *world {
	w := &world{r: rand.New(rand.NewPCG(seed, 7)), factor: map[string]float64{}}
	for i := range 30 {
		w.factor[fmt.Sprint("skill", i)] = math.Max(0.4, math.Min(2.5, 1+spread*w.r.NormFloat64()))
	}
	w.noise = func() float64 { return 0.35 * w.r.NormFloat64() }
	return w
}

// pieces are so many, of ten students, one after another.
func (w *world) pieces(n int) []Cleared {
	student := map[int]float64{}
	for i := range 10 {
		student[i] = 0.25 * w.r.NormFloat64()
	}
	var out []Cleared
	for i := range n {
		who := w.r.IntN(10)
		c := Cleared{
			Day:         monday.AddDate(0, 0, i),
			Parts:       map[string]float64{},
			Observation: forecast.Observation{Student: fmt.Sprint("s", who), DistinctBars: 4 + w.r.IntN(20)},
		}
		truth := 0.0
		for range 1 + w.r.IntN(4) {
			id := fmt.Sprint("skill", w.r.IntN(30))
			added := []float64{1, 0.4, 0.3}[w.r.IntN(3)]
			c.Parts[id] += added
			c.Leap += added
			truth += added * w.factor[id]
		}
		c.Weeks = math.Exp(
			0.1 + 0.35*truth + 0.25*math.Log2(1+float64(c.DistinctBars)/8) + student[who] + w.drift*float64(i)/float64(n) + w.noise(),
		)
		if w.r.Float64() < w.missed {
			c.Weeks++
		}
		out = append(out, c)
	}
	return out
}

// gain is how much better the unseen ones are foretold by what would be used: what was learned where it foretells better, else the table.
func gain(seen, unseen []Cleared) float64 {
	if !Learn(seen).Better {
		return 0
	}
	prior := priorOf(seen)
	with, without := fit(seen, prior, true), fit(seen, prior, false)
	sum := 0.0
	for _, c := range unseen {
		sum += with.chance(c) - without.chance(c)
	}
	return sum / float64(len(unseen))
}

// Without skills the regression is that of the forecasts, which is checked there against least squares and by simulation.
func TestWithoutSkillsItIsTheForecast(t *testing.T) {
	seen := newWorld(1, 0.5).pieces(60)
	var observed []forecast.Observation
	for _, c := range seen {
		observed = append(observed, c.Observation)
	}
	model, own := forecast.Fit(observed, forecast.DefaultPrior()), fit(seen, priorOf(seen), false)
	for _, student := range []string{"s0", "s7", "new"} {
		want := model.Weeks(student, 2.2, 12)
		d := own.foretold(Cleared{Observation: forecast.Observation{Student: student, Leap: 2.2, DistinctBars: 12}})
		require.InDelta(t, want.Median, math.Exp(d.Mu), 1e-9)
		require.InDelta(t, want.High, math.Exp(d.Quantile(0.9)), 1e-9)
	}
}

// Drawn towards the table as ridge regression does: the mean is that of least squares (gonum's QR) with one row more for
// each coefficient's prior, weighted by its precision. (Gelman et al., Bayesian Data Analysis, 3rd edition, section 14.8:
// "including prior information as additional data points"; from memory.)
func TestSkillsAreDrawnTowardsTheTable(t *testing.T) {
	prior := forecast.DefaultPrior()
	seen := newWorld(2, 0.8).pieces(80)
	f := fit(seen, prior, true)
	n := f.mean.Len()
	rows, y := mat.NewDense(len(seen)+n, n, nil), mat.NewVecDense(len(seen)+n, nil)
	for i, c := range seen {
		at, x := f.row(c)
		for k := range at {
			rows.Set(i, at[k], x[k])
		}
		y.SetVec(i, math.Log(math.Max(c.Weeks, 1)))
	}
	for name, i := range f.column {
		spread := prior.StudentSpread
		if name[0] == 'k' {
			spread = f.spread()
		}
		rows.Set(len(seen)+i, i, 1/spread)
	}
	for i := range fixed {
		rows.Set(len(seen)+i, i, 1/prior.Spread[i])
		y.SetVec(len(seen)+i, prior.Mean[i]/prior.Spread[i])
	}
	var least mat.VecDense
	require.NoError(t, least.SolveVec(rows, y))
	for i := range n {
		require.InDelta(t, least.AtVec(i), f.mean.AtVec(i), 1e-8)
	}
	require.InDelta(t, 0.5*0.3/math.Sqrt(0.75/4), f.spread(), 1e-12)
}

// One normal mean with a known spread, as in the textbook (Gelman et al., Bayesian Data Analysis, 3rd edition, section
// 2.5, from memory): the mean lies between the prior's and the data's, each weighted by its precision. With the noise's own
// spread taken out, a single skill with n pieces is that case.
func TestShrinkageOfOneSkill(t *testing.T) {
	prior := forecast.DefaultPrior()
	prior.Spread = [3]float64{1e-6, 1e-6, 1e-6} // the rest is known
	prior.StudentSpread = 1e-6
	for _, n := range []int{1, 4, 25} {
		var seen []Cleared
		const effect = 0.3 // beyond the table, in logarithms of weeks for each unit added
		for range n {
			c := Cleared{Parts: map[string]float64{"x": 1}, Observation: forecast.Observation{Student: "s", Leap: 1, DistinctBars: 8}}
			c.Weeks = math.Exp(prior.Mean[0] + prior.Mean[1] + prior.Mean[2] + effect)
			seen = append(seen, c)
		}
		f := fit(seen, prior, true)
		precision := 1 / (f.spread() * f.spread())
		require.InDelta(t, effect*float64(n)/(float64(n)+precision), f.mean.AtVec(f.column["k:x"]), 1e-6, "%d pieces", n)
	}
}

// On a studio whose skills are known, what is learned comes near the truth, and foretells unseen pieces better from two
// hundred on; with up to twenty nothing is used, so that it cannot be worse.
func TestLearnedWeightsComeNearTheTruth(t *testing.T) {
	few, many := 0.0, 0.0
	held, all30 := 0, 0
	for seed := range uint64(12) {
		w := newWorld(seed, 0.6)
		all := w.pieces(900)
		for _, n := range []int{0, 1, 5, 20} {
			require.False(t, Learn(all[:n]).Better)
			few += gain(all[:n], all[600:])
		}
		many += gain(all[:400], all[600:]) / 12
		learned := Learn(all[:600])
		require.Equal(t, 600, learned.Seen)
		require.True(t, learned.Better)
		// What all skills have in common is the leap's own weight.
		mean := 0.0
		for _, f := range w.factor {
			mean += f / 30
		}
		off, table := 0.0, 0.0
		for _, x := range learned.Weights {
			truth := math.Max(smallest, math.Min(largest, w.factor[x.Skill]/mean))
			off += math.Abs(x.Factor - truth)
			table += math.Abs(1 - truth)
			if truth >= x.Low && truth <= x.High {
				held++
			}
			all30++
		}
		require.Less(t, off, 0.6*table, "nearer than the table by far")
	}
	require.InDelta(t, 0.8, float64(held)/float64(all30), 0.06, "four of five lie in their range")
	require.Zero(t, few)
	require.Greater(t, many, 0.01)
}

// Where the world is of another kind than the model believes, what is used is never worse than the table by more than noise.
func TestAnotherWorldIsNoWorse(t *testing.T) {
	for name, change := range map[string]func(*world){
		"the table is right": func(w *world) {
			for id := range w.factor {
				w.factor[id] = 1
			}
		},
		"heavy tails": func(w *world) {
			d := distuv.StudentsT{Sigma: 0.35, Nu: 3, Src: w.r}
			w.noise = d.Rand
		},
		"drift":        func(w *world) { w.drift = 0.5 },
		"missed weeks": func(w *world) { w.missed = 0.3 },
	} {
		sum := 0.0
		for seed := range uint64(12) {
			w := newWorld(100+seed, 0.4)
			change(w)
			all := w.pieces(500)
			sum += gain(all[:250], all[250:]) / 12
		}
		require.Greater(t, sum, -0.01, name)
	}
}

// Four of five pieces lie in the ranges, for students who are known and for new ones of a varied studio.
func TestRangesHold(t *testing.T) {
	known, strangers, n, m := 0, 0, 0, 0
	for seed := range uint64(20) {
		w := newWorld(200+seed, 0.5)
		all := w.pieces(600)
		f := fit(all[:400], priorOf(all[:400]), true)
		for _, c := range all[400:] {
			y := math.Log(math.Max(c.Weeks, 1))
			d := f.foretold(c)
			if y >= d.Quantile(0.1) && y <= d.Quantile(0.9) {
				known++
			}
			n++
			c.Student = "new"
			d = f.foretold(c)
			if y >= d.Quantile(0.1) && y <= d.Quantile(0.9) {
				strangers++
			}
			m++
		}
	}
	require.InDelta(t, 0.8, float64(known)/float64(n), 0.04)
	require.GreaterOrEqual(t, float64(strangers)/float64(m), 0.76)
}

func TestVerdict(t *testing.T) {
	row := func(n int, gain, spread float64) (out []float64) {
		for i := range n {
			out = append(out, gain+spread*float64(1-2*(i%2)))
		}
		return out
	}
	require.Equal(t, Verdict{}, verdict(nil))
	require.False(t, verdict(row(18, 1, 0)).Better, "eighteen are too few")
	require.True(t, verdict(row(20, 1, 0.5)).Better)
	v := verdict(row(20, 0.1, 1))
	require.False(t, v.Better, "within its doubt")
	require.InDelta(t, math.Sqrt(20.0/19/20), v.Doubt, 1e-12)
	require.False(t, verdict(row(20, -1, 0.1)).Better)
	require.Nil(t, unseen(10))
	require.Equal(t, []int{10}, unseen(11)[:1])
	require.Equal(t, []int{10, 20, 30, 40, 50, 60, 70, 80}, unseen(90))
}

// The memory of a studio that holds so many times as long as the published one is found again, by enough hearings; few
// hearings change nothing that is used.
func TestTheScaleOfTheMemory(t *testing.T) {
	p := memory.DefaultParams()
	histories := func(r *rand.Rand, pieces int, scale float64) (out [][]Heard) {
		truth := p.Scaled(scale)
		curve := truth.Curve()
		for i := range pieces {
			at := monday.AddDate(0, 0, i)
			h := []Heard{{At: at, On: civil.On(at), Rating: memory.Solid}}
			state := curve.Next(memory.State{}, 0, memory.Solid)
			for range 5 {
				days := 3 + r.IntN(40)
				at = at.AddDate(0, 0, days)
				rating := memory.Solid
				if r.Float64() > curve.Recall(state, float64(days)) {
					rating = memory.FellApart
				}
				h = append(h, Heard{At: at, On: civil.On(at), Rating: rating, Rated: true})
				state = curve.Next(state, days, rating)
			}
			out = append(out, h)
		}
		return out
	}
	for _, scale := range []float64{0.4, 1, 2.2} {
		r := rand.New(rand.NewPCG(5, uint64(scale*10)))
		f := LearnFade(histories(r, 200, scale), p)
		require.Equal(t, 1000, f.Heard)
		require.InDelta(t, math.Log(scale), math.Log(f.Scale), 0.25, "%.1f", scale)
		require.LessOrEqual(t, f.Low, scale*1.06)
		require.GreaterOrEqual(t, f.High, scale*0.94)
		require.Equal(t, scale < 1, f.Better && f.Scale < 0.9, "%.1f: gain %.4f doubt %.4f", scale, f.Gain, f.Doubt)
	}
	none := LearnFade(nil, p)
	require.InDelta(t, 1, none.Scale, 1e-9)
	require.Equal(t, []any{0, false}, []any{none.Heard, none.Better})
	require.InDelta(t, math.Exp(-0.6408), none.Low, 0.06, "a tenth of the prior, 1.2816 standard deviations of a half below")
	few := LearnFade(histories(rand.New(rand.NewPCG(1, 1)), 4, 0.2), p)
	require.False(t, few.Better, "twenty hearings, ten of them foretold")
}

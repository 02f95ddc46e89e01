package forecast

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat/distuv"
)

// truth is a studio drawn from the prior.
type truth struct {
	b      [fixed]float64
	noise  float64
	normal distuv.Normal
}

func drawn(p Prior, random *rand.Rand) truth {
	normal := distuv.Normal{Sigma: 1, Src: random}
	tr := truth{noise: math.Sqrt(1 / distuv.Gamma{Alpha: p.NoiseShape, Beta: p.NoiseScale, Src: random}.Rand()), normal: normal}
	for i := range tr.b {
		tr.b[i] = p.Mean[i] + tr.noise*p.Spread[i]*normal.Rand()
	}
	return tr
}

func (tr truth) weeks(effect float64, o Observation) float64 {
	x := row(o)
	return math.Exp(tr.b[0]*x[0] + tr.b[1]*x[1] + tr.b[2]*x[2] + effect + tr.noise*tr.normal.Rand())
}

func anyPiece(random *rand.Rand, student string) Observation {
	return Observation{Student: student, Leap: 3 * random.Float64(), DistinctBars: 4 + random.IntN(28)}
}

// Five thousand simulated students with known truth: the ranges of the dates by
// which they have cleared a piece in work and three more hold four times of five.
// Where in its range of whole lessons the truth falls is split at the ends, as
// is usual for whole numbers.
func TestDatesHoldFourTimesOfFive(t *testing.T) {
	p := DefaultPrior()
	random := rand.New(rand.NewPCG(3, 8))
	held, all := 0.0, 0.0
	for all < 5000 {
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
	students:
		for _, student := range []string{"a", "b", "c", "d"} {
			effect := effects[student]
			lane := []Stage{}
			cleared := int32(0)
			for i := range 4 {
				o := anyPiece(random, student)
				s := Stage{ID: fmt.Sprint(random.Uint64()), Leap: o.Leap, DistinctBars: o.DistinctBars}
				w := tr.weeks(effect, o)
				if i == 0 { // in work for some weeks, and not cleared yet
					s.Begun, s.Elapsed = true, float64(random.IntN(3))
					if w <= s.Elapsed-0.5 {
						continue students // cleared before: nothing is in work
					}
					cleared = int32(math.Max(0, math.Round(math.Max(w, 1)-s.Elapsed)))
				} else {
					cleared += int32(math.Max(1, math.Round(w)))
				}
				lane = append(lane, s)
			}
			course := m.Paths(student, []Lane{{Stages: lane}}, Draws, 11)[0][3]
			below, at := 0.0, 0.0
			for _, c := range course.Clear {
				if c < cleared {
					below++
				} else if c == cleared {
					at++
				}
			}
			// The rank of the truth among the draws, ties split by chance.
			rank := (below + at*random.Float64()) / float64(Draws)
			if rank >= 0.1 && rank <= 0.9 {
				held++
			}
			all++
			span := SpanOf(course.Clear)
			require.LessOrEqual(t, span.Low, span.Median)
			require.LessOrEqual(t, span.Median, span.High)
		}
	}
	t.Logf("%.0f of %.0f dates hold: %.1f %%", held, all, 100*held/all)
	require.Greater(t, held/all, 0.76)
	require.Less(t, held/all, 0.84)
}

// One piece alone has the range of the closed form, to the grain of a lesson.
func TestOnePieceAgreesWithTheClosedForm(t *testing.T) {
	obs := []Observation{}
	random := rand.New(rand.NewPCG(1, 2))
	tr := drawn(DefaultPrior(), random)
	for range 20 {
		o := anyPiece(random, "a")
		o.Weeks = tr.weeks(0.2, o)
		obs = append(obs, o)
	}
	m := Fit(obs, DefaultPrior())
	for _, student := range []string{"a", "new"} {
		r := m.Weeks(student, 2, 16)
		s := SpanOf(m.Paths(student, []Lane{{Stages: []Stage{{ID: "x", Leap: 2, DistinctBars: 16}}}}, 20000, 5)[0][0].Clear)
		require.InDelta(t, r.Low, s.Low, 0.75)
		require.InDelta(t, r.Median, s.Median, 0.75)
		require.InDelta(t, r.High, s.High, 0.12*r.High+0.5)
	}
}

func TestLanes(t *testing.T) {
	m := Fit(nil, DefaultPrior())
	lane := []Stage{{ID: "a", Begun: true, Elapsed: 2}, {ID: "b", Begun: true, Elapsed: 40}, {ID: "c"}, {ID: "d", Leap: 1}, {ID: "e"}}
	courses := m.Paths("s", []Lane{{Stages: lane}, {From: 3, Stages: []Stage{{ID: "f"}}}}, 300, 1)
	for d := range 300 {
		a, b, c, e := courses[0][0], courses[0][1], courses[0][2], courses[0][4]
		require.Equal(t, min(a.Clear[d], b.Clear[d]), c.Begin[d], "the next begins when the first of those in work is cleared")
		require.Greater(t, c.Clear[d], c.Begin[d])
		require.GreaterOrEqual(t, e.Begin[d], c.Begin[d])
	}
	require.EqualValues(t, 3, courses[1][0].Begin[7], "nothing in work: from the lesson that was given")
	again := m.Paths("s", []Lane{{Stages: append(lane[:2:2], lane[3], lane[4])}}, 300, 1)
	for d := range 300 { // what a piece takes is its own, wherever it stands
		require.Equal(t, courses[0][3].Clear[d]-courses[0][3].Begin[d], again[0][2].Clear[d]-again[0][2].Begin[d])
	}
}

// A target date, worked backwards: counted by hand.
func TestTargets(t *testing.T) {
	c := Course{Begin: []int32{4, 4, 5, 5, 6}, Clear: []int32{5, 6, 8, 9, 11}} // takes 1, 2, 3, 4, 5
	require.InDelta(t, 0.6, Ready(c.Clear, 1, 9), 1e-12)
	require.Zero(t, Ready(nil, 0, 9))
	start, ok := LatestStart(c, 1, 9, 0.8)
	require.True(t, ok)
	require.Equal(t, 4, start, "four lessons and one of polishing before the ninth")
	_, ok = LatestStart(c, 1, 3, 0.8)
	require.False(t, ok)
	start, _ = LatestStart(c, 1, 9, 0.2)
	require.Equal(t, 7, start)
}

// The search for a number of weeks begins near its end and finds what rounding finds, at every border and beside it.
func TestWeeksAreRoundedWhereverTheSearchBegins(t *testing.T) {
	for n := 1; n < 200; n++ {
		border := math.Log(float64(n) + 0.5)
		require.Equal(t, int32(n), weeks(border-1e-9), "just below %d and a half", n)
		require.Equal(t, int32(n+1), weeks(border+1e-9), "just above %d and a half", n)
		require.Equal(t, int32(n), weeks(math.Log(float64(n))))
	}
	for x := -3.0; x < 6; x += 0.001 {
		require.Equal(t, int32(max(1, math.Round(math.Exp(x)))), weeks(x), "%g", x)
	}
	require.Equal(t, int32(longest), weeks(99))
}

// Counted by hand: of so many draws at equal steps through the heap of weights,
// each falls on the belief whose part of the heap it meets.
func TestBeliefsAreTakenAsOftenAsTheyWeigh(t *testing.T) {
	taken := func(weight ...float64) []float64 {
		beliefs := make([]belief, len(weight))
		for i := range beliefs {
			beliefs[i].base = float64(i)
		}
		var out []float64
		for _, b := range resampled(beliefs, weight) {
			out = append(out, b.base)
		}
		return out
	}
	require.Equal(t, []float64{0, 1, 2, 3}, taken(2, 2, 2, 2), "what weighs the same stays")
	require.Equal(t, []float64{1, 2, 3, 3}, taken(0.1, 0.2, 0.3, 0.4))
	require.Equal(t, []float64{0, 1}, taken(0.4, 0.6))
	require.Equal(t, []float64{1, 1}, taken(0.2, 0.8))
	require.Equal(t, []float64{2, 2, 2, 2}, taken(0, 0, 0.001, 0))
	require.Equal(t, []float64{0, 1, 2}, taken(0, 1e-12, 0), "beyond anything foreseen nothing is told")
}

// Without noise the courses can be counted by hand: pieces of ten weeks each.
func TestCoursesWithoutNoise(t *testing.T) {
	sure := []belief{{base: math.Log(10), noise: 1e-9}}
	courses := run(Lane{From: 2, Stages: []Stage{
		{ID: "a", Begun: true, Elapsed: 4}, {ID: "b", Begun: true, Elapsed: 8}, {ID: "c"}, {ID: "d"}, {ID: "e"},
	}}, sure, 1)
	var begin, clear []int32
	for _, c := range courses {
		begin, clear = append(begin, c.Begin...), append(clear, c.Clear...)
	}
	require.Equal(t, []int32{0, 0, 2, 6, 12}, begin, "each begins where the first hand is free")
	require.Equal(t, []int32{6, 2, 12, 16, 22}, clear)

	far := Lane{From: 2, Stages: []Stage{{ID: "a"}, {ID: "b"}, {ID: "c"}, {ID: "d"}}}
	far.Least, far.Beyond = 1, 12
	require.Len(t, run(far, sure, 1), 3, "2, 12 and 22: what comes after the first beyond the twelfth lesson is left out")
	far.Least = 4
	require.Len(t, run(far, sure, 1), 4, "but not of the first four")
}

// What remains of a piece, to the quantile: the same luck in what is left of the distribution.
func TestWhatRemainsOfAPiece(t *testing.T) {
	random := func() *rand.Rand { return rand.New(rand.NewPCG(3, 4)) }
	u := random().Float64()
	// Nothing known: the quantile itself, less what has gone by.
	all := distuv.LogNormal{Mu: math.Log(12), Sigma: 0.5}
	require.EqualValues(t, math.Round(all.Quantile(u)-0.25), remaining(random(), math.Log(12), 0.5, 0.25, math.Inf(-1)))
	// Six weeks are known not to have been enough.
	u = all.CDF(6) + u*(1-all.CDF(6))
	require.EqualValues(t, math.Round(all.Quantile(u)-6.5), remaining(random(), math.Log(12), 0.5, 6.5, math.Log(6)))
	// Long past anything foreseen: the next lesson but one.
	require.EqualValues(t, 1, remaining(random(), 0, 0.1, 50, math.Log(49.5)))
	// A piece quicker than a week takes a week, and none ends before the next lesson.
	require.EqualValues(t, 1, remaining(random(), -9, 0.1, 0, math.Inf(-1)))
	require.EqualValues(t, 0, remaining(random(), 0, 0.1, 4, math.Inf(-1)))
	require.EqualValues(t, longest, remaining(random(), 99, 0.1, 0, math.Inf(-1)))
}

// The tenth, the half and the nine tenths, by rank; few lessons are counted, many are sorted, with one result.
func TestRangesOfLessons(t *testing.T) {
	require.Equal(t, Span{}, SpanOf(nil))
	require.Equal(t, Span{7, 7, 7}, SpanOf([]int32{7}))
	require.Equal(t, Span{1, 3, 4}, SpanOf([]int32{4, 2, 1, 3}))
	require.Equal(t, Span{1, 5, 9}, SpanOf([]int32{10, 9, 8, 7, 6, 5, 4, 3, 2, 1, 0}))
	require.Equal(t, Span{100, 500, 900}, SpanOf([]int32{1000, 900, 800, 700, 600, 500, 400, 300, 200, 100, 0}))
	require.Equal(t, Span{0, 0, 256}, SpanOf([]int32{256, 0, 0, 0}), "the least that is sorted")
	require.Equal(t, Span{0, 0, 255}, SpanOf([]int32{255, 0, 0, 0}), "the most that is counted")
}

func TestWhetherTheMedianIsLater(t *testing.T) {
	require.False(t, medianAfter(nil, -1))
	random := rand.New(rand.NewPCG(5, 6))
	for range 500 {
		lessons := make([]int32, 1+random.IntN(6))
		for i := range lessons {
			lessons[i] = random.Int32N(8)
		}
		for lesson := range 9 {
			require.Equal(t, SpanOf(lessons).Median > lesson, medianAfter(lessons, lesson), "%v after %d", lessons, lesson)
		}
	}
}

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

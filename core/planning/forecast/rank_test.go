package forecast

import (
	"cmp"
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat"
)

// Eight students with a year of pieces behind them and leaps from 0 to 4.6: what the medians say of the pieces to come ranks
// as these come out, in a studio that is drawn from the prior, and in one that knows nothing of it, where every lesson gains a
// mark by chance, the more seldom the larger the leap.
func TestMediansRankHowLongPiecesTake(t *testing.T) {
	byMarks := func(random *rand.Rand) func(student int, o Observation) float64 {
		var pace [8]float64
		for i := range pace {
			pace[i] = 0.5 + random.Float64()
		}
		return func(student int, o Observation) float64 {
			marks := 2 + o.DistinctBars/8
			weeks := 0
			for got := 0; got < marks && weeks < 40; {
				weeks++
				for range 3 {
					if got < marks && random.Float64() < min(0.9, pace[student]/(1+0.7*o.Leap)) {
						got++
					}
				}
			}
			return float64(weeks)
		}
	}
	fromPrior := func(random *rand.Rand) func(student int, o Observation) float64 {
		p := DefaultPrior()
		tr := drawn(p, random)
		var effect [8]float64
		for i := range effect {
			effect[i] = tr.noise * p.StudentSpread * tr.normal.Rand()
		}
		return func(student int, o Observation) float64 { return math.Max(1, tr.weeks(effect[student], o)) }
	}
	for name, world := range map[string]func(*rand.Rand) func(int, Observation) float64{"drawn from the prior": fromPrior, "marks by chance": byMarks} {
		random := rand.New(rand.NewPCG(34, 1))
		sum := 0.0
		const studios = 60
		for range studios {
			weeks := world(random)
			var past []Observation
			piece := func(student int) Observation {
				return Observation{Student: string(rune('a' + student)), Leap: 4.6 * random.Float64(), DistinctBars: 4 + random.IntN(28)}
			}
			for student := range 8 {
				for range 12 {
					o := piece(student)
					o.Weeks = weeks(student, o)
					past = append(past, o)
				}
			}
			m := Fit(past, DefaultPrior())
			var said, came []float64
			for student := range 8 {
				for range 8 {
					o := piece(student)
					said, came = append(said, m.Weeks(o.Student, o.Leap, o.DistinctBars).Median), append(came, weeks(student, o))
				}
			}
			sum += stat.Correlation(placesOf(said), placesOf(came), nil) / studios
		}
		t.Logf("%s: rank correlation of medians and outcomes %.2f", name, sum)
		require.Greater(t, sum, 0.6, name)
	}
}

// placesOf are the places of values in their order, those of equal ones shared.
func placesOf(values []float64) []float64 {
	order := make([]int, len(values))
	for i := range order {
		order[i] = i
	}
	slices.SortFunc(order, func(a, b int) int { return cmp.Compare(values[a], values[b]) })
	out := make([]float64, len(values))
	for i := 0; i < len(order); {
		j := i
		for j < len(order) && values[order[j]] == values[order[i]] {
			j++
		}
		for _, k := range order[i:j] {
			out[k] = float64(i+j-1) / 2
		}
		i = j
	}
	return out
}

package week

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func TestHowMuchOfAPieceAnItemIsAbout(t *testing.T) {
	for _, x := range []struct {
		it         Item
		piece, all bool
	}{
		{Item{Kind: Whole}, true, true}, {Item{Kind: Chunk, Bars: Bars{From: 1, To: 8}}, true, true},
		{Item{Kind: Chunk, Bars: Bars{From: 1, To: 7}}, true, false}, {Item{Kind: Spot, Bars: Bars{From: 2, To: 8}}, true, false},
		{Item{Kind: Preview}, false, false}, {Item{Kind: Game}, false, false}, {Item{Kind: Drilled, Bars: Bars{From: 1, To: 8}}, false, false},
	} {
		piece, all := x.it.Covers(8)
		require.Equal(t, []bool{x.piece, x.all}, []bool{piece, all}, "%v", x.it)
	}
}

func TestBoxesToTick(t *testing.T) {
	for _, x := range []struct {
		it     Item
		n      int
		joined bool
	}{
		{Item{Kind: Chunk, Times: 5}, 5, false}, {Item{Kind: Chunk, Times: 3, InRow: true}, 3, true},
		{Item{Kind: Listen, Times: 2, InRow: true}, 0, false}, {Item{Kind: Look, InRow: true}, 0, false},
	} {
		n, joined := x.it.Boxes()
		require.Equal(t, []any{x.n, x.joined}, []any{n, joined}, "%v", x.it)
	}
}

// The days that were set in a week that a cancellation made longer are those of the plan that is read at home.
func TestStretchedDaysAreThoseOfThePlan(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		start := time.Date(2026, 5, 5, 0, 0, 0, 0, time.UTC)
		p := Plan{}
		for i := range rapid.SampledFrom([]int{7, 14}).Draw(t, "days") {
			d := Day{Date: start.AddDate(0, 0, i), Rest: rapid.Bool().Draw(t, "rest")}
			if i >= Days {
				d.Rest = p.Days[i-Days].Rest
			}
			if !d.Rest {
				d.Items = []Item{{Kind: Whole}}
			}
			p.Days = append(p.Days, d)
		}
		set := func(p Plan) (out []time.Time) {
			for _, d := range p.Days {
				if !d.Rest {
					out = append(out, d.Date)
				}
			}
			return out
		}
		long := rapid.IntRange(1, 40).Draw(t, "long")
		require.Equal(t, set(Stretched(p, long)), SetDays{Start: start, Days: set(p)}.Stretched(long).Days)
	})
}

func TestDaysOfEarlierWeeks(t *testing.T) {
	day := time.Date(2026, 5, 4, 0, 0, 0, 0, time.UTC)
	require.Equal(t, "2026-04-13", Ago(day, 3).Format(time.DateOnly))
	require.Equal(t, "2026-03-27", Reaching(day, 10).Format(time.DateOnly))
}

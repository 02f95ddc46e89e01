package memory

import (
	"encoding/json"
	"os"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// By its definition the stability is the number of days after which nine of ten are recalled.
func TestStabilityIsNineInTen(t *testing.T) {
	p := DefaultParams()
	for _, days := range []float64{0.5, 1, 10, 400} {
		require.InDelta(t, 0.9, p.Recall(State{Stability: days, Difficulty: 5}, days), 1e-12)
	}
	require.InDelta(t, 1, p.Recall(State{Stability: 3, Difficulty: 5}, 0), 1e-12)
	require.Zero(t, p.Recall(State{}, 4), "a piece never heard")
}

// The first hearing gives the first parameters themselves (published with the model).
func TestTheFirstHearing(t *testing.T) {
	p := DefaultParams()
	for r, want := range map[Rating]float64{FellApart: 0.212, Shaky: 1.2931, Solid: 2.3065, Easy: 8.2956} {
		require.InDelta(t, want, p.Next(State{}, 0, r).Stability, 1e-12)
	}
	require.Greater(t, p.Next(State{}, 0, FellApart).Difficulty, p.Next(State{}, 0, Easy).Difficulty)
}

// Whatever was heard: recall lies in range and falls with the days, a better
// rating never leaves less, and the state stays within its bounds.
func TestMemoriesHoldTogether(t *testing.T) {
	p := DefaultParams()
	rapid.Check(t, func(t *rapid.T) {
		var s State
		for range rapid.IntRange(1, 12).Draw(t, "hearings") {
			days := rapid.IntRange(0, 300).Draw(t, "days")
			worse := 0.0
			for r := FellApart; r <= Easy; r++ {
				next := p.Next(s, days, r)
				require.GreaterOrEqual(t, next.Stability, worse, "rating %d", r)
				worse = next.Stability
			}
			s = p.Next(s, days, Rating(rapid.IntRange(1, 4).Draw(t, "rating")))
			require.True(t, s.Stability >= least && s.Stability <= most)
			require.True(t, s.Difficulty >= 1 && s.Difficulty <= 10)
			last := 1.0
			for d := 0.0; d < 400; d += 20 {
				recall := p.Recall(s, d)
				require.True(t, recall > 0 && recall <= last)
				last = recall
			}
		}
	})
}

func TestRatingsBeyondTheScale(t *testing.T) {
	p := DefaultParams()
	require.Equal(t, p.Next(State{}, 0, FellApart), p.Next(State{}, 0, -3))
	require.Equal(t, p.Next(State{}, 0, Easy), p.Next(State{}, 0, 9))
}

// Source: ts-fsrs 5 (npm), the reference implementation of FSRS-6: what it makes of 27 histories of
// hearings, the last of pieces that were firm for months and then fell apart, and of one heard four times on a day. outside/ compares a thousand more with the library itself.
func TestHistoriesAsTheReferenceHasThem(t *testing.T) {
	data, err := os.ReadFile("testdata/ts-fsrs.json")
	require.NoError(t, err)
	var histories [][]struct {
		Days, Rating                  int
		Recall, Stability, Difficulty float64
	}
	require.NoError(t, json.Unmarshal(data, &histories))
	require.Len(t, histories, 27)
	p := DefaultParams()
	for i, history := range histories {
		var s State
		for k, h := range history {
			require.InDelta(t, h.Recall, p.Recall(s, float64(h.Days)), 1e-6, "history %d, hearing %d", i, k)
			s = p.Next(s, h.Days, Rating(h.Rating))
			require.InDelta(t, 1, s.Stability/h.Stability, 1e-6, "history %d, hearing %d: stability", i, k)
			require.InDelta(t, h.Difficulty, s.Difficulty, 1e-6, "history %d, hearing %d: difficulty", i, k)
		}
	}
}

func TestHowLongAPieceLasts(t *testing.T) {
	p := DefaultParams()
	require.InDelta(t, 1, p.Lasts(0.9), 1e-12, "in stabilities")
	for _, recall := range []float64{0.95, 0.8, 0.5} {
		require.InDelta(t, recall, p.Recall(State{Stability: 10, Difficulty: 5}, 10*p.Lasts(recall)), 1e-9)
	}
	require.True(t, State{Stability: 0.1}.Heard())
	require.False(t, State{}.Heard())
	c := p.Curve()
	require.Equal(t, p.Next(State{Stability: 3, Difficulty: 5}, 4, Solid), c.Next(State{Stability: 3, Difficulty: 5}, 4, Solid))
}

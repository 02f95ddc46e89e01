package setup

import (
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/library/instrument"
)

// Body measures from memory, to the centimetre: sitting elbow height and
// popliteal height (with 2 cm of shoe) of the middle adult (DIN 33402-2) and of
// the middle child of six (Snyder and others, Anthropometry of Infants, Children,
// and Youths, 1977). Keys at 73 cm and benches of 48 to 50 cm for adults are what
// is built (common practice, no source).
func TestHeightsForPublishedBodies(t *testing.T) {
	adult := Measures{KeyTop: 73, Elbow: 24, Leg: 46, BenchLow: 45, BenchHigh: 56, Lean: Level}
	r, err := adult.Work()
	require.NoError(t, err)
	require.True(t, r.Seat >= 48 && r.Seat <= 50, "the height that benches for adults have: %v", r.Seat)
	require.Empty(t, r.Mats)
	require.LessOrEqual(t, r.Platform, 3.0, "an adult's feet stand on the floor, or nearly")

	child := Measures{
		KeyTop:    73,
		Elbow:     16,
		Leg:       31,
		BenchLow:  45,
		BenchHigh: 50,
		Lean:      Level,
		Mats:      []Mat{{Thickness: 3}, {Thickness: 4}, {Thickness: 6, Soft: true}, {Thickness: 2}},
	}
	r, err = child.Work()
	require.NoError(t, err)
	require.Equal(t, 57.0, r.Seat)
	require.True(t, r.Possible)
	require.InDelta(t, 57, r.Bench+sum(r.Mats), Play)
	require.NotContains(t, r.Mats, 6.0)
	require.InDelta(t, 26, r.Platform, 1, "a child of six on an adult's bench needs a platform")
	require.Len(t, r.Refused, 1)
	require.Contains(t, r.Refused[0], "wobbles")
}

func TestWhatCannotBeDoneIsSaid(t *testing.T) {
	m := Measures{KeyTop: 73, Elbow: 14, Leg: 28, BenchLow: 48, BenchHigh: 48, Lean: Level}
	r, err := m.Work()
	require.NoError(t, err)
	require.False(t, r.Possible)
	require.Equal(t, -11.0, r.Off)
	require.Contains(t, r.Says[1], "11 cm too low")
	m = Measures{KeyTop: 70, Elbow: 28, Leg: 48, BenchLow: 48, BenchHigh: 56, Lean: Below}
	r, err = m.Work()
	require.NoError(t, err)
	require.Contains(t, r.Says[1], "Another bench or chair")

	for says, wrong := range map[string]Measures{
		"the lower leg must lie between 15 and 60 cm, not 3": {KeyTop: 73, Elbow: 20, Leg: 3, BenchLow: 45, BenchHigh: 50, Lean: Level},
		"the greatest height of the bench lies under":        {KeyTop: 73, Elbow: 20, Leg: 30, BenchLow: 55, BenchHigh: 50, Lean: Level},
		"is not a lean": {KeyTop: 73, Elbow: 20, Leg: 30, BenchLow: 45, BenchHigh: 50},
		"not NaN":       {KeyTop: math.NaN(), Elbow: 20, Leg: 30, BenchLow: 45, BenchHigh: 50, Lean: Level},
	} {
		_, err := wrong.Work()
		require.ErrorContains(t, err, says)
	}
}

// The forearm is level within the play whenever it is said to be possible, and
// no choice of the mats comes nearer.
func TestTheForearmComesOutLevel(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		m := Measures{
			KeyTop: float64(rapid.IntRange(60, 80).Draw(t, "keys")), Elbow: float64(rapid.IntRange(10, 30).Draw(t, "elbow")),
			Leg:      float64(rapid.IntRange(20, 50).Draw(t, "leg")),
			BenchLow: float64(rapid.IntRange(40, 50).Draw(t, "low")), Lean: rapid.SampledFrom([]Lean{Level, Above, Below}).Draw(t, "lean"),
		}
		m.BenchHigh = m.BenchLow + float64(rapid.IntRange(0, 10).Draw(t, "range"))
		for range rapid.IntRange(0, 4).Draw(t, "mats") {
			m.Mats = append(m.Mats, Mat{Thickness: float64(rapid.IntRange(1, 6).Draw(t, "thick"))})
		}
		r, err := m.Work()
		require.NoError(t, err)
		at := r.Bench + sum(r.Mats)
		require.True(t, r.Bench >= m.BenchLow && r.Bench <= m.BenchHigh)
		elbow := at + m.Elbow - m.KeyTop - leans[m.Lean]
		require.Equal(t, r.Possible, math.Abs(elbow) <= Play+1e-9)
		require.InDelta(t, r.Off, elbow, 1e-9)
		if r.Platform > 0 {
			require.InDelta(t, at-m.Leg, r.Platform, 0.5)
		}
		best := math.Inf(1)
		for set := range 1 << len(m.Mats) {
			sum := 0.0
			for i, mat := range m.Mats {
				if set>>i&1 == 1 {
					sum += mat.Thickness
				}
			}
			for b := m.BenchLow; b <= m.BenchHigh; b += 0.5 {
				best = math.Min(best, math.Abs(b+sum-r.Seat))
			}
		}
		require.InDelta(t, best, math.Abs(r.Off), 1e-9)
	})
}

func TestTheYoungAreMeasuredAgain(t *testing.T) {
	day := time.Date(2026, 9, 1, 0, 0, 0, 0, time.UTC)
	require.True(t, Due(time.Time{}, day, 40, Months))
	require.True(t, Due(day.AddDate(0, -7, 0), day, 6, Months))
	require.False(t, Due(day.AddDate(0, -2, 0), day, 6, Months))
	require.False(t, Due(day.AddDate(0, -7, 0), day, 40, Months))
	piano, _ := instrument.Of("piano")
	require.Len(t, Faults(piano), 9)
	require.NotEqual(t, Checks(AtKeys, Hanging), Checks(AtKeys, Ball))
}

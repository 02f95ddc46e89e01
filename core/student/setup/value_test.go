package setup

import (
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/instrument"
	"patientladder/core/technique/exercise"
)

// child sits 55 cm high, which this bench just reaches.
func child() Measures {
	return Measures{KeyTop: 73, Elbow: 18, Leg: 34, BenchLow: 46, BenchHigh: 55, Lean: Level}
}

func TestMeasuresHaveBounds(t *testing.T) {
	for name, set := range map[string]struct {
		low, high, step float64
		put             func(*Measures, float64)
	}{
		"the height of the keys":           {55, 90, 0.5, func(m *Measures, x float64) { m.KeyTop = x }},
		"the elbow above the seat":         {8, 35, 0.5, func(m *Measures, x float64) { m.Elbow = x }},
		"the lower leg":                    {15, 60, 0.5, func(m *Measures, x float64) { m.Leg = x }},
		"the lowest height of the bench":   {20, 55, 0.5, func(m *Measures, x float64) { m.BenchLow = x }},
		"the greatest height of the bench": {46, 80, 0.5, func(m *Measures, x float64) { m.BenchHigh = x }},
		"a mat":                            {0.2, 15, 0.1, func(m *Measures, x float64) { m.Mats = []Mat{{Thickness: x}} }},
	} {
		for _, x := range []float64{set.low, set.high} {
			m := child()
			set.put(&m, x)
			require.NoError(t, m.Check(), "%s of %g", name, x)
		}
		for _, x := range []float64{set.low - set.step, set.high + set.step} {
			m := child()
			set.put(&m, x)
			require.Error(t, m.Check(), "%s of %g", name, x)
		}
	}
	m := child()
	m.BenchLow = m.BenchHigh
	require.NoError(t, m.Check(), "a bench that cannot be set")
	m.Mats = make([]Mat, 8)
	for i := range m.Mats {
		m.Mats[i].Thickness = 1
	}
	require.NoError(t, m.Check())
	m.Mats = append(m.Mats, Mat{Thickness: 1})
	require.EqualError(t, m.Check(), "at most eight mats can be chosen from")
	m.Elbow = 36
	require.EqualError(t, m.Check(), "the elbow above the seat must lie between 8 and 35 cm, not 36; at most eight mats can be chosen from")
}

func TestHowToSitToTheWord(t *testing.T) {
	for _, c := range []struct {
		name  string
		set   func(*Measures)
		bench float64
		mats  []float64
		off   float64
		says  []string
	}{
		{"as it is", func(*Measures) {}, 55, nil, 0, []string{
			"Set the bench to 55 cm: the seat lies 18 cm under the keys, as the elbow is 18 cm above the seat.",
			"Put a platform of 21 cm under both feet: the lower leg is 34 cm, and feet that hang make the whole back hold on."}},
		{"the fewest mats of equal ones", func(m *Measures) { m.Elbow, m.Mats = 16, []Mat{{Thickness: 1}, {Thickness: 2}, {Thickness: 1}} }, 55, []float64{2}, 0, []string{
			"Set the bench to 55 cm and lay the firm mat of 2 cm on it: the seat lies 16 cm under the keys, as the elbow is 16 cm above the seat.",
			"Put a platform of 23 cm under both feet: the lower leg is 34 cm, and feet that hang make the whole back hold on."}},
		{"two mats", func(m *Measures) { m.Elbow, m.Mats = 16, []Mat{{Thickness: 1.5}, {Thickness: 0.5}} }, 55, []float64{1.5, 0.5}, 0, []string{
			"Set the bench to 55 cm and lay the firm mats of 1.5 and 0.5 cm on it: the seat lies 16 cm under the keys, as the elbow is 16 cm above the seat.",
			"Put a platform of 23 cm under both feet: the lower leg is 34 cm, and feet that hang make the whole back hold on."}},
		{"a thick mat, and the bench goes down", func(m *Measures) { m.Elbow, m.Mats = 16, []Mat{{Thickness: 5}} }, 52, []float64{5}, 0, []string{
			"Set the bench to 52 cm and lay the firm mat of 5 cm on it: the seat lies 16 cm under the keys, as the elbow is 16 cm above the seat.",
			"Put a platform of 23 cm under both feet: the lower leg is 34 cm, and feet that hang make the whole back hold on."}},
		{"thicker than the bench can give: rather none", func(m *Measures) { m.Elbow, m.Mats = 17, []Mat{{Thickness: 12}} }, 55, nil, -1, []string{
			"Set the bench to 55 cm: the seat lies 18 cm under the keys, as the elbow is 17 cm above the seat.",
			"Put a platform of 21 cm under both feet: the lower leg is 34 cm, and feet that hang make the whole back hold on."}},
		{"a centimetre too low is nothing", func(m *Measures) { m.Elbow = 17 }, 55, nil, -1, []string{
			"Set the bench to 55 cm: the seat lies 18 cm under the keys, as the elbow is 17 cm above the seat.",
			"Put a platform of 21 cm under both feet: the lower leg is 34 cm, and feet that hang make the whole back hold on."}},
		{"more is something", func(m *Measures) { m.Elbow = 16.5 }, 55, nil, -1.5, []string{
			"Set the bench to 55 cm: the seat lies 18 cm under the keys, as the elbow is 16.5 cm above the seat.",
			"It is still 1.5 cm too low: another firm mat of about that height is needed.",
			"Put a platform of 21 cm under both feet: the lower leg is 34 cm, and feet that hang make the whole back hold on."}},
		{"a centimetre too high is nothing", func(m *Measures) { m.Elbow = 28 }, 46, nil, 1, []string{
			"Set the bench to 46 cm: the seat lies 27 cm under the keys, as the elbow is 28 cm above the seat.",
			"Put a platform of 12 cm under both feet: the lower leg is 34 cm, and feet that hang make the whole back hold on."}},
		{"more is another bench", func(m *Measures) { m.Elbow = 28.5 }, 46, nil, 1.5, []string{
			"Set the bench to 46 cm: the seat lies 27 cm under the keys, as the elbow is 28.5 cm above the seat.",
			"The bench cannot go low enough: it is 1.5 cm too high. Another bench or chair is needed.",
			"Put a platform of 12 cm under both feet: the lower leg is 34 cm, and feet that hang make the whole back hold on."}},
		{"a gap of a centimetre under the feet", func(m *Measures) { m.Leg = 54 }, 55, nil, 0, []string{
			"Set the bench to 55 cm: the seat lies 18 cm under the keys, as the elbow is 18 cm above the seat.",
			"Put a platform of 1 cm under both feet: the lower leg is 54 cm, and feet that hang make the whole back hold on."}},
		{"less is no gap", func(m *Measures) { m.Leg = 54.5 }, 55, nil, 0, []string{
			"Set the bench to 55 cm: the seat lies 18 cm under the keys, as the elbow is 18 cm above the seat.",
			"Both feet stand on the floor; no platform is needed."}},
		{"forearms above the keys", func(m *Measures) { m.Lean, m.BenchHigh = Above, 60 }, 57, nil, 0, []string{
			"Set the bench to 57 cm: the seat lies 16 cm under the keys, as the elbow is 18 cm above the seat.",
			"Put a platform of 23 cm under both feet: the lower leg is 34 cm, and feet that hang make the whole back hold on."}},
	} {
		m := child()
		c.set(&m)
		r, err := m.Work()
		require.NoError(t, err)
		require.Equal(t, c.bench, r.Bench, c.name)
		require.Equal(t, c.mats, r.Mats, c.name)
		require.Equal(t, c.off, r.Off, c.name)
		require.Equal(t, strings.Join(c.says, "\n"), strings.Join(r.Says, "\n"), c.name)
		require.Equal(t, c.off >= -1 && c.off <= 1, r.Possible, c.name)
	}
}

func TestFromEighteenOnAYearIsEnough(t *testing.T) {
	last := time.Date(2026, 5, 4, 0, 0, 0, 0, time.UTC)
	require.True(t, Due(last, last.AddDate(0, 3, 0), 17, 3), "on the day itself")
	require.False(t, Due(last, last.AddDate(0, 3, -1), 17, 3))
	require.False(t, Due(last, last.AddDate(0, 3, 0), 18, 3))
	require.True(t, Due(last, last.AddDate(0, 12, 0), 18, 3))
	require.Contains(t, Checks(AtKeys, Ball)[3].Child, "tennis ball")
	require.Contains(t, Checks(AtKeys, Hanging)[3].Child, "wet towel")
}

// Of mats that miss a need the nearest is taken, whether too thin or too thick for the bench to give.
func TestTheNearestMats(t *testing.T) {
	require.Equal(t, []float64{3}, nearest([]float64{3, 9}, 4, 0), "1 too thin before 5 too thick")
	require.Equal(t, []float64{4.5}, nearest([]float64{3, 4.5}, 4, 0), "half a centimetre too thick before one too thin")
	require.Equal(t, []float64{4.5}, nearest([]float64{4, 4.5}, 4.5, 0))
	require.Equal(
		t,
		[]float64{5},
		nearest([]float64{5, 6}, 4, 1),
		"what the bench gives is no miss; of two that fit the one that needs no more",
	)
	require.Equal(t, []float64{2, 2}, nearest([]float64{2, 2}, 4, 0))
	require.Nil(t, nearest([]float64{12}, 4, 0), "8 too thick is worse than 4 too thin")
}

// On a chair the seat is as high as the lower leg; who stands is not measured; the pedal needs an extender where the
// feet do not reach the floor.
func TestWhatEachFamilyAsksFor(t *testing.T) {
	asked := map[string]Asked{}
	for _, x := range instrument.All() {
		asked[x.ID] = AskedFor(x)
	}
	for id, want := range map[string]Asked{"organ": AtKeys, "flute": Standing, "voice": Standing, "bassoon": OnChair, "drums": OnChair, "harp": OnChair} {
		require.Equal(t, want, asked[id], id)
	}
	for id := range asked {
		if x, _ := instrument.Of(id); !x.Family.Strung() && id != "piano" {
			delete(asked, id)
		}
	}
	require.Equal(
		t,
		map[string]Asked{
			"piano":   AtKeys,
			"cello":   OnChair,
			"viola":   Standing,
			"violin":  Standing,
			"ukulele": OnChair,
			"guitar":  OnChair,
			"banjo":   OnChair,
		},
		asked,
	)
	require.Equal(t, OnChair, AskedFor(instrument.Instrument{ID: "oud"}))
	chair := Measures{Leg: 31, BenchLow: 42, BenchHigh: 42, Lean: Level}
	r, err := chair.Work()
	require.NoError(t, err)
	require.Equal(t, []string{
		"Set the chair to 42 cm: the thighs are level when the seat is as high as the lower leg, 31 cm.",
		"The bench cannot go low enough: it is 11 cm too high. Another bench or chair is needed.",
		"Put a platform of 11 cm under both feet: the lower leg is 31 cm, and feet that hang make the whole back hold on.",
	}, r.Says)
	m := child()
	m.Pedal = true
	r, err = m.Work()
	require.NoError(t, err)
	require.Equal(t, 21.0, r.Extender)
	require.Equal(
		t,
		"The pedal is out of reach: use a pedal extender whose plate stands 21 cm high, in place of the platform; without one leave the pedal for later.",
		r.Says[2],
	)
	m.Leg = 55
	r, err = m.Work()
	require.NoError(t, err)
	require.Zero(t, r.Extender)
	m.Place = "school"
	require.EqualError(t, m.Check(), `"school" is not a place`)
	require.Equal(t, Bench{73, 46, 55, nil}, child().Bench())
	require.Equal(t, Studio, child().At())
}

func TestGrowth(t *testing.T) {
	before, now := child(), child()
	_, ok := GrowthOf(before, now)
	require.False(t, ok)
	now.Leg, now.Elbow = 36, 17.5
	g, ok := GrowthOf(before, now)
	require.True(t, ok)
	require.Equal(t, Growth{2, -0.5}, g)
	now.KeyTop, now.Elbow = 0, 0
	g, _ = GrowthOf(before, now)
	require.Equal(t, Growth{2, 0}, g, "a chair says nothing of the arm")
}

// A wrist that drops in an exercise is the wrist that hangs below the keys; each fault of an exercise is the same as at
// most one of the nine, and those of a keyboard are no faults of a cello.
func TestFaultsThatAreOneThing(t *testing.T) {
	require.Equal(t, "wrist-low", SameFault("wrist-drop"))
	require.Equal(t, "tension", SameFault("raised-shoulder"))
	require.Equal(t, "too-close", SameFault("too-close"))
	require.Equal(t, "late-thumb", SameFault("late-thumb"))
	known := map[string]int{}
	for _, f := range faults {
		require.True(t, f.Name != "" && f.Remedy != "" && f.Home != "", f.ID)
		for _, same := range f.Same {
			known[same]++
		}
	}
	for id, n := range known {
		require.Equal(t, 1, n, id)
		found := false
		for _, family := range instrument.Families() {
			for _, kind := range exercise.Types(family) {
				found = found || slices.ContainsFunc(kind.Faults, func(f exercise.Fault) bool { return f.ID == id })
			}
		}
		require.True(t, found, "%s is a fault of an exercise", id)
	}
	cello, _ := instrument.Of("cello")
	var ids []string
	for _, f := range Faults(cello) {
		ids = append(ids, f.ID)
	}
	require.Equal(t, []string{"claw", "tension", "slumped", "later"}, ids)
	f, ok := FaultOf("slumped")
	require.True(t, ok)
	require.Equal(t, "slumped, or legs crossed", f.Name)
	_, ok = FaultOf("juggling")
	require.False(t, ok)
}

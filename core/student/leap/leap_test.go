package leap

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/library/dimension"
	"patientladder/core/library/material"
)

// Worked by hand from the rule: n is 1 new, 1 to 0.4 planted by steps done,
// 0.3 learning, 0.2 rusty, 0 secure.
func TestLeapWorkedByHand(t *testing.T) {
	p := DefaultPolicy()
	a := Ability{
		LongestBars: 4, Tempo: map[material.Texture]float64{material.OneLine: 50},
		Skills: map[string]Evidence{
			"planted":  {StepsDone: 1, Steps: 2},
			"learning": {Cleared: 1},
			"rusty":    {Cleared: 3, Faded: true},
			"secure":   {Shown: true},
		},
	}
	m := material.Material{DistinctBars: 8, Tempo: 100, Texture: material.OneLine}
	for i, id := range []string{"new", "planted", "learning", "rusty", "secure"} {
		m.Demands = append(m.Demands, material.Demand{Skill: id, Weight: 1, Bars: []int{i + 1}})
	}
	l := p.Of(m, a)
	// 1 + 0.7 + 0.3 + 0.2 + 0, length log2(8/4) × 0.4, tempo log2(100/50) × 1.
	require.InDelta(t, 2.2+0.4+1, l.Size, 1e-9)
	require.InDelta(t, 4.0/5, l.Ready, 1e-9)
	require.Equal(t, []int{1}, partOf(l, "new").Bars)
	require.Equal(t, Evidence{StepsDone: 1, Steps: 2}, partOf(l, "planted").Evidence)
	require.Equal(t, []Kind{OfTempo, OfSkill, OfSkill, OfLength, OfSkill, OfSkill, OfSkill}, kindsOf(l), "the largest first")
}

func kindsOf(l Leap) (out []Kind) {
	for _, p := range l.Parts {
		out = append(out, p.Kind)
	}
	return out
}

func partOf(l Leap, skill string) Part {
	for _, p := range l.Parts {
		if p.Skill == skill {
			return p
		}
	}
	return Part{}
}

func TestLengthAndTempoCountOnlyUpwards(t *testing.T) {
	p := DefaultPolicy()
	a := Ability{LongestBars: 16, Tempo: map[material.Texture]float64{material.OneLine: 120}}
	require.Zero(t, p.Of(material.Material{HasScore: true, DistinctBars: 8, Tempo: 60, Texture: material.OneLine}, a).Size)
	require.Zero(
		t,
		p.Of(material.Material{HasScore: true, DistinctBars: 8, Tempo: 200, Texture: material.Together}, a).Size,
		"another texture is not compared",
	)
}

func drawAbility(t *rapid.T) (material.Material, Ability) {
	a := Ability{Skills: map[string]Evidence{}, Tempo: map[material.Texture]float64{}}
	m := material.Material{DistinctBars: rapid.IntRange(0, 30).Draw(t, "bars"), Tempo: 90}
	for i := range rapid.IntRange(0, 8).Draw(t, "skills") {
		id := fmt.Sprint("s", i)
		a.Skills[id] = Evidence{
			Cleared: rapid.IntRange(0, 3).Draw(t, "cleared"), Working: rapid.IntRange(0, 1).Draw(t, "working"), Shown: rapid.Bool().Draw(t, "shown"),
			StepsDone: rapid.IntRange(0, 3).Draw(t, "done"), Steps: 3, Faded: rapid.Bool().Draw(t, "faded"),
		}
		m.Demands = append(m.Demands, material.Demand{Skill: id, Weight: rapid.Float64Range(0.1, 2).Draw(t, "weight")})
	}
	return m, a
}

func TestMoreAbilityNeverRaisesALeap(t *testing.T) {
	p := DefaultPolicy()
	rapid.Check(t, func(t *rapid.T) {
		m, a := drawAbility(t)
		before := p.Of(m, a)
		for id := range a.Skills {
			e := a.Skills[id]
			e.Shown, e.Missing, e.Faded = true, false, false
			a.Skills[id] = e
			require.LessOrEqual(t, p.Of(m, a).Size, before.Size+1e-9)
		}
		_, b := drawAbility(t)
		require.LessOrEqual(t, p.Of(m, b.AfterClearing(m)).Size, p.Of(m, b).Size+1e-9, "clearing the piece itself")
	})
}

func TestAfterClearingLeavesTheOriginal(t *testing.T) {
	a := Ability{Skills: map[string]Evidence{"x": {}}, Tempo: map[material.Texture]float64{}}
	b := a.AfterClearing(material.Material{Demands: []material.Demand{{Skill: "x", Weight: 1}}, DistinctBars: 3})
	require.Zero(t, a.Skills["x"].Cleared)
	require.Equal(t, 1, b.Skills["x"].Cleared)
	require.Equal(t, 3, b.LongestBars)
}

func TestReach(t *testing.T) {
	p := DefaultPolicy()
	require.Equal(t, Reach{Size: p.Comfortable}, p.Reach([]float64{9, 9, 9, 9}))
	// Nearest rank: the 70th percentile of ten values is the seventh.
	require.Equal(t, Reach{(10*7 + 5*1.5) / 15, 10}, p.Reach([]float64{10, 9, 8, 7, 6, 5, 4, 3, 2, 1}))
	require.Equal(t, Reach{(5*4 + 5*1.5) / 10, 5}, p.Reach([]float64{5, 4, 3, 2, 1}), "five are enough; the 70th percentile of five is the fourth")
	require.InDelta(t, 5*1.5/13, p.Reach(make([]float64, 8)).Size, 1e-12)
}

// The size alone is that of the whole leap, whatever is asked and brought.
func TestSizeIsThatOfTheLeap(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		m := material.Material{
			DistinctBars: rapid.IntRange(0, 40).Draw(t, "bars"),
			Tempo:        rapid.Float64Range(0, 200).Draw(t, "tempo"),
			Texture:      material.OneLine,
		}
		a := Ability{
			Skills:      map[string]Evidence{},
			LongestBars: rapid.IntRange(0, 40).Draw(t, "longest"),
			Tempo:       map[material.Texture]float64{material.OneLine: rapid.Float64Range(0, 200).Draw(t, "known")},
		}
		for _, s := range rapid.SliceOfNDistinct(rapid.SampledFrom([]string{"a", "b", "c", "d"}), 0, 4, rapid.ID).Draw(t, "asks") {
			m.Demands = append(m.Demands, material.Demand{Skill: s, Weight: rapid.Float64Range(0.1, 2).Draw(t, "weight")})
			a.Skills[s] = Evidence{
				Cleared:   rapid.IntRange(0, 3).Draw(t, "cleared"),
				StepsDone: rapid.IntRange(0, 2).Draw(t, "steps"),
				Steps:     2,
				Faded:     rapid.Bool().Draw(t, "faded"),
			}
		}
		p := DefaultPolicy()
		require.InDelta(t, p.Of(m, a).Size, p.Size(&m, BroughtTo(&m, a)), 1e-9)
	})
}

func TestWhatIsNoLongerOrQuickerIsNoPart(t *testing.T) {
	p := DefaultPolicy()
	m := material.Material{HasScore: true, DistinctBars: 8, Tempo: 60, Texture: material.OneLine}
	l := p.Over(&m, Brought{LongestBars: 8, Tempo: 60})
	require.Empty(t, l.Parts)
	require.Equal(t, 1.0, l.Ready, "it needs nothing")
	require.Zero(t, l.Size)
	m.DistinctBars, m.Tempo = 16, 120
	l = p.Over(&m, Brought{LongestBars: 8, Tempo: 60})
	require.Equal(t, []Kind{OfTempo, OfLength}, []Kind{l.Parts[0].Kind, l.Parts[1].Kind}, "the larger first")
	require.Equal(t, []float64{60, 8}, []float64{l.Parts[0].Best, l.Parts[1].Best})
	require.Equal(t, p.LengthWeight+p.TempoWeight, l.Size, "a doubling each")
	require.Empty(t, p.Over(&m, Brought{}).Parts, "nobody has cleared anything to compare with")
}

func TestWhatIsFresh(t *testing.T) {
	l := Leap{
		Parts: []Part{
			{Skill: "a", Level: New},
			{Skill: "b", Level: Learning},
			{Skill: "c", Level: Planted},
			{Skill: "d", Level: Secure},
			{Skill: "e", Level: Rusty},
		},
	}
	require.Equal(t, []Part{l.Parts[0], l.Parts[2]}, l.Fresh())
}

// What nobody knows is no small leap: it has a guess with a range, is not ready, and says so.
func TestUnknownIsNotEasy(t *testing.T) {
	p := DefaultPolicy()
	title := material.Material{ID: "t", Title: "A title alone"}
	require.Equal(t, Leap{Size: 1.5, Low: 0.5, High: 3, Unknown: true, Parts: []Part{}}, p.Of(title, Ability{}))
	require.Equal(t, 1.5, p.Size(&title, Brought{}))
	require.Equal(t, Leap{Size: 0.9, Low: 0.4, High: 3, Unknown: true, Parts: []Part{}}, p.Unknown(2.5, 0.4, 0.9), "as its neighbours are")
	require.Equal(t, Leap{Size: 1, Low: 0.5, High: 4, Unknown: true, Parts: []Part{}}, p.Unknown(4, 1))
	title.HasScore = true
	require.Zero(t, p.Of(title, Ability{}).Size, "a score that asks for nothing is known")
	title.HasScore, title.Demands = false, []material.Demand{{Skill: "a", Weight: 1}}
	require.False(t, p.Of(title, Ability{}).Unknown, "the teacher has named something")
	require.False(t, p.Of(material.Material{Exercise: "scale/apart/C/major/-"}, Ability{}).Unknown)
}

// A big jump is one that is written larger than the comfortable one: 1.89 over 1.88 is none.
func TestABigJumpIsOneThatIsWrittenLarger(t *testing.T) {
	for _, x := range []struct {
		size, reach float64
		want        bool
	}{{1.89, 1.88, false}, {1.94, 1.86, false}, {1.95, 1.94, true}, {2, 1.9, true}, {1.9, 2, false}, {0, 0, false}} {
		require.Equal(t, x.want, Beyond(x.size, x.reach), "%v", x)
	}
}

// Worked by hand: speed counts by doublings above two notes a second, at 0.67 each; a piano piece of eight notes a second for
// somebody who has four: 0.67 × log2(10 ÷ 6). Where the loads are known the tempo says no more.
func TestLoadsAboveWhatIsSecure(t *testing.T) {
	p := DefaultPolicy()
	m := material.Material{Instrument: "piano", HasScore: true, Tempo: 160, Texture: material.OneLine, Loads: []material.Load{
		{Dimension: dimension.Speed, Value: 8, Bars: []int{3}}, {Dimension: dimension.Jumps, Value: 0.3}, {Dimension: dimension.Signs, Value: 1},
	}}
	a := Ability{
		Tempo: map[material.Texture]float64{material.OneLine: 80},
		Loads: map[dimension.ID]Reached{dimension.Speed: {Top: 5, Second: 2}},
	}
	l := p.Of(m, a)
	require.InDelta(t, 0.67*math.Log2(10.0/6), l.Size, 1e-9)
	require.InDelta(t, l.Size, p.Size(&m, BroughtTo(&m, a)), 1e-9)
	require.Equal(t, []Kind{OfLoad}, kindsOf(l), "a jump that is hardly wider is none, and one sign everybody reads")
	require.Equal(t, 4.0, l.Parts[0].Best)
	require.Equal(t, []int{3}, l.Parts[0].Bars)

	a.Loads = nil
	require.Equal(t, []Kind{OfTempo}, kindsOf(p.Of(m, a)), "nothing is known of loads")

	a.Clear(m)
	require.Equal(t, Reached{Top: 8, Second: 8, One: true}, a.Loads[dimension.Speed])
	m.Loads[0].Value, m.Exercise = 12, "scale"
	a.Clear(m)
	require.Equal(t, Reached{Top: 9, Second: 8}, a.Loads[dimension.Speed], "a drill speaks for three quarters of its load")
}

// What is new comes first, the heavier before the lighter, and of two alike the one that is asked for in fewer bars.
func TestWhatIsNewAndRareStandsFirst(t *testing.T) {
	m := material.Material{Bars: 8, Demands: []material.Demand{
		{Skill: "steps", Weight: 0.4}, {Skill: "chords", Weight: 0.8}, {Skill: "trill", Weight: 0.8, Bars: []int{4}},
		{Skill: "ties", Weight: 0.5}, {Skill: "minor", Weight: 0.6, Bars: []int{1}},
	}}
	a := Ability{Skills: map[string]Evidence{"chords": {Cleared: 2}, "trill": {Cleared: 2}, "steps": {Cleared: 9}, "minor": {Cleared: 1}}}
	var got []string
	for _, d := range DefaultPolicy().InOrder(&m, a) {
		got = append(got, d.Skill)
	}
	require.Equal(t, []string{"ties", "minor", "trill", "chords", "steps"}, got)
	require.Equal(t, "steps", m.Demands[0].Skill, "the material is left as it is")
}

// How high a piece lies beside what a student has, and where its heaviest dimensions meet: speed everywhere marks no place.
func TestProfile(t *testing.T) {
	m := material.Material{Instrument: "piano", Bars: 4, Loads: []material.Load{
		{Dimension: dimension.Speed, Value: 6, Bars: []int{1, 2, 3, 4}}, {Dimension: dimension.Jumps, Value: 8, Bars: []int{2}},
		{Dimension: dimension.Signs, Value: 2, Bars: []int{2, 3}},
	}}
	h := DefaultPolicy().Profile(&m, Brought{Loads: []float64{6, 0, 2}})
	require.Len(t, h, 3)
	require.Equal(t, []bool{false, true, false}, []bool{h[0].Above, h[1].Above, h[2].Above})
	require.InDelta(t, 0.67*2, h[0].Worth, 1e-9)
	require.InDelta(t, 0.67*2, h[0].SecureWorth, 1e-9)
	require.InDelta(t, 0.75, h[1].Worth, 1e-9)
	require.Equal(t, []int{0, 2, 1, 0}, Hardest(h, 4))
	require.False(t, DefaultPolicy().Profile(&m, Brought{})[0].Known)
}

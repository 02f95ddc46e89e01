package next

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/student/leap"
)

func candidates(weights ...float64) []material.Material {
	var out []material.Material
	for i, w := range weights {
		out = append(out, material.Material{
			ID: string(rune('a' + i)), Title: string(rune('A' + i)),
			Demands: []material.Demand{{Skill: "free-" + string(rune('a'+i)), Weight: w}},
		})
	}
	return out
}

func input(t *testing.T, last []float64, weights ...float64) Input {
	skills, err := skill.Standard()
	require.NoError(t, err)
	return Input{Candidates: candidates(weights...), Policy: leap.DefaultPolicy(), Last: last, Reach: leap.Reach{Size: 1}, Skills: skills}
}

// A hard piece is followed by an easy one (common practice, no source).
func TestAnEasyOneAfterACliff(t *testing.T) {
	p := Propose(input(t, []float64{0.5, 1.8}, 0.9, 0.8, 0.3, 0.1))
	require.True(t, p.Ease)
	require.Equal(t, "C", p.Chosen.Material.Title)
	require.Equal(
		t,
		[]Reason{
			{Kind: Easy, Leap: 0.3, Reach: 1, Last: []float64{1.8}},
			{Kind: Passed, Material: "a", Leap: 0.9},
			{Kind: New, Skills: []string{"free-c"}},
		},
		p.Reasons,
	)

	p = Propose(input(t, []float64{1.8}, 0.9, 0.7, 0.8))
	require.Equal(t, "B", p.Chosen.Material.Title, "the smallest when none is easy")
	require.Equal(t, Reason{Kind: Smallest, Leap: 0.7, Reach: 1, Last: []float64{1.8}, Of: 3}, p.Reasons[0])
}

func TestTheNextInOrderOtherwise(t *testing.T) {
	require.Equal(t, "A", Propose(input(t, []float64{1.8, 0.2}, 0.9, 0.1)).Chosen.Material.Title)
	require.Equal(
		t,
		Reason{Kind: Room, Leap: 0.9, Reach: 1, Last: []float64{0.2, 0.3}},
		Propose(input(t, []float64{0.2, 0.3}, 0.9)).Reasons[0],
	)
	require.Equal(t, Fits, Propose(input(t, []float64{0.2, 0.5}, 0.9)).Reasons[0].Kind, "the last was not small")
	require.Equal(t, Fits, Propose(input(t, []float64{0.2, 0.3}, 0.4)).Reasons[0].Kind, "a small one needs no room")
	require.Equal(t, Fits, Propose(input(t, []float64{1}, 0.5)).Reasons[0].Kind, "a leap as large as the reach is no stretch")
	require.Equal(t, Stretch, Propose(input(t, []float64{0.5}, 1.2)).Reasons[0].Kind)
	require.Equal(t, Beginning, Propose(input(t, nil, 1.2)).Reasons[0].Kind)
	straight := input(t, []float64{1.8}, 0.9, 0.1)
	straight.Straight = true
	require.Equal(t, "A", Propose(straight).Chosen.Material.Title, "a way that takes the next in order")
	p := Propose(input(t, []float64{0.5}, 1.9, 0.9))
	require.Equal(t, "B", p.Chosen.Material.Title, "a cliff waits while something within reach is near")
	require.Equal(t, "A", Propose(input(t, nil, 5, 0.1)).Chosen.Material.Title, "a strand begins where it begins")
}

func TestOnlyTheNextFourAreLookedAt(t *testing.T) {
	p := Propose(input(t, []float64{3}, 0.9, 0.9, 0.9, 0.9, 0.1))
	require.Len(t, p.Considered, 4)
	require.Equal(t, "A", p.Chosen.Material.Title, "E, the easy one, comes later")
}

func TestBlockedIsNeverPutBeforeOpen(t *testing.T) {
	in := input(t, []float64{0.5}, 0.2, 0.9)
	// dotted crotchets stand on quavers: both new in one piece are two firsts at once.
	in.Candidates[0].Demands = []material.Demand{{Skill: "dotted-quarter-notes", Weight: 0.1}, {Skill: "eighth-notes", Weight: 0.1}}
	p := Propose(in)
	require.Equal(t, "B", p.Chosen.Material.Title)
	require.Equal(t, []string{"dotted-quarter-notes"}, p.Considered[0].Blocked)
	require.Equal(t, Reason{Kind: Passed, Material: "a", Leap: 0.2, Skills: []string{"dotted-quarter-notes"}}, p.Reasons[1])
	in.Candidates = in.Candidates[:1]
	require.Equal(t, Reason{Kind: TwoFirst, Skills: []string{"dotted-quarter-notes"}}, Propose(in).Reasons[2])
}

func TestNothingAhead(t *testing.T) {
	p := Propose(input(t, nil))
	require.Nil(t, p.Chosen)
	require.Equal(t, []Reason{{Kind: Nothing}}, p.Reasons)
}

// Whatever the leaps, a blocked material is chosen only when all are blocked.
func TestBlockedIsChosenOnlyWhenAllAre(t *testing.T) {
	rapid.Check(t, func(r *rapid.T) {
		weights := rapid.SliceOfN(rapid.Float64Range(0.1, 3), 1, 6).Draw(r, "weights")
		in := input(t, rapid.SliceOfN(rapid.Float64Range(0, 4), 1, 5).Draw(r, "last"), weights...)
		for i := range in.Candidates {
			if rapid.Bool().Draw(r, "blocked") {
				in.Candidates[i].Demands = []material.Demand{{Skill: "dotted-quarter-notes", Weight: 0.1}, {Skill: "eighth-notes", Weight: 0.1}}
			}
		}
		p := Propose(in)
		require.NotNil(t, p.Chosen)
		require.GreaterOrEqual(t, len(p.Reasons), 2)
		if len(p.Chosen.Blocked) > 0 {
			for _, c := range p.Considered {
				require.NotEmpty(t, c.Blocked)
			}
		}
	})
}

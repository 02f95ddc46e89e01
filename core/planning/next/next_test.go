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
	require.Contains(t, p.Reasons[0], "so an easy one comes now")
	require.Contains(t, p.Reasons[1], "“A” comes first in the order")

	p = Propose(input(t, []float64{1.8}, 0.9, 0.7, 0.8))
	require.Equal(t, "B", p.Chosen.Material.Title, "the smallest when none is easy")
}

func TestTheNextInOrderOtherwise(t *testing.T) {
	require.Equal(t, "A", Propose(input(t, []float64{1.8, 0.2}, 0.9, 0.1)).Chosen.Material.Title)
	require.Contains(t, Propose(input(t, []float64{0.2, 0.3}, 0.9)).Reasons[0], "there is room")
	p := Propose(input(t, []float64{0.5}, 1.9, 0.9))
	require.Equal(t, "B", p.Chosen.Material.Title, "a cliff waits while something within reach is near")
	require.Equal(t, "A", Propose(input(t, nil, 5, 0.1)).Chosen.Material.Title, "a strand begins where it begins")
}

func TestOnlyTheNextFourAreLookedAt(t *testing.T) {
	p := Propose(input(t, []float64{3}, 0.9, 0.9, 0.9, 0.9, 0.1))
	require.Len(t, p.Considered, Look)
	require.NotEqual(t, "E", p.Chosen.Material.Title)
}

func TestBlockedIsNeverPutBeforeOpen(t *testing.T) {
	in := input(t, []float64{0.5}, 0.2, 0.9)
	// dotted crotchets stand on quavers: both new in one piece are two firsts at once.
	in.Candidates[0].Demands = []material.Demand{{Skill: "dotted-quarter-notes", Weight: 0.1}, {Skill: "eighth-notes", Weight: 0.1}}
	p := Propose(in)
	require.Equal(t, "B", p.Chosen.Material.Title)
	require.Equal(t, []string{"dotted-quarter-notes"}, p.Considered[0].Blocked)
	require.Contains(t, p.Reasons[1], "is blocked by dotted crotchet and quaver")
}

func TestNothingAhead(t *testing.T) {
	p := Propose(input(t, nil))
	require.Nil(t, p.Chosen)
	require.Len(t, p.Reasons, 1)
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
		require.NotEmpty(t, p.Reasons)
		if len(p.Chosen.Blocked) > 0 {
			for _, c := range p.Considered {
				require.NotEmpty(t, c.Blocked)
			}
		}
	})
}

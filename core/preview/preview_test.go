package preview

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/leap"
	"patientladder/core/material"
	"patientladder/core/skill"
)

func piece(id string, skills ...string) material.Material {
	m := material.Material{ID: id}
	for _, s := range skills {
		m.Demands = append(m.Demands, material.Demand{Skill: s, Weight: 1})
	}
	return m
}

func TestBites(t *testing.T) {
	skills, err := skill.Standard()
	require.NoError(t, err)
	p := leap.DefaultPolicy()
	ahead := []material.Material{piece("a", "quarter-notes", "rests"), piece("b", "rests", "smooth"), piece("c", "pickup")}
	a := leap.Ability{Skills: map[string]leap.Evidence{}}
	steps := func(a leap.Ability, recent map[string]bool) (out []string) {
		for _, b := range Bites(ahead, a, p, skills, recent) {
			out = append(out, b.For+" "+b.Skill+" "+string(rune('0'+b.Step)))
		}
		return out
	}
	require.Equal(t, []string{"a rests 1", "b smooth 1"}, steps(a, nil), "two at most, what is needed first in front; crotchets have no steps")
	require.Equal(t, []string{"b smooth 1", "c pickup 1"}, steps(a, map[string]bool{"rests": true}), "never two steps of one skill in a week")

	a.Skills["rests"] = leap.Evidence{StepsDone: 1, Steps: 2}
	require.Equal(t, []string{"a rests 2", "b smooth 1"}, steps(a, nil), "steps come in order")
	a.Skills["rests"] = leap.Evidence{StepsDone: 2, Steps: 2}
	require.Equal(t, []string{"b smooth 1", "c pickup 1"}, steps(a, nil), "all steps are done")
	a.Skills["smooth"] = leap.Evidence{Cleared: 1}
	require.Equal(t, []string{"c pickup 1"}, steps(a, nil), "what is being learned needs no planting")
}

func TestOnlyTheNextRungsAreLookedAt(t *testing.T) {
	skills, err := skill.Standard()
	require.NoError(t, err)
	ahead := make([]material.Material, Look, Look+1)
	ahead = append(ahead, piece("far", "rests"))
	require.Empty(t, Bites(ahead, leap.Ability{}, leap.DefaultPolicy(), skills, nil))
}

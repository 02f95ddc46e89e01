package preview

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/student/leap"
)

func piece(id string, skills ...string) material.Material {
	m := material.Material{ID: id}
	for _, s := range skills {
		m.Demands = append(m.Demands, material.Demand{Skill: s, Weight: 1})
	}
	return m
}

func TestNeeds(t *testing.T) {
	skills, err := skill.Parse([]byte(`[
		{"id":"beat","name":"Beat","steps":["walk","tap"]}, {"id":"crotchets","name":"Crotchets","needs":["beat"]},
		{"id":"pairs","name":"Pairs","needs":["crotchets"],"steps":["clap","say","change"]}, {"id":"swing","name":"Swing","needs":["pairs"],"steps":["say"]}]`))
	require.NoError(t, err)
	p := leap.DefaultPolicy()
	ahead := []Rung{{piece("a", "crotchets", "pairs"), 0, 2}, {piece("b", "swing"), 1, 5}, {piece("c", "pairs"), 0, 1}}
	a := leap.Ability{Skills: map[string]leap.Evidence{}}
	require.Equal(t, []Need{
		{Skill: "beat", Of: 2, For: "c", By: 1},
		{Skill: "pairs", Of: 3, For: "c", By: 1, After: []string{"beat"}},
		{Skill: "swing", Of: 1, For: "b", By: 5, After: []string{"pairs"}},
	}, Needs(ahead, a, p, skills, nil, DefaultPolicy()), "crotchets have no steps, the beat under them has; the earliest piece counts")

	a.Skills["beat"] = leap.Evidence{Shown: true}
	a.Skills["pairs"] = leap.Evidence{StepsDone: 2, Steps: 3}
	require.Equal(t, []Need{
		{Skill: "pairs", Done: 2, Of: 3, For: "c", By: 1, Rests: true},
		{Skill: "swing", Of: 1, For: "b", By: 5, After: []string{"pairs"}},
	}, Needs(ahead, a, p, skills, map[string]bool{"pairs": true}, DefaultPolicy()))

	a.Skills["pairs"] = leap.Evidence{Cleared: 1}
	require.Equal(
		t,
		[]Need{{Skill: "swing", Of: 1, For: "b", By: 5}},
		Needs(ahead, a, p, skills, nil, DefaultPolicy()),
		"what is being learned needs no planting",
	)

	ahead[1].Place, ahead[1].Begin = 6, 17
	require.Empty(t, Needs(ahead, a, p, skills, nil, DefaultPolicy()), "the seventh rung, and more than 16 weeks away")
	ahead[1].Begin = 16
	require.Len(t, Needs(ahead, a, p, skills, nil, DefaultPolicy()), 1)
}

package proposing_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/planning/inlesson"
	"patientladder/core/planning/lessonplan"
	"patientladder/core/planning/plantest"
	"patientladder/core/planning/proposing"
	"patientladder/core/student/leap"
)

// Where a new level of a book begins, the gestures that were met are gone through once more; a bite that was tried is no
// gesture yet, and within a level nothing is gone through.
func TestGesturesAtTheBeginningOfALevel(t *testing.T) {
	level := func(id, unit string, order int) material.Material {
		m := plantest.Piece(id, material.Method, "plain")
		m.SourceID, m.Source, m.Unit, m.Order = "B", "A book", unit, order
		return m
	}
	s := plantest.Pupil(t, level("last", "One", 1), level("first", "Two", 2), level("second", "Two", 3), plantest.Piece("loose", material.Method, "plain"))
	var err error
	s.Skills, err = skill.Parse([]byte(`[{"id":"plain","name":"plain"},
		{"id":"roll","name":"rolling off","gesture":true,"instruments":["keyboard"]}, {"id":"sink","name":"sinking in","gesture":true}, {"id":"lift","name":"a brisk lift","gesture":true,"steps":["x","y"]},
		{"id":"bow","name":"a lifted bow","gesture":true,"instruments":["bowed"]}, {"id":"old","name":"a bounce","gesture":true}]`))
	require.NoError(t, err)
	s.Standing.Ability.Skills = map[string]leap.Evidence{
		"roll":  {Cleared: 1},
		"sink":  {Cleared: 4},
		"lift":  {StepsDone: 1},
		"bow":   {Cleared: 4},
		"plain": {Cleared: 4},
	}
	for id, want := range map[string][]string{"last": {"roll", "sink"}, "first": {"roll", "sink"}, "second": nil, "loose": nil} {
		require.Equal(t, want, proposing.Gestures(*s, s.Library[id]), id)
	}
	plantest.Learned(s, "last", 7, 40)
	a := plantest.Ahead(s, "last", "first", "second")
	for _, c := range inlesson.Of(a, plantest.Monday, nil, nil).Candidates {
		if c.Kind == lessonplan.Begin {
			require.Equal(t, []any{"first", []string{"roll", "sink"}}, []any{c.Material, c.Gestures})
			return
		}
	}
	t.Fatal("nothing is begun")
}

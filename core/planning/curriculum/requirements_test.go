package curriculum

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
)

func asks(title, unit string, skills ...string) material.Material {
	m := material.Material{ID: title, Title: title, Unit: unit}
	for _, s := range skills {
		m.Demands = append(m.Demands, material.Demand{Skill: s, Weight: 1})
	}
	return m
}

// What a book takes for granted is what its first unit asks for and the book before taught, or what comes again and again in
// it; what comes once and is new is what the book itself begins with.
func TestWhatABookTakesForGranted(t *testing.T) {
	second := []material.Material{
		asks("a", "1", "steps", "ties", "pedal"), asks("b", "1", "steps", "skips"), asks("c", "1", "steps", "ties"), asks("d", "2", "trills", "steps"),
	}
	first := []material.Material{asks("x", "", "steps"), asks("y", "", "skips", "steps")}
	require.Len(t, FirstUnit(second), 3)
	require.Len(t, FirstUnit(first), 2)
	var got []string
	for _, r := range Requirements(second, first) {
		word := r.Skill
		if r.Taught {
			word += " taught"
		}
		got = append(got, word)
	}
	require.Equal(t, []string{"steps taught", "ties", "skips taught"}, got)
	require.Empty(t, Requirements(nil, first))
	others := [][]material.Material{{asks("z", "", "steps", "octaves", "trills", "fugue", "canon")}, first, {asks("q", "", "harmonics")}}
	require.Equal(t, 1, Forerunner(second, others), "not the one that asks for more than this book")
	require.Equal(t, -1, Forerunner(second, others[2:]))
}

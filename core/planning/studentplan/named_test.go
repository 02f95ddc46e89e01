package studentplan_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/planning/studentplan"
)

func TestTitlesThatNameAStudent(t *testing.T) {
	lib := material.Library{}
	for id, title := range map[string]string{"a": "Marens Walzer", "b": "Waltz for Maren", "c": "MAREN’S song", "d": "Fog", "e": "A Farrow field", "f": "Mo", "g": "Waltz for Maren", "h": "王小明 的 歌"} {
		lib[id] = material.Material{ID: id, Title: title}
	}
	lib["i"] = material.Material{ID: "i", Title: "Tide", Composer: "Maren Farrow"}
	require.Equal(
		t,
		[]string{"A Farrow field", "MAREN’S song", "Maren Farrow", "Mo", "Waltz for Maren"},
		studentplan.NamedIn(lib, studentplan.Profile{Name: "Maren J. Farrow", Called: "Mo"}),
	)
	require.Equal(t, []string{"王小明 的 歌"}, studentplan.NamedIn(lib, studentplan.Profile{Name: "王小明"}))
	require.Empty(t, studentplan.NamedIn(lib, studentplan.Profile{Name: "Nell"}))
	lib["j"] = material.Material{ID: "j", Title: "Dance", Composer: "L. van Beethoven"}
	require.Empty(t, studentplan.NamedIn(lib, studentplan.Profile{Name: "Odile Marchetti-Brandt van der Hoeven"}), "a small word is no name")
	lib["k"] = material.Material{ID: "k", Title: "For Brandt"}
	require.Equal(t, []string{"For Brandt"}, studentplan.NamedIn(lib, studentplan.Profile{Name: "Odile Marchetti-Brandt van der Hoeven"}))
}

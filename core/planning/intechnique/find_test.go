package intechnique

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/planning/curriculum"
	"patientladder/core/planning/plantest"
)

func TestWhatALadderCouldGet(t *testing.T) {
	retired := plantest.Piece("retired", material.Method)
	retired.Retired = true
	part := plantest.Piece("part", material.Method)
	part.PartOf = "a"
	s := plantest.Pupil(t, plantest.InBook("a", 1), plantest.InBook("b", 2), plantest.Piece("boat", material.Repertoire), retired, part)
	kinds := func(search string) (out []string) {
		for _, f := range Find(*s, search, []curriculum.Source{{ID: "book", Title: "A book", Instrument: "piano"}, {ID: "c", Title: "A cello book", Instrument: "cello"}}, map[string]bool{"boat": true}) {
			out = append(out, fmt.Sprintf("%s %s %v", f.Kind, f.ID, f.OnLadder))
		}
		return out
	}
	require.Equal(t, []string{"book book false", "piece a false", "piece b false"}, kinds("book"), "pieces are found by their book as well")
	require.Equal(t, []string{"piece boat true"}, kinds("the boat"))
	require.Equal(t, "exercise scale/apart/C/major/- false", kinds("c major scale")[0])
	require.Len(t, KeysKnown(*s), 12)
}

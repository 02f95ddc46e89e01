package studentplan

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/planning/curriculum"
)

func TestWhatALadderCouldGet(t *testing.T) {
	retired := piece("retired", material.Method)
	retired.Retired = true
	part := piece("part", material.Method)
	part.PartOf = "a"
	s := pupil(t, inBook("a", 1), inBook("b", 2), piece("boat", material.Repertoire), retired, part)
	kinds := func(search string) (out []string) {
		for _, f := range s.Find(search, []curriculum.Source{{ID: "book", Title: "A book", Instrument: "piano"}, {ID: "c", Title: "A cello book", Instrument: "cello"}}, map[string]bool{"boat": true}) {
			out = append(out, fmt.Sprintf("%s %s %v", f.Kind, f.ID, f.OnLadder))
		}
		return out
	}
	require.Equal(t, []string{"book book false", "piece a false", "piece b false"}, kinds("book"), "pieces are found by their book as well")
	require.Equal(t, []string{"piece boat true"}, kinds("the boat"))
	require.Equal(t, "exercise scale/apart/C/major/- false", kinds("c major scale")[0])
	require.Len(t, s.KeysKnown(), 12)
}

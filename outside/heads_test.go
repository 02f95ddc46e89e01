package outside_test

import (
	"cmp"
	"encoding/json"
	"os/exec"
	"path/filepath"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/notation/engrave"
)

// Every note head of the shipped tunes stands where verovio (npm), an engraver
// that nobody here wrote, puts it: on the same staff, in the same order from
// left to right, on the same line or in the same space; and where the stem of a
// note by itself is concerned, on the same side.
func TestHeadsStandWhereVerovioPutsThem(t *testing.T) {
	files, err := filepath.Glob("../demo/scores/*.musicxml")
	require.NoError(t, err)
	require.GreaterOrEqual(t, len(files), 40)
	text, err := exec.Command("node", append([]string{"heads.mjs"}, files...)...).Output()
	require.NoError(t, err)
	type head struct {
		Staff    int
		X, Below float64
		Up       *bool
	}
	var theirs map[string][]head
	require.NoError(t, json.Unmarshal(text, &theirs))
	heads, stems, other := 0, 0, 0
	for _, f := range files {
		var mine []head
		for _, h := range engrave.Stretch(read(t, f), 0, 1e9, engrave.Look{}).Heads {
			up := h.Up
			mine = append(mine, head{h.Staff, h.X, h.Below, &up})
		}
		want := theirs[f]
		for _, list := range [][]head{mine, want} {
			slices.SortStableFunc(list, func(a, b head) int {
				return cmp.Or(a.Staff-b.Staff, cmp.Compare(int(a.X), int(b.X)), cmp.Compare(a.Below, b.Below))
			})
		}
		require.Len(t, mine, len(want), f)
		for i := range want {
			require.Equal(t, want[i].Staff, mine[i].Staff, "%s, head %d", f, i+1)
			require.InDelta(t, want[i].Below, mine[i].Below, 0.01, "%s, head %d", f, i+1)
			heads++
			if want[i].Up != nil {
				stems++
				if *want[i].Up != *mine[i].Up {
					other++
				}
			}
		}
	}
	t.Logf("%d heads of %d tunes; %d of %d stems on the other side", heads, len(files), other, stems)
	require.Greater(t, heads, 1000)
	require.Greater(t, stems, 800)
	require.Zero(t, other)
}

package rhythm

import (
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/base/finding"
	"patientladder/core/notation/abc"
	"patientladder/core/reading/reading"
)

func find(t require.TestingT, tune string) finding.Set {
	tunes, err := abc.Read([]byte("X:1\nL:1/4\n" + tune))
	require.NoError(t, err)
	s := tunes[0]
	plays := make([]bool, len(s.Parts))
	for i := range plays {
		plays[i] = true
	}
	return Find(s, reading.Lines(s, true), plays)
}

// What begins in each beat, cut by hand. "~" is a note held into the beat, "-" a silent beginning.
func TestCells(t *testing.T) {
	for tune, want := range map[string]map[string][]int{
		"M:2/4\nK:C\nCD|E/F/G|":          {"cell.1": {1, 2}, "cell.1/2+1/2": {2}},
		"M:2/4\nK:C\nC>D|E<F|":           {"cell.1": {1}, "cell.~1/2+1/2": {1}, "cell.1/2+1/2": {2}},
		"M:2/4\nK:C\nz/C/D|z2|":          {"cell.-1/2+1/2": {1}, "cell.1": {1}},
		"M:2/4\nK:C\nC//D//E/ F/G//A//|": {"cell.1/4+1/4+1/2": {1}, "cell.1/2+1/4+1/4": {1}},
		"M:6/8\nK:C\nC/D/E/ F3/2|":       {"cell.1/2+1/2+1/2": {1}, "cell.3/2": {1}},
		"M:6/8\nK:C\nC D/ E>F|":          {"cell.1+1/2": {1}, "cell.3/2": {1}},
		"M:2/4\nK:C\n(3C/D/E/ (3C/z/E/|": {"cell.1/3+1/3+1/3": {1}, "cell.2/3+1/3": {1}},
		"M:3/4\nK:C\nD|CDE|":             {"cell.1": {1, 2}},
		"M:2/4\nK:C\nD/|C/D/E|C/D/E/|":   {"cell.-1/2+1/2": {1}, "cell.1/2+1/2": {2, 3}, "cell.1": {2, 3}},
		"M:2/2\nK:C\nCD EF|":             {"cell.1+1": {1}},
		"M:2/4\nK:C\nC3/2D/-|D/E/ F|":    {"cell.1": {1, 2}, "cell.~1/2+1/2": {1, 2}},
		"M:none\nK:C\nC/D/E|":            {"cell.1/2+1/2": {1}, "cell.1": {1}},
		"M:5/8\nK:C\nC/D/E/F/G/|":        {"cell.1/2": {1}},
		"M:4/4\nK:C\nC2D2|":              {"cell.1": {1}},
		"M:2/4\nK:C\n[CE]/[DF]/ [EG]|":   {"cell.1/2+1/2": {1}, "cell.1": {1}},
		"M:2/4\nK:C\n{d}C/D/ {e}E|":      {"cell.1/2+1/2": {1}, "cell.1": {1}},
	} {
		got := map[string][]int{}
		for name, bars := range find(t, tune) {
			if len(name) > 5 && name[:5] == "cell." {
				got[name] = bars
			}
		}
		require.Equal(t, want, got, tune)
	}
}

// Syncopation and ties, told by hand.
func TestWhatSoundsAcrossTheBeats(t *testing.T) {
	for tune, want := range map[string][]string{
		"M:4/4\nK:C\nC/D E F G/|": {"syncopation", "tie.over-beat"},
		"M:4/4\nK:C\nC D2 E|":     {"syncopation.beats"},
		"M:4/4\nK:C\nC2 D2|":      {},
		"M:3/4\nK:C\nC D2|":       {},
		"M:4/4\nK:C\nC3 D-|D4|":   {"tie", "tie.over-bar"},
		"M:4/4\nK:C\nC-C D2|":     {"tie"},
		"M:6/8\nK:C\nC/D E3/2|":   {},
		"M:4/4\nK:C\n(3CDE F2|":   {},
		"M:6/8\nK:C\nC D E|":      {"syncopation", "tie.over-beat"},
		// The last bar is short by the pickup and begins on one all the same (common practice).
		"M:4/4\nK:C\nC|C4|C3|":        {},
		"M:4/4\nK:C\nC|C4|C C2|":      {"syncopation.beats"},
		"M:4/4\nK:C\nC/|C4|C C C C/|": {},
	} {
		f := find(t, tune)
		for _, name := range []string{"syncopation", "syncopation.beats", "tie", "tie.over-bar", "tie.over-beat"} {
			require.Equal(t, contains(want, name), len(f[name]) > 0, "%s in %s", name, tune)
		}
	}
}

func contains(list []string, x string) bool {
	for _, s := range list {
		if s == x {
			return true
		}
	}
	return false
}

func TestMetres(t *testing.T) {
	f := find(t, "M:3/4\nK:C\nC3|[M:6/8]C3|[M:7/8]C7/2|[M:9/8]C9/2|[M:3/8]C3/2|")
	require.Equal(t, []int{1}, f["time.3/4"])
	require.Equal(t, []int{2, 4}, f["time.compound"], "three quavers are one beat only as part of more")
	require.Equal(t, []int{3}, f["time.uneven"])
	require.Equal(t, []int{2, 3, 4, 5}, f["time.change"])
	require.Empty(t, f["pickup"])
	require.Equal(t, []int{1}, find(t, "M:4/4\nK:C\nC|DEFG|")["pickup"])
}

// Only what the student plays is asked for.
func TestOtherPlayersAskNothing(t *testing.T) {
	tunes, err := abc.Read([]byte("X:1\nL:1/4\nM:2/4\nK:C\nV:1\nCD|\nV:2\nE/F/G/A/|\n"))
	require.NoError(t, err)
	s := tunes[0]
	f := Find(s, reading.Lines(s, false), []bool{true, false})
	require.Contains(t, f, "value.1")
	require.NotContains(t, f, "value.1/2")
}

// However a bar is filled, the cells of each beat add up to the beat, and no
// bar is named that is not there.
func TestCellsAddUp(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		text, bars := "M:4/4\nK:C\n", rapid.IntRange(1, 4).Draw(t, "bars")
		for range bars {
			for left := 16; left > 0; {
				n := rapid.IntRange(1, min(left, 8)).Draw(t, "n")
				text += rapid.SampledFrom([]string{"C", "z"}).Draw(t, "note") + length(n)
				left -= n
			}
			text += "|"
		}
		for name, at := range find(t, text) {
			require.NotEmpty(t, at, name)
			for i, b := range at {
				require.True(t, b >= 1 && b <= bars && (i == 0 || at[i-1] < b), "%s %v", name, at)
			}
		}
	})
}

// length writes a number of semiquavers in crotchets.
func length(n int) string {
	return map[int]string{1: "//", 2: "/", 3: "3/4", 4: "", 5: "5/4", 6: "3/2", 7: "7/4", 8: "2"}[n]
}

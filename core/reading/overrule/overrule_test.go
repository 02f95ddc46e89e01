package overrule

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/rational"
	"patientladder/core/library/material"
	"patientladder/core/notation/abc"
	"patientladder/core/notation/musicxml"
	"patientladder/core/notation/score"
)

func typed(t *testing.T, tune string) *score.Score {
	t.Helper()
	tunes, err := abc.Read([]byte("X:1\nM:4/4\nL:1/4\nQ:1/4=80\nK:C\n" + tune))
	require.NoError(t, err)
	return tunes[0]
}

func finger(bar int, at int64, pitch int, f string) Overruling {
	return Overruling{Kind: Finger, Staff: 1, Bars: []int{bar}, At: rational.Int(at), Pitch: pitch, Finger: f}
}

// The second bar of the first file is the third of the second, which begins
// with a bar that was added.
func TestOverrulingsFollowTheirBars(t *testing.T) {
	old := typed(t, "CDEF|GABc|cBAG|C4|")
	list := []Overruling{
		finger(2, 1, 69, "4").Remember(old),
		Overruling{Kind: Border, Bars: []int{2}, Ends: true}.Remember(old),
		Overruling{Kind: Demand, Skill: "rests", Weight: 1.5, Bars: []int{3}}.Remember(old),
		{Kind: Demand, Skill: "ties"},
		{Kind: Tempo, QuartersAMinute: 40},
	}
	longer := typed(t, "E4|CDEF|GABc|cBAG|C4|")
	set := Apply(longer, list)
	require.Empty(t, set.Lost)
	require.Equal(t, map[int]bool{2: false, 3: true}, map[int]bool{2: set.Borders[2], 3: set.Borders[3]})
	for i, n := range longer.Notes {
		want := ""
		if n.Bar == 3 && n.MIDI == 69 {
			want = "4"
		}
		require.Equal(t, want, n.Fingering, "note %d", i)
	}
	require.Equal(t, []int{4}, set.Demands["rests"].Bars)
	require.InDelta(t, 40, longer.Tempo, 1e-9)
	got := set.Demanded([]material.Demand{{Skill: "ties", Weight: 1}, {Skill: "accents", Weight: 1}})
	require.Equal(t, []material.Demand{{Skill: "accents", Weight: 1}, {Skill: "rests", Weight: 1.5, Bars: []int{4}, Origin: "teacher"}}, got)
}

func TestWhatHasNoPlaceIsKept(t *testing.T) {
	old := typed(t, "CDEF|GABc|C4|")
	list := []Overruling{finger(2, 1, 69, "4").Remember(old), Overruling{Kind: Border, Bars: []int{2}, Ends: true}.Remember(old)}
	set := Apply(typed(t, "C4|"), list)
	require.Len(t, set.Lost, 2)
}

// A bar that was changed keeps the finger of a note that still stands there.
func TestAChangedBarKeepsItsNote(t *testing.T) {
	old := typed(t, "CDEF|GABc|")
	now := typed(t, "CDEF|GAB2|")
	require.Empty(t, Apply(now, []Overruling{finger(2, 1, 69, "4").Remember(old)}).Lost)
	require.Equal(t, "4", now.Notes[5].Fingering)
}

// The same piece from another program has the same print, whatever the file.
func TestThePrintIsOfTheMusic(t *testing.T) {
	s := typed(t, "C>D!3!E2|[CEG]2z2|")
	again, err := musicxml.Read(musicxml.Write(s, musicxml.Options{}))
	require.NoError(t, err)
	require.Equal(t, Print(s), Print(again))
	require.NotEqual(t, Print(s), Print(typed(t, "C>D!3!E2|[CEA]2z2|")))
}

func TestChecks(t *testing.T) {
	s := typed(t, "CDEF|GABc|")
	known := func(id string) bool { return id == "rests" }
	require.NoError(t, finger(1, 0, 60, "5").Check(s, known))
	require.NoError(t, finger(1, 0, 60, "").Check(s, known))
	for says, o := range map[string]Overruling{
		"not a finger":       finger(1, 0, 60, "6"),
		"no such note":       finger(1, 0, 61, "2"),
		"no bar 9":           finger(9, 0, 60, "2"),
		"no skill":           {Kind: Demand, Skill: "juggling"},
		"between 0 and 2":    {Kind: Demand, Skill: "rests", Weight: 3},
		"not after the last": {Kind: Border, Bars: []int{2}},
		"10 and 400":         {Kind: Tempo, QuartersAMinute: 900},
		"cannot be":          {Kind: "mood"},
	} {
		require.ErrorContains(t, o.Check(s, known), says)
	}
}

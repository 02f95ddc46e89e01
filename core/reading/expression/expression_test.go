package expression

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/finding"
	"patientladder/core/notation/abc"
	"patientladder/core/notation/score"
)

func find(t *testing.T, tune string, plays ...bool) finding.Set {
	t.Helper()
	tunes, err := abc.Read([]byte("X:1\nL:1/4\nM:4/4\nK:C\n" + tune))
	require.NoError(t, err)
	if len(plays) == 0 {
		plays = []bool{true, true}
	}
	return Find(tunes[0], plays)
}

// Slurs by the number of notes under them, counted by hand.
func TestShapesOfSlurs(t *testing.T) {
	for tune, want := range map[string][3]bool{ // any, of two, long
		"(CD) EF|":       {true, true, false},
		"(CDE) F|":       {true, false, false},
		"(CDEF|G4)|":     {true, false, true},
		"(CD)(EF)|":      {true, true, false},
		"CDEF|":          {false, false, false},
		"(C-C D) E|":     {true, true, false}, // a tied note is one
		"(C{d}D) EF|":    {true, true, false}, // an ornament does not count
		"([CE][DF]) G2|": {true, true, false}, // a chord is one
	} {
		f := find(t, tune)
		got := [3]bool{len(f["slur"]) > 0, len(f["slur.two-note"]) > 0, len(f["slur.long"]) > 0}
		require.Equal(t, want, got, tune)
	}
}

func TestContrastIsThreeLevels(t *testing.T) {
	require.Empty(t, find(t, "!p!C4|!mf!D4|")["dynamics.contrast"])
	require.Equal(t, []int{1, 2}, find(t, "!p!C4|!f!D4|")["dynamics.contrast"])
	require.Equal(t, []int{1}, find(t, "!sfz!C4|")["dynamic.sudden"])
}

// The usual words (common practice).
func TestWords(t *testing.T) {
	for text, want := range map[string]string{
		"rit.": "tempo.slowing", "Rallentando": "tempo.slowing", "accel.": "tempo.hastening", "cresc.": "hairpin.crescendo",
		"dim. al fine": "hairpin.diminuendo", "Ped.": "pedal",
	} {
		require.Contains(t, find(t, "\"^"+text+"\"C4|"), want)
	}
	require.Empty(t, find(t, "\"^dolce\"C4|"))
}

func TestWhatOthersPlayIsNotAsked(t *testing.T) {
	f := find(t, "V:1\n!p!.C4|\nV:2\n!ff!>D4|!trill!E4|", true, false)
	require.Contains(t, f, "dynamic.p")
	require.NotContains(t, f, "dynamic.ff")
	require.NotContains(t, f, "ornament.trill-mark")
}

func TestSignsOfAFile(t *testing.T) {
	s := &score.Score{Parts: []score.Part{{Staves: 1}}, Bars: []score.Bar{{}, {}}}
	s.Notes = []score.Note{{Bar: 1, Rolled: true, Fermata: true, Ornaments: []string{"mordent"}, Articulations: []string{"caesura", "tenuto"}}}
	for _, k := range []score.SignKind{score.Crescendo, score.Diminuendo, score.PedalDown, score.Chord, score.Rehearsal} {
		s.Signs = append(s.Signs, score.Sign{Kind: k, Bar: 2})
	}
	f := Find(s, []bool{true})
	require.Equal(t, finding.Set{
		"rolled": {1}, "fermata": {1}, "ornament.mordent": {1}, "breath": {1}, "touch.tenuto": {1},
		"hairpin.crescendo": {2}, "hairpin.diminuendo": {2}, "pedal": {2},
	}, f)
}

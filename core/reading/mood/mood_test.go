package mood

import (
	"os"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/notation/scorefile"
	"patientladder/core/reading/analysis"
)

func tags(t *testing.T, abc string) []string {
	_, pieces, err := scorefile.Pieces([]byte(abc), true)
	require.NoError(t, err)
	out := []string{}
	for _, p := range Of(analysis.Of(pieces[0], "piano"), 0) {
		out = append(out, p.Tag)
	}
	return out
}

func TestMoodsByHand(t *testing.T) {
	const head = "X:1\nM:4/4\nL:1/8\n"
	for name, c := range map[string]struct {
		abc  string
		want []string
	}{
		"a lullaby":           {head + "Q:1/4=60\nK:F\n!p!(FGAB c4)|(cBAG F4)|\n", []string{"lyrical", "quiet"}},
		"a lament":            {head + "Q:1/4=66\nK:Am\n!mf!A2c2 e2c2|B2^G2 E2e2|d2c2 B2^G2|A8|\n", []string{"sad"}},
		"a hop":               {head + "Q:1/4=120\nK:C\n!mf!.C.E.G.E .C.E.G.E|.D.F.A.F .D.F.A.F|\n", []string{"lively", "comic"}},
		"a storm":             {head + "Q:1/4=168\nL:1/16\nK:C\n!f!CDEF GABc defg agfe|dcBA GFED CDEF GABc|\n", []string{"fast and showy"}},
		"a hymn":              {head + "Q:1/4=80\nK:C\n!ff![CEGc]2[CEGc]2[CFAc]2[CFAc]2|[DGBd]2[DGBd]2[CEGc]4|\n", []string{"grand"}},
		"nothing is said":     {head + "K:C\nC2D2 E2F2|G8|\n", []string{}},
		"a tempo word alone":  {head + "K:Am\n\"^Lento\"A2c2 e2c2|B2^G2 E2e2|d2c2 B2^G2|A8|\n", []string{"quiet", "sad"}},
		"off the beat":        {head + "Q:1/4=100\nK:C\n!mf!C D2 E2 F2 G|C D2 E2 F2 G|\n", []string{"rhythmic"}},
		"without a bar of it": {head + "K:C\nz8|\n", []string{}},
	} {
		require.Equal(t, c.want, tags(t, c.abc), name)
	}
}

// Every word that is proposed is one by which taste is learned.
func TestMoodsOfOldPiecesAreKnownWords(t *testing.T) {
	data, err := os.ReadFile("../load/testdata/graded.abc")
	require.NoError(t, err)
	_, pieces, err := scorefile.Pieces(data, true)
	require.NoError(t, err)
	described := 0
	for _, s := range pieces {
		list := Of(analysis.Of(s, "piano"), 0)
		if len(list) > 0 {
			described++
		}
		require.LessOrEqual(t, len(list), 3, s.Title)
		for _, x := range list {
			require.Contains(t, material.Tags(), x.Tag)
			require.NotEmpty(t, x.Why)
		}
	}
	t.Logf("%d of %d pieces are described", described, len(pieces))
	require.Greater(t, described, len(pieces)/2)
}

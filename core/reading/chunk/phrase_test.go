package chunk

import (
	"fmt"
	"os"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/notation/scorefile"
	"patientladder/core/reading/pattern"
)

// The form of old pieces as every teacher tells it: a minuet of eight and eight, each a question and an answer; a theme of four
// and four; a song whose tune begins with an upbeat (facts of the trade; the notes are those of package load).
func TestPhrasesOfOldPieces(t *testing.T) {
	data, err := os.ReadFile("../load/testdata/graded.abc")
	require.NoError(t, err)
	_, pieces, err := scorefile.Pieces(data, true)
	require.NoError(t, err)
	found := map[string][]string{}
	for _, s := range pieces {
		load := pattern.Of(s)
		var out []string
		for _, p := range Phrases(s, load, nil) {
			out = append(out, fmt.Sprintf("%d–%d", p.From, p.To))
		}
		found[s.Title] = out
	}
	require.Equal(t, []string{"1–8", "9–16"}, found["Minuet in G, Anh. 114"])
	require.Equal(t, []string{"1–4", "5–8"}, found["Sonata in A, K. 331, theme"])
	require.Equal(t, []string{"1–4", "5–8"}, found["Ode to Joy, the tune"])
	require.Equal(t, []string{"1–4", "5–8"}, found["Minuet in F, K. 2"])
	require.Equal(t, []string{"1–4", "5–8"}, found["Musette in D, Anh. 126"])
	require.Equal(t, []string{"1–4", "5–8"}, found["Sonatina in G, Anh. 5 no. 1"])

	for _, s := range pieces {
		if s.Title == "Minuet in G, Anh. 114" {
			var shape []string
			for _, c := range Tree(s, pattern.Of(s), 2, nil).ByLevel() {
				shape = append(shape, fmt.Sprintf("%d–%d", c.From, c.To))
			}
			require.Equal(t, []string{
				"1–2", "3–4", "5–6", "7–8", "9–10", "11–12", "13–14", "15–16", "1–4", "5–8", "9–12", "13–16", "1–8", "9–16", "1–16",
			}, shape)
		}
	}
}

package lessonplan

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/notation/abc"
	"patientladder/core/reading/analysis"
)

// The questions of a small tune, answered by hand: G major, a fifth in bar 1,
// bars 1 and 3 the same, ending at home.
func TestQuestionsBeforePlaying(t *testing.T) {
	scores, err := abc.Read([]byte("X:1\nT:Kettle\nM:4/4\nL:1/4\nQ:1/4=90\nK:G\nG d B G|A B c A|G d B G|A F G2|\n"))
	require.NoError(t, err)
	p := analysis.Of(scores[0], "piano")
	m := material.Material{Title: "Kettle", Tempo: 90, Tags: []string{"comic"}, Bars: 4}
	got := map[string]string{}
	for _, q := range Ask(p, m, func(n string) string { return n }, []string{"key signature of one sharp"}) {
		got[q.Ask] = q.Answer
	}
	require.Equal(t, "comic; about 90 crotchets a minute", got["What mood is it in, and why this tempo?"])
	require.Equal(t, "bar 1: G and D", got["Where is a fifth, and what are its notes?"])
	require.Equal(t, "G major; it ends at home, on G", got["What key is it in, and where is home?"])
	require.Equal(t, "bars 1, 3 are the same", got["What repeats?"])
	require.Equal(t, "key signature of one sharp", got["What is new in it?"])
	require.Contains(t, got["Where does it begin: which hand, finger, key?"], "G")
	require.Contains(t, got, "Where does a hand move?")
}

func TestKeysInWords(t *testing.T) {
	for words, want := range map[string]string{"C major": "C major", "B flat minor": "Bb minor", "F sharp major": "F# major"} {
		tonic, mode, ok := keyOf(words)
		require.True(t, ok)
		require.Equal(t, want, tonic+" "+mode)
	}
	_, _, ok := keyOf("2 flats")
	require.False(t, ok)
}

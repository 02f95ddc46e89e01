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
	for _, q := range Ask(p, m, func(n string) string { return n }, Stage{Age: 10, Fresh: []string{"key signature of one sharp"}}) {
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

// The questions fit the student: by ear for who does not read, what can be pointed at for the young, keys and intervals
// later; each with the answer for the teacher.
func TestQuestionsFitTheStudent(t *testing.T) {
	scores, err := abc.Read([]byte("X:1\nT:Kettle\nM:4/4\nL:1/4\nQ:1/4=90\nK:G\nG G d B|A B c A|G G d B|A F G2|\n"))
	require.NoError(t, err)
	p := analysis.Of(scores[0], "piano")
	m := material.Material{Title: "Kettle", Tempo: 90, Bars: 4}
	ask := func(st Stage) (out []string) {
		for _, q := range Ask(p, m, func(n string) string { return n }, st) {
			out = append(out, q.Ask+" "+q.Answer)
		}
		return out
	}
	opening := p.Opening(func(n string) string { return n })
	require.Equal(t, []string{
		"Sing how it begins: does it go up or down? up, from G to D", "Where do you hear the same again? bars 1, 3 are the same",
		"Does the end sound like home? it ends at home, on G",
	}, ask(Stage{Age: 4, BySound: true}))
	require.Equal(t, []string{
		"Where does it begin: which hand, finger, key? " + opening, "Point: does it go up, down or stay? up, from G to D",
		"What comes back? bars 1, 3 are the same",
	}, ask(Stage{Age: 6}))
	young := []string{
		"What mood is it in, and why this tempo? about 90 crotchets a minute", "Where does it begin: which hand, finger, key? " + opening,
		"Does it go up or down first? up, from G to D", "What repeats? bars 1, 3 are the same",
		"Where does a hand move? into another position at bar 4",
	}
	require.Equal(t, young, ask(Stage{Age: 8, Cleared: 19}))
	require.Contains(t, ask(Stage{Age: 8, Cleared: 20}), "What key is it in, and where is home? G major; it ends at home, on G")
	require.Contains(t, ask(Stage{Age: 9}), "Where is a fifth, and what are its notes? bar 1: G and D")
}

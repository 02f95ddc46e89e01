package abc

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/notation/musicxml"
	"patientladder/core/notation/score"
)

func TestWritingAndReadingBackKeepsTheNotes(t *testing.T) {
	files, err := filepath.Glob("../../../demo/scores/*.musicxml")
	require.NoError(t, err)
	for _, f := range files {
		data, err := os.ReadFile(f)
		require.NoError(t, err)
		s, err := musicxml.Read(data)
		require.NoError(t, err)
		got := one(t, string(Write(s)))
		require.Equal(t, sounds(s), sounds(got), f)
		require.Equal(t, s.Title, got.Title)
		require.Equal(t, fingers(s), fingers(got), f)
		require.Len(t, got.Bars, len(s.Bars))
		require.Len(t, got.Parts, len(s.Parts), f)
		for i := range s.Bars {
			require.Equal(t, s.Bars[i].KeyName(), got.Bars[i].KeyName(), f)
			require.Equal(
				t,
				[3]int{s.Bars[i].Beats, s.Bars[i].BeatUnit, s.Bars[i].RepeatEnd},
				[3]int{got.Bars[i].Beats, got.Bars[i].BeatUnit, got.Bars[i].RepeatEnd},
				f,
			)
		}
	}
}

func fingers(s *score.Score) map[string]int {
	out := map[string]int{}
	for _, n := range s.Notes {
		if n.Fingering != "" {
			out[n.Pitch.String()+" "+n.Fingering+" "+n.Onset.String()]++
		}
	}
	return out
}

func TestABCWrittenFromABC(t *testing.T) {
	text := "X:1\nT:Eel Grass\nC:anon.\nM:6/8\nL:1/8\nQ:1/4=90\nK:Gdor\n!p!\"Gm\"(3GAB {cd}.c!3!=B^F|:!<(![GB-]3 !<)![Bd]3|1 !trill!G6:|2 (G3 !fermata!A3)|]\nw: one~a two\\-b\n"
	s := one(t, text)
	got := one(t, string(Write(s)))
	require.Equal(t, sounds(s), sounds(got))
	require.Equal(t, s.Signs, got.Signs)
	require.Equal(t, s.Order(20), got.Order(20))
	for i := range s.Notes {
		require.Equal(t, s.Notes[i].Lyric, got.Notes[i].Lyric)
		require.Equal(t, s.Notes[i].Ornaments, got.Notes[i].Ornaments)
		require.Equal(t, s.Notes[i].Articulations, got.Notes[i].Articulations)
		require.Equal(
			t,
			[3]bool{s.Notes[i].SlurStart, s.Notes[i].SlurStop, s.Notes[i].Fermata},
			[3]bool{got.Notes[i].SlurStart, got.Notes[i].SlurStop, got.Notes[i].Fermata},
		)
	}
}

// Whatever tune is drawn, what is written reads back with the same notes.
func TestDrawnTunesComeBack(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		text := "X:1\nT:drawn\nM:" + rapid.SampledFrom([]string{"4/4", "3/4", "6/8", "none"}).Draw(t, "metre") + "\nL:1/8\nK:" +
			rapid.SampledFrom([]string{"C", "D", "Bb", "F#m", "Edor", "none"}).Draw(t, "key") + "\n"
		for range rapid.IntRange(1, 4).Draw(t, "bars") {
			for range rapid.IntRange(1, 6).Draw(t, "notes") {
				text += rapid.SampledFrom([]string{
					"C", "^F", "_b", "=c'", "G,2", "A/", "B3/2", "z", "[CEG]", "[c2e2]", "(3CDE", "C>D", "E<F", "{d}c", "{AB}G2", "C-C", "(DE)", ".F",
					"!2!G", "!trill!A", "\"Am\"B", "[C-E]2[CG]",
				}).Draw(t, "note") + " "
			}
			text += rapid.SampledFrom([]string{"|", "||", ":|", "|1", "|:", "[K:G]|", "[M:2/4]|"}).Draw(t, "bar")
		}
		tunes, err := Read([]byte(text))
		require.NoError(t, err, text)
		written := Write(tunes[0])
		again, err := Read(written)
		require.NoError(t, err, "%s\n%s", text, written)
		require.Equal(t, sounds(tunes[0]), sounds(again[0]), "%s\n%s", text, written)
		require.Equal(t, tunes[0].Order(200), again[0].Order(200), "%s\n%s", text, written)
		require.Equal(t, fingers(tunes[0]), fingers(again[0]))
	})
}

package sheet

import (
	"bytes"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/instrument"
	"patientladder/core/notation/engrave"
	"patientladder/core/reading/naming"
	"patientladder/core/technique/exercise"
)

// The words of a page as another program reads them (poppler, where it is there).
func words(t *testing.T, pdf []byte) string {
	t.Helper()
	if _, err := exec.LookPath("pdftotext"); err != nil {
		t.Skip("pdftotext is not there")
	}
	file := filepath.Join(t.TempDir(), "x.pdf")
	require.NoError(t, os.WriteFile(file, pdf, 0o600))
	out, err := exec.Command("pdftotext", "-layout", file, "-").Output()
	require.NoError(t, err)
	return string(out)
}

func someExercise(t *testing.T) Exercise {
	piano, _ := instrument.Of("piano")
	e, err := exercise.Parse("scale/two/Db/major/-", piano)
	require.NoError(t, err)
	sc, err := e.Score(naming.Words{})
	require.NoError(t, err)
	return Exercise{
		Heading: "A studio", Title: e.Title(naming.Words{}), Step: e.Step.Name, Tempo: "crotchet 66", Sentence: "The thumbs meet on F and C.",
		Caution: "Pain means stop.",
		Goals:   e.Step.Goals, Faults: []Fault{{"The thumb bumps", "Listen for an accent."}},
		Music:  engrave.Stretch(sc, 0, sc.Length().Float(), engrave.Look{Width: ExerciseWidth}),
		Boards: []Board{{Name: "right hand", Keys: []Key{{MIDI: 61, Label: "2", Meets: true}, {MIDI: 63, Label: "3", Meets: false}}}},
		Necks:  []Neck{{Name: "C", Strings: []string{"A", "E", "C", "G"}, Frets: true, Dots: []Dot{{String: 1, At: 3, Label: "3"}}}},
		Made:   time.Date(2026, 5, 4, 0, 0, 0, 0, time.UTC),
	}
}

func TestAnExerciseIsOnePageWithEverythingOnIt(t *testing.T) {
	e := someExercise(t)
	pdf, err := e.PDF()
	require.NoError(t, err)
	require.Equal(t, 1, bytes.Count(pdf, []byte("/Type /Page\n")))
	again, err := e.PDF()
	require.NoError(t, err)
	require.Equal(t, pdf, again, "the same exercise is the same file")
	text := words(t, pdf)
	for _, w := range append([]string{"Db major scale", "Three goals", "Watch for", "Take care", "right hand", "The thumb bumps"}, e.Goals[0]) {
		require.Contains(t, strings.Join(strings.Fields(text), " "), w)
	}
}

// Whatever the hand lies on, the keys are drawn from a white key to a white key.
func TestKeysOfAKeyboard(t *testing.T) {
	require.Equal(t, []bool{false, true, false, true, false, false, true, false, true, false, true, false}, func() (out []bool) {
		for m := 60; m < 72; m++ {
			out = append(out, black(m))
		}
		return out
	}())
	require.Equal(t, 7, whites(72)-whites(60))
	require.Equal(t, whites(61), whites(62), "a black key does not count")
}

// Strings: every chord by its name with its strings, and one round of the right hand under them.
func TestStringsStandOnThePage(t *testing.T) {
	e := someExercise(t)
	e.Boards = nil
	e.Necks = append(
		e.Necks,
		Neck{Name: "Am", Strings: []string{"A", "E", "C", "G"}, Frets: true, Dots: []Dot{{String: 4, At: 2, Label: "2"}}},
	)
	e.Strokes = Neck{
		Name:    "right hand, one round",
		Strings: []string{"A", "E", "C", "G"},
		Dots: []Dot{
			{String: 4, At: 1, Label: "p"},
			{String: 3, At: 2, Label: "i"},
			{String: 2, At: 3, Label: "m"},
			{String: 1, At: 4, Label: "a"},
		},
	}
	pdf, err := e.PDF()
	require.NoError(t, err)
	require.Equal(t, 1, bytes.Count(pdf, []byte("/Type /Page\n")))
	text := words(t, pdf)
	for _, w := range []string{"Am", "right hand, one round", "p", "i", "m", "a"} {
		require.Contains(t, text, w)
	}
}

// What is drawn stays on the page, whatever the exercise: the longest scale, many chords, long words.
func TestALongExerciseStaysOnThePage(t *testing.T) {
	e := someExercise(t)
	for range 7 {
		e.Necks = append(e.Necks, e.Necks[0])
		e.Faults = append(e.Faults, Fault{strings.Repeat("long words ", 6), strings.Repeat("that go on and on ", 6)})
	}
	p, err := newPen(e.Made)
	require.NoError(t, err)
	p.attempt = attempt{size: 1.1, words: true}
	p.doc.AddPage()
	wide := e.pictures(p, margin, 40, 100, true)
	narrow := e.pictures(p, margin, 40, 300, true)
	require.Greater(t, wide, narrow, "pictures go on in a second row where there is no room beside")
	pdf, err := e.PDF()
	require.NoError(t, err)
	require.Equal(t, 1, bytes.Count(pdf, []byte("/Type /Page\n")))
}

// On paper a fretted exercise has its tablature with the players' own signs, a recorder's its fingerings; both on one page.
func TestTablatureAndFingeringsOnPaper(t *testing.T) {
	for player, id := range map[string]string{"banjo": "roll/pull-inside/-/-/rocking-thumb", "recorder": "long-tones/whole/-/-/-"} {
		x, _ := instrument.Of(player)
		e, err := exercise.Parse(id, x)
		require.NoError(t, err)
		b, err := e.Build()
		require.NoError(t, err)
		sc, err := e.Score(naming.Words{})
		require.NoError(t, err)
		page := someExercise(t)
		page.Boards, page.Necks = nil, nil
		page.Music = engrave.Stretch(sc, 0, sc.Length().Float(), x.Look(engrave.Look{Width: ExerciseWidth}))
		for _, c := range e.Charted(b) {
			page.Chart = append(page.Chart, Fingering{Note: c.Note.Name(), Holes: c.Holes()})
		}
		pdf, err := page.PDF()
		require.NoError(t, err)
		require.Equal(t, 1, bytes.Count(pdf, []byte("/Type /Page\n")), player)
		text := strings.Join(strings.Fields(words(t, pdf)), " ")
		if player == "banjo" {
			require.Len(t, page.Music.Texts, 4*(9+1+8), "a number for each note, a P for each pull-off, a finger for each stroke")
			require.Contains(t, text, "T I T M T I T M")
		} else {
			require.Contains(t, text, "C D E F G A B C D E F G A")
		}
	}
}

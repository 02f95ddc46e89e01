package outside_test

import (
	"encoding/json"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/instrument"
	"patientladder/core/notation/musicxml"
	"patientladder/core/notation/score"
	"patientladder/core/reading/naming"
	"patientladder/core/technique/exercise"
	"patientladder/core/technique/plucked"
)

var harmony = regexp.MustCompile(`(?s)<harmony.*?</harmony>`)

// samples are exercises of every type, step and kind of an instrument: the first and the last place of each in turn, and both
// with LADDER_LONG.
func samples(x instrument.Instrument) []exercise.Exercise {
	var out []exercise.Exercise
	seen, both, turn := map[string]bool{}, os.Getenv("LADDER_LONG") != "", 0
	for _, t := range exercise.Types(x.Family) {
		for _, s := range t.Steps {
			for _, k := range append(slices.Clone(t.Kinds), "") {
				list := exercise.Places(exercise.Exercise{Type: t, Step: s, Kind: k, Instrument: x})
				turn++
				for i, e := range list {
					first, last := i == 0 && (both || turn%2 == 0), i == len(list)-1 && (both || turn%2 == 1)
					if !seen[e.ID()] && (first || last) {
						seen[e.ID()] = true
						out = append(out, e)
					}
				}
			}
		}
	}
	return out
}

// Every type of exercise of every instrument, written as MusicXML, sounds as it was built when
// verovio (npm) plays it, that of a guitar an octave below what is written.
func TestExercisesSoundAsVerovioPlaysThem(t *testing.T) {
	dir := t.TempDir()
	built := map[string][]heard{}
	var files []string
	for _, x := range instrument.All() {
		for _, e := range samples(x) {
			sc, err := e.Score(naming.Words{})
			require.NoError(t, err)
			file := filepath.Join(dir, x.ID+" "+strings.ReplaceAll(e.ID(), "/", " ")+".musicxml")
			// Verovio plays chord symbols, too; they are not what is compared.
			data := harmony.ReplaceAll(musicxml.Write(sc, musicxml.Options{}), nil)
			require.NoError(t, os.WriteFile(file, data, 0o600))
			files = append(files, file)
			b, err := e.Build()
			require.NoError(t, err)
			for _, n := range b.Notes {
				built[file] = append(built[file], heard{
					onset: int(quarter * n.At.Num() / n.At.Den()), duration: int(quarter * n.Length.Num() / n.Length.Den()), midi: e.Sounding(n),
				})
			}
		}
	}
	notes := 0
	for f, theirs := range verovio(t, "expandNever", files) {
		// Staccato notes are played short by verovio, and on a plucked string a note rings until the
		// next one on it: their length is not compared.
		name, _, _ := strings.Cut(filepath.Base(f), " ")
		if family, _ := instrument.FamilyOf(name); family == instrument.Plucked || strings.Contains(f, "five-finger touch") {
			for i := range theirs {
				theirs[i].duration = 0
			}
			for i := range built[f] {
				built[f][i].duration = 0
			}
		}
		same(t, filepath.Base(f), built[f], theirs)
		notes += len(theirs)
	}
	t.Logf("%d notes of %d exercises agree with verovio", notes, len(files))
	require.Greater(t, len(files), 150)
}

// The notes of a chord under the hand are those that tonal (npm) gives the chord.
func TestChordShapesHoldTheNotesOfTheChord(t *testing.T) {
	names := []string{
		"C",
		"D",
		"E",
		"F",
		"G",
		"A",
		"B",
		"Bb",
		"Eb",
		"Cm",
		"Dm",
		"Em",
		"Fm",
		"Gm",
		"Am",
		"Bm",
		"C7",
		"D7",
		"E7",
		"F7",
		"G7",
		"A7",
		"B7",
	}
	out, err := exec.Command("node", append([]string{"chords.mjs"}, names...)...).Output()
	require.NoError(t, err)
	var theirs map[string][]int // pitch classes
	require.NoError(t, json.Unmarshal(out, &theirs))
	compared := 0
	for _, x := range instrument.All() {
		if x.Family != instrument.Plucked {
			continue
		}
		for _, name := range names {
			shape, err := plucked.Chord(x, name)
			if err != nil {
				continue // no hand can set it on the first frets
			}
			var got []int
			for i, fret := range shape.Frets {
				if fret < 0 {
					continue
				}
				if class := (x.Open[i].Semitone() + fret) % 12; !slices.Contains(got, class) {
					got = append(got, class)
				}
			}
			slices.Sort(got)
			want := slices.Clone(theirs[name])
			if len(want) == 4 && len(got) == 3 { // a seventh chord may go without its fifth, the third of its notes
				want = slices.Delete(want, 2, 3)
			}
			slices.Sort(want)
			require.Equal(t, want, got, "%s on the %s", name, x.ID)
			compared++
		}
	}
	require.Greater(t, compared, 45)
}

// The finger patterns of a bowed instrument hold the notes of the key as tonal (npm) spells them, each
// string from its open note up.
func TestFingerPatternsHoldTheNotesOfTheKey(t *testing.T) {
	out, err := exec.Command("node", "scales.mjs").Output()
	require.NoError(t, err)
	var theirs map[string]map[string][]string
	require.NoError(t, json.Unmarshal(out, &theirs))
	compared := 0
	for _, x := range instrument.All() {
		if x.Family != instrument.Bowed {
			continue
		}
		for _, t2 := range exercise.Types(x.Family) {
			if t2.Make != "pattern" && t2.Make != "strings" {
				continue
			}
			for _, e := range exercise.Places(exercise.Exercise{Type: t2, Step: t2.Steps[len(t2.Steps)-1], Instrument: x}) {
				keys, known := theirs[string(e.Kind)]
				if !known {
					continue
				}
				b, err := e.Build()
				require.NoError(t, err)
				for _, n := range b.Notes {
					name := score.Pitch{Step: n.Pitch.Step, Alter: n.Pitch.Alter}.Name()
					require.Contains(t, keys[e.Key.String()], name, "%s on the %s", e.ID(), x.ID)
					require.Equal(t, n.Pitch.Semitone(), x.Open[n.String-1].Semitone()+n.Above, "%s: the string and the place make the note", e.ID())
					compared++
				}
			}
		}
	}
	require.Greater(t, compared, 500)
}

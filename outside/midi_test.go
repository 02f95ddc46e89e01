package outside_test

import (
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/notation/midi"
	"patientladder/core/notation/score"
)

func midiNotes(t *testing.T, file string) []heard {
	t.Helper()
	data, err := os.ReadFile(file)
	require.NoError(t, err)
	s, err := midi.Read(data)
	require.NoError(t, err, file)
	return inTicks(s.Sounding())
}

// What the core reads from files of two other programs is what midicsv lists.
// Sources: midicsv (Debian), over files written by verovio (npm) and abc2midi (Debian).
func TestMIDIFilesReadAsMidicsvListsThem(t *testing.T) {
	dir := t.TempDir()
	var files []string
	scores, err := filepath.Glob("../demo/scores/*.musicxml")
	require.NoError(t, err)
	args := []string{"sound.mjs", "expandAlways"}
	for i, f := range scores {
		out := filepath.Join(dir, fmt.Sprint("v", i, ".mid"))
		args, files = append(args, f, out), append(files, out)
	}
	text, err := exec.Command("node", args...).CombinedOutput()
	require.NoError(t, err, "%s", text)
	for tune := 1; tune <= 12; tune++ {
		out := filepath.Join(dir, fmt.Sprint("a", tune, ".mid"))
		text, err := exec.Command("abc2midi", "/usr/share/doc/abcmidi/examples/demo.abc", fmt.Sprint(tune), "-o", out).CombinedOutput()
		require.NoError(t, err, "%s", text)
		if tune != 12 { // with percussion, which is skipped
			files = append(files, out)
		}
	}
	notes := 0
	for _, f := range files {
		want := midicsv(t, f)
		same(t, f, want, midiNotes(t, f))
		notes += len(want)
	}
	t.Logf("%d notes of %d files agree with midicsv", notes, len(files))
	require.Greater(t, notes, 3500)
}

// What the core writes, midicsv reads as the notes of the score.
func TestMIDIFilesWrittenHoldTheNotes(t *testing.T) {
	files, err := filepath.Glob("../demo/scores/*.musicxml")
	require.NoError(t, err)
	dir := t.TempDir()
	for i, f := range files {
		s := read(t, f)
		out := filepath.Join(dir, fmt.Sprint(i, ".mid"))
		require.NoError(t, os.WriteFile(out, midi.Write(s), 0o600))
		same(t, f, inTicks(withoutGraces(s)), midicsv(t, out))
	}
}

func withoutGraces(s *score.Score) []score.Sound {
	var out []score.Sound
	for _, n := range s.Sounding() {
		if !n.Grace {
			out = append(out, n)
		}
	}
	return out
}

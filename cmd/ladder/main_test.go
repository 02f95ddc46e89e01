package main

import (
	"bytes"
	"encoding/json"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

func call(args ...string) (string, error) {
	var out bytes.Buffer
	err := run(args, strings.NewReader("short\n"), &out)
	return out.String(), err
}

func TestHelpNamesEveryVerb(t *testing.T) {
	out, err := call()
	require.NoError(t, err)
	for _, verb := range []string{"demo", "serve", "migrate", "account", "notes", "analyze", "scale"} {
		require.Contains(t, out, "  "+verb)
	}
	same, err := call("help")
	require.NoError(t, err)
	require.Equal(t, out, same)
}

func TestMistakesAreOneLine(t *testing.T) {
	t.Setenv("LADDER_DSN", "")
	dir := t.TempDir()
	huge := filepath.Join(dir, "huge.musicxml")
	f, err := os.Create(huge)
	require.NoError(t, err)
	require.NoError(t, f.Truncate(50<<20))
	require.NoError(t, f.Close())
	for says, args := range map[string][]string{
		"no verb \"dance\"":         {"dance"},
		"usage: ladder notes":       {"notes"},
		"no such file":              {"notes", filepath.Join(dir, "nowhere.xml")},
		"is a folder":               {"notes", dir},
		"50 MB":                     {"notes", huge},
		"usage: ladder analyze":     {"analyze"},
		"not an instrument":         {"analyze", "--instrument", "kazoo", "x"},
		"no number 9":               {"notes", "--tune", "9", "../../demo/scores/gulls-on-the-railing.musicxml"},
		"\"H\" is not a key":        {"scale", "H", "major"},
		"between 1 and 4, not 9":    {"scale", "C", "major", "--octaves", "9"},
		"usage: ladder scale":       {"scale", "C"},
		"not a kind of scale":       {"scale", "C", "blues"},
		"LADDER_DSN":                {"migrate"},
		"flag provided but not":     {"serve", "--loud"},
		"database address is not":   {"serve", "--dsn", "nonsense"},
		"mail server is written as": {"serve", "--smtp", "mail.harbour.example"},
		"from: \"\" is not an":      {"serve", "--smtp", "smtp://mail.harbour.example"},
		"needs --studio":            {"account", "--dsn", "x"},
		"is not a time zone":        {"account", "--studio", "S", "--name", "N", "--email", "a@b.c", "--timezone", "Mars/Base"},
		"at least 8 characters":     {"account", "--studio", "S", "--name", "N", "--email", "a@b.c"},
	} {
		_, err := call(args...)
		require.ErrorContains(t, err, says)
		require.NotContains(t, err.Error(), "\n")
	}
}

func TestNotesAreJSON(t *testing.T) {
	out, err := call("notes", "../../demo/scores/gulls-on-the-railing.musicxml")
	require.NoError(t, err)
	require.True(t, strings.HasPrefix(out, `[{"onset":"0","duration":"1","midi":60,"part":0,"staff":1,"voice":"1","bar":1}`), out[:120])
}

// The fields that docs/formats.md promises.
func TestAnalyzeIsDocumentedJSON(t *testing.T) {
	out, err := call("analyze", "--age", "5", "../../demo/scores/gulls-on-the-railing.musicxml")
	require.NoError(t, err)
	var report map[string]json.RawMessage
	require.NoError(t, json.Unmarshal([]byte(out), &report))
	formats, err := os.ReadFile("../../docs/formats.md")
	require.NoError(t, err)
	for field := range report {
		require.Contains(t, string(formats), "`"+field+"`")
	}
	require.GreaterOrEqual(t, len(report), 14)
}

func TestABCAndMIDIAreRead(t *testing.T) {
	dir := t.TempDir()
	tunes := filepath.Join(dir, "tunes.abc")
	require.NoError(t, os.WriteFile(tunes, []byte("X:1\nT:One\nK:C\nC2|\n\nX:2\nT:Two\nL:1/4\nK:C\nE|"), 0o600))
	out, err := call("notes", tunes, "--tune", "2")
	require.NoError(t, err)
	require.Equal(t, `[{"onset":"0","duration":"1","midi":64,"part":0,"staff":1,"voice":"1","bar":1}]`+"\n", out)
	_, err = call("analyze", tunes, "--instrument", "ukulele")
	require.NoError(t, err)
}

// The form that scripts rely on.
func TestAScaleAsJSON(t *testing.T) {
	out, err := call("scale", "Db", "major")
	require.NoError(t, err)
	var got struct {
		Key, Kind string
		Notes     []string
		MIDI      []int
		RH, LH    []int
		Meets     []map[string]any
		Down      any
	}
	require.NoError(t, json.Unmarshal([]byte(out), &got))
	require.Equal(t, "Db", got.Key)
	require.Equal(t, "major", got.Kind)
	require.Equal(t, []string{"Db", "Eb", "F", "Gb", "Ab", "Bb", "C", "Db"}, got.Notes)
	require.Equal(t, []int{61, 63, 65, 66, 68, 70, 72, 73}, got.MIDI)
	require.Equal(t, []int{2, 3, 1, 2, 3, 4, 1, 2}, got.RH)
	require.Equal(t, []int{3, 2, 1, 4, 3, 2, 1, 3}, got.LH)
	require.Equal(t, map[string]any{"degree": 1.0, "rh": 2.0, "lh": 3.0, "kind": "pair"}, got.Meets[0])
	require.Nil(t, got.Down)
	out, err = call("scale", "--octaves", "2", "F#", "melodic-minor")
	require.NoError(t, err)
	require.Contains(t, out, `"down":{"notes":["F#","E","D"`)
}

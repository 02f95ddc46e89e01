package main

import (
	"bytes"
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/instrument"
	"patientladder/store"
)

func call(args ...string) (string, error) {
	var out bytes.Buffer
	err := run(args, strings.NewReader("short\n"), &out)
	return out.String(), err
}

func TestHelpNamesEveryVerb(t *testing.T) {
	out, err := call()
	require.NoError(t, err)
	for _, verb := range []string{"demo", "serve", "migrate", "account", "notes", "analyze", "scale", "exercise", "exercises", "instruments", "key", "backup", "restore", "export", "import", "check"} {
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
	odd := filepath.Join(dir, "odd.json")
	require.NoError(t, os.WriteFile(odd, []byte(`[{"id": "second violin", "like": "violin"}, {"id": "odd", "family": "kitchen"}]`), 0o600))
	for says, args := range map[string][]string{
		"no verb \"dance\"": {"dance"},
		"usage: ladder notes [--tune INT] [--unfold] FILE":                                                        {"notes"},
		"ladder migrate takes no words beside its flags, and was given \"now\"":                                   {"migrate", "now"},
		"ladder serve takes no words beside its flags":                                                            {"serve", "--addr", "127.0.0.1:0", "please"},
		"--keep is how many backups stay, this one among them: 1 or more, not -1. Nothing was written or deleted": {"backup", "--key", "none", "--keep", "-1"},
		"1 or more, not 0": {"backup", "--key", "none", "--keep", "0"},
		"names no database: put its name after the slash": {"migrate", "--dsn", "ladder:x@tcp(127.0.0.1:3306)/"},
		"--tune is between 1 and 1000, not 0":             {"notes", "--tune", "0", "x.xml"},
		"the input: this is not a MusicXML file":          {"notes", "-", "--unfold"},
		"instruments, entry 2 (odd)":                      {"instruments", odd},
		"no such file":                                    {"notes", filepath.Join(dir, "nowhere.xml")},
		"is a folder":                                     {"notes", dir},
		"50 MB":                                           {"notes", huge},
		"usage: ladder analyze":                           {"analyze"},
		"not an instrument":                               {"analyze", "--instrument", "kazoo", "x"},
		"no number 9":                                     {"notes", "--tune", "9", "../../demo/scores/gulls-on-the-railing.musicxml"},
		"\"H\" is not a key":                              {"scale", "H", "major"},
		"between 1 and 4, not 9":                          {"scale", "C", "major", "--octaves", "9"},
		"usage: ladder scale":                             {"scale", "C"},
		"not a kind of scale":                             {"scale", "C", "blues"},
		"LADDER_DSN":                                      {"migrate"},
		"flag provided but not defined: -loud; 'ladder serve --help' says": {"serve", "--loud"},
		"database address is not":   {"serve", "--dsn", "nonsense"},
		"mail server is written as": {"serve", "--smtp", "mail.harbour.example"},
		"from: \"\" is not an":      {"serve", "--smtp", "smtp://mail.harbour.example"},
		"needs --studio":            {"account", "--dsn", "x"},
		"is not a time zone":        {"account", "--studio", "S", "--name", "N", "--email", "a@b.c", "--timezone", "Mars/Base"},
		"needs at least 8":          {"account", "--studio", "S", "--name", "N", "--email", "a@b.c"},
		"needs --email":             {"account", "reset"},
	} {
		_, err := call(args...)
		require.ErrorContains(t, err, says)
		require.NotContains(t, err.Error(), "\n")
	}
}

// Each verb says with --help what it does and lists all its flags; what they are by default is said, but for what nobody should
// read over a shoulder.
func TestEachVerbHelps(t *testing.T) {
	t.Setenv("LADDER_DSN", "ladder:topsecret@tcp(127.0.0.1:1)/ladder")
	for _, verb := range [][]string{
		{"demo"}, {"serve"}, {"migrate"}, {"account"}, {"account", "reset"}, {"secret"}, {"key"}, {"backup"}, {"restore"}, {"export"}, {"import"},
		{"check"}, {"notes"}, {"analyze"}, {"scale"},
		{"exercise"}, {"exercises"}, {"instruments"}, {"version"},
	} {
		out, err := call(append(verb, "--help")...)
		require.ErrorIs(t, err, errHelped, verb)
		require.True(t, strings.HasPrefix(out, "usage: ladder "+strings.Join(verb, " ")), out)
		require.NotContains(t, out, "topsecret")
		again, err := call(append(verb, "-h")...)
		require.ErrorIs(t, err, errHelped, verb)
		require.Equal(t, out, again)
	}
	out, _ := call("backup", "--help")
	require.Contains(t, out, "  --keep INT               how many backups stay in the folder (default 14)\n")
}

// The version is that of the change log, and the tables are those of the last migration.
func TestTheVersion(t *testing.T) {
	log, err := os.ReadFile("../../CHANGELOG.md")
	require.NoError(t, err)
	newest, _, err := store.Schemas()
	require.NoError(t, err)
	_, rest, _ := strings.Cut(string(log), "\n## ")
	line, _, _ := strings.Cut(rest, "\n")
	require.Equal(t, fmt.Sprintf("%s · tables %d", version, newest), line)
	out, err := call("version")
	require.NoError(t, err)
	require.Equal(t, "Patient Ladder "+version, strings.Split(out, "\n")[0])
	files, err := filepath.Glob("../../store/migrations/*.sql")
	require.NoError(t, err)
	require.Contains(t, files[len(files)-1], fmt.Sprintf("%05d_", newest))
}

// A score comes from the input as well, and one in which nothing sounds is no success.
func TestScoresFromTheInput(t *testing.T) {
	var out bytes.Buffer
	require.NoError(t, run([]string{"notes", "-"}, strings.NewReader("X:1\nL:1/4\nK:C\nE|"), &out))
	require.Equal(t, `[{"onset":"0","duration":"1","midi":64,"part":0,"staff":1,"voice":"1","bar":1}]`+"\n", out.String())
	silent := `<score-partwise version="4.0"><part-list><score-part id="P1"><part-name>P</part-name></score-part></part-list><part id="P1"><measure number="1"><attributes><divisions>1</divisions><time><beats>4</beats><beat-type>4</beat-type></time></attributes><note><rest/><duration>4</duration></note></measure></part></score-partwise>`
	require.EqualError(t, run([]string{"notes", "-"}, strings.NewReader(silent), &out), "the input: no note of it sounds")
}

// What begins a demo anew is what began it.
func TestWhatBeginsADemoAnew(t *testing.T) {
	require.Equal(t, "make demo-reset", anew(nil))
	require.Equal(t, os.Args[0]+" demo --students 60 --reset", anew([]string{"--students", "60"}))
	require.Equal(t, os.Args[0]+" demo --dir '/a b/it'\\''s' --reset", anew([]string{"--dir", "/a b/it's", "--reset"}))
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

func TestExercises(t *testing.T) {
	out, err := call("exercise", "ukulele", "roll/open/-/-/out-and-back")
	require.NoError(t, err)
	var e struct {
		Title string
		Notes []struct {
			At, Note, Pluck string
			String          int
		}
	}
	require.NoError(t, json.Unmarshal([]byte(out), &e))
	require.Equal(t, "Out and back", e.Title)
	// Tuned G4 C4 E4 A4 from string 4 to string 1, a finger to a string (common practice).
	var round []string
	for _, n := range e.Notes[:6] {
		round = append(round, fmt.Sprintf("%d %s %s", n.String, n.Note, n.Pluck))
	}
	require.Equal(t, []string{"4 G4 p", "3 C4 i", "2 E4 m", "1 A4 a", "2 E4 m", "3 C4 i"}, round)
	require.Equal(t, "1/2", e.Notes[1].At)

	out, err = call("exercise", "cello", "string-scale/one/D/major/-", "--musicxml")
	require.NoError(t, err)
	require.Contains(t, out, "<down-bow")
	out, err = call("exercise", "banjo")
	require.NoError(t, err)
	require.Contains(t, out, "roll/open/-/-/forward")
	for says, args := range map[string][]string{
		"there is no instrument \"kazoo\"": {"kazoo"},
		"is not an exercise":               {"piano", "scale"},
		"is not a key":                     {"piano", "scale/apart/H/major/-"},
		"usage: ladder exercise":           {},
	} {
		_, err := call(append([]string{"exercise"}, args...)...)
		require.ErrorContains(t, err, says)
	}
}

// A teacher writes a file, sees what the program makes of it, and starts the program with it: no code is touched (docs/instruments.md,
// whose example this is).
func TestAnInstrumentByAFile(t *testing.T) {
	page, err := os.ReadFile("../../docs/instruments.md")
	require.NoError(t, err)
	_, rest, _ := strings.Cut(string(page), "```json\n")
	example, _, _ := strings.Cut(rest, "```")
	file := filepath.Join(t.TempDir(), "mine.json")
	require.NoError(t, os.WriteFile(file, []byte(example), 0o600))
	out, err := call("instruments", file)
	require.NoError(t, err)
	lines := strings.Split(strings.TrimSpace(out), "\n")
	require.Equal(t, []string{
		"tenor banjo: plucked; A4, D4, G3, C3; 9 steps of exercises",
		"tenor recorder: wind; G4 to D5, C4 to E5, C4 to A5; 11 steps of exercises",
		"ocarina: wind; C4 to G4, C4 to C5, A3 to F5; 11 steps of exercises",
	}, lines[len(lines)-3:])
	_, err = call("exercise", "ocarina")
	require.ErrorContains(t, err, "no instrument", "it is there only while it is asked for")
	t.Setenv("LADDER_INSTRUMENTS", file)
	before := instrument.All()
	undo, err := extend(file, nil)
	require.NoError(t, err)
	defer undo()
	require.Len(t, instrument.All(), len(before)+3)
	out, err = call("exercise", "tenor banjo", "fret-scale/one/C/major/-")
	require.NoError(t, err)
	require.Contains(t, out, `"note":"C3","finger":0,"string":4`)
	t.Setenv("LADDER_INSTRUMENTS", filepath.Join(t.TempDir(), "none.json"))
	_, err = call("help")
	require.ErrorContains(t, err, "no such file")
}

// The same for a type of exercises and a way to bow (docs/exercises.md, whose example this is).
func TestExercisesOfOnesOwn(t *testing.T) {
	page, err := os.ReadFile("../../docs/exercises.md")
	require.NoError(t, err)
	_, rest, found := strings.Cut(string(page), "```json\n")
	require.True(t, found)
	example, _, _ := strings.Cut(rest, "```")
	file := filepath.Join(t.TempDir(), "mine.json")
	require.NoError(t, os.WriteFile(file, []byte(example), 0o600))
	out, err := call("exercises", file)
	require.NoError(t, err)
	lines := strings.Split(strings.TrimSpace(out), "\n")
	require.Equal(t, "scale-in-threes: bowed; three", lines[len(lines)-1])
	_, err = call("exercise", "cello", "scale-in-threes/three/C/major/-")
	require.Error(t, err, "it is there only while it is asked for")
	undo, err := extendExercises(file, nil)
	require.NoError(t, err)
	defer undo()
	out, err = call("exercise", "cello", "scale-in-threes/three/C/major/-")
	require.NoError(t, err)
	require.Contains(t, out, `"C2"`)
	require.NoError(t, os.WriteFile(file, []byte("{\"types\": [\n{\"id\": \"odd\", \"like\": \"scales\"}]}"), 0o600))
	_, err = call("exercises", file)
	require.ErrorContains(t, err, `exercises, line 2: it is like "scales", which is not there`)
}

package outside_test

import (
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"sort"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/notation/abc"
)

// performance holds what abc2midi takes as an order to play otherwise than is
// written: its own %%MIDI directives (drums, drones, swing), the hornpipe
// swing of R:, and the playing order of the parts.
var performance = regexp.MustCompile(`(?m)^(%%MIDI.*|R:.*|P: ?\(.*)$`)

// written changes, for both readers, what abc2midi plays out or cannot read.
var written = map[string][]string{
	"dergasn.abc":    {"TG", "G", "T=B", "=B"},            // its trills become many notes
	"baym_rebin.abc": {"K: C^f^c^a", "K: C exp ^f ^c ^a"}, // “Unknown mode '^f'”, and two signs of the three are lost
}

// bent tunes sound by bending the pitch; the nearest semitone that is read is
// not always the note that abc2midi bends. Their times are compared.
var bent = map[string]bool{"temperament.abc tune 1": true, "temperament.abc tune 2": true}

// Every example tune of Debian's abcmidi, note for note, repeats played out.
// Source: abc2midi 4.84 (Debian's abcmidi), read by midicsv. Grace notes,
// chord symbols and fermatas are left out of the comparison (-NGRA -NGUI -NFER).
func TestTunesSoundAsAbc2midiPlaysThem(t *testing.T) {
	files, err := filepath.Glob("/usr/share/doc/abcmidi/examples/*.abc")
	require.NoError(t, err)
	require.GreaterOrEqual(t, len(files), 10)
	sort.Strings(files)
	dir := t.TempDir()
	number := regexp.MustCompile(`(?m)^X: *(\d+)`)
	tunes, notes := 0, 0
	for _, f := range files {
		data, err := os.ReadFile(f)
		require.NoError(t, err)
		data = performance.ReplaceAll(data, []byte("%"))
		data = []byte(strings.NewReplacer(written[filepath.Base(f)]...).Replace(string(data)))
		// Without this, abc2midi spreads its chords.
		data = regexp.MustCompile(`(?m)^(K:.*)$`).ReplaceAll(data, []byte("$1\n%%MIDI chordattack 0"))
		plain := filepath.Join(dir, filepath.Base(f))
		require.NoError(t, os.WriteFile(plain, data, 0o600))
		scores, err := abc.Read(data)
		require.NoError(t, err, f)
		marks := number.FindAllSubmatch(data, -1)
		require.Len(t, scores, len(marks), f)
		for i, m := range marks {
			name := filepath.Base(f) + " tune " + string(m[1])
			out := filepath.Join(dir, strconv.Itoa(tunes)+".mid")
			text, err := exec.Command("abc2midi", plain, string(m[1]), "-o", out, "-NGRA", "-NGUI", "-NFER", "-silent").CombinedOutput()
			require.NoError(t, err, "%s", text)
			require.FileExists(t, out, "%s: %s", name, text)
			tunes++
			want := midicsv(t, out)
			for i := range want { // abc2midi begins every track one of its 480 ticks late
				want[i].onset = (want[i].onset - 1) / (quarter / 480) * (quarter / 480)
			}
			var got []heard
			for _, n := range inTicks(scores[i].Unfolded(10_000)) {
				if n.duration > 0 {
					got = append(got, n)
				}
			}
			if bent[name] {
				for _, list := range [][]heard{want, got} {
					for i := range list {
						list[i].midi = 0
					}
				}
			}
			t.Run(name, func(t *testing.T) { same(t, name, want, got) })
			notes += len(want)
		}
	}
	t.Logf("%d notes of %d tunes agree with abc2midi", notes, tunes)
	require.Greater(t, notes, 3000)
}

package demand

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/notation/abc"
	"patientladder/core/reading/analysis"
	"patientladder/golden"
)

// tunes hold what the rules tell apart: pickups and the bars that are short by them, metres, syncopation, ties, triplets, keys,
// chords, two hands, ornaments, repeats.
var tunes = []struct{ name, instrument, abc string }{
	{"steps and skips", "piano", "M:4/4\nK:C\nCDEC|EGEC|CCGG|C4|"},
	{"a pickup of one beat", "piano", "M:4/4\nK:G\nD|GGAB|c2 BA|G3|"},
	{"a pickup of a quaver", "recorder", "M:4/4\nK:F\nC/|F F/G/ A F|c2 A3/2|"},
	{"two parts with a pickup each", "piano", "M:3/4\nK:C\nG|c2 d|e2:|f|e2 d|c2|"},
	{"compound time", "cello", "M:6/8\nL:1/8\nK:D\nD|F2A d2f|e3 d2|"},
	{"syncopation and ties", "piano", "M:4/4\nK:C\nC/D E F G/|C D2 E|C3 D-|D4|"},
	{"triplets and dots", "piano", "M:2/4\nK:Bb\n(3B/c/d/ e|f>g|B2|"},
	{"chords", "ukulele", "M:4/4\nK:C\n[CEG]4|[FAc]2[GBd]2|[CEG]4|"},
	{"two hands", "piano", "M:4/4\nK:C\nV:1\nCDEF|G4|\nV:2 clef=bass\nC,4|[C,G,]4|"},
	{"accidentals and minor", "violin", "M:3/4\nK:Am\nA^GA|e2 ^f|^g3|a3|"},
	{"ornaments and touch", "piano", "M:2/4\nK:C\n{d}C.D|(EF)|!trill!G2|"},
	{"a bar split at a repeat", "piano", "M:4/4\nK:C\nCDEF|GA:|:Bc|dcBA|G4|"},
}

// What the rules find, to the last skill and bar. Where that changes for a tune that was here before, studios have read their
// scores by older rules: RulesVersion has to grow, so that they read them again.
func TestWhatIsFoundHasAVersion(t *testing.T) {
	tab := table(t)
	var out strings.Builder
	fmt.Fprintf(&out, "rules %d\n", RulesVersion)
	found := map[string]string{}
	for _, x := range tunes {
		scores, err := abc.Read([]byte("X:1\nL:1/4\n" + x.abc))
		require.NoError(t, err, x.name)
		var one strings.Builder
		for _, d := range tab.Find(analysis.Of(scores[0], x.instrument)) {
			fmt.Fprintf(&one, "%s %.2f %v\n", d.Skill, d.Weight, d.Bars)
		}
		found[x.name] = one.String()
		fmt.Fprintf(&out, "\n### %s\n%s", x.name, one.String())
	}
	before, err := os.ReadFile(filepath.Join("testdata", "findings.txt"))
	if err == nil {
		head, rest, _ := strings.Cut(string(before), "\n")
		for _, part := range strings.Split(rest, "\n### ")[1:] {
			name, list, _ := strings.Cut(part, "\n")
			if now, there := found[name]; there && strings.TrimSpace(now) != strings.TrimSpace(list) &&
				head == fmt.Sprintf("rules %d", RulesVersion) {
				t.Fatalf(
					"what is found in “%s” has changed: raise RulesVersion, then write the file anew with -update\nwas:\n%s\nis:\n%s",
					name,
					list,
					now,
				)
			}
		}
	}
	golden.Equal(t, "findings.txt", out.String())
}

package outside_test

import (
	"encoding/json"
	"os/exec"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/technique/scale"
)

// Every scale and triad of every key is spelled as tonal (npm) spells it.
func TestScalesAreSpelledAsTheoryHasThem(t *testing.T) {
	out, err := exec.Command("node", "scales.mjs").Output()
	require.NoError(t, err)
	var theirs map[scale.Kind]map[string][]string
	require.NoError(t, json.Unmarshal(out, &theirs))
	compared := 0
	for kind, keys := range theirs {
		for _, tonic := range scale.Keys(kind) {
			s, err := scale.Of(tonic, kind, 1)
			require.NoError(t, err)
			var ours []string
			for _, p := range s.Up.Notes[:len(s.Up.Notes)-1] {
				ours = append(ours, p.Name())
			}
			require.Equal(t, keys[tonic.String()], ours, "%s %s", tonic, kind)
			compared++
		}
	}
	require.Equal(t, 6*15, compared)
}

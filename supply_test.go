package patientladder_test

import (
	"encoding/json"
	"os"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

// The list of what is shipped names what the program is built from, in the versions that it is built with.
func TestTheListOfLicencesIsTrue(t *testing.T) {
	data, err := os.ReadFile("docs/licences.md")
	require.NoError(t, err)
	listed := map[string]string{}
	for _, line := range regexp.MustCompile(`(?m)^\| (\S+) \| (\S+) \| (.+) \|$`).FindAllStringSubmatch(string(data), -1) {
		listed[line[1]] = line[2]
		require.NotEmpty(t, strings.TrimSpace(line[3]), line[1])
	}
	mod, err := os.ReadFile("go.mod")
	require.NoError(t, err)
	looked := 0
	for _, m := range regexp.MustCompile(`(?m)^\t(\S+) v(\S+)$`).FindAllStringSubmatch(string(mod), -1) { // those that are asked for, not what they ask for
		if version, there := listed[m[1]]; there {
			looked++
			require.Equal(t, m[2], version, "%s: run 'make supply'", m[1])
		}
	}
	require.Greater(t, looked, 15)
	lock, err := os.ReadFile("web/package-lock.json")
	require.NoError(t, err)
	var tree struct {
		Packages map[string]struct {
			Version      string
			Dependencies map[string]string
		}
	}
	require.NoError(t, json.Unmarshal(lock, &tree))
	for name := range tree.Packages[""].Dependencies {
		require.Equal(t, tree.Packages["node_modules/"+name].Version, listed[name], "%s: run 'make supply'", name)
	}
}

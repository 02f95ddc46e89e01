// Package golden holds answers to files, to the last value and in order. It is for what has too many
// cases to be said one by one; a change of a rule is then read in the difference like code. The tests
// of a package write its files anew with
//
//	go test ./core/planning/week -update
package golden

import (
	"flag"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

var update = flag.Bool("update", false, "write the files in testdata anew")

// Equal compares a text with testdata/name and says where they part first.
func Equal(t *testing.T, name, now string) {
	t.Helper()
	path := filepath.Join("testdata", name)
	if *update {
		require.NoError(t, os.MkdirAll("testdata", 0o755))
		require.NoError(t, os.WriteFile(path, []byte(now), 0o644))
		return
	}
	before, err := os.ReadFile(path)
	require.NoError(t, err)
	if string(before) != now {
		t.Error(Difference(name, string(before), now))
	}
}

// Difference is the first line where two texts part, with the heading (### …) that it stands under and the
// lines before it.
func Difference(name, before, now string) string {
	was, is := strings.Split(before, "\n"), strings.Split(now, "\n")
	heading := ""
	for i := range min(len(was), len(is)) {
		if strings.HasPrefix(was[i], "### ") {
			heading = ", " + was[i][4:]
		}
		if was[i] != is[i] {
			return fmt.Sprintf(
				"%s, line %d%s\n%s\nwas: %.400s\nis:  %.400s",
				name,
				i+1,
				heading,
				strings.Join(was[max(0, i-3):i], "\n"),
				was[i],
				is[i],
			)
		}
	}
	return fmt.Sprintf("%s has %d lines and had %d", name, len(is), len(was))
}

// Package patientladder_test checks what no single package can see: which
// part of the program knows which.
package patientladder_test

import (
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

const module = "patientladder/"

// layer returns the top folder of a file or import of our own.
func layer(path string) string {
	top, _, _ := strings.Cut(filepath.ToSlash(path), "/")
	return top
}

// knows lists which of our own layers a layer may import.
var knows = map[string][]string{
	"clock":   {"clock", "core"},
	"core":    {"core"},
	"store":   {"store", "core", "clock"},
	"home":    {"home", "core"},
	"account": {"account"},
	"app":     {"app", "account", "store", "core", "home", "clock"},
	"api":     {"api", "app", "account", "store", "core", "home", "clock"},
	"web":     {},
	"demo":    {"demo", "account", "store", "core"},
	"cmd":     {"api", "app", "account", "store", "core", "demo", "home", "web", "clock"},
	"e2e":     {"api", "account", "store", "core", "demo", "web", "clock"},
	"bench":   {"api", "account", "store", "core", "demo"},
	"outside": {"core", "demo", "home"},
	"golden":  {},
}

// barred are imports from outside that a layer must not have; core has neither
// clock nor input and output, and only api knows Gin.
func barred(file, imported string) bool {
	test := strings.HasSuffix(file, "_test.go")
	switch {
	case strings.HasPrefix(imported, "github.com/gin-"):
		return layer(file) != "api"
	case imported == "database/sql" || strings.HasPrefix(imported, "github.com/go-sql-driver"):
		return layer(file) != "store"
	case layer(file) == "app":
		return imported == "net/http" && !test
	case layer(file) == "core" && !test:
		switch imported {
		case "os", "net/http", "log", "log/slog", "math/rand", "crypto/rand", "os/exec", "net":
			return true
		}
	}
	return false
}

func TestWhatMayKnowWhat(t *testing.T) {
	files := 0
	err := filepath.WalkDir(".", func(path string, d fs.DirEntry, err error) error {
		if err != nil {
			return err
		}
		if d.IsDir() && (d.Name() == "node_modules" || d.Name() == ".git" || d.Name() == ".run" || d.Name() == "tools") {
			return filepath.SkipDir
		}
		if filepath.Ext(path) != ".go" || layer(path) == filepath.Base(path) {
			return nil
		}
		files++
		parsed, err := parser.ParseFile(token.NewFileSet(), path, nil, parser.ImportsOnly)
		require.NoError(t, err)
		for _, spec := range parsed.Imports {
			imported, err := strconv.Unquote(spec.Path.Value)
			require.NoError(t, err)
			require.False(t, barred(path, imported), "%s imports %s", path, imported)
			if own, ok := strings.CutPrefix(imported, module); ok {
				allowed := knows[layer(path)]
				if layer(path) == "api" && (strings.HasSuffix(path, "_test.go") || strings.HasPrefix(filepath.ToSlash(path), "api/pagetest/")) {
					allowed = append([]string{"demo"}, allowed...) // its tests, and what serves them, teach in the demo studio
				}
				if strings.HasPrefix(filepath.ToSlash(path), "store/storetest/") {
					allowed = append([]string{"account"}, allowed...) // tests need no dear hashes
				}
				if strings.HasSuffix(path, "_test.go") {
					allowed = append([]string{"golden"}, allowed...) // answers that are held to files
				}
				require.Contains(t, allowed, layer(own), "%s imports %s", path, imported)
			}
		}
		return nil
	})
	require.NoError(t, err)
	require.Greater(t, files, 60)
}

// floors are the groups inside core, lowest first: an arrow goes down or stays on its floor.
var floors = []string{"base", "notation", "library", "reading", "technique", "student", "planning", "way", "wording"}

// floorOf returns which floor of core a file or import stands on.
func floorOf(t *testing.T, path string) int {
	t.Helper()
	parts := strings.Split(filepath.ToSlash(path), "/")
	require.Greater(t, len(parts), 1, path)
	floor := slices.Index(floors, parts[1])
	require.NotEqual(t, -1, floor, "%s stands on no floor of core", path)
	return floor
}

// Inside core no part knows of one above it.
func TestNoArrowGoesUpInsideCore(t *testing.T) {
	seen := map[int]bool{}
	err := filepath.WalkDir("core", func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") {
			return err
		}
		at := floorOf(t, path)
		seen[at] = true
		parsed, err := parser.ParseFile(token.NewFileSet(), path, nil, parser.ImportsOnly)
		require.NoError(t, err)
		for _, spec := range parsed.Imports {
			imported, err := strconv.Unquote(spec.Path.Value)
			require.NoError(t, err)
			if own, ok := strings.CutPrefix(imported, module); ok && layer(own) == "core" {
				require.LessOrEqual(t, floorOf(t, own), at, "%s reaches up to %s", path, own)
			}
		}
		return nil
	})
	require.NoError(t, err)
	for at := range len(floors) - 1 {
		require.True(t, seen[at], "nothing stands in core/%s", floors[at])
	}
}

var statement = regexp.MustCompile("[\"`](SELECT|INSERT INTO|UPDATE|DELETE FROM|REPLACE INTO) ")

func TestOnlyTheStoreWritesSQL(t *testing.T) {
	for _, top := range []string{"core", "api", "demo", "cmd", "web"} {
		err := filepath.WalkDir(top, func(path string, d fs.DirEntry, err error) error {
			if err != nil || d.IsDir() {
				if d != nil && d.Name() == "node_modules" {
					return filepath.SkipDir
				}
				return err
			}
			if filepath.Ext(path) != ".go" {
				return nil
			}
			data, err := os.ReadFile(path)
			require.NoError(t, err)
			require.False(t, statement.Match(data), "%s holds SQL", path)
			return nil
		})
		require.NoError(t, err)
	}
}

// core has no luck of its own: chance comes from a generator with a passed seed.
func TestCoreDrawsFromSeedsOnly(t *testing.T) {
	global := regexp.MustCompile(
		`rand\.(Int|Int32|Int64|Uint32|Uint64|Float32|Float64|NormFloat64|ExpFloat64|Perm|Shuffle|IntN|Int32N|Int64N|UintN|Uint32N|Uint64N|N)\(`,
	)
	err := filepath.WalkDir("core", func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") {
			return err
		}
		data, err := os.ReadFile(path)
		require.NoError(t, err)
		require.False(t, global.Match(data), "%s draws from the global generator", path)
		return nil
	})
	require.NoError(t, err)
}

// core reads no clock: the day is passed in.
func TestCoreReadsNoClock(t *testing.T) {
	clock := regexp.MustCompile(`time\.(Now|Since|Until|Sleep|After|Tick|NewTimer)\(`)
	err := filepath.WalkDir("core", func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") {
			return err
		}
		data, err := os.ReadFile(path)
		require.NoError(t, err)
		require.False(t, clock.Match(data), "%s reads the clock", path)
		return nil
	})
	require.NoError(t, err)
}

// One clock is given to everything; only it, the private database and the measurements read the machine's.
func TestThereIsOneClock(t *testing.T) {
	reads := regexp.MustCompile(`time\.(Now|Since|Until)\b`)
	for _, top := range []string{"api", "cmd", "demo", "e2e", "home", "outside", "store"} {
		err := filepath.WalkDir(top, func(path string, d fs.DirEntry, err error) error {
			if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") || strings.HasPrefix(filepath.ToSlash(path), "store/localdb/") ||
				path == filepath.Join("e2e", "ladder_test.go") {
				return err
			}
			data, err := os.ReadFile(path)
			require.NoError(t, err)
			require.False(t, reads.Match(data), "%s reads the machine's clock", path)
			return nil
		})
		require.NoError(t, err)
	}
}

// What makes the hashes of passwords cheap is for tests alone.
func TestTheProgramHashesAtFullCost(t *testing.T) {
	err := filepath.WalkDir(".", func(path string, d fs.DirEntry, err error) error {
		if err != nil {
			return err
		}
		if d.IsDir() && (d.Name() == "node_modules" || d.Name() == ".git" || d.Name() == ".run") {
			return filepath.SkipDir
		}
		slashed := filepath.ToSlash(path)
		if filepath.Ext(path) != ".go" || strings.HasPrefix(slashed, "store/storetest/") || slashed == "account/password.go" ||
			slashed == "layers_test.go" {
			return nil
		}
		text, err := os.ReadFile(path)
		require.NoError(t, err)
		require.NotContains(t, string(text), "LowerCost(", path)
		return nil
	})
	require.NoError(t, err)
}

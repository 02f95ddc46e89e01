package open

import (
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

// A key tells studios, kinds and inputs apart, and where one input ends and the next begins.
func TestKeys(t *testing.T) {
	require.Equal(t, keyOf("a", keptLog, "x", 1), keyOf("a", keptLog, "x", 1))
	seen := map[Key]bool{}
	for _, k := range []Key{
		keyOf("a", keptLog, "x", 1), keyOf("b", keptLog, "x", 1), keyOf("a", keptScore, "x", 1), keyOf("a", keptLog, "x", 2),
		keyOf("a", keptLog, "x1"), keyOf("a", keptLog, "x", "1", ""), keyOf("a", keptLog), keyOf("a", keptLog, ""), keyOf("a", keptLog, "1:x"),
		keyOf("a", keptLog, "1:", "x"),
	} {
		require.False(t, seen[k], "%v", k)
		require.Len(t, k.String(), 64)
		seen[k] = true
	}
	require.PanicsWithValue(t, "open: what is kept has no studio", func() { keyOf("", keptLog, "x") })
}

// Nothing is kept in memory but on a shelf, which takes keys of this type alone, and keys come from keyOf alone.
func TestEveryCacheHasTheKey(t *testing.T) {
	const cache = `"github.com/hashicorp/golang-lru`
	err := filepath.WalkDir("../..", func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() && (d.Name() == "node_modules" || d.Name() == ".git") {
			return filepath.SkipDir
		}
		if !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
			return nil
		}
		file, err := parser.ParseFile(token.NewFileSet(), path, nil, 0)
		if err != nil {
			return err
		}
		for _, i := range file.Imports {
			require.False(t, strings.HasPrefix(i.Path.Value, cache) && filepath.Base(path) != "key.go", "%s keeps something without a shelf", path)
		}
		made := ""
		ast.Inspect(file, func(n ast.Node) bool {
			switch x := n.(type) {
			case *ast.FuncDecl:
				made = x.Name.Name
			case *ast.CompositeLit:
				if id, ok := x.Type.(*ast.Ident); ok && id.Name == "Key" && file.Name.Name == "open" {
					require.Equal(t, "keyOf", made, path)
				}
			}
			return true
		})
		return nil
	})
	require.NoError(t, err)
}

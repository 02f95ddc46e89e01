package patientladder_test

import (
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

// What a package may hold before somebody has to say why: lines of its own, without tests and what is generated, and names
// that others see, beside the methods of its types.
const mostLines, mostNames = 2500, 60

// large are the packages that hold more, each with its reason.
var large = map[string]string{
	"store":                   "one type over one database: a query is a method, and a transaction spans all of them",
	"core/wording":            "one sentence a fact, in one voice: who looks for a sentence looks here",
	"core/notation/musicxml":  "one format, read with what is mended in it and written: nine names, and one reader that walks the file",
	"core/technique/exercise": "the notes of a type of exercise follow from its rule; types, steps and plans are data",
}

// size counts the lines of a package and the names that others see.
type size struct{ lines, names int }

func TestNoPackageGrowsUnseen(t *testing.T) {
	sizes := map[string]*size{}
	err := filepath.WalkDir(".", func(path string, d fs.DirEntry, err error) error {
		if err != nil {
			return err
		}
		if d.IsDir() && (d.Name() == "node_modules" || d.Name() == "testdata" || d.Name() == "tools" || len(d.Name()) > 1 && strings.HasPrefix(d.Name(), ".")) {
			return filepath.SkipDir
		}
		if !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") || strings.HasSuffix(path, ".gen.go") {
			return nil
		}
		text, err := os.ReadFile(path)
		require.NoError(t, err)
		file, err := parser.ParseFile(token.NewFileSet(), path, text, 0)
		require.NoError(t, err)
		at := filepath.ToSlash(filepath.Dir(path))
		if sizes[at] == nil {
			sizes[at] = &size{}
		}
		sizes[at].lines += strings.Count(string(text), "\n")
		for _, d := range file.Decls {
			sizes[at].names += names(d)
		}
		return nil
	})
	require.NoError(t, err)
	for at, s := range sizes {
		if fits := s.lines <= mostLines && s.names <= mostNames; large[at] == "" {
			require.True(t, fits, "%s has %d lines and %d names: divide it, or say why it cannot be", at, s.lines, s.names)
		} else {
			require.False(t, fits, "%s is no large package any more", at)
		}
	}
	for at := range large {
		require.Contains(t, sizes, at)
	}
}

// names counts the functions, types and variables of a declaration that others see; constants belong to their types.
func names(d ast.Decl) (n int) {
	switch d := d.(type) {
	case *ast.FuncDecl:
		if d.Recv == nil && d.Name.IsExported() {
			n++
		}
	case *ast.GenDecl:
		for _, s := range d.Specs {
			switch s := s.(type) {
			case *ast.TypeSpec:
				if s.Name.IsExported() {
					n++
				}
			case *ast.ValueSpec:
				for _, name := range s.Names {
					if d.Tok == token.VAR && name.IsExported() {
						n++
					}
				}
			}
		}
	}
	return n
}

// The student of planning's tests is for tests alone.
func TestTheProgramHasNoStudentOfTests(t *testing.T) {
	err := filepath.WalkDir("core", func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || filepath.Ext(path) != ".go" || strings.HasSuffix(path, "_test.go") {
			return err
		}
		text, err := os.ReadFile(path)
		require.NoError(t, err)
		require.NotContains(t, string(text), `"patientladder/core/planning/plantest"`, path)
		return nil
	})
	require.NoError(t, err)
}

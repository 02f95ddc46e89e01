// Command mutant changes a sample of the rule lines under a folder, one at a time, runs the tests
// that should notice, and prints which changes they did not. It is for packages whose tests are
// slow; make mutate uses it where N is given.
//
//	go run ./mutant [-seed 1] [-n 60] [-test ./api] FOLDER
//
// The tree is copied first: nothing of it is changed.
package main

import (
	"bytes"
	"context"
	"flag"
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"time"
)

// change is one token at one place and what stands there instead.
type change struct {
	file     string
	line     int
	offset   int
	old, new string
}

func (c change) String() string {
	return fmt.Sprintf("%s:%d: %s becomes %s", c.file, c.line, c.old, c.new)
}

// others are what a token becomes.
var others = map[token.Token]token.Token{
	token.LSS: token.LEQ, token.LEQ: token.LSS, token.GTR: token.GEQ, token.GEQ: token.GTR,
	token.EQL: token.NEQ, token.NEQ: token.EQL, token.LAND: token.LOR, token.LOR: token.LAND,
	token.ADD: token.SUB, token.SUB: token.ADD, token.MUL: token.QUO, token.QUO: token.MUL,
	token.INC: token.DEC, token.DEC: token.INC,
}

func main() {
	seed := flag.Uint64("seed", 1, "of the sample")
	n := flag.Int("n", 60, "how many changes")
	tests := flag.String("test", "", "the packages whose tests should notice; the folder by default")
	root := flag.String("root", "..", "the tree")
	flag.Parse()
	if err := run(*root, flag.Arg(0), *tests, *seed, *n); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func run(root, folder, tests string, seed uint64, n int) error {
	if tests == "" {
		tests = "./" + folder + "/..."
	}
	dir, err := os.MkdirTemp("", "mutant")
	if err != nil {
		return err
	}
	defer os.RemoveAll(dir)
	if out, err := exec.Command("cp", "-a", root+"/.", dir).CombinedOutput(); err != nil {
		return fmt.Errorf("%w: %s", err, out)
	}
	all, err := changes(dir, folder)
	if err != nil {
		return err
	}
	rand.New(rand.NewPCG(seed, 0)).Shuffle(len(all), func(i, j int) { all[i], all[j] = all[j], all[i] })
	all = all[:min(n, len(all))]
	if out, err := test(dir, tests); err != nil {
		return fmt.Errorf("the tests are red before anything is changed:\n%s", out)
	}
	noticed, broken := 0, 0
	for _, c := range all {
		switch seen, err := try(dir, tests, c); {
		case err != nil:
			return err
		case seen == "broken":
			broken++
		case seen == "noticed":
			noticed++
		default:
			fmt.Println("not noticed:", c)
		}
	}
	of := len(all) - broken
	fmt.Printf("%d of %d changes noticed (%.0f %%); %d did not compile\n", noticed, of, 100*float64(noticed)/float64(max(1, of)), broken)
	return nil
}

// changes are all that could be made, in the order of files and places.
func changes(dir, folder string) (out []change, err error) {
	err = filepath.WalkDir(filepath.Join(dir, folder), func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") || strings.HasSuffix(path, ".gen.go") {
			return err
		}
		set := token.NewFileSet()
		file, err := parser.ParseFile(set, path, nil, 0)
		if err != nil {
			return err
		}
		name, _ := filepath.Rel(dir, path)
		add := func(at token.Pos, t token.Token) {
			if other, ok := others[t]; ok {
				p := set.Position(at)
				out = append(out, change{name, p.Line, p.Offset, t.String(), other.String()})
			}
		}
		ast.Inspect(file, func(node ast.Node) bool {
			switch x := node.(type) {
			case *ast.BinaryExpr:
				// Whether an error came is plumbing, and text has no minus.
				if id, ok := x.Y.(*ast.Ident); ok && id.Name == "nil" || text(x) {
					return true
				}
				add(x.OpPos, x.Op)
			case *ast.IncDecStmt:
				add(x.TokPos, x.Tok)
			}
			return true
		})
		return nil
	})
	slices.SortFunc(out, func(a, b change) int {
		return strings.Compare(fmt.Sprintf("%s %09d", a.file, a.offset), fmt.Sprintf("%s %09d", b.file, b.offset))
	})
	return out, err
}

// text says that a sum holds a string.
func text(x *ast.BinaryExpr) bool {
	found := false
	ast.Inspect(x, func(n ast.Node) bool {
		if lit, ok := n.(*ast.BasicLit); ok && lit.Kind == token.STRING && x.Op == token.ADD {
			found = true
		}
		return true
	})
	return found
}

func try(dir, tests string, c change) (string, error) {
	path := filepath.Join(dir, c.file)
	was, err := os.ReadFile(path)
	if err != nil {
		return "", err
	}
	defer os.WriteFile(path, was, 0o644)
	now := slices.Concat(was[:c.offset], []byte(c.new), was[c.offset+len(c.old):])
	if err := os.WriteFile(path, now, 0o644); err != nil {
		return "", err
	}
	build := exec.Command("go", "build", "./"+filepath.Dir(c.file))
	build.Dir = dir
	if build.Run() != nil {
		return "broken", nil
	}
	if _, err := test(dir, tests); err != nil {
		return "noticed", nil
	}
	return "", nil
}

func test(dir, tests string) ([]byte, error) {
	ctx, cancel := context.WithTimeout(context.Background(), 10*time.Minute)
	defer cancel()
	cmd := exec.CommandContext(ctx, "go", append([]string{"test", "-count=1", "-failfast"}, strings.Fields(tests)...)...)
	cmd.Dir = dir
	var out bytes.Buffer
	cmd.Stdout, cmd.Stderr = &out, &out
	err := cmd.Run()
	return out.Bytes(), err
}

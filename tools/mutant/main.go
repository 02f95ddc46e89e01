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
	order, err := quickestFirst(dir, tests)
	if err != nil {
		return err
	}
	noticed, broken := 0, 0
	for _, c := range all {
		switch seen, err := try(dir, order, c); {
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

// quickestFirst are the packages with tests in the order in which they answer, each with the time it
// may take: a change that makes a loop endless is noticed by that.
func quickestFirst(dir, tests string) ([]suite, error) {
	list := exec.Command("go", append([]string{"list", "-f", "{{if or .TestGoFiles .XTestGoFiles}}{{.ImportPath}}{{end}}"}, strings.Fields(tests)...)...)
	list.Dir = dir
	out, err := list.Output()
	if err != nil {
		return nil, err
	}
	var all []suite
	for _, pkg := range strings.Fields(string(out)) {
		if out, err := test(dir, suite{pkg, 10 * time.Minute}); err != nil {
			return nil, fmt.Errorf("the tests are red before anything is changed:\n%s", out)
		}
		from := time.Now() // the second run has nothing to compile
		if out, err := test(dir, suite{pkg, 10 * time.Minute}); err != nil {
			return nil, fmt.Errorf("the tests are red the second time:\n%s", out)
		}
		all = append(all, suite{pkg, time.Since(from)})
	}
	slices.SortFunc(all, func(a, b suite) int { return int(a.takes - b.takes) })
	for i := range all {
		all[i].takes = 30*time.Second + 5*all[i].takes
	}
	return all, nil
}

// suite is the tests of one package and how long they may take.
type suite struct {
	pkg   string
	takes time.Duration
}

func try(dir string, order []suite, c change) (string, error) {
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
	for _, s := range order {
		if _, err := test(dir, s); err != nil {
			return "noticed", nil
		}
	}
	return "", nil
}

// test runs the tests of a package. The time limit is the test's own, so that its database stops with it.
func test(dir string, s suite) ([]byte, error) {
	ctx, cancel := context.WithTimeout(context.Background(), 2*s.takes+time.Minute)
	defer cancel()
	cmd := exec.CommandContext(ctx, "go", "test", "-count=1", "-failfast", "-timeout", s.takes.String(), s.pkg)
	cmd.Dir = dir
	var out bytes.Buffer
	cmd.Stdout, cmd.Stderr = &out, &out
	err := cmd.Run()
	return out.Bytes(), err
}

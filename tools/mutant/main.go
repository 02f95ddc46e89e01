// Command mutant changes a sample of the rule lines under a folder, one at a time, runs the tests
// that should notice, and prints which changes they did not. It is for packages whose tests are
// slow; make mutate uses it where N is given.
//
// A change turns a sign, drops a statement or a field of a mapping, lets a condition never or always hold, or swaps two things that
// are given to a call.
//
//	go run ./mutant [-seed 1] [-n 60] [-signs] [-test ./api] [-runs FILE] FOLDER
//
// Every test is run alone first, to learn which lines it runs and how long it takes; a change is then
// held only against the tests that run its line, the quickest first. Nothing of the tree is written:
// the compiler is given the changed file over the one that stands there.
package main

import (
	"encoding/json"
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

// change is some text at one place and what stands there instead.
type change struct {
	file     string // from the root of the tree
	at       place
	within   span // of the function around it; empty outside of one
	offset   int
	old, new string
}

func (c change) String() string {
	if c.new == "" {
		return fmt.Sprintf("%s:%d: without %s", c.file, c.at.Line, short(c.old))
	}
	return fmt.Sprintf("%s:%d: %s becomes %s", c.file, c.at.Line, short(c.old), short(c.new))
}

// short is the beginning of a text on one line.
func short(s string) string {
	s = strings.Join(strings.Fields(s), " ")
	if r := []rune(s); len(r) > 70 {
		s = string(r[:70]) + "…"
	}
	return s
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
	signs := flag.Bool("signs", false, "turn signs only")
	tests := flag.String("test", "", "the packages whose tests should notice; the folder by default")
	root := flag.String("root", "..", "the tree")
	most := flag.Duration("most", time.Hour, "how long the tests of one change may take: the quickest that run its line come first")
	runs := flag.String(
		"runs",
		"",
		"a file that keeps which test runs which line; made where it does not exist, to be thrown away when the code changes",
	)
	flag.Parse()
	if err := run(*root, filepath.Clean(flag.Arg(0)), *tests, *runs, *seed, *n, *most, *signs); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func run(root, folder, packages, kept string, seed uint64, n int, most time.Duration, signs bool) error {
	if packages == "" {
		packages = "./" + folder + "/..."
	}
	root, err := filepath.Abs(root)
	if err != nil {
		return err
	}
	dir, err := os.MkdirTemp("", "mutant")
	if err != nil {
		return err
	}
	defer os.RemoveAll(dir)
	all, err := changes(root, folder, signs)
	if err != nil {
		return err
	}
	rand.New(rand.NewPCG(seed, 0)).Shuffle(len(all), func(i, j int) { all[i], all[j] = all[j], all[i] })
	all = all[:min(n, len(all))]
	known, err := learn(root, dir, folder, packages, kept)
	if err != nil {
		return err
	}
	noticed, broken := 0, 0
	for _, c := range all {
		switch seen, err := try(root, dir, known, c, most); {
		case err != nil:
			return err
		case seen == "broken":
			broken++
		case seen == "":
			noticed++
		default:
			fmt.Printf("%s: %s\n", seen, c)
		}
	}
	of := len(all) - broken
	fmt.Printf("%d of %d changes noticed (%.0f %%); %d did not compile\n", noticed, of, 100*float64(noticed)/float64(max(1, of)), broken)
	return nil
}

// changes are all that could be made, in the order of files and places. Folders of tools for tests,
// which are called …test as in the standard library, hold no rules.
func changes(root, folder string, signs bool) (out []change, err error) {
	err = filepath.WalkDir(filepath.Join(root, folder), func(path string, d fs.DirEntry, err error) error {
		if err == nil && d.IsDir() && strings.HasSuffix(d.Name(), "test") {
			return fs.SkipDir
		}
		if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") ||
			strings.HasSuffix(path, ".gen.go") {
			return err
		}
		set := token.NewFileSet()
		source, err := os.ReadFile(path)
		if err != nil {
			return err
		}
		file, err := parser.ParseFile(set, path, source, 0)
		if err != nil {
			return err
		}
		name, _ := filepath.Rel(root, path)
		at := func(p token.Pos) place {
			x := set.Position(p)
			return place{x.Line, x.Column}
		}
		for _, d := range file.Decls {
			var within span
			if f, ok := d.(*ast.FuncDecl); ok {
				within = span{at(f.Pos()), at(f.End())}
			}
			add := func(p token.Pos, t token.Token) {
				if other, ok := others[t]; ok {
					out = append(out, change{name, at(p), within, set.Position(p).Offset, t.String(), other.String()})
				}
			}
			ast.Inspect(d, func(node ast.Node) bool {
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
				if !signs {
					for _, m := range meant(node, source, func(p token.Pos) int { return set.Position(p).Offset }) {
						out = append(out, change{name, at(m.at), within, m.offset, m.old, m.new})
					}
				}
				return true
			})
		}
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

// try builds the tests over the changed file and runs those that run its line. It says how the change
// went unnoticed, "broken" where it does not compile, and nothing where a test noticed.
func try(root, dir string, known []test, c change, most time.Duration) (string, error) {
	path := filepath.Join(root, c.file)
	was, err := os.ReadFile(path)
	if err != nil {
		return "", err
	}
	changed, overlay := filepath.Join(dir, "changed.go"), filepath.Join(dir, "overlay.json")
	if err := os.WriteFile(changed, slices.Concat(was[:c.offset], []byte(c.new), was[c.offset+len(c.old):]), 0o644); err != nil {
		return "", err
	}
	over, err := json.Marshal(map[string]any{"Replace": map[string]string{path: changed}})
	if err != nil {
		return "", err
	}
	if err := os.WriteFile(overlay, over, 0o644); err != nil {
		return "", err
	}
	build := exec.Command("go", "build", "-overlay", overlay, "./"+filepath.Dir(c.file))
	build.Dir = root
	if build.Run() != nil {
		return "broken", nil
	}
	which := running(known, c)
	if len(which) == 0 {
		return "run by no test", nil
	}
	built := map[string]string{}
	for _, together := range rounds(within(which, most)) {
		pkg := together[0].Package
		if built[pkg] == "" {
			built[pkg] = filepath.Join(dir, fmt.Sprint("changed", len(built)))
			if err := compile(root, pkg, built[pkg], "-overlay", overlay); err != nil {
				return "", err
			}
		}
		if !passes(built[pkg], together) {
			return "", nil
		}
	}
	return "not noticed", nil
}

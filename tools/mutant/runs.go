package main

import (
	"cmp"
	"context"
	"encoding/json"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"sync"
	"time"
)

// place is a line and a column, both from 1.
type place struct{ Line, Column int }

func (p place) before(q place) bool {
	return cmp.Or(cmp.Compare(p.Line, q.Line), cmp.Compare(p.Column, q.Column)) < 0
}

// span is from a place to before another.
type span struct{ From, To place }

func (s span) holds(p place) bool { return !p.before(s.From) && p.before(s.To) }

// test is a test that was run alone: what it ran, by file from the root, and how long it took.
type test struct {
	Package string
	Folder  string // in which it runs
	Name    string
	Takes   time.Duration
	Ran     map[string][]span
}

// learn runs every test of the packages alone, or reads what was kept of that.
func learn(root, dir, folder, packages, kept string) (all []test, err error) {
	if data, err := os.ReadFile(kept); err == nil {
		return all, json.Unmarshal(data, &all)
	}
	list := exec.Command(
		"go",
		append([]string{"list", "-f", "{{if or .TestGoFiles .XTestGoFiles}}{{.ImportPath}} {{.Dir}}{{end}}"}, strings.Fields(packages)...)...)
	list.Dir = root
	out, err := list.Output()
	if err != nil {
		return nil, err
	}
	for line := range strings.Lines(string(out)) {
		pkg, in, ok := strings.Cut(strings.TrimSpace(line), " ")
		if !ok {
			continue
		}
		some, err := learnPackage(root, dir, folder, pkg, in)
		if err != nil {
			return nil, err
		}
		all = append(all, some...)
	}
	slices.SortStableFunc(all, func(a, b test) int { return cmp.Compare(a.Takes, b.Takes) })
	if kept != "" {
		data, err := json.Marshal(all)
		if err != nil {
			return nil, err
		}
		return all, os.WriteFile(kept, data, 0o644)
	}
	return all, nil
}

func learnPackage(root, dir, folder, pkg, in string) ([]test, error) {
	built := filepath.Join(dir, "covered")
	if err := compile(root, pkg, built, "-cover", "-coverpkg=./"+folder+"/..."); err != nil {
		return nil, err
	}
	names := exec.Command(built, "-test.list", "^Test")
	names.Dir = in
	out, err := names.Output()
	if err != nil {
		return nil, fmt.Errorf("%s: %w", pkg, err)
	}
	var all []test
	for _, name := range strings.Fields(string(out)) {
		if strings.HasPrefix(name, "Test") {
			all = append(all, test{Package: pkg, Folder: in, Name: name})
		}
	}
	// Two at a time: most of them wait for a database.
	var wg sync.WaitGroup
	errs, room := make([]error, len(all)), make(chan struct{}, 2)
	for i := range all {
		room <- struct{}{}
		wg.Go(func() {
			defer func() { <-room }()
			errs[i] = all[i].learn(built, filepath.Join(dir, fmt.Sprint("profile", i)))
		})
	}
	wg.Wait()
	var green []test
	for i, err := range errs {
		if err != nil {
			fmt.Fprintln(os.Stderr, "left out:", err)
			continue
		}
		green = append(green, all[i])
	}
	return green, nil
}

func (t *test) learn(built, profile string) error {
	from := time.Now()
	cmd := exec.Command(built, "-test.run", "^"+t.Name+"$", "-test.coverprofile", profile)
	cmd.Dir = t.Folder
	if out, err := cmd.CombinedOutput(); err != nil {
		return fmt.Errorf("%s of %s is red alone, before anything is changed:\n%s", t.Name, t.Package, out)
	}
	t.Takes = time.Since(from)
	data, err := os.ReadFile(profile)
	if err != nil {
		return err
	}
	defer os.Remove(profile)
	module, _, _ := strings.Cut(t.Package, "/")
	t.Ran = map[string][]span{}
	for _, m := range block.FindAllStringSubmatch(string(data), -1) {
		var s span
		if _, err := fmt.Sscanf(m[2], "%d.%d,%d.%d", &s.From.Line, &s.From.Column, &s.To.Line, &s.To.Column); err != nil {
			return err
		}
		file := strings.TrimPrefix(m[1], module+"/")
		t.Ran[file] = append(t.Ran[file], s)
	}
	return nil
}

// block is a line of a profile of what ran, where it ran at least once.
var block = regexp.MustCompile(`(?m)^(\S+):(\d+\.\d+,\d+\.\d+) \d+ [1-9]\d*$`)

// running are the tests that run the place of a change. Profiles do not see the conditions of a case
// and what stands between functions: for these it is every test that runs something of the function,
// or of the file.
func running(known []test, c change) (out []test) {
	for _, holds := range []func(span) bool{
		func(s span) bool { return s.holds(c.at) && c.within.holds(s.From) },
		func(s span) bool { return c.within.holds(s.From) },
		func(span) bool { return c.within == (span{}) },
	} {
		for _, t := range known {
			if slices.ContainsFunc(t.Ran[c.file], holds) {
				out = append(out, t)
			}
		}
		if len(out) > 0 {
			return out
		}
	}
	return nil
}

// within are as many tests, the quickest first, as take so long.
func within(which []test, most time.Duration) []test {
	for i, t := range which {
		if most -= t.Takes; most < 0 && i > 0 {
			return which[:i]
		}
	}
	return which
}

// rounds are tests of one package that run together: the quickest dozen seconds first, then the others.
func rounds(which []test) (out [][]test) {
	quick, rest := map[string][]test{}, map[string][]test{}
	takes := map[string]time.Duration{}
	var packages []string
	for _, t := range which {
		if !slices.Contains(packages, t.Package) {
			packages = append(packages, t.Package)
		}
		if takes[t.Package] += t.Takes; takes[t.Package] < 30*time.Second {
			quick[t.Package] = append(quick[t.Package], t)
		} else {
			rest[t.Package] = append(rest[t.Package], t)
		}
	}
	for _, of := range []map[string][]test{quick, rest} {
		for _, pkg := range packages {
			if len(of[pkg]) > 0 {
				out = append(out, of[pkg])
			}
		}
	}
	return out
}

func compile(root, pkg, to string, flags ...string) error {
	cmd := exec.Command("go", append(append([]string{"test", "-c", "-vet=off", "-o", to}, flags...), pkg)...)
	cmd.Dir = root
	if out, err := cmd.CombinedOutput(); err != nil {
		return fmt.Errorf("%s: %w: %s", pkg, err, out)
	}
	return nil
}

// passes runs tests of one package. The time limit is the test's own, so that its database stops with
// it: a change that makes a loop endless is noticed by that.
func passes(built string, which []test) bool {
	limit := 30 * time.Second
	var names []string
	for _, t := range which {
		names, limit = append(names, t.Name), limit+3*t.Takes
	}
	ctx, cancel := context.WithTimeout(context.Background(), limit+time.Minute)
	defer cancel()
	cmd := exec.CommandContext(ctx, built, "-test.failfast", "-test.timeout", limit.String(), "-test.run", "^("+strings.Join(names, "|")+")$")
	cmd.Dir = which[0].Folder
	return cmd.Run() == nil
}

// Command licences lists what is shipped with the program, by name, version and licence, from lists in CycloneDX.
package main

import (
	"encoding/json"
	"fmt"
	"os"
	"slices"
	"strings"
)

// known are licences that no list finds by itself, looked up in the source.
var known = map[string]string{"github.com/pressly/goose/v3": "MIT"}

type licence struct {
	License struct{ ID, Name string }
	// Expression stands for several.
	Expression string
}

func (l licence) text() string {
	for _, s := range []string{l.Expression, l.License.ID, l.License.Name} {
		if s != "" {
			return s
		}
	}
	return ""
}

func main() {
	if len(os.Args) < 2 {
		fmt.Fprintln(os.Stderr, "usage: licences LIST.cdx.json …")
		os.Exit(2)
	}
	// What only builds and tests the page is in its list and not shipped.
	shipped := map[string]bool{}
	if data, err := os.ReadFile("../web/package-lock.json"); err == nil {
		var lock struct {
			Packages map[string]struct {
				Version string
				Dev     bool
			}
		}
		if err := json.Unmarshal(data, &lock); err != nil {
			fmt.Fprintln(os.Stderr, err)
			os.Exit(1)
		}
		for path, p := range lock.Packages {
			if at := strings.LastIndex(path, "node_modules/"); at >= 0 && !p.Dev {
				shipped[path[at+len("node_modules/"):]+" "+p.Version] = true
			}
		}
	}
	fmt.Print(
		"# What is shipped with the program\n\nWritten by `make supply` from the lists in CycloneDX that it makes; a test holds the versions against go.mod and package-lock.json.\n",
	)
	bad := false
	for _, file := range os.Args[1:] {
		data, err := os.ReadFile(file)
		var list struct {
			Components []struct {
				Group, Name, Version string
				Licenses             []licence
				Evidence             struct{ Licenses []licence }
			}
		}
		if err == nil {
			err = json.Unmarshal(data, &list)
		}
		if err != nil {
			fmt.Fprintln(os.Stderr, err)
			os.Exit(1)
		}
		title := "The page"
		if strings.Contains(file, "go.cdx") {
			title = "The program"
		}
		fmt.Printf("\n## %s\n\n| package | version | licence |\n|---|---|---|\n", title)
		var lines []string
		for _, c := range list.Components {
			var terms []string
			for _, l := range append(c.Licenses, c.Evidence.Licenses...) {
				if t := l.text(); t != "" && !slices.Contains(terms, t) {
					terms = append(terms, t)
				}
			}
			name := c.Name
			if c.Group != "" {
				name = c.Group + "/" + c.Name
			}
			if title == "The page" && !shipped[name+" "+c.Version] {
				continue
			}
			if len(terms) == 0 && known[name] != "" {
				terms = []string{known[name]}
			}
			if len(terms) == 0 {
				fmt.Fprintf(os.Stderr, "no licence is known of %s %s\n", name, c.Version)
				bad = true
			}
			lines = append(lines, fmt.Sprintf("| %s | %s | %s |", name, strings.TrimPrefix(c.Version, "v"), strings.Join(terms, ", ")))
		}
		slices.Sort(lines)
		fmt.Println(strings.Join(slices.Compact(lines), "\n"))
	}
	if bad {
		os.Exit(1)
	}
}

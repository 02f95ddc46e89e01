package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strconv"

	"patientladder/core/library/instrument"
	"patientladder/core/notation/score"
	"patientladder/core/notation/scorefile"
	"patientladder/core/reading/analysis"
	"patientladder/core/reading/chunk"
	"patientladder/core/reading/demand"
)

// longest is how many bars --unfold plays at the most.
const longest = 100_000

// scoreArgs are the arguments of the verbs that read a score; flags may stand
// before or after the file.
type scoreArgs struct {
	file   string
	unfold bool
	// tune counts from 1, for files with several.
	tune       int
	instrument string
	age        int
}

func parseScoreArgs(args []string, usage usageError) (scoreArgs, error) {
	a := scoreArgs{tune: 1, instrument: "piano", age: 7}
	for i := 0; i < len(args); i++ {
		value := func(into *string) bool {
			if i++; i < len(args) {
				*into = args[i]
				return true
			}
			return false
		}
		number := func(into *int) bool {
			var s string
			if !value(&s) {
				return false
			}
			n, err := strconv.Atoi(s)
			*into = n
			return err == nil && n >= 1 && n <= 1000
		}
		ok := true
		switch arg := args[i]; {
		case arg == "--unfold":
			a.unfold = true
		case arg == "--tune":
			ok = number(&a.tune)
		case arg == "--age":
			ok = number(&a.age)
		case arg == "--instrument":
			ok = value(&a.instrument)
		case a.file == "" && arg != "":
			a.file = arg
		default:
			ok = false
		}
		if !ok {
			return a, usage
		}
	}
	if a.file == "" {
		return a, usage
	}
	return a, nil
}

// notes prints the sounding notes of a score as JSON.
func notes(args []string, out io.Writer) error {
	a, err := parseScoreArgs(args, "ladder notes [--unfold] [--tune N] FILE")
	if err != nil {
		return err
	}
	data, err := load(a.file)
	if err != nil {
		return err
	}
	_, pieces, err := scorefile.Read(data)
	if err != nil {
		return fmt.Errorf("%s: %w", filepath.Base(a.file), err)
	}
	sc, err := a.choose(pieces)
	if err != nil {
		return err
	}
	if a.unfold {
		return json.NewEncoder(out).Encode(sc.Unfolded(longest))
	}
	return json.NewEncoder(out).Encode(sc.Sounding())
}

// analyze prints everything that is found in a score as JSON.
func analyze(args []string, out io.Writer) error {
	a, err := parseScoreArgs(args, "ladder analyze [--instrument NAME] [--age YEARS] [--tune N] FILE")
	if err != nil {
		return err
	}
	family, known := instrument.FamilyOf(a.instrument)
	if !known {
		return fmt.Errorf("%q is not an instrument that is known; try piano, cello or ukulele", a.instrument)
	}
	data, err := load(a.file)
	if err != nil {
		return err
	}
	_, pieces, err := scorefile.Pieces(data, family == instrument.Keyboard)
	if err != nil {
		return fmt.Errorf("%s: %w", filepath.Base(a.file), err)
	}
	sc, err := a.choose(pieces)
	if err != nil {
		return err
	}
	_, table, err := demand.Shipped()
	if err != nil {
		return err
	}
	p := analysis.Of(sc, a.instrument)
	return json.NewEncoder(out).Encode(p.Report(chunk.LeafBars(a.age), nil, table.Find(p)))
}

// load reads a file within the limits of a score.
func load(file string) ([]byte, error) {
	limit := score.DefaultLimits().Bytes
	info, err := os.Stat(file)
	switch {
	case errors.Is(err, os.ErrNotExist):
		return nil, fmt.Errorf("%s: there is no such file", file)
	case err != nil:
		return nil, err
	case info.IsDir():
		return nil, fmt.Errorf("%s: this is a folder, not a file", file)
	case info.Size() > int64(limit):
		return nil, fmt.Errorf("%s: the file has %d MB; a score may have %d MB at most", filepath.Base(file), info.Size()>>20, limit>>20)
	}
	return os.ReadFile(file)
}

// choose picks the tune that was asked for.
func (a scoreArgs) choose(pieces []*score.Score) (*score.Score, error) {
	if a.tune > len(pieces) {
		return nil, fmt.Errorf("%s: the file holds %d pieces; there is no number %d", filepath.Base(a.file), len(pieces), a.tune)
	}
	return pieces[a.tune-1], nil
}

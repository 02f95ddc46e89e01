package main

import (
	"fmt"
	"io"
	"os"
	"strings"

	"patientladder/core/library/instrument"
	"patientladder/core/technique/exercise"
)

// largestInstruments is how large a file of instruments may be.
const largestInstruments = 1 << 20

// extend adds the instruments of a file to those that ship; undo takes them out again.
func extend(file string) (undo func(), err error) {
	info, err := os.Stat(file)
	if err != nil {
		return nil, fmt.Errorf("instruments: %w", err)
	}
	if info.IsDir() || info.Size() > largestInstruments {
		return nil, fmt.Errorf("instruments: %s is no file of instruments, or is larger than 1 MB", file)
	}
	data, err := os.ReadFile(file)
	if err != nil {
		return nil, fmt.Errorf("instruments: %w", err)
	}
	if undo, err = instrument.Extend(data); err != nil {
		return nil, fmt.Errorf("%s: %w", file, err)
	}
	return undo, nil
}

// listInstruments writes an instrument to a line: its family, its strings or its range, and how many exercises it has.
func listInstruments(args []string, out io.Writer) error {
	if len(args) > 1 {
		return usageError("ladder instruments [FILE]")
	}
	if len(args) == 1 {
		undo, err := extend(args[0])
		if err != nil {
			return err
		}
		defer undo()
	}
	for _, x := range instrument.All() {
		var about []string
		for _, p := range x.Open {
			about = append(about, p.String())
		}
		for _, r := range x.Ranges {
			about = append(about, r.Low.String()+" to "+r.High.String())
		}
		steps := 0
		for _, t := range exercise.For(x) {
			steps += len(t.Steps)
		}
		fmt.Fprintf(out, "%s: %s; %s; %d steps of exercises\n", x.ID, x.Family, strings.Join(about, ", "), steps)
	}
	return nil
}

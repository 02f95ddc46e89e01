package main

import (
	"fmt"
	"io"
	"strings"

	"patientladder/core/library/instrument"
	"patientladder/core/technique/exercise"
)

// largestOwn is how large a file of instruments or exercises may be.
const largestOwn = 1 << 20

// extend adds the instruments of a file, or of the input for -, to those that ship; undo takes them out again.
func extend(file string, in io.Reader) (undo func(), err error) {
	return extended("instruments", file, in, instrument.Extend)
}

// extended hands a file of a studio's own, or the input for -, to what adds it to what ships.
func extended(what, file string, in io.Reader, add func([]byte) (func(), error)) (undo func(), err error) {
	r, name, err := input(file, in)
	if err != nil {
		return nil, fmt.Errorf("%s: %w", what, err)
	}
	defer r.Close()
	data, err := io.ReadAll(io.LimitReader(r, largestOwn+1))
	if err != nil || len(data) > largestOwn {
		return nil, fmt.Errorf("%s: %s is no file of %s, or is larger than 1 MB", what, name, what)
	}
	if undo, err = add(data); err != nil {
		return nil, fmt.Errorf("%s: %w", name, err)
	}
	return undo, nil
}

// listInstruments writes an instrument to a line: its family, its strings or its range, and how many exercises it has.
func listInstruments(args []string, in io.Reader, out io.Writer) error {
	f := flags(
		"instruments",
		"Writes the instruments, one to a line; with a file (- for the input) those of your own, read and checked (docs/instruments.md).",
		out,
	).wants("[FILE]", 0, 1)
	if err := f.read(args); err != nil {
		return err
	}
	if len(f.given) == 1 {
		undo, err := extend(f.given[0], in)
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

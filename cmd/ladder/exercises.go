package main

import (
	"fmt"
	"io"
	"strings"

	"patientladder/core/reading/demand"
	"patientladder/core/technique/exercise"
)

// extendExercises adds the exercises of a file, or of the input for -, to those that ship; undo takes them out again.
func extendExercises(file string, in io.Reader) (undo func(), err error) {
	skills, _, err := demand.Shipped()
	if err != nil {
		return nil, err
	}
	known := func(id string) bool {
		_, there := skills.Get(id)
		return there
	}
	return extended("exercises", file, in, func(data []byte) (func(), error) { return exercise.Extend(data, known) })
}

// listTypes writes a type of exercises to a line: its families and its steps.
func listTypes(args []string, in io.Reader, out io.Writer) error {
	f := flags(
		"exercises",
		"Writes the types of exercises, one to a line; with a file (- for the input) those of your own, read and checked (docs/exercises.md).",
		out,
	).wants("[FILE]", 0, 1)
	if err := f.read(args); err != nil {
		return err
	}
	if len(f.given) == 1 {
		undo, err := extendExercises(f.given[0], in)
		if err != nil {
			return err
		}
		defer undo()
	}
	for _, t := range exercise.Forms(nil).All() {
		families, steps := make([]string, len(t.Families)), make([]string, len(t.Steps))
		for i, x := range t.Families {
			families[i] = string(x)
		}
		for i, s := range t.Steps {
			steps[i] = s.ID
		}
		fmt.Fprintf(out, "%s: %s; %s\n", t.ID, strings.Join(families, ", "), strings.Join(steps, ", "))
	}
	return nil
}

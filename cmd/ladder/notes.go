package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"

	"patientladder/core/musicxml"
)

// longest is how many bars --unfold plays at the most.
const longest = 100_000

// notes prints the sounding notes of a score as JSON.
func notes(args []string, out io.Writer) error {
	file, unfold := "", false
	for _, a := range args { // the flag may stand before or after the file
		switch {
		case a == "--unfold" || a == "-unfold":
			unfold = true
		case file == "" && a != "":
			file = a
		default:
			return usageError("ladder notes [--unfold] FILE")
		}
	}
	if file == "" {
		return usageError("ladder notes [--unfold] FILE")
	}
	info, err := os.Stat(file)
	switch {
	case errors.Is(err, os.ErrNotExist):
		return fmt.Errorf("%s: there is no such file", file)
	case err != nil:
		return err
	case info.IsDir():
		return fmt.Errorf("%s: this is a folder, not a file", file)
	case info.Size() > int64(musicxml.DefaultLimits().Bytes):
		return fmt.Errorf("%s: the file has %d MB; a score may have %d MB at most", filepath.Base(file), info.Size()>>20, musicxml.DefaultLimits().Bytes>>20)
	}
	data, err := os.ReadFile(file)
	if err != nil {
		return err
	}
	sc, err := musicxml.Read(data)
	if err != nil {
		return fmt.Errorf("%s: %w", filepath.Base(file), err)
	}
	if unfold {
		return json.NewEncoder(out).Encode(sc.Unfolded(longest))
	}
	return json.NewEncoder(out).Encode(sc.Sounding())
}

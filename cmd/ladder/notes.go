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

// notes prints the sounding notes of a score as JSON.
func notes(args []string, out io.Writer) error {
	if len(args) != 1 {
		return usageError("ladder notes FILE")
	}
	info, err := os.Stat(args[0])
	switch {
	case errors.Is(err, os.ErrNotExist):
		return fmt.Errorf("%s: there is no such file", args[0])
	case err != nil:
		return err
	case info.IsDir():
		return fmt.Errorf("%s: this is a folder, not a file", args[0])
	case info.Size() > int64(musicxml.DefaultLimits().Bytes):
		return fmt.Errorf("%s: the file has %d MB; a score may have %d MB at most", filepath.Base(args[0]), info.Size()>>20, musicxml.DefaultLimits().Bytes>>20)
	}
	data, err := os.ReadFile(args[0])
	if err != nil {
		return err
	}
	sc, err := musicxml.Read(data)
	if err != nil {
		return fmt.Errorf("%s: %w", filepath.Base(args[0]), err)
	}
	return json.NewEncoder(out).Encode(sc.Sounding())
}

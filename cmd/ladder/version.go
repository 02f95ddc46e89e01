package main

import (
	"fmt"
	"io"
	"runtime"

	"patientladder/store"
)

// version is that of CHANGELOG.md (a test holds them together).
const version = "1.1.0"

func runVersion(args []string, out io.Writer) error {
	if err := flags("version", "Says which version this is, and which tables it knows.", out).read(args); err != nil {
		return err
	}
	newest, oldest, err := store.Schemas()
	if err != nil {
		return err
	}
	_, err = fmt.Fprintf(
		out,
		"Patient Ladder %s\ntables %d; programs that know tables from %d on can serve them too\nbuilt with %s for %s/%s\n",
		version,
		newest,
		oldest,
		runtime.Version(),
		runtime.GOOS,
		runtime.GOARCH,
	)
	return err
}

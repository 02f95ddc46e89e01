// Package web carries the built front end. Its sources are beside this file;
// `make build` puts the result into dist/app.
package web

import (
	"embed"
	"io/fs"
)

//go:embed all:dist
var dist embed.FS

// Page returns the built front end with index.html at its root. Before it is
// built the file system is empty, and the server says what to do.
func Page() fs.FS {
	page, err := fs.Sub(dist, "dist/app")
	if err != nil {
		panic("web: a constant path is always valid: " + err.Error())
	}
	return page
}

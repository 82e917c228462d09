// Package web holds the built web interface. Without a build it is empty, and
// everything but the screens works.
package web

import (
	"embed"
	"io/fs"
)

//go:embed all:dist
var dist embed.FS

// Files returns the built interface, index.html at its root.
func Files() fs.FS {
	files, err := fs.Sub(dist, "dist")
	if err != nil {
		panic(err) // the path is fixed at compile time
	}
	return files
}

package server

import (
	"io"
	"io/fs"
	"mime"
	"net/http"
	"path"
	"strings"
	"time"
)

// files serves the built web interface. It was compressed when it was built: what
// ends in .br or .gz is the same file, smaller. A path that is no file is a place
// inside the interface, which finds its way itself. What is in the program is sent from
// there: no copy is held.
type files struct {
	web   fs.FS
	names map[string]bool
}

func newFiles(web fs.FS) (*files, error) {
	f := &files{web, map[string]bool{}}
	err := fs.WalkDir(web, ".", func(name string, d fs.DirEntry, err error) error {
		if err == nil && !d.IsDir() {
			f.names[name] = true
		}
		return err
	})
	return f, err
}

// encodings are the ways in which files are compressed, the smallest first.
var encodings = []struct{ name, ending string }{{"br", ".br"}, {"gzip", ".gz"}}

func (f *files) ServeHTTP(w http.ResponseWriter, r *http.Request) {
	if r.Method != http.MethodGet && r.Method != http.MethodHead {
		refuse(w, errMissing)
		return
	}
	name := strings.TrimPrefix(path.Clean(r.URL.Path), "/")
	if !f.names[name] {
		name = "index.html"
	}
	_ = http.NewResponseController(w).SetWriteDeadline(time.Now().Add(answerTime)) // for whoever does not read on
	h := w.Header()
	h.Set("Cache-Control", "no-cache")
	if strings.HasPrefix(name, "assets/") {
		h.Set("Cache-Control", "public, max-age=31536000, immutable") // names hold a hash
	}
	if strings.HasPrefix(name, "assets/sw-") {
		h.Set("Service-Worker-Allowed", "/") // it sees to all pages, not only to its folder
	}
	h.Set("Content-Type", mime.TypeByExtension(path.Ext(name)))
	h.Add("Vary", "Accept-Encoding")
	for _, e := range encodings {
		if f.names[name+e.ending] && accepts(r, e.name) {
			h.Set("Content-Encoding", e.name)
			name += e.ending
			break
		}
	}
	f.send(w, r, name)
}

// send sends a file as it is. The ways it is taken in, embedded or from a folder, can all be
// read from any place.
func (f *files) send(w http.ResponseWriter, r *http.Request, name string) {
	file, err := f.web.Open(name)
	if err != nil {
		refuse(w, errMissing)
		return
	}
	defer file.Close()
	http.ServeContent(w, r, "", time.Time{}, file.(io.ReadSeeker))
}

// accepts reports whether a request takes an encoding (RFC 9110, 12.5.3).
func accepts(r *http.Request, encoding string) bool {
	for _, part := range strings.Split(r.Header.Get("Accept-Encoding"), ",") {
		name, weight, _ := strings.Cut(strings.TrimSpace(part), ";")
		if name == encoding {
			return !strings.HasPrefix(strings.ReplaceAll(weight, " ", ""), "q=0") || strings.Trim(weight, "q=0. ") != ""
		}
	}
	return false
}

// Package pgcluster runs a private PostgreSQL server: for whoever has no other,
// whose data stays in a folder, and for tests, whose data is thrown away. Nobody
// but its own user and root can speak to it: it listens on a socket in a folder
// that is closed to others, and on no network.
//
// The server is looked after: one that dies is started again, and one that an
// earlier program has left behind is waited for. Linux alone has what that needs;
// elsewhere Start says so, and another server is named by DATABASE_URL.
package pgcluster

import (
	"errors"
	"fmt"
	"hash/fnv"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
)

// ErrInUse is returned for data that another running program uses.
var ErrInUse = errors.New("another Manudrill uses this data; stop it first, or set MANUDRILL_DATA to another folder")

// port names the socket; no network has it.
const port = "5432"

// urlOf is the connection string of a server whose socket lies in a folder.
func urlOf(sockets string) string {
	q := url.Values{"host": {sockets}, "port": {port}, "user": {"manudrill"}, "sslmode": {"disable"}}
	return "postgres:///postgres?" + q.Encode()
}

// URL is the connection string of the server that a running program has started on
// the data in dir.
func URL(dir string) string { return urlOf(socketsOf(dir)) }

// longestSocket is the most bytes a socket's path may have (unix(7): 108 with the
// end).
const longestSocket = 107

// socketsOf is the folder of the socket for the data in dir: beside it, or under
// the temporary folder where that would be too long.
func socketsOf(dir string) string {
	beside := dir + ".run"
	if len(beside)+len("/.s.PGSQL."+port) <= longestSocket {
		return beside
	}
	sum := fnv.New64a()
	_, _ = sum.Write([]byte(dir)) // a hash does not fail
	return filepath.Join(os.TempDir(), fmt.Sprintf("manudrill-%x", sum.Sum64()))
}

// Program finds one of PostgreSQL's programs, the newest version first. Debian
// keeps them out of the search path.
func Program(name string) (string, error) {
	found, _ := filepath.Glob("/usr/lib/postgresql/*/bin/" + name) // fails only for a bad pattern
	if len(found) > 0 {
		slices.Sort(found)
		return found[len(found)-1], nil
	}
	path, err := exec.LookPath(name)
	if err != nil {
		return "", fmt.Errorf("PostgreSQL's %s is not installed; run 'make install-tools', or set DATABASE_URL to use another server", name)
	}
	return path, nil
}

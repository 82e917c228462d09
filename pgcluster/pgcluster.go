// Package pgcluster runs a private PostgreSQL server on loopback: for the demo,
// whose data stays in a folder, and for tests, whose data is thrown away.
package pgcluster

import (
	"context"
	"errors"
	"fmt"
	"net"
	"os"
	"os/exec"
	"path/filepath"
	"runtime"
	"slices"
	"strconv"
	"syscall"
	"time"

	"github.com/jackc/pgx/v5"
)

// A Cluster is a running server. Stop it when done.
type Cluster struct {
	URL string // connection string of its database

	dir    string
	port   int
	owner  *owner
	server *exec.Cmd
	exited chan error
	throw  bool // remove the folder at the end
}

// Start starts a server on the data in dir, which it makes where it is missing.
func Start(ctx context.Context, dir string) (*Cluster, error) {
	abs, err := filepath.Abs(dir)
	if err != nil {
		return nil, err
	}
	return start(ctx, abs, false)
}

// StartThrowaway starts a server on new data that is removed by Stop.
func StartThrowaway(ctx context.Context) (*Cluster, error) {
	dir, err := os.MkdirTemp("", "manudrill-pg-")
	if err != nil {
		return nil, err
	}
	return start(ctx, dir, true)
}

func start(ctx context.Context, dir string, throw bool) (*Cluster, error) {
	who, err := serverOwner()
	if err != nil {
		return nil, err
	}
	c := &Cluster{dir: dir, owner: who, throw: throw, exited: make(chan error, 1)}
	if err := c.prepare(ctx); err != nil {
		return nil, err
	}
	if c.port, err = freePort(); err != nil {
		return nil, err
	}
	if err := c.launch(); err != nil {
		return nil, err
	}
	c.URL = fmt.Sprintf("postgres://manudrill@127.0.0.1:%d/postgres?sslmode=disable", c.port)
	if err := c.await(ctx); err != nil {
		return nil, errors.Join(err, c.Stop())
	}
	return c, nil
}

// prepare makes the data folder and fills it when it is new.
func (c *Cluster) prepare(ctx context.Context) error {
	if err := os.MkdirAll(c.dir, 0o700); err != nil {
		return fmt.Errorf("the folder for the database cannot be made: %w", err)
	}
	if err := c.owner.give(c.dir); err != nil {
		return err
	}
	if _, err := os.Stat(filepath.Join(c.dir, "PG_VERSION")); err == nil {
		return nil
	}
	initdb, err := program("initdb")
	if err != nil {
		return err
	}
	args := []string{"-D", c.dir, "-U", "manudrill", "--auth=trust", "-E", "UTF8", "--locale=C.UTF-8"}
	if c.throw {
		args = append(args, "--no-sync")
	}
	cmd := c.owner.command(ctx, initdb, args...)
	if out, err := cmd.CombinedOutput(); err != nil {
		return fmt.Errorf("initdb failed: %w\n%s", err, out)
	}
	return nil
}

// launch starts the server process. It dies with this program even when this
// program is killed, for which its thread must live as long.
func (c *Cluster) launch() error {
	postgres, err := program("postgres")
	if err != nil {
		return err
	}
	log, err := os.OpenFile(c.dir+".log", os.O_CREATE|os.O_APPEND|os.O_WRONLY, 0o600)
	if err != nil {
		return err
	}
	args := []string{"-D", c.dir, "-p", strconv.Itoa(c.port), "-c", "listen_addresses=127.0.0.1", "-c", "unix_socket_directories="}
	if c.throw {
		args = append(args, "-c", "fsync=off", "-c", "full_page_writes=off", "-c", "synchronous_commit=off")
	}
	c.server = c.owner.command(context.Background(), postgres, args...)
	c.server.Stdout, c.server.Stderr = log, log
	c.server.SysProcAttr.Pdeathsig = syscall.SIGINT
	started := make(chan error)
	go func() {
		runtime.LockOSThread()
		defer log.Close()
		err := c.server.Start()
		started <- err
		if err == nil {
			c.exited <- c.server.Wait()
		}
	}()
	return <-started
}

// await waits until the server answers.
func (c *Cluster) await(ctx context.Context) error {
	ctx, cancel := context.WithTimeout(ctx, 30*time.Second)
	defer cancel()
	for {
		conn, err := pgx.Connect(ctx, c.URL)
		if err == nil {
			return conn.Close(ctx)
		}
		select {
		case exit := <-c.exited:
			c.exited <- exit
			log, _ := os.ReadFile(c.dir + ".log")
			return fmt.Errorf("PostgreSQL did not start: %w\n%s", exit, log[max(0, len(log)-2000):])
		case <-ctx.Done():
			return fmt.Errorf("PostgreSQL does not answer: %w", err)
		case <-time.After(50 * time.Millisecond):
		}
	}
}

// Stop ends the server and waits for it. Throw-away data is removed.
func (c *Cluster) Stop() error {
	stop := syscall.SIGINT // fast: open connections are ended
	if c.throw {
		stop = syscall.SIGQUIT // at once
	}
	_ = c.server.Process.Signal(stop) // it may have exited already
	<-c.exited
	if !c.throw {
		return nil
	}
	return errors.Join(os.RemoveAll(c.dir), os.Remove(c.dir+".log"))
}

// program finds one of PostgreSQL's programs, the newest version first. Debian
// keeps them out of the search path.
func program(name string) (string, error) {
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

func freePort() (int, error) {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return 0, err
	}
	defer l.Close()
	return l.Addr().(*net.TCPAddr).Port, nil
}

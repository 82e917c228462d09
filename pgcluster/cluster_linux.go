package pgcluster

import (
	"context"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"sync/atomic"
	"time"

	"github.com/jackc/pgx/v5"
)

// A Cluster is a running server. Stop it when done.
type Cluster struct {
	URL string // connection string of its database

	dir      string
	sockets  string
	throw    bool // remove the folder at the end
	owner    *owner
	lock     *os.File
	server   atomic.Pointer[process]
	stopping chan struct{}
	ended    chan struct{} // closed when nothing looks after the server any more
}

// Times the server is given.
const (
	startTime   = 60 * time.Second // to answer, after a crash too
	leftTime    = 30 * time.Second // to end, where an earlier program has left it
	fastTime    = 20 * time.Second // to end when connections are cut
	atOnceTime  = 5 * time.Second  // to end without more ado
	restartWait = 200 * time.Millisecond
)

// Start starts a server on the data in dir, which it makes where it is missing. It
// returns [ErrInUse] where another program uses the data.
func Start(ctx context.Context, dir string) (*Cluster, error) {
	abs, err := filepath.Abs(dir)
	if err != nil {
		return nil, err
	}
	if real, err := filepath.EvalSymlinks(abs); err == nil {
		abs = real // by which a server that was left behind is known again
	}
	return start(ctx, abs, false)
}

// StartThrowaway starts a server on new data that is removed by Stop.
func StartThrowaway(ctx context.Context) (*Cluster, error) {
	dir, err := os.MkdirTemp("", "manudrill-pg-")
	if err != nil {
		return nil, err
	}
	if err := os.Chmod(dir, 0o711); err != nil { // its owner must get in
		return nil, err
	}
	c, err := start(ctx, filepath.Join(dir, "data"), true)
	if err != nil {
		return nil, errors.Join(err, os.RemoveAll(dir))
	}
	return c, nil
}

func start(ctx context.Context, dir string, throw bool) (*Cluster, error) {
	who, err := serverOwner()
	if err != nil {
		return nil, err
	}
	c := &Cluster{
		dir: dir, sockets: socketsOf(dir), throw: throw, owner: who,
		stopping: make(chan struct{}), ended: make(chan struct{}),
	}
	c.URL = urlOf(c.sockets)
	if c.lock, err = lock(dir + ".lock"); err != nil {
		return nil, err
	}
	if err := c.begin(ctx); err != nil {
		return nil, errors.Join(err, c.lock.Close())
	}
	go c.lookAfter()
	return c, nil
}

// begin makes the data where it is missing and starts the server on it.
func (c *Cluster) begin(ctx context.Context) error {
	if err := waitForLeft(ctx, c.dir); err != nil {
		return err
	}
	if err := c.prepare(ctx); err != nil {
		return err
	}
	if err := c.owner.folder(c.sockets); err != nil {
		return err
	}
	p, err := c.launch()
	if err != nil {
		return err
	}
	c.server.Store(p)
	if err := c.await(ctx, p); err != nil {
		p.end()
		return err
	}
	return nil
}

// await waits until the server answers.
func (c *Cluster) await(ctx context.Context, p *process) error {
	ctx, cancel := context.WithTimeout(ctx, startTime)
	defer cancel()
	for {
		conn, err := pgx.Connect(ctx, c.URL)
		if err == nil {
			return conn.Close(ctx)
		}
		select {
		case <-p.exited:
			return fmt.Errorf("PostgreSQL did not start: %w\n%s", p.fault, lastOf(c.logName()))
		case <-ctx.Done():
			return fmt.Errorf("PostgreSQL does not answer: %w", err)
		case <-time.After(20 * time.Millisecond):
		}
	}
}

// lookAfter starts the server again whenever it dies, until it is to stop.
func (c *Cluster) lookAfter() {
	defer close(c.ended)
	for wait := restartWait; ; {
		p := c.server.Load()
		began := time.Now()
		select {
		case <-c.stopping:
			return
		case <-p.exited:
		}
		if time.Since(began) > time.Minute {
			wait = restartWait
		}
		c.note("PostgreSQL has ended (%v) and is started again\n", p.fault)
		select {
		case <-c.stopping:
			return
		case <-time.After(wait):
		}
		wait = min(2*wait, 10*time.Second)
		// What a killed server has left behind may go on for a moment; then the new
		// one does not start, and it is tried again.
		fresh, err := c.launch()
		if err != nil {
			c.note("PostgreSQL cannot be started: %v\n", err)
			continue
		}
		c.server.Store(fresh)
	}
}

// PID is the process id of the server as it runs now, which tests need to kill it.
func (c *Cluster) PID() int { return c.server.Load().cmd.Process.Pid }

// Stop ends the server and waits for it, within bounds. Throw-away data is removed.
func (c *Cluster) Stop() error {
	close(c.stopping)
	<-c.ended
	p := c.server.Load()
	if c.throw {
		p.endAtOnce()
	} else {
		p.end()
	}
	err := errors.Join(os.RemoveAll(c.sockets), c.lock.Close())
	if c.throw {
		err = errors.Join(err, os.RemoveAll(filepath.Dir(c.dir)))
	}
	return err
}

func (c *Cluster) logName() string { return c.dir + ".log" }

// note writes into the server's log.
func (c *Cluster) note(format string, args ...any) {
	log, err := os.OpenFile(c.logName(), os.O_CREATE|os.O_APPEND|os.O_WRONLY, 0o600)
	if err != nil {
		return // there is nowhere else to say it
	}
	defer log.Close()
	fmt.Fprintf(log, format, args...)
}

// lastOf is the end of a log.
func lastOf(name string) string {
	log, _ := os.ReadFile(name) // nothing where there is none
	return string(log[max(0, len(log)-2000):])
}

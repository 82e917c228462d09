package pgcluster

import (
	"context"
	"os"
	"os/exec"
	"runtime"
	"syscall"
	"time"
)

// A process is one run of the server.
type process struct {
	cmd    *exec.Cmd
	exited chan struct{} // closed when it has
	fault  error         // how, once it has
}

// launch starts the server process. It dies with this program even when this
// program is killed, for which its thread must live as long.
func (c *Cluster) launch() (*process, error) {
	postgres, err := Program("postgres")
	if err != nil {
		return nil, err
	}
	log, err := os.OpenFile(c.logName(), os.O_CREATE|os.O_APPEND|os.O_WRONLY, 0o600)
	if err != nil {
		return nil, err
	}
	args := []string{"-D", c.dir, "-p", port, "-c", "listen_addresses=", "-c", "unix_socket_directories=" + c.sockets, "-c", "unix_socket_permissions=0700"}
	if c.throw {
		args = append(args, "-c", "fsync=off", "-c", "full_page_writes=off", "-c", "synchronous_commit=off", "-c", "max_connections=400")
	}
	p := &process{cmd: c.owner.command(context.Background(), postgres, args...), exited: make(chan struct{})}
	p.cmd.Stdout, p.cmd.Stderr = log, log
	p.cmd.SysProcAttr.Pdeathsig = syscall.SIGINT
	started := make(chan error)
	go func() {
		runtime.LockOSThread()
		defer log.Close()
		err := p.cmd.Start()
		started <- err
		if err == nil {
			p.fault = p.cmd.Wait()
			close(p.exited)
		}
	}()
	return p, <-started
}

// end lets the server end properly, cutting connections; where it does not within
// its time, without more ado.
func (p *process) end() {
	_ = p.cmd.Process.Signal(syscall.SIGINT) // it may have exited already
	select {
	case <-p.exited:
	case <-time.After(fastTime):
		p.endAtOnce()
	}
}

// endAtOnce leaves the server no time to write: it would recover at its next start.
func (p *process) endAtOnce() {
	_ = p.cmd.Process.Signal(syscall.SIGQUIT)
	select {
	case <-p.exited:
		return
	case <-time.After(atOnceTime):
	}
	_ = syscall.Kill(-p.cmd.Process.Pid, syscall.SIGKILL) // and what it has started
	<-p.exited
}

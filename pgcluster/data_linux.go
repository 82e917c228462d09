package pgcluster

import (
	"context"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"syscall"
	"time"
)

// lock takes a file's lock, which lasts until the file is closed or the program
// ends, however it ends.
func lock(name string) (*os.File, error) {
	if err := os.MkdirAll(filepath.Dir(name), 0o755); err != nil {
		return nil, fmt.Errorf("the folder for the database cannot be made: %w", err)
	}
	file, err := os.OpenFile(name, os.O_CREATE|os.O_RDWR, 0o600)
	if err != nil {
		return nil, fmt.Errorf("the folder for the database cannot be used: %w", err)
	}
	if err := syscall.Flock(int(file.Fd()), syscall.LOCK_EX|syscall.LOCK_NB); err != nil {
		return nil, errors.Join(ErrInUse, file.Close())
	}
	return file, nil
}

// waitForLeft waits for a server that an earlier program has left behind: it is
// ending since that program has ended.
func waitForLeft(ctx context.Context, dir string) error {
	pid := serverOn(dir)
	if pid == 0 {
		return nil
	}
	// It was told so when its program ended; in case it was not, it is again.
	_ = syscall.Kill(pid, syscall.SIGINT)
	for until := time.Now().Add(leftTime); serverOn(dir) == pid; {
		if time.Now().After(until) {
			return fmt.Errorf("an earlier PostgreSQL, process %d, does not end; end it and start again", pid)
		}
		select {
		case <-ctx.Done():
			return ctx.Err()
		case <-time.After(50 * time.Millisecond):
		}
	}
	return nil
}

// serverOn is the process id of the server that runs on some data; 0 for none.
func serverOn(dir string) int {
	pidFile, err := os.ReadFile(filepath.Join(dir, "postmaster.pid"))
	if err != nil {
		return 0
	}
	first, _, _ := strings.Cut(string(pidFile), "\n")
	pid, err := strconv.Atoi(first)
	if err != nil || pid <= 1 {
		return 0
	}
	// The number may have gone to another program since.
	name, err := os.ReadFile(fmt.Sprintf("/proc/%d/comm", pid))
	if err != nil || strings.TrimSpace(string(name)) != "postgres" {
		return 0
	}
	at, err := os.Readlink(fmt.Sprintf("/proc/%d/cwd", pid))
	if err != nil || at != dir {
		return 0
	}
	return pid
}

// prepare makes the data where there is none. It is made beside and put into place
// when it is whole, so that a start that is broken off leaves nothing half made.
func (c *Cluster) prepare(ctx context.Context) error {
	switch whole, err := begun(c.dir); {
	case err != nil:
		return err
	case whole:
		return nil
	}
	fresh := c.dir + ".new"
	if err := os.RemoveAll(fresh); err != nil {
		return err
	}
	if err := c.owner.folder(fresh); err != nil {
		return err
	}
	initdb, err := Program("initdb")
	if err != nil {
		return err
	}
	args := []string{"-D", fresh, "-U", "manudrill", "--auth-local=trust", "--auth-host=reject", "-E", "UTF8", "--locale=C.UTF-8"}
	if c.throw {
		args = append(args, "--no-sync")
	}
	cmd := c.owner.command(ctx, initdb, args...)
	if out, err := cmd.CombinedOutput(); err != nil {
		return fmt.Errorf("the database cannot be made: %w\n%s", err, out)
	}
	if err := os.WriteFile(filepath.Join(fresh, wholeMark), nil, 0o600); err != nil {
		return err
	}
	return os.Rename(fresh, c.dir)
}

// wholeMark is a file that data has once it is made whole.
const wholeMark = "manudrill.whole"

// begun reports whether there is data on which a server has run. What a start that
// was broken off has half made, on which none has, is put aside.
func begun(dir string) (bool, error) {
	entries, err := os.ReadDir(dir)
	if errors.Is(err, os.ErrNotExist) {
		return false, nil
	}
	if err != nil {
		return false, err
	}
	if len(entries) == 0 {
		return false, os.Remove(dir)
	}
	if _, err := os.Stat(filepath.Join(dir, "postmaster.opts")); err == nil {
		return true, nil
	}
	if _, err := os.Stat(filepath.Join(dir, wholeMark)); err == nil {
		return true, nil // its first start has yet to come
	}
	return false, os.Rename(dir, fmt.Sprintf("%s.unfinished-%d", dir, time.Now().UnixNano()))
}

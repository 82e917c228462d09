package main

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"os"
	"os/exec"
	"syscall"
	"time"

	"github.com/spf13/cobra"

	"manudrill/server/jobs"
)

func working(cmd *cobra.Command) {
	cmd.Args = cobra.NoArgs
	cmd.RunE = func(cmd *cobra.Command, _ []string) error { return work(cmd) }
}

// work measures takes until it is interrupted, then finishes those under way. A
// second interrupt ends it at once.
func work(cmd *cobra.Command) error {
	ctx, stop := interruptible(cmd.Context())
	defer stop()
	url := os.Getenv("DATABASE_URL")
	if url == "" {
		return errors.New("'manudrill work' works for a server of which it is told by DATABASE_URL; 'manudrill serve' measures what is handed in to it by itself")
	}
	s, err := openStore(ctx, url)
	if err != nil {
		return err
	}
	defer s.Close()
	post, err := postman()
	if err != nil {
		return err
	}
	workers, err := jobs.Start(ctx, s, post)
	if err != nil {
		return err
	}
	fmt.Fprintln(cmd.OutOrStdout(), "Measuring takes")
	<-ctx.Done()
	ending, cancel := context.WithTimeout(context.WithoutCancel(ctx), finishTime)
	defer cancel()
	return workers.Stop(ending)
}

// lookAfterWorker measures takes in a process of its own, of lower priority, until
// end is called: the screens go first, and a take that would end its worker ends
// nothing else. A worker that dies is started again.
func lookAfterWorker(ctx context.Context, url string) (end func()) {
	ctx, cancel := context.WithCancel(ctx)
	done := make(chan struct{})
	go func() {
		defer close(done)
		for wait := time.Second; ; wait = min(2*wait, 30*time.Second) {
			began := time.Now()
			err := runWorker(ctx, url)
			if ctx.Err() != nil {
				return
			}
			if time.Since(began) > time.Minute {
				wait = time.Second
			}
			slog.Error("the worker has ended and is started again", "error", err)
			select {
			case <-ctx.Done():
				return
			case <-time.After(wait):
			}
		}
	}()
	return func() {
		cancel()
		<-done
	}
}

// runWorker runs one worker to its end, which comes in its own time when ctx ends.
func runWorker(ctx context.Context, url string) error {
	self, err := os.Executable()
	if err != nil {
		return err
	}
	cmd := exec.CommandContext(ctx, self, "work")
	cmd.Env = append(os.Environ(), "DATABASE_URL="+url)
	cmd.Stderr = os.Stderr
	cmd.Cancel = func() error { return cmd.Process.Signal(syscall.SIGTERM) }
	cmd.WaitDelay = finishTime + 5*time.Second
	return runBehind(cmd)
}

package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"os"
	"os/signal"
	"strings"
	"syscall"
	"time"

	"github.com/google/uuid"
	"github.com/spf13/cobra"

	"manudrill/demo"
	"manudrill/server"
	"manudrill/store"
	"manudrill/web"
)

func serveCommand() *cobra.Command {
	return serving("serve", "Serve the application; data is kept in MANUDRILL_DATA or on the server of DATABASE_URL", false)
}

func demoCommand() *cobra.Command {
	return serving("demo", "Serve the application with an invented studio in it", true)
}

// serveOptions are what serve and demo are told.
type serveOptions struct {
	address string
	hosts   []string
	noWork  bool
	demo    bool
}

func serving(name, short string, withDemo bool) *cobra.Command {
	o := serveOptions{demo: withDemo}
	cmd := &cobra.Command{
		Use: name, Short: short, Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error { return serve(cmd, o) },
	}
	cmd.Flags().StringVar(&o.address, "listen", defaultAddress, "address to serve at")
	cmd.Flags().StringSliceVar(&o.hosts, "host", nil, "name under which it is reached, where that is neither localhost nor an address")
	cmd.Flags().BoolVar(&o.noWork, "no-work", false, "measure no takes here; 'manudrill work' does it elsewhere")
	return cmd
}

const defaultAddress = "127.0.0.1:8765"

// serve runs until it is interrupted. A second interrupt ends it at once.
func serve(cmd *cobra.Command, o serveOptions) error {
	ctx, stop := interruptible(cmd.Context())
	defer stop()
	out := cmd.OutOrStdout()
	url, closeDatabase, err := database(ctx, out)
	if err != nil {
		return err
	}
	defer closeDatabase()
	s, err := store.Open(ctx, url)
	if err != nil {
		return err
	}
	defer s.Close()
	if o.demo {
		err = demo.Load(ctx, s, demo.Weeks, time.Now(), showProgress(out))
	} else {
		err = openStudio(ctx, s)
	}
	if err != nil {
		return fmt.Errorf("the studio cannot be filled: %w", err)
	}
	if !o.noWork {
		end := lookAfterWorker(ctx, url)
		defer end()
	}
	handler, err := server.New(s, web.Files(), server.Options{Hosts: names(o)})
	if err != nil {
		return err
	}
	return listenAndServe(ctx, out, o.address, handler)
}

// names are those under which the server is reached: those it is told, and the one
// it is to listen at.
func names(o serveOptions) []string {
	all := []string{}
	for _, h := range o.hosts {
		all = append(all, strings.ToLower(h))
	}
	if host, _, err := net.SplitHostPort(o.address); err == nil && host != "" {
		all = append(all, strings.ToLower(host))
	}
	return all
}

// interruptible ends its context at the first interrupt; the second one does what
// it does to any program.
func interruptible(ctx context.Context) (context.Context, context.CancelFunc) {
	ctx, stop := signal.NotifyContext(ctx, os.Interrupt, syscall.SIGTERM)
	context.AfterFunc(ctx, stop)
	return ctx, stop
}

// openStudio puts an instructor and a student into a studio that has nobody, so
// that there is somebody to be until people can sign in.
func openStudio(ctx context.Context, s *store.Store) error {
	people, err := s.People(ctx, nil)
	if err != nil || len(people) > 0 {
		return err
	}
	return errors.Join(
		s.AddPerson(ctx, store.Person{ID: uuid.New(), Name: "Instructor", Role: store.Instructor}),
		s.AddPerson(ctx, store.Person{ID: uuid.New(), Name: "Student", Role: store.Student}),
	)
}

func showProgress(out io.Writer) func(done, all int) {
	return func(done, all int) {
		if done%10 == 0 || done == all {
			fmt.Fprintf(out, "Making demo takes: %d of %d\n", done, all)
		}
	}
}

// Times of a connection, and how long requests that were taken are finished when
// the server is to end.
const (
	headerTime = 10 * time.Second
	idleTime   = 2 * time.Minute
	finishTime = 30 * time.Second
)

func listenAndServe(ctx context.Context, out io.Writer, address string, handler http.Handler) error {
	listener, err := net.Listen("tcp", address)
	if err != nil {
		return fmt.Errorf("cannot serve at %s: %w; choose another with --listen", address, err)
	}
	srv := &http.Server{Handler: handler, ReadHeaderTimeout: headerTime, IdleTimeout: idleTime, MaxHeaderBytes: 32 << 10}
	done := make(chan error, 1)
	go func() { done <- srv.Serve(listener) }()
	fmt.Fprintf(out, "\nManudrill is at http://%s (stop it with Ctrl+C)\n", listener.Addr())
	select {
	case err := <-done:
		return err
	case <-ctx.Done():
	}
	fmt.Fprintln(out, "Finishing what is under way; Ctrl+C again ends at once.")
	ending, cancel := context.WithTimeout(context.WithoutCancel(ctx), finishTime)
	defer cancel()
	if err := srv.Shutdown(ending); err != nil && !errors.Is(err, context.DeadlineExceeded) {
		return err
	} else if err != nil {
		slog.Warn("some requests were cut off")
	}
	return nil
}

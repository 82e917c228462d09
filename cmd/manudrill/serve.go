package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"net"
	"net/http"
	"os"
	"os/signal"
	"path/filepath"
	"syscall"
	"time"

	"github.com/google/uuid"
	"github.com/spf13/cobra"

	"manudrill/demo"
	"manudrill/pgcluster"
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

func serving(name, short string, withDemo bool) *cobra.Command {
	var address string
	cmd := &cobra.Command{
		Use: name, Short: short, Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error { return serve(cmd, address, withDemo) },
	}
	cmd.Flags().StringVar(&address, "listen", defaultAddress, "address to serve at")
	return cmd
}

const defaultAddress = "127.0.0.1:8765"

// serve runs until it is interrupted.
func serve(cmd *cobra.Command, address string, withDemo bool) error {
	ctx, stop := signal.NotifyContext(cmd.Context(), os.Interrupt, syscall.SIGTERM)
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
	if withDemo {
		err = demo.Load(ctx, s, demo.Weeks, time.Now(), showProgress(out))
	} else {
		err = openStudio(ctx, s)
	}
	if err != nil {
		return fmt.Errorf("the studio cannot be filled: %w", err)
	}
	handler, err := server.New(s, web.Files())
	if err != nil {
		return err
	}
	return listenAndServe(ctx, out, address, handler)
}

// database returns the connection string of the database to use: the one that
// DATABASE_URL names, or a private one on loopback.
func database(ctx context.Context, out io.Writer) (url string, stop func(), err error) {
	if url := os.Getenv("DATABASE_URL"); url != "" {
		return url, func() {}, nil
	}
	dir := dataFolder()
	fmt.Fprintf(out, "Starting PostgreSQL; its data is in %s\n", dir)
	if err := os.MkdirAll(filepath.Dir(dir), 0o755); err != nil {
		return "", nil, err
	}
	cluster, err := pgcluster.Start(ctx, dir)
	if err != nil {
		return "", nil, err
	}
	return cluster.URL, func() {
		if err := cluster.Stop(); err != nil {
			fmt.Fprintln(os.Stderr, "manudrill: stopping PostgreSQL:", err)
		}
	}, nil
}

// dataFolder is where the private database keeps its data. Root's own folder is
// closed to the user PostgreSQL runs as.
func dataFolder() string {
	if dir := os.Getenv("MANUDRILL_DATA"); dir != "" {
		return filepath.Join(dir, "postgresql")
	}
	if os.Geteuid() == 0 {
		return "/var/lib/manudrill/postgresql"
	}
	return filepath.Join(os.Getenv("HOME"), ".local", "share", "manudrill", "postgresql")
}

// openStudio puts an instructor and a student into a studio that has nobody, so
// that there is somebody to be until people can sign in.
func openStudio(ctx context.Context, s *store.Store) error {
	people, err := s.People(ctx)
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

func listenAndServe(ctx context.Context, out io.Writer, address string, handler http.Handler) error {
	listener, err := net.Listen("tcp", address)
	if err != nil {
		return fmt.Errorf("cannot serve at %s: %w; choose another with --listen", address, err)
	}
	srv := &http.Server{Handler: handler, ReadHeaderTimeout: 10 * time.Second}
	done := make(chan error, 1)
	go func() { done <- srv.Serve(listener) }()
	fmt.Fprintf(out, "\nManudrill is at http://%s (stop it with Ctrl+C)\n", listener.Addr())
	select {
	case err := <-done:
		return err
	case <-ctx.Done():
	}
	ending, cancel := context.WithTimeout(context.Background(), 5*time.Second)
	defer cancel()
	if err := srv.Shutdown(ending); err != nil && !errors.Is(err, context.DeadlineExceeded) {
		return err
	}
	return nil
}

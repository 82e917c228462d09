package main

import (
	"context"
	"fmt"
	"io"
	"os"
	"path/filepath"

	"manudrill/pgcluster"
	"manudrill/store"
)

// database returns the connection string of the database to use: the one that
// DATABASE_URL names, or a private one.
func database(ctx context.Context, out io.Writer) (url string, stop func(), err error) {
	if url := os.Getenv("DATABASE_URL"); url != "" {
		return url, func() {}, nil
	}
	dir := dataFolder()
	if err := os.MkdirAll(filepath.Dir(dir), 0o755); err != nil {
		return "", nil, err
	}
	cluster, err := pgcluster.Start(ctx, dir)
	if err != nil {
		return "", nil, err
	}
	fmt.Fprintf(out, "PostgreSQL is started; its data is in %s\n", dir)
	return cluster.URL, func() {
		if err := cluster.Stop(); err != nil {
			fmt.Fprintln(os.Stderr, "manudrill: stopping PostgreSQL:", err)
		}
	}, nil
}

// soundsSetting names the bucket in which sounds are kept, in place of the database.
const soundsSetting = "MANUDRILL_SOUNDS"

// openStore opens the store of a database, with its sounds where the environment
// says.
func openStore(ctx context.Context, url string) (*store.Store, error) {
	s, err := store.Open(ctx, url)
	if err != nil {
		return nil, err
	}
	if bucket := os.Getenv(soundsSetting); bucket != "" {
		if err := s.KeepSoundsIn(ctx, bucket); err != nil {
			s.Close()
			return nil, fmt.Errorf("%s: %w", soundsSetting, err)
		}
	}
	return s, nil
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

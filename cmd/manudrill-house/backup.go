package main

import (
	"context"
	"errors"
	"fmt"
	"os"
	"os/exec"
	"strconv"

	"github.com/jackc/pgx/v5/pgxpool"
	"github.com/spf13/cobra"

	"manudrill/pgcluster"
	"manudrill/store"
)

func backingUp(cmd *cobra.Command) {
	cmd.Args = cobra.ExactArgs(1)
	cmd.RunE = func(cmd *cobra.Command, args []string) error {
		return withDatabase(cmd, func(ctx context.Context, url string) error { return backup(ctx, url, args[0]) })
	}
}

// backup writes the file beside and puts it into place when it is whole.
func backup(ctx context.Context, url, file string) error {
	if _, err := os.Stat(file); err == nil {
		return fmt.Errorf("there is a file %s already; choose another name", file)
	}
	fresh := file + ".unfinished"
	if err := postgres(ctx, "pg_dump", "--format=custom", "--no-owner", "--no-privileges", "--file="+fresh, "--dbname="+url); err != nil {
		return errors.Join(err, os.RemoveAll(fresh))
	}
	if err := os.Rename(fresh, file); err != nil {
		return err
	}
	if bucket := os.Getenv(soundsSetting); bucket != "" {
		fmt.Fprintf(os.Stderr, "Sounds lie in %s, which is not in this file: back it up too\n", bucket)
	}
	return nil
}

func restoring(cmd *cobra.Command) {
	var replace bool
	cmd.Args = cobra.ExactArgs(1)
	cmd.RunE = func(cmd *cobra.Command, args []string) error {
		return withDatabase(cmd, func(ctx context.Context, url string) error { return restore(ctx, url, args[0], replace) })
	}
	cmd.Flags().BoolVar(&replace, "replace", false, "also where there is a studio already, whose drills and takes are then gone")
}

// restore brings all back or nothing. What is older than this program is brought
// up to date.
func restore(ctx context.Context, url, file string, replace bool) error {
	if _, err := os.Stat(file); err != nil {
		return fmt.Errorf("there is no backup to bring back: %w", err)
	}
	s, err := store.Open(ctx, url)
	if err != nil {
		return err
	}
	studios, err := s.Studios(ctx)
	s.Close()
	if err != nil {
		return err
	}
	if studios > 0 && !replace {
		return errors.New("there is a studio here already; back up what is here, then add --replace to put what is in the file in its place")
	}
	if err := putInPlace(ctx, url, file); err != nil {
		return fmt.Errorf("nothing was changed: %w", err)
	}
	s, err = store.Open(ctx, url)
	if err != nil {
		return err
	}
	s.Close()
	return nil
}

// putInPlace puts what is in a backup in place of all tables there are, those too
// that the backup of an older Manudrill does not know, in one transaction.
func putInPlace(ctx context.Context, url, file string) error {
	script, err := os.CreateTemp("", "manudrill-restore-")
	if err != nil {
		return err
	}
	defer os.Remove(script.Name())
	if err := script.Close(); err != nil {
		return err
	}
	// First all of it into a script: what breaks off on the way must not be taken for
	// the whole.
	if err := postgres(ctx, "pg_restore", "--exit-on-error", "--no-owner", "--no-privileges", "--file="+script.Name(), file); err != nil {
		return err
	}
	return postgres(ctx, "psql", "--quiet", "--no-psqlrc", "--single-transaction", "--set=ON_ERROR_STOP=1", "--output=/dev/null", "--dbname="+url,
		"--command=DROP SCHEMA public CASCADE", "--command=CREATE SCHEMA public", "--file="+script.Name())
}

func rollingBack(cmd *cobra.Command) {
	cmd.Args = cobra.ExactArgs(1)
	cmd.RunE = func(cmd *cobra.Command, args []string) error {
		version, err := strconv.ParseInt(args[0], 10, 64)
		if err != nil || version < 1 {
			return fmt.Errorf("%q is no version of the tables; give the number of the last migration that the older Manudrill knows", args[0])
		}
		return withDatabase(cmd, func(ctx context.Context, url string) error {
			pool, err := pgxpool.New(ctx, url)
			if err != nil {
				return err
			}
			defer pool.Close()
			return store.MigrateDown(ctx, pool, version)
		})
	}
}

// withDatabase lends the database: that of DATABASE_URL, that of a server running
// here, or a private one that is started for it.
func withDatabase(cmd *cobra.Command, use func(ctx context.Context, url string) error) error {
	ctx, stop := interruptible(cmd.Context())
	defer stop()
	url, closeDatabase, err := database(ctx, cmd.ErrOrStderr())
	if errors.Is(err, pgcluster.ErrInUse) {
		url, closeDatabase, err = pgcluster.URL(dataFolder()), func() {}, nil
	}
	if err != nil {
		return err
	}
	defer closeDatabase()
	return use(ctx, url)
}

// postgres runs one of PostgreSQL's programs.
func postgres(ctx context.Context, name string, args ...string) error {
	path, err := pgcluster.Program(name)
	if err != nil {
		return err
	}
	if out, err := exec.CommandContext(ctx, path, args...).CombinedOutput(); err != nil {
		return fmt.Errorf("%s failed: %w\n%s", name, err, out)
	}
	return nil
}

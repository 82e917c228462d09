package store

import (
	"context"
	"database/sql"
	"embed"
	"errors"
	"io/fs"

	"github.com/jackc/pgx/v5/pgxpool"
	"github.com/jackc/pgx/v5/stdlib"
	"github.com/pressly/goose/v3"
	"github.com/pressly/goose/v3/lock"
	"github.com/riverqueue/river/riverdriver/riverpgxv5"
	"github.com/riverqueue/river/rivermigrate"
)

//go:embed migrations/*.sql
var migrations embed.FS

// jobsVersion is the migration that makes the tables of the job queue, which the
// queue brings itself.
const jobsVersion = 5

// TablesVersion is the version of the tables that this program makes: the number of the
// last migration.
func TablesVersion() (last int64) {
	files, _ := fs.Glob(migrations, "migrations/*.sql") // the pattern is well formed
	for _, name := range files {
		if n, err := goose.NumericComponent(name); err == nil {
			last = max(last, n)
		}
	}
	return last
}

// Migrate brings the tables of a database up to date. Of several programs that
// start at once one does it and the others wait.
func Migrate(ctx context.Context, pool *pgxpool.Pool) error {
	if err := makeRoles(ctx, pool); err != nil {
		return err
	}
	return withMigrations(pool, func(p *goose.Provider) error {
		_, err := p.Up(ctx)
		return err
	})
}

// MigrateDown takes the tables back to what they were at a version. What the older
// form has no place for is refused rather than lost.
func MigrateDown(ctx context.Context, pool *pgxpool.Pool, version int64) error {
	return withMigrations(pool, func(p *goose.Provider) error {
		_, err := p.DownTo(ctx, version)
		return err
	})
}

// withMigrations lends all migrations there are.
func withMigrations(pool *pgxpool.Pool, use func(*goose.Provider) error) error {
	dir, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return err
	}
	var db *sql.DB = stdlib.OpenDBFromPool(pool)
	defer db.Close()
	locker, err := lock.NewPostgresSessionLocker()
	if err != nil {
		return err
	}
	provider, err := goose.NewProvider(goose.DialectPostgres, db, dir,
		goose.WithSessionLocker(locker), goose.WithGoMigrations(jobTables(pool)))
	if err != nil {
		return err
	}
	err = use(provider)
	var partial *goose.PartialError
	if errors.As(err, &partial) {
		return partial.Err // it says what went wrong without the rest
	}
	return err
}

// jobTables makes the tables of the job queue and takes them away.
func jobTables(pool *pgxpool.Pool) *goose.Migration {
	run := func(direction rivermigrate.Direction, opts *rivermigrate.MigrateOpts) *goose.GoFunc {
		return &goose.GoFunc{RunDB: func(ctx context.Context, _ *sql.DB) error {
			migrator, err := rivermigrate.New(riverpgxv5.New(pool), nil)
			if err != nil {
				return err
			}
			_, err = migrator.Migrate(ctx, direction, opts)
			return err
		}}
	}
	return goose.NewGoMigration(jobsVersion, run(rivermigrate.DirectionUp, nil), run(rivermigrate.DirectionDown, &rivermigrate.MigrateOpts{TargetVersion: -1}))
}

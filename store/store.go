// Package store keeps people, drills, assignments and takes in PostgreSQL.
package store

import (
	"context"
	"database/sql"
	"embed"
	"errors"
	"fmt"
	"io/fs"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgxpool"
	"github.com/jackc/pgx/v5/stdlib"
	"github.com/pressly/goose/v3"
)

//go:embed migrations/*.sql
var migrations embed.FS

// ErrNotFound is returned for an id that names nothing.
var ErrNotFound = errors.New("not found")

// A Store is a connection to the database. It is safe for concurrent use.
type Store struct{ pool *pgxpool.Pool }

// Open connects to the database at url and brings its tables up to date.
func Open(ctx context.Context, url string) (*Store, error) {
	pool, err := pgxpool.New(ctx, url)
	if err != nil {
		return nil, fmt.Errorf("the database address cannot be used: %w", err)
	}
	if err := migrate(ctx, pool); err != nil {
		pool.Close()
		return nil, fmt.Errorf("the database cannot be prepared: %w", err)
	}
	return &Store{pool}, nil
}

// Close ends all connections.
func (s *Store) Close() { s.pool.Close() }

// Pool is for the keeper of sessions, which brings its own queries.
func (s *Store) Pool() *pgxpool.Pool { return s.pool }

func migrate(ctx context.Context, pool *pgxpool.Pool) error {
	dir, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return err
	}
	var db *sql.DB = stdlib.OpenDBFromPool(pool)
	defer db.Close()
	provider, err := goose.NewProvider(goose.DialectPostgres, db, dir)
	if err != nil {
		return err
	}
	_, err = provider.Up(ctx)
	return err
}

// one reads the single row of a query into a struct by column name.
func one[T any](rows pgx.Rows, err error) (T, error) {
	var none T
	if err != nil {
		return none, err
	}
	got, err := pgx.CollectExactlyOneRow(rows, pgx.RowToStructByName[T])
	if errors.Is(err, pgx.ErrNoRows) {
		return none, ErrNotFound
	}
	return got, err
}

// all reads every row of a query into structs by column name.
func all[T any](rows pgx.Rows, err error) ([]T, error) {
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, pgx.RowToStructByName[T])
}

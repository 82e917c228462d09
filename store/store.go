// Package store keeps people, drills, assignments and takes in PostgreSQL.
//
// Locks are taken in one order, so that none waits for another in a ring: studio,
// then student, routine, drill, assignment, take. Whoever makes or changes what hangs on a drill
// takes the drill FOR SHARE first; whoever changes or deletes the drill takes it
// FOR UPDATE.
package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"
	"github.com/jackc/pgx/v5/pgconn/ctxwatch"
	"github.com/jackc/pgx/v5/pgxpool"
)

// Errors of all parts of the store.
var (
	// ErrNotFound is returned for an id that names nothing, or nothing any more.
	ErrNotFound = errors.New("not found")

	// ErrChanged is returned for a change that rests on what is no longer so.
	ErrChanged = errors.New("changed meanwhile")
)

// A Store is a connection to the database. It is safe for concurrent use.
type Store struct {
	pool    *pgxpool.Pool
	house   string
	outside outside // where sounds that come are kept; nil for the database
}

// Bounds on what one statement may do, so that none holds up the others. Longer
// work is done in steps.
const (
	statementTimeout = 30 * time.Second
	lockTimeout      = 10 * time.Second
	idleTimeout      = 60 * time.Second // of an open transaction in which nothing happens
)

// planning tells PostgreSQL how lists are read: each has an index that has it in
// order. What is seen beside that (policies) makes it reckon with fewer rows than
// there are, by which it would rather read all takes of a drill, page by page, and
// sort them; and a page is read from anywhere nearly as fast as the next one, as from
// memory or a solid disk.
var planning = map[string]string{"enable_bitmapscan": "off", "random_page_cost": "1.1"}

// Open connects to the database at url and brings its tables up to date.
func Open(ctx context.Context, url string) (*Store, error) {
	config, err := pgxpool.ParseConfig(url)
	if err != nil {
		return nil, fmt.Errorf("the database address cannot be used: %w", err)
	}
	if err := prepare(ctx, config.Copy()); err != nil {
		return nil, fmt.Errorf("the database cannot be prepared: %w", err)
	}
	for name, value := range map[string]time.Duration{
		"statement_timeout": statementTimeout, "lock_timeout": lockTimeout, "idle_in_transaction_session_timeout": idleTimeout,
	} {
		config.ConnConfig.RuntimeParams[name] = fmt.Sprint(value.Milliseconds())
	}
	config.ConnConfig.RuntimeParams["application_name"] = "manudrill"
	for name, value := range planning {
		config.ConnConfig.RuntimeParams[name] = value
	}
	config.ConnConfig.BuildContextWatcherHandler = breakOff
	config.MaxConns = max(config.MaxConns, 16)
	config.PrepareConn = tell
	pool, err := pgxpool.NewWithConfig(ctx, config)
	if err != nil {
		return nil, fmt.Errorf("the database cannot be reached: %w", err)
	}
	s := &Store{pool: pool}
	if s.house, err = s.houseName(ctx); err != nil {
		pool.Close()
		return nil, err
	}
	return s, nil
}

// breakOff ends a statement whose context ends by asking the server for it. Cutting
// the connection instead would leave half a sound's part sent: the server would wait
// for the other half, with all locks held, for as long as the driver waits for the
// server's goodbye (15 s). A connection that only listens has nothing to be ended, and
// is left after the delay.
func breakOff(conn *pgconn.PgConn) ctxwatch.Handler {
	return &pgconn.CancelRequestContextWatcherHandler{Conn: conn, DeadlineDelay: 300 * time.Millisecond}
}

// House is a name of the database that no other has, in digits and small letters.
func (s *Store) House() string { return s.house }

// prepare migrates without the bounds on statements: a migration may take its
// time.
func prepare(ctx context.Context, config *pgxpool.Config) error {
	pool, err := pgxpool.NewWithConfig(ctx, config)
	if err != nil {
		return err
	}
	defer pool.Close()
	if err := Migrate(ctx, pool); err != nil {
		return err
	}
	return admitRoles(ctx, pool)
}

// Close ends all connections.
func (s *Store) Close() {
	s.pool.Close()
}

// Pool is for the keepers of sessions and jobs, which bring their own queries.
func (s *Store) Pool() *pgxpool.Pool { return s.pool }

// Ping reports whether the database answers.
func (s *Store) Ping(ctx context.Context) error { return s.pool.Ping(ctx) }

// A Lenient document is one that may have been written by another version of the
// program: where it cannot be read, that is told and nothing beside it is lost.
type Lenient[T any] struct {
	Value T
	Odd   error // why it cannot be read
}

// UnmarshalJSON reads the document. It never fails.
func (l *Lenient[T]) UnmarshalJSON(raw []byte) error {
	*l = Lenient[T]{}
	l.Odd = json.Unmarshal(raw, &l.Value)
	return nil
}

// in runs something in a transaction.
func (s *Store) in(ctx context.Context, do func(tx pgx.Tx) error) error {
	return pgx.BeginFunc(ctx, s.pool, do)
}

// An executor is a pool or a transaction.
type executor interface {
	Exec(ctx context.Context, sql string, args ...any) (pgconn.CommandTag, error)
	Query(ctx context.Context, sql string, args ...any) (pgx.Rows, error)
}

// touch runs a statement that must find its row.
func touch(ctx context.Context, on executor, statement string, args ...any) error {
	tag, err := on.Exec(ctx, statement, args...)
	if err == nil && tag.RowsAffected() == 0 {
		return ErrNotFound
	}
	return err
}

// one reads the single row of a query into a struct by column name.
func one[T any](rows pgx.Rows, err error) (T, error) {
	return single(rows, err, pgx.RowToStructByName[T])
}

// oneByPos reads the single row of a query into a struct by the order of columns.
func oneByPos[T any](rows pgx.Rows, err error) (T, error) {
	return single(rows, err, pgx.RowToStructByPos[T])
}

// value reads the single value of a query.
func value[T any](rows pgx.Rows, err error) (T, error) { return single(rows, err, pgx.RowTo[T]) }

// single reads the one row of a query; where there is none it returns [ErrNotFound].
func single[T any](rows pgx.Rows, err error, read pgx.RowToFunc[T]) (T, error) {
	var none T
	if err != nil {
		return none, err
	}
	got, err := pgx.CollectExactlyOneRow(rows, read)
	if errors.Is(err, pgx.ErrNoRows) {
		return none, ErrNotFound
	}
	return got, err
}

// all reads every row of a query into structs by column name.
func all[T any](rows pgx.Rows, err error) ([]T, error) {
	return every(rows, err, pgx.RowToStructByName[T])
}

// allByPos reads every row of a query into structs by the order of columns.
func allByPos[T any](rows pgx.Rows, err error) ([]T, error) {
	return every(rows, err, pgx.RowToStructByPos[T])
}

func every[T any](rows pgx.Rows, err error, read pgx.RowToFunc[T]) ([]T, error) {
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, read)
}

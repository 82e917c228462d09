package jobs

import (
	"context"
	"encoding/json"
	"errors"
	"log/slog"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"manudrill/store"
)

// A worker that is killed leaves its jobs marked as running. So that nobody waits
// until they are too old to be, each worker holds an advisory lock under its name
// for as long as its connection lives, and each looks now and then for jobs whose
// worker holds none.

// lockClass is the first key of the workers' locks; the second is the worker's
// name, hashed.
const lockClass = 0x6d616e75

// lookEvery is how often a worker looks for jobs that others have left.
const lookEvery = 3 * time.Second

// alive holds a worker's lock.
type alive struct {
	end  context.CancelFunc
	done chan struct{}
}

// stayAlive takes the lock, sees to the jobs that others have left, and goes on
// doing so until it is stopped.
func stayAlive(ctx context.Context, s *store.Store, id string) (*alive, error) {
	conn, err := lock(ctx, s, id)
	if err != nil {
		return nil, err
	}
	if err := takeUp(ctx, s, conn); err != nil {
		return nil, errors.Join(err, conn.Close(ctx))
	}
	ctx, end := context.WithCancel(context.WithoutCancel(ctx))
	a := &alive{end, make(chan struct{})}
	go a.keep(ctx, s, id, conn)
	return a, nil
}

// lock takes the lock on a connection of its own.
func lock(ctx context.Context, s *store.Store, id string) (*pgx.Conn, error) {
	conn, err := pgx.ConnectConfig(ctx, s.Pool().Config().ConnConfig)
	if err != nil {
		return nil, err
	}
	if _, err := conn.Exec(ctx, `SELECT pg_advisory_lock_shared($1, hashtext($2))`, lockClass, id); err != nil {
		return nil, errors.Join(err, conn.Close(ctx))
	}
	return conn, nil
}

func (a *alive) keep(ctx context.Context, s *store.Store, id string, conn *pgx.Conn) {
	defer close(a.done)
	for {
		select {
		case <-ctx.Done():
			_ = conn.Close(context.WithoutCancel(ctx)) // which gives the lock back
			return
		case <-time.After(lookEvery):
		}
		if conn.IsClosed() { // the database was started anew
			fresh, err := lock(ctx, s, id)
			if err != nil {
				continue
			}
			conn = fresh
		}
		if err := takeUp(ctx, s, conn); err != nil && ctx.Err() == nil {
			slog.Warn("cannot look for jobs that others have left", "error", err)
		}
	}
}

func (a *alive) stop() {
	a.end()
	<-a.done
}

// takeUp lets jobs be done that a worker has left that is no longer there. A job
// that has ended as many workers as it may be tried is given up.
func takeUp(ctx context.Context, s *store.Store, conn *pgx.Conn) error {
	rows, err := conn.Query(ctx, `
		WITH dead AS (
			SELECT id FROM river_job j WHERE state = 'running' AND NOT EXISTS (
				SELECT FROM pg_locks l WHERE l.locktype = 'advisory' AND l.classid = $1 AND l.granted
				AND l.database = (SELECT oid FROM pg_database WHERE datname = current_database())
				AND l.objid = (hashtext(j.attempted_by[array_length(j.attempted_by, 1)])::bigint & 4294967295))
			FOR UPDATE SKIP LOCKED)
		UPDATE river_job SET state = (CASE WHEN attempt >= max_attempts THEN 'discarded' ELSE 'available' END)::river_job_state,
		       finalized_at = CASE WHEN attempt >= max_attempts THEN now() END, scheduled_at = now()
		FROM dead WHERE river_job.id = dead.id
		RETURNING state::text, args`, lockClass)
	if err != nil {
		return err
	}
	type left struct {
		State string
		Args  []byte
	}
	jobs, err := pgx.CollectRows(rows, pgx.RowToStructByPos[left])
	if err != nil {
		return err
	}
	for _, j := range jobs {
		if take, err := takeOf(j.Args); err == nil && take != uuid.Nil && j.State == "discarded" {
			if err := s.Failed(ctx, take, ourFault); err != nil {
				return err
			}
		}
	}
	return nil
}

// takeOf is the take of a job's arguments; none for jobs of other kinds.
func takeOf(args []byte) (uuid.UUID, error) {
	var m measure
	err := json.Unmarshal(args, &m)
	return m.TakeID, err
}

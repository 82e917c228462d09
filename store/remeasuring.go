package store

import (
	"context"
	"errors"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

// A Remeasuring is the measuring again of all takes, one after the other.
type Remeasuring struct {
	ID        uuid.UUID
	StartedAt time.Time
	EndedAt   *time.Time
	Cancelled bool
	Total     int // takes
	Done      int // so far, failed ones too
	Failed    int
	After     *uuid.UUID // the take done last
}

const remeasuringColumns = `id, started_at, ended_at, cancelled, total, done, failed, after`

// Remeasuring returns the latest one, or [ErrNotFound].
func (s *Store) Remeasuring(ctx context.Context) (Remeasuring, error) {
	return oneByPos[Remeasuring](s.pool.Query(ctx, `SELECT `+remeasuringColumns+` FROM remeasurings ORDER BY started_at DESC LIMIT 1`))
}

// Remeasure begins to measure all takes again and does what is given in the same
// transaction. Where it is under way already, nothing is begun.
func (s *Store) Remeasure(ctx context.Context, also func(tx pgx.Tx, id uuid.UUID) error) error {
	id := uuid.New()
	return s.in(ctx, func(tx pgx.Tx) error {
		tag, err := tx.Exec(ctx, `INSERT INTO remeasurings (id, total) SELECT $1, count(*) FROM take_sounds ON CONFLICT DO NOTHING`, id)
		if err != nil || tag.RowsAffected() == 0 {
			return err
		}
		return also(tx, id)
	})
}

// CancelRemeasuring ends what is under way after the take it is at.
func (s *Store) CancelRemeasuring(ctx context.Context) error {
	return touch(ctx, s.pool, `UPDATE remeasurings SET cancelled = true, ended_at = now() WHERE ended_at IS NULL`)
}

// NextToRemeasure returns the take that comes next, or [ErrNotFound] once all are
// done or it was cancelled; then it has ended.
func (s *Store) NextToRemeasure(ctx context.Context, id uuid.UUID) (take uuid.UUID, err error) {
	take, err = value[uuid.UUID](s.pool.Query(ctx, `
		SELECT t.id FROM takes t JOIN take_sounds s ON s.take_id = t.id, remeasurings r
		WHERE r.id = $1 AND r.ended_at IS NULL AND t.handed_in_at <= r.started_at AND (r.after IS NULL OR t.id > r.after)
		ORDER BY t.id LIMIT 1`, id))
	if errors.Is(err, ErrNotFound) {
		_, end := s.pool.Exec(ctx, `UPDATE remeasurings SET ended_at = now() WHERE id = $1 AND ended_at IS NULL`, id)
		return take, errors.Join(err, end)
	}
	return take, err
}

// Remeasured counts a take that was measured again, once.
func (s *Store) Remeasured(ctx context.Context, id, take uuid.UUID, failed bool) error {
	_, err := s.pool.Exec(ctx, `
		UPDATE remeasurings SET after = $2, done = done + 1, failed = failed + $3::boolean::integer
		WHERE id = $1 AND (after IS NULL OR after < $2)`, id, take, failed)
	return err
}

// WithinStudioOfRemeasuring returns a context in which the studio is asked whose
// takes are measured again; or [ErrNotFound].
func (s *Store) WithinStudioOfRemeasuring(ctx context.Context, id uuid.UUID) (context.Context, error) {
	studio, err := value[uuid.UUID](s.pool.Query(AsHouse(ctx), `SELECT studio_id FROM remeasurings WHERE id = $1`, id))
	return Within(ctx, Scope{Studio: studio}), err
}

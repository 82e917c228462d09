package store

import (
	"context"
	"errors"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

// Session returns what is kept under a session's token, unless it has expired.
func (s *Store) Session(ctx context.Context, token string) (data []byte, exists bool, err error) {
	data, err = value[[]byte](s.pool.Query(AsHouse(ctx), `SELECT data FROM sessions WHERE token = $1 AND expiry > now()`, token))
	if errors.Is(err, ErrNotFound) {
		return nil, false, nil
	}
	return data, err == nil, err
}

// PutSession keeps somebody's session until it expires. Those that have expired
// are dropped on the way.
func (s *Store) PutSession(ctx context.Context, token string, person uuid.UUID, data []byte, expiry time.Time) error {
	ctx = AsHouse(ctx)
	if _, err := s.pool.Exec(ctx, `DELETE FROM sessions WHERE expiry < now()`); err != nil {
		return err
	}
	_, err := s.pool.Exec(ctx, `INSERT INTO sessions (token, person_id, data, expiry) VALUES ($1, $2, $3, $4)
		ON CONFLICT (token) DO UPDATE SET person_id = excluded.person_id, data = excluded.data, expiry = excluded.expiry`, token, person, data, expiry)
	return err
}

// DeleteSession ends a session.
func (s *Store) DeleteSession(ctx context.Context, token string) error {
	_, err := s.pool.Exec(AsHouse(ctx), `DELETE FROM sessions WHERE token = $1`, token)
	return err
}

// EndSessions ends all sessions of somebody.
func (s *Store) EndSessions(ctx context.Context, person uuid.UUID) error {
	ctx = AsHouse(ctx)
	return s.in(ctx, func(tx pgx.Tx) error { return endSessions(ctx, tx, person) })
}

func endSessions(ctx context.Context, tx pgx.Tx, person uuid.UUID) error {
	_, err := tx.Exec(ctx, `DELETE FROM sessions WHERE person_id = $1`, person)
	return err
}

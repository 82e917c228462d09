package store

import (
	"context"
	"errors"
	"time"
)

// Session returns what is kept under a session's token, unless it has expired.
func (s *Store) Session(ctx context.Context, token string) (data []byte, exists bool, err error) {
	data, err = value[[]byte](s.pool.Query(ctx, `SELECT data FROM sessions WHERE token = $1 AND expiry > now()`, token))
	if errors.Is(err, ErrNotFound) {
		return nil, false, nil
	}
	return data, err == nil, err
}

// PutSession keeps a session until it expires. Those that have expired are dropped
// on the way.
func (s *Store) PutSession(ctx context.Context, token string, data []byte, expiry time.Time) error {
	if _, err := s.pool.Exec(ctx, `DELETE FROM sessions WHERE expiry < now()`); err != nil {
		return err
	}
	_, err := s.pool.Exec(ctx, `INSERT INTO sessions (token, data, expiry) VALUES ($1, $2, $3)
		ON CONFLICT (token) DO UPDATE SET data = excluded.data, expiry = excluded.expiry`, token, data, expiry)
	return err
}

// DeleteSession ends a session.
func (s *Store) DeleteSession(ctx context.Context, token string) error {
	_, err := s.pool.Exec(ctx, `DELETE FROM sessions WHERE token = $1`, token)
	return err
}

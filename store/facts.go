package store

import (
	"context"
	"strings"

	"github.com/google/uuid"
)

// houseName returns the name of the database, which it is given the first time.
func (s *Store) houseName(ctx context.Context) (string, error) {
	fresh := strings.ReplaceAll(uuid.NewString(), "-", "")[:8]
	if _, err := s.pool.Exec(AsHouse(ctx), `INSERT INTO facts (name, value) VALUES ('house', to_jsonb($1::text)) ON CONFLICT DO NOTHING`, fresh); err != nil {
		return "", err
	}
	return s.Fact(ctx, "house")
}

// Fact returns what the house knows of itself under a name, or [ErrNotFound].
func (s *Store) Fact(ctx context.Context, name string) (string, error) {
	return value[string](s.pool.Query(AsHouse(ctx), `SELECT value #>> '{}' FROM facts WHERE name = $1`, name))
}

// SetFact keeps a fact under a name.
func (s *Store) SetFact(ctx context.Context, name, is string) error {
	_, err := s.pool.Exec(AsHouse(ctx), `INSERT INTO facts (name, value) VALUES ($1, to_jsonb($2::text)) ON CONFLICT (name) DO UPDATE SET value = excluded.value`, name, is)
	return err
}

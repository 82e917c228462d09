package store

import "context"

// Fact returns what the studio knows of itself under a name, or [ErrNotFound].
func (s *Store) Fact(ctx context.Context, name string) (string, error) {
	return value[string](s.pool.Query(ctx, `SELECT value #>> '{}' FROM facts WHERE name = $1`, name))
}

// SetFact keeps a fact under a name.
func (s *Store) SetFact(ctx context.Context, name, is string) error {
	_, err := s.pool.Exec(ctx, `INSERT INTO facts (name, value) VALUES ($1, to_jsonb($2::text)) ON CONFLICT (name) DO UPDATE SET value = excluded.value`, name, is)
	return err
}

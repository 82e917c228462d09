package store

import (
	"context"

	"github.com/google/uuid"

	"manudrill/core/drill"
)

// Setup returns somebody's setup or [ErrNotFound].
func (s *Store) Setup(ctx context.Context, person uuid.UUID) (drill.Setup, error) {
	type row struct{ Setup *drill.Setup }
	got, err := one[row](s.pool.Query(ctx, `SELECT setup FROM people WHERE id = $1`, person))
	if err != nil || got.Setup == nil {
		return drill.UsualSetup(), err
	}
	return *got.Setup, nil
}

// ChangeSetup saves somebody's setup.
func (s *Store) ChangeSetup(ctx context.Context, person uuid.UUID, setup drill.Setup) error {
	return s.touch(ctx, `UPDATE people SET setup = $2 WHERE id = $1`, person, setup)
}

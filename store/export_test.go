package store

import (
	"context"

	"github.com/google/uuid"

	"manudrill/core/progress"
)

// KeepState keeps a state as if it had come from takes.
func (s *Store) KeepState(ctx context.Context, assignment uuid.UUID, state progress.State) error {
	return keepState(ctx, s.pool, assignment, state, uuid.Nil)
}

package store

import (
	"context"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"manudrill/core/setup"
)

// Setup returns somebody's setup and its revision, or [ErrNotFound].
func (s *Store) Setup(ctx context.Context, person uuid.UUID) (setup.Setup, int, error) {
	type row struct {
		Setup         *Lenient[setup.Setup]
		SetupRevision int
	}
	got, err := one[row](s.pool.Query(ctx, `SELECT setup, setup_revision FROM people WHERE id = $1`, person))
	return setupOr(got.Setup), got.SetupRevision, err
}

// ChangeSetup saves somebody's setup that was changed from a revision; it fails
// with [ErrChanged] where that is no longer the latest.
func (s *Store) ChangeSetup(ctx context.Context, person uuid.UUID, from int, setup setup.Setup) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		p, err := holdPerson(ctx, tx, person)
		if err != nil {
			return err
		}
		revision, err := value[int](tx.Query(ctx, `SELECT setup_revision FROM people WHERE id = $1`, person))
		if err != nil {
			return err
		}
		if revision != from {
			return ErrChanged
		}
		_, err = tx.Exec(ctx, `UPDATE people SET setup = $2, setup_revision = setup_revision + 1 WHERE id = $1`, person, setup)
		if err != nil || scopeOf(ctx).Actor.ID == person {
			return err
		}
		return write(ctx, tx, Line{Did: "set the guitar of", Student: studentID(p.Person), About: p.Name})
	})
}

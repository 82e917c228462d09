package store

import (
	"context"
	"errors"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

// What the house does by itself from time to time: sounds are dropped whose time is
// over, and whoever was to be removed is forgotten.

// tidyAtOnce is how many sounds are dropped, or takes deleted, in one transaction.
const tidyAtOnce = 200

// DropOldSounds drops the sounds of takes that were handed in longer ago than their
// studio keeps them, and returns how many. The results stay for ever. The best take
// of each drill a student has, and takes with a comment, keep their sound: the best
// is the fastest that passed, or the most even where none did.
func (s *Store) DropOldSounds(ctx context.Context) (dropped int, err error) {
	ctx = AsHouse(ctx)
	for {
		takes, err := everyID(s.pool.Query(ctx, `
			WITH over AS (
				SELECT t.id, t.assignment_id FROM takes t
				JOIN studios st ON st.id = t.studio_id JOIN take_sounds s ON s.take_id = t.id
				WHERE t.handed_in_at < now() - make_interval(days => st.sound_days) AND t.state = 'measured'
				  AND NOT EXISTS (SELECT FROM take_comments c WHERE c.take_id = t.id)),
			best AS (
				SELECT DISTINCT ON (assignment_id) id FROM takes
				WHERE assignment_id IN (SELECT assignment_id FROM over) AND counts
				ORDER BY assignment_id, passed DESC, CASE WHEN passed THEN bpm * notes_per_beat ELSE 0 END DESC, spread_percent, recorded_at)
			SELECT id FROM over WHERE id NOT IN (SELECT id FROM best) LIMIT $1`, tidyAtOnce))
		if err != nil || len(takes) == 0 {
			return dropped, err
		}
		for _, take := range takes {
			if err := s.dropSound(ctx, take); err != nil {
				return dropped, err
			}
			dropped++
		}
	}
}

// everyID reads ids.
func everyID(rows pgx.Rows, err error) ([]uuid.UUID, error) {
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, pgx.RowTo[uuid.UUID])
}

// dropSound forgets the sound of a take, whose results stay.
func (s *Store) dropSound(ctx context.Context, take uuid.UUID) error {
	var inBucket bool
	err := s.in(ctx, func(tx pgx.Tx) (err error) {
		if inBucket, err = forgetSound(ctx, tx, take); err != nil {
			return err
		}
		_, err = tx.Exec(ctx, `UPDATE takes SET sound_dropped_at = now() WHERE id = $1`, take)
		return err
	})
	if err == nil && inBucket && s.outside != nil {
		err = s.outside.drop(ctx, take)
	}
	return err
}

// forgetSound deletes the rows of a sound and reports whether it lies in a bucket,
// where it must be dropped once they are gone.
func forgetSound(ctx context.Context, tx pgx.Tx, take uuid.UUID) (inBucket bool, err error) {
	inBucket, err = value[bool](tx.Query(ctx, `DELETE FROM take_sounds WHERE take_id = $1 RETURNING in_bucket`, take))
	if errors.Is(err, ErrNotFound) {
		err = nil
	}
	if err == nil {
		_, err = tx.Exec(ctx, `DELETE FROM sound_parts WHERE take_id = $1`, take)
	}
	return inBucket, err
}

// lastMoment is how long after the waiting time nothing is deleted yet: whoever was
// brought back in its last moment is back by then, as PostgreSQL writes it. No
// transaction lasts as long.
const lastMoment = "2 minutes"

// ForgetRemoved deletes everything about those whose waiting time is over, and
// returns how many were forgotten.
func (s *Store) ForgetRemoved(ctx context.Context) (forgotten int, err error) {
	ctx = AsHouse(ctx)
	people, err := everyID(s.pool.Query(ctx, `SELECT id FROM people WHERE remove_at <= now() - $2::interval ORDER BY remove_at LIMIT $1`, tidyAtOnce, lastMoment))
	if err != nil {
		return 0, err
	}
	for _, id := range people {
		if err := s.forget(ctx, id); err != nil {
			return forgotten, err
		}
		forgotten++
	}
	return forgotten, nil
}

// forget deletes a student: takes first, some at once, then all the rest together.
func (s *Store) forget(ctx context.Context, id uuid.UUID) error {
	for {
		takes, err := everyID(s.pool.Query(ctx, `SELECT id FROM takes WHERE student_id = $1 LIMIT $2`, id, tidyAtOnce))
		if err != nil {
			return err
		}
		if len(takes) == 0 {
			break
		}
		for _, take := range takes {
			if err := s.forgetTake(ctx, take); err != nil {
				return err
			}
		}
	}
	return s.in(ctx, func(tx pgx.Tx) error {
		// Brought back at the last moment, they stay.
		of, err := oneByPos[forgottenPerson](tx.Query(ctx, `SELECT studio_id, coalesce(email, '') FROM people WHERE id = $1 AND remove_at <= now() FOR UPDATE`, id))
		if errors.Is(err, ErrNotFound) {
			return nil
		}
		if err != nil {
			return err
		}
		if _, err := tx.Exec(ctx, `DELETE FROM mails WHERE studio_id = $1 AND recipient = $2 AND $2 <> ''`, of.StudioID, of.Email); err != nil {
			return err
		}
		for _, statement := range []string{
			`DELETE FROM assignments WHERE student_id = $1`,
			`DELETE FROM people WHERE id = $1`, // and with them all that hangs on them
		} {
			if _, err := tx.Exec(ctx, statement, id); err != nil {
				return err
			}
		}
		_, err = tx.Exec(ctx, `INSERT INTO audit (studio_id, actor, did, about) VALUES ($1, 'Manudrill', 'deleted everything about', 'a student who was removed')`, of.StudioID)
		return err
	})
}

type forgottenPerson struct {
	StudioID uuid.UUID
	Email    string
}

// forgetTake deletes a take with all that hangs on it.
func (s *Store) forgetTake(ctx context.Context, take uuid.UUID) error {
	var inBucket bool
	err := s.in(ctx, func(tx pgx.Tx) (err error) {
		if inBucket, err = forgetSound(ctx, tx, take); err != nil {
			return err
		}
		if _, err := tx.Exec(ctx, `DELETE FROM take_comments WHERE take_id = $1`, take); err != nil {
			return err
		}
		_, err = tx.Exec(ctx, `DELETE FROM takes WHERE id = $1`, take)
		return err
	})
	if err == nil && inBucket && s.outside != nil {
		err = s.outside.drop(ctx, take)
	}
	return err
}

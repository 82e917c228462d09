package store

import (
	"context"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"manudrill/core/tempo"
)

// A RungSet is what an instructor has told a student with the rung they set.
type RungSet struct {
	At     time.Time
	Author string // their name
	Reason string
}

// addFirst writes down where a student begins, before all takes there may be: those
// recorded before the drill was given count too.
func addFirst(ctx context.Context, tx pgx.Tx, assignment uuid.UUID, rung tempo.Rung) error {
	_, err := tx.Exec(ctx, `INSERT INTO rung_sets (assignment_id, at, bpm, notes_per_beat, reason) VALUES ($1, 'epoch', $2, $3, '')`,
		assignment, rung.BPM, rung.NotesPerBeat)
	return err
}

// addSet writes down what was set for an assignment by whoever asks, at a time; nil for
// now.
func addSet(ctx context.Context, tx pgx.Tx, assignment uuid.UUID, at *time.Time, rung tempo.Rung, gate *tempo.Gate, reason string) error {
	actor := scopeOf(ctx).Actor
	author := &actor.ID
	if actor.ID == uuid.Nil {
		author = nil
	}
	// Not the start of the transaction: who waits for the lock sets after the other.
	_, err := tx.Exec(ctx, `
		INSERT INTO rung_sets (assignment_id, at, author_id, author, bpm, notes_per_beat, gate, reason) VALUES ($1, coalesce($8, clock_timestamp()), $2, $3, $4, $5, $6, $7)`,
		assignment, author, actor.Name, rung.BPM, rung.NotesPerBeat, gate, reason, at)
	return err
}

// SetRung puts a student on a rung, with a gate in place of the drill's where one
// is given, and a reason. It rests on a revision and fails with [ErrChanged] where
// that is no longer the latest.
func (s *Store) SetRung(ctx context.Context, assignment uuid.UUID, from int, rung tempo.Rung, gate *tempo.Gate, reason string) error {
	return s.setRung(ctx, assignment, from, nil, rung, gate, reason)
}

// SetRungThen is SetRung as it was done at an earlier time, after all takes there are.
func (s *Store) SetRungThen(ctx context.Context, assignment uuid.UUID, from int, at time.Time, rung tempo.Rung, reason string) error {
	return s.setRung(ctx, assignment, from, &at, rung, nil, reason)
}

func (s *Store) setRung(ctx context.Context, assignment uuid.UUID, from int, at *time.Time, rung tempo.Rung, gate *tempo.Gate, reason string) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		revision, err := value[int](tx.Query(ctx, `SELECT revision FROM assignments WHERE id = $1 AND ended_at IS NULL FOR NO KEY UPDATE`, assignment))
		if err != nil {
			return err
		}
		if revision != from {
			return ErrChanged
		}
		if err := addSet(ctx, tx, assignment, at, rung, gate, reason); err != nil {
			return err
		}
		_, err = tx.Exec(ctx, `UPDATE assignments SET rung_bpm = $2, notes_per_beat = $3, gate = $4, revision = revision + 1 WHERE id = $1`,
			assignment, rung.BPM, rung.NotesPerBeat, gate)
		if err != nil {
			return err
		}
		return writeOf(ctx, tx, "set the rung of", assignment)
	})
}

// A Move is what led a student to a rung: a take that counts, or an instructor.
type Move struct {
	ID     uuid.UUID // of the take, or of what was set
	At     time.Time
	Take   bool   // a take has moved them; else somebody has
	Step   string // up, hold or down; set where somebody has
	Rung   tempo.Rung
	Reason string
	Author string // who has set it
}

// Moves returns what led a student from where they began to where they stand, the
// latest first.
func (s *Store) Moves(ctx context.Context, assignment uuid.UUID, page Page) ([]Move, error) {
	q := question{args: []any{assignment}, where: `true`}
	q.after(page, `at`, `id`)
	return allByPos[Move](s.pool.Query(ctx, `
		SELECT id, at, take, step, rung, reason, author FROM (
			SELECT id, recorded_at AS at, true AS take, decision->>'step' AS step,
			       row((decision#>>'{next,bpm}')::float8, (decision#>>'{next,notesPerBeat}')::integer) AS rung, decision->>'reason' AS reason, '' AS author
			FROM takes WHERE assignment_id = $1 AND counts
			UNION ALL
			SELECT id, at, false, 'set', row(bpm, notes_per_beat), reason, author FROM rung_sets WHERE assignment_id = $1 AND at > 'epoch') moves`+q.text(), q.args...))
}

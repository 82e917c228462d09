package store

import (
	"context"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

// A Line says what an instructor did to what is others'.
type Line struct {
	ID      uuid.UUID
	At      time.Time
	Actor   string     // name of who did it
	Did     string     // "assigned", "archived"
	Student *uuid.UUID // whom it is about; nil for none
	About   string     // name of the drill, group or person
}

// write writes a line in the transaction in which the thing is done, under the
// name of whoever asks. What people do to their own, and what no person does, is
// not written down.
func write(ctx context.Context, tx pgx.Tx, l Line) error {
	return writeAs(ctx, tx, scopeOf(ctx), l)
}

// writeAs writes a line for a scope where the transaction itself is the house's.
func writeAs(ctx context.Context, tx pgx.Tx, sc Scope, l Line) error {
	actor := sc.Actor
	if actor.ID == uuid.Nil || !actor.Teaches() {
		return nil
	}
	_, err := tx.Exec(ctx, `INSERT INTO audit (studio_id, actor_id, actor, did, student_id, about) VALUES ($1, $2, $3, $4, $5, $6)`,
		sc.Studio, actor.ID, actor.Name, l.Did, l.Student, l.About)
	return err
}

// Audit returns what was done, the latest first; about one student where given.
func (s *Store) Audit(ctx context.Context, student *uuid.UUID, page Page) ([]Line, error) {
	q := question{where: `true`}
	if student != nil {
		q.and(`student_id =`, *student)
	}
	q.after(page, `at`, `id`)
	return all[Line](s.pool.Query(ctx, `SELECT id, at, actor, did, student_id AS student, about FROM audit`+q.text(), q.args...))
}

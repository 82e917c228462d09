package store

import (
	"context"
	"errors"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

// A Lesson is what an instructor has noted of one.
type Lesson struct {
	ID       uuid.UUID
	At       time.Time
	Author   string // their name
	Text     string
	Revision int
}

// Lessons returns what was noted of a student's lessons, the latest first.
func (s *Store) Lessons(ctx context.Context, student uuid.UUID, page Page) ([]Lesson, error) {
	q := question{where: `deleted_at IS NULL`}
	q.and(`student_id =`, student)
	q.after(page, `at`, `id`)
	return all[Lesson](s.pool.Query(ctx, `SELECT id, at, author, text, revision FROM lessons`+q.text(), q.args...))
}

// PutLesson notes a lesson, or changes the note of its id from a revision; it fails with
// [ErrChanged] where that is no longer the latest. A note that was taken away is back, of
// the lesson it was of.
func (s *Store) PutLesson(ctx context.Context, id, student uuid.UUID, from int, text string) error {
	author := scopeOf(ctx).Actor.Name
	return s.in(ctx, func(tx pgx.Tx) error {
		if err := holdStudent(ctx, tx, student); err != nil {
			return err
		}
		tag, err := tx.Exec(ctx, `INSERT INTO lessons (id, student_id, author, text) VALUES ($1, $2, $3, $4) ON CONFLICT DO NOTHING`, id, student, author, text)
		if err != nil || tag.RowsAffected() > 0 {
			return err
		}
		was, err := oneByPos[struct {
			Revision int
			Same     bool
		}](tx.Query(ctx, `SELECT revision, text = $3 AND deleted_at IS NULL FROM lessons WHERE id = $1 AND student_id = $2 FOR UPDATE`, id, student, text))
		switch {
		case err != nil || was.Same: // sent twice
			return err
		case was.Revision != from:
			return ErrChanged
		}
		return touch(ctx, tx, `UPDATE lessons SET text = $2, revision = revision + 1, deleted_at = NULL WHERE id = $1`, id, text)
	})
}

// DeleteLesson takes the note of a lesson away; put again, it is back.
func (s *Store) DeleteLesson(ctx context.Context, id, student uuid.UUID) error {
	return touch(ctx, s.pool, `UPDATE lessons SET deleted_at = now() WHERE id = $1 AND student_id = $2 AND deleted_at IS NULL`, id, student)
}

// LastLesson is when a student's last lesson was noted before a time; false for never.
func (s *Store) LastLesson(ctx context.Context, student uuid.UUID, before time.Time) (time.Time, bool, error) {
	at, err := value[time.Time](s.pool.Query(ctx, `SELECT at FROM lessons WHERE student_id = $1 AND at < $2 AND deleted_at IS NULL ORDER BY at DESC LIMIT 1`, student, before))
	if errors.Is(err, ErrNotFound) {
		return at, false, nil
	}
	return at, err == nil, err
}

// TakesToHear returns the take of each of a student's drills that shows best how it stands,
// and the one that went best since a time, those played last first.
func (s *Store) TakesToHear(ctx context.Context, student uuid.UUID, since time.Time) ([]TakeSummary, error) {
	return allByPos[TakeSummary](s.pool.Query(ctx, `
		SELECT `+takeColumns+` FROM `+takeTables+` WHERE t.id IN (
			(SELECT shows_take FROM assignments WHERE student_id = $1 AND ended_at IS NULL AND last_take_at >= $2 ORDER BY last_take_at DESC LIMIT 1)
			UNION ALL
			(SELECT id FROM takes WHERE student_id = $1 AND counts AND recorded_at >= $2
			 ORDER BY passed DESC, clean DESC, spread_percent, recorded_at DESC LIMIT 1))
		ORDER BY t.spread_percent`, student, since))
}

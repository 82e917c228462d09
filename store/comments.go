package store

import (
	"context"
	"errors"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

// A Comment is what somebody pinned to a note of a take: an instructor, or the
// student in answer.
type Comment struct {
	ID        uuid.UUID
	TakeID    uuid.UUID
	Note      int // index over all passes
	Text      string
	Author    Person
	WrittenAt time.Time
	Revision  int        // counts the changes; 0 in a comment that is new
	ReadAt    *time.Time // by the other side: the student, or an instructor
}

// MaxComments is the most comments a take may have, so that they fit one answer.
const MaxComments = 500

// ErrTooMany is returned for more of something than there may be.
var ErrTooMany = errors.New("there are too many of these already")

// Comments returns what is pinned to a take, in the order of its notes.
func (s *Store) Comments(ctx context.Context, take uuid.UUID) ([]Comment, error) {
	return all[Comment](s.pool.Query(ctx, `
		SELECT c.id, c.take_id, c.note, c.text, row(p.id, p.name, p.role, p.demo) AS author, c.written_at, c.revision, c.read_at
		FROM take_comments c JOIN people p ON p.id = c.author_id
		WHERE c.take_id = $1 ORDER BY c.note, c.written_at, c.id`, take))
}

// PutComment pins a comment to a note, or changes the one of the same id where it
// is the author's own and of the revision that was changed; else it fails with
// [ErrNotFound] or [ErrChanged].
func (s *Store) PutComment(ctx context.Context, c Comment) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		n, err := value[int](tx.Query(ctx, `SELECT count(*) FROM take_comments WHERE take_id = $1 AND id <> $2`, c.TakeID, c.ID))
		if err != nil {
			return err
		}
		if n >= MaxComments {
			return ErrTooMany
		}
		tag, err := tx.Exec(ctx, `
			INSERT INTO take_comments (id, take_id, note, text, author_id) VALUES ($1, $2, $3, $4, $5)
			ON CONFLICT (id) DO NOTHING`, c.ID, c.TakeID, c.Note, c.Text, c.Author.ID)
		if err != nil || tag.RowsAffected() > 0 {
			return err
		}
		type was struct {
			Text     string
			Revision int
		}
		kept, err := one[was](tx.Query(ctx, `SELECT text, revision FROM take_comments WHERE id = $1 AND take_id = $2 AND author_id = $3 FOR UPDATE`,
			c.ID, c.TakeID, c.Author.ID))
		switch {
		case err != nil || kept.Text == c.Text: // pinned twice
			return err
		case kept.Revision != c.Revision:
			return ErrChanged
		}
		_, err = tx.Exec(ctx, `UPDATE take_comments SET text = $2, revision = revision + 1, read_at = NULL WHERE id = $1`, c.ID, c.Text)
		return err
	})
}

// MarkRead notes that whoever asks has read what the other side has pinned to a take:
// an instructor what the student has, the student what instructors have, and what they
// have said of it.
func (s *Store) MarkRead(ctx context.Context, take uuid.UUID) error {
	_, err := s.pool.Exec(ctx, `
		UPDATE take_comments c SET read_at = now() FROM people p
		WHERE p.id = c.author_id AND c.take_id = $1 AND c.read_at IS NULL AND (p.role = 'student') = $2`, take, scopeOf(ctx).Actor.Teaches())
	if err == nil && !scopeOf(ctx).Actor.Teaches() {
		_, err = s.pool.Exec(ctx, `UPDATE reviews SET read_at = now() WHERE take_id = $1 AND read_at IS NULL`, take)
	}
	return err
}

// A TakeComment is a comment with its take.
type TakeComment struct {
	ID        uuid.UUID
	TakeID    uuid.UUID
	DrillName string
	Student   Person
	Author    Person
	Note      int
	Text      string
	WrittenAt time.Time
	Read      bool // by the other side
}

const selectTakeComments = `
	SELECT c.id, c.take_id, t.drill_name, row(s.id, s.name, s.role, s.demo), row(p.id, p.name, p.role, p.demo), c.note, c.text, c.written_at, c.read_at IS NOT NULL
	FROM take_comments c JOIN takes t ON t.id = c.take_id JOIN people p ON p.id = c.author_id JOIN people s ON s.id = t.student_id`

// CommentsOf returns the comments on the takes of a student, the latest first.
func (s *Store) CommentsOf(ctx context.Context, student uuid.UUID, page Page) ([]TakeComment, error) {
	q := question{where: `true`}
	q.and(`t.student_id =`, student)
	q.after(page, `c.written_at`, `c.id`)
	return allByPos[TakeComment](s.pool.Query(ctx, selectTakeComments+q.text(), q.args...))
}

// UnreadComments returns what whoever asks has not read yet, the latest first, one
// page at the most: instructors see the answers of students, students what
// instructors have pinned to their takes.
func (s *Store) UnreadComments(ctx context.Context) ([]TakeComment, error) {
	return allByPos[TakeComment](s.pool.Query(ctx, selectTakeComments+`
		WHERE c.read_at IS NULL AND (p.role = 'student') = $1 ORDER BY c.written_at DESC, c.id DESC LIMIT $2`, scopeOf(ctx).Actor.Teaches(), MaxPage))
}

// UnreadAnswers returns how many comments of a student no instructor has read yet.
func (s *Store) UnreadAnswers(ctx context.Context, student uuid.UUID) (int, error) {
	return value[int](s.pool.Query(ctx, `SELECT count(*) FROM take_comments WHERE author_id = $1 AND read_at IS NULL`, student))
}

// DeleteComment takes a comment of an author off a take.
func (s *Store) DeleteComment(ctx context.Context, id, take, author uuid.UUID) error {
	return touch(ctx, s.pool, `DELETE FROM take_comments WHERE id = $1 AND take_id = $2 AND author_id = $3`, id, take, author)
}

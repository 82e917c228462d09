package store

import (
	"context"
	"errors"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

// A Comment is what an instructor pinned to a note of a take.
type Comment struct {
	ID        uuid.UUID
	TakeID    uuid.UUID
	Note      int // index over all passes
	Text      string
	Author    Person
	WrittenAt time.Time
	Revision  int // counts the changes; 0 in a comment that is new
}

// MaxComments is the most comments a take may have, so that they fit one answer.
const MaxComments = 500

// ErrTooMany is returned for more of something than there may be.
var ErrTooMany = errors.New("there are too many of these already")

// Comments returns what is pinned to a take, in the order of its notes.
func (s *Store) Comments(ctx context.Context, take uuid.UUID) ([]Comment, error) {
	return all[Comment](s.pool.Query(ctx, `
		SELECT c.id, c.take_id, c.note, c.text, row(p.id, p.name, p.role, p.demo) AS author, c.written_at, c.revision
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
		_, err = tx.Exec(ctx, `UPDATE take_comments SET text = $2, revision = revision + 1 WHERE id = $1`, c.ID, c.Text)
		return err
	})
}

// DeleteComment takes a comment of an author off a take.
func (s *Store) DeleteComment(ctx context.Context, id, take, author uuid.UUID) error {
	return touch(ctx, s.pool, `DELETE FROM take_comments WHERE id = $1 AND take_id = $2 AND author_id = $3`, id, take, author)
}

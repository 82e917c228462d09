package store

import (
	"context"
	"time"

	"github.com/google/uuid"
)

// A Comment is what an instructor pinned to a note of a take.
type Comment struct {
	ID        uuid.UUID
	TakeID    uuid.UUID
	Note      int // index over all passes
	Text      string
	Author    Person
	WrittenAt time.Time
}

// Comments returns what is pinned to a take, in the order of its notes.
func (s *Store) Comments(ctx context.Context, take uuid.UUID) ([]Comment, error) {
	return all[Comment](s.pool.Query(ctx, `
		SELECT c.id, c.take_id, c.note, c.text, row(p.id, p.name, p.role, p.demo) AS author, c.written_at
		FROM take_comments c JOIN people p ON p.id = c.author_id
		WHERE c.take_id = $1 ORDER BY c.note, c.written_at`, take))
}

// PutComment pins a comment to a note, or changes the one of the same id where it
// is the author's own.
func (s *Store) PutComment(ctx context.Context, c Comment) error {
	return s.touch(ctx, `
		INSERT INTO take_comments (id, take_id, note, text, author_id) VALUES ($1, $2, $3, $4, $5)
		ON CONFLICT (id) DO UPDATE SET text = excluded.text
		WHERE take_comments.author_id = excluded.author_id AND take_comments.take_id = excluded.take_id`,
		c.ID, c.TakeID, c.Note, c.Text, c.Author.ID)
}

// DeleteComment takes a comment of an author off a take.
func (s *Store) DeleteComment(ctx context.Context, id, take, author uuid.UUID) error {
	return s.touch(ctx, `DELETE FROM take_comments WHERE id = $1 AND take_id = $2 AND author_id = $3`, id, take, author)
}

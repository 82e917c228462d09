package store

import (
	"context"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"manudrill/core/progress"
	"manudrill/core/tempo"
)

// A Review is what an instructor who has listened to a take says of it.
type Review struct {
	TakeID   uuid.UUID
	At       time.Time
	Author   string // their name
	Accepted bool
	Note     string
	ReadAt   *time.Time // by the student
}

const selectReviews = `SELECT take_id, at, author, accepted, note, read_at FROM reviews`

// TakeReview returns the review of a take or [ErrNotFound].
func (s *Store) TakeReview(ctx context.Context, take uuid.UUID) (Review, error) {
	return oneByPos[Review](s.pool.Query(ctx, selectReviews+` WHERE take_id = $1`, take))
}

// A ToReview is a drill with takes that nobody has reviewed yet. One is looked at: with
// it, those before it are reviewed too.
type ToReview struct {
	Assignment uuid.UUID
	Student    Person
	DrillName  string
	Take       uuid.UUID // the latest
	RecordedAt time.Time
	Takes      int // that wait, the latest included
	Rung       tempo.Rung
	State      *Lenient[progress.State]
}

// MaxWaiting is the most that wait in one answer: more than anybody listens to.
const MaxWaiting = 200

// TakesToReview returns the drills of students with takes that wait, those who wait
// longest first.
func (s *Store) TakesToReview(ctx context.Context) ([]ToReview, error) {
	return allByPos[ToReview](s.pool.Query(ctx, `
		SELECT a.id, row(p.id, p.name, p.role, p.demo), v.name, t.id, t.recorded_at,
		       (SELECT count(*) FROM takes n WHERE n.assignment_id = a.id AND n.state = 'measured' AND n.aside = '' AND n.recorded_at > coalesce(a.reviewed_until, '-infinity')),
		       row(t.bpm, t.notes_per_beat), a.state
		FROM assignments a JOIN people p ON p.id = a.student_id
		JOIN drill_versions v ON v.drill_id = a.drill_id AND v.version = a.version
		JOIN LATERAL (
			SELECT id, recorded_at, bpm, notes_per_beat FROM takes
			WHERE assignment_id = a.id AND state = 'measured' AND aside = '' AND recorded_at > coalesce(a.reviewed_until, '-infinity')
			ORDER BY recorded_at DESC, id DESC LIMIT 1) t ON true
		WHERE a.ended_at IS NULL AND a.last_take_at > coalesce(a.reviewed_until, '-infinity') AND p.archived_at IS NULL AND p.remove_at IS NULL
		ORDER BY t.recorded_at, a.id LIMIT $1`, MaxWaiting))
}

// PutReview says what an instructor who has listened to a take says of it. It and the
// takes of the drill before it wait no more. Said again, it is what was said last.
func (s *Store) PutReview(ctx context.Context, take uuid.UUID, accepted bool, note string) error {
	actor := scopeOf(ctx).Actor
	return s.in(ctx, func(tx pgx.Tx) error {
		played, err := lockTake(ctx, tx, take)
		if err != nil {
			return err
		}
		_, err = tx.Exec(ctx, `
			INSERT INTO reviews (take_id, author_id, author, accepted, note) VALUES ($1, $2, $3, $4, $5)
			ON CONFLICT (take_id) DO UPDATE SET at = now(), author_id = $2, author = $3, accepted = $4, note = $5,
			       read_at = CASE WHEN reviews.accepted = $4 AND reviews.note = $5 THEN reviews.read_at END`, take, actor.ID, actor.Name, accepted, note)
		if err != nil {
			return err
		}
		return waitsFrom(ctx, tx, played.Assignment)
	})
}

// DeleteReview takes a review back: the take waits again.
func (s *Store) DeleteReview(ctx context.Context, take uuid.UUID) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		played, err := lockTake(ctx, tx, take)
		if err != nil {
			return err
		}
		if err := touch(ctx, tx, `DELETE FROM reviews WHERE take_id = $1`, take); err != nil {
			return err
		}
		return waitsFrom(ctx, tx, played.Assignment)
	})
}

// waitsFrom puts beside an assignment, which is held, up to when its takes are reviewed.
func waitsFrom(ctx context.Context, tx pgx.Tx, assignment uuid.UUID) error {
	_, err := tx.Exec(ctx, `
		UPDATE assignments SET reviewed_until = (SELECT max(t.recorded_at) FROM reviews r JOIN takes t ON t.id = r.take_id WHERE t.assignment_id = $1) WHERE id = $1`, assignment)
	return err
}

// A NewReview is one that the student has not read yet.
type NewReview struct {
	Review
	DrillName string
	Rung      tempo.Rung
}

// UnreadReviews returns what instructors have said of takes that whoever asks has not
// read yet, the latest first.
func (s *Store) UnreadReviews(ctx context.Context) ([]NewReview, error) {
	return allByPos[NewReview](s.pool.Query(ctx, `
		SELECT r.take_id, r.at, r.author, r.accepted, r.note, r.read_at, t.drill_name, row(t.bpm, t.notes_per_beat)
		FROM reviews r JOIN takes t ON t.id = r.take_id WHERE r.read_at IS NULL ORDER BY r.at DESC LIMIT $1`, MaxPage))
}

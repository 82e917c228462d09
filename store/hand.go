package store

import (
	"context"
	"fmt"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"manudrill/core/practice"
)

// A HandReport is what a student said of their hand.
type HandReport struct {
	ID          uuid.UUID
	StudentID   uuid.UUID
	At          time.Time
	Report      Lenient[practice.HandReport]
	WithdrawnAt *time.Time // it was pressed by mistake
	ClearedAt   *time.Time // of pain: when an instructor said that ladders climb again
	ClearedBy   string
}

// hurts holds for reports of pain that stand, at a time that is put in.
const hurts = `h.kind = 'hurts' AND h.withdrawn_at IS NULL AND h.at <= %[1]s AND (h.cleared_at IS NULL OR h.cleared_at > %[1]s)`

// HandReports returns those of a student, the latest first.
func (s *Store) HandReports(ctx context.Context, student uuid.UUID, page Page) ([]HandReport, error) {
	q := question{where: `true`}
	q.and(`student_id =`, student)
	q.after(page, `at`, `id`)
	return all[HandReport](s.pool.Query(ctx, `SELECT id, student_id, at, report, withdrawn_at, cleared_at, cleared_by FROM hand_reports`+q.text(), q.args...))
}

// maxReportsADay is more than anybody says of a hand.
const maxReportsADay = 200

// AddHandReport keeps what a student says; sent again, it is there once, and where it
// aches is what was said last. Takes from then on that are measured already are decided
// anew, for a report may come late.
func (s *Store) AddHandReport(ctx context.Context, id, student uuid.UUID, at time.Time, r practice.HandReport) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		if err := holdStudent(ctx, tx, student); err != nil {
			return err
		}
		n, err := value[int](tx.Query(ctx, `SELECT count(*) FROM hand_reports WHERE student_id = $1 AND at > now() - interval '1 day' AND id <> $2`, student, id))
		if err != nil {
			return err
		}
		if n >= maxReportsADay {
			return ErrTooMany
		}
		tag, err := tx.Exec(ctx, `
			INSERT INTO hand_reports (id, student_id, at, kind, report) VALUES ($1, $2, $3, $4, $5) ON CONFLICT DO NOTHING`, id, student, at, r.Kind, r)
		switch {
		case err != nil:
			return err
		case tag.RowsAffected() == 0:
			return touch(ctx, tx, `UPDATE hand_reports SET report = $4 WHERE id = $1 AND student_id = $2 AND kind = $3`, id, student, r.Kind, r)
		case r.Kind == practice.IsHurt:
			return decideSince(ctx, tx, student, at)
		}
		return nil
	})
}

// WithdrawHandReport takes a report back that was made by mistake. It stays to be
// seen.
func (s *Store) WithdrawHandReport(ctx context.Context, id, student uuid.UUID) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		if err := holdStudent(ctx, tx, student); err != nil {
			return err
		}
		at, err := value[time.Time](tx.Query(ctx, `
			UPDATE hand_reports SET withdrawn_at = coalesce(withdrawn_at, now()) WHERE id = $1 AND student_id = $2 RETURNING at`, id, student))
		if err != nil {
			return err
		}
		return decideSince(ctx, tx, student, at)
	})
}

// ClearPain says that a student's ladders climb again. What was decided until then
// stays.
func (s *Store) ClearPain(ctx context.Context, student uuid.UUID) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		if err := holdStudent(ctx, tx, student); err != nil {
			return err
		}
		tag, err := tx.Exec(ctx, `
			UPDATE hand_reports SET cleared_at = now(), cleared_by = $2
			WHERE student_id = $1 AND kind = 'hurts' AND withdrawn_at IS NULL AND cleared_at IS NULL`, student, scopeOf(ctx).Actor.Name)
		if err != nil || tag.RowsAffected() == 0 {
			return err
		}
		return write(ctx, tx, Line{Did: "let the ladders climb again of", Student: &student})
	})
}

// Hurts reports whether a student has reported pain that no instructor has cleared.
func (s *Store) Hurts(ctx context.Context, student uuid.UUID) (bool, error) {
	return value[bool](s.pool.Query(ctx, `SELECT EXISTS (SELECT FROM hand_reports h WHERE h.student_id = $1 AND `+fmt.Sprintf(hurts, "now()")+`)`, student))
}

// decideSince lets the ladders decide anew on a student's takes from a time on.
func decideSince(ctx context.Context, tx pgx.Tx, student uuid.UUID, at time.Time) error {
	// All are locked, in the order of their ids: a take that is measured just now is
	// either seen here or sees what was reported.
	assignments, err := everyID(tx.Query(ctx, `SELECT id FROM assignments WHERE student_id = $1 ORDER BY id FOR NO KEY UPDATE`, student))
	if err != nil {
		return err
	}
	for _, a := range assignments {
		takes, err := everyID(tx.Query(ctx, `SELECT id FROM takes WHERE assignment_id = $1 AND counts AND recorded_at >= $2 ORDER BY recorded_at, id`, a, at))
		if err != nil {
			return err
		}
		for _, take := range takes {
			if err := decide(ctx, tx, a, take); err != nil {
				return err
			}
		}
	}
	return nil
}

// A Week is how much a student has played in it.
type Week struct {
	Begins      time.Time // on its Monday, UTC
	Takes       int
	Seconds     float64
	SlurSeconds float64 // that the fretting hand made sound by itself
}

// weeksOfLoad is how many weeks of load are told.
const weeksOfLoad = 8

// Load returns the weeks in which a student has played lately, the latest first.
func (s *Store) Load(ctx context.Context, student uuid.UUID) ([]Week, error) {
	return all[Week](s.pool.Query(ctx, `
		SELECT date_trunc('week', recorded_at, 'UTC') AS begins, count(*) AS takes, sum(seconds) AS seconds, sum(slur_seconds) AS slur_seconds
		FROM takes WHERE student_id = $1 AND state = 'measured' AND aside <> 'tryOut' AND recorded_at > now() - make_interval(weeks => $2)
		GROUP BY 1 ORDER BY 1 DESC LIMIT $2`, student, weeksOfLoad))
}

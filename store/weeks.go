package store

import (
	"context"
	"errors"
	"slices"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"manudrill/core/evenness"
	"manudrill/core/progress"
	"manudrill/core/tempo"
)

// Takes are added up by the weeks in which they were played, by the studio's clock; all
// that is told over months is read from there.

// recordWeeks is how many weeks a record looks back at, the latest ones with takes.
const recordWeeks = 104

// addUp adds up the weeks of some takes anew and puts beside the assignment, which is
// held, how the student stands with it.
func addUp(ctx context.Context, tx pgx.Tx, assignment uuid.UUID, takes []uuid.UUID) error {
	rows, err := tx.Query(ctx, `
		SELECT DISTINCT date_trunc('week', recorded_at AT TIME ZONE s.time_zone)::date
		FROM takes t JOIN studios s ON s.id = t.studio_id WHERE t.id = any($1) AND t.state = 'measured'`, takes)
	weeks, err := every(rows, err, pgx.RowTo[time.Time])
	if err != nil {
		return err
	}
	for _, begins := range weeks {
		if err := addUpWeek(ctx, tx, assignment, begins); err != nil {
			return err
		}
	}
	return putState(ctx, tx, assignment)
}

// AddUpAnew adds up all weeks of an assignment anew, as after takes were brought in from
// elsewhere.
func (s *Store) AddUpAnew(ctx context.Context, assignment uuid.UUID) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		if err := touch(ctx, tx, `SELECT 1 FROM assignments WHERE id = $1 FOR NO KEY UPDATE`, assignment); err != nil {
			return err
		}
		takes, err := everyID(tx.Query(ctx, `
			SELECT DISTINCT ON (date_trunc('week', recorded_at)) id FROM takes WHERE assignment_id = $1 AND state = 'measured' ORDER BY date_trunc('week', recorded_at), recorded_at`, assignment))
		if err != nil {
			return err
		}
		return addUp(ctx, tx, assignment, takes)
	})
}

// addUpWeek adds up the takes of an assignment in a week. Of takes by the simulated
// player for somebody who is not invented nothing is added up.
func addUpWeek(ctx context.Context, tx pgx.Tx, assignment uuid.UUID, begins time.Time) error {
	takes, err := allByPos[progress.DayTake](tx.Query(ctx, `
		SELECT (t.recorded_at AT TIME ZONE s.time_zone)::date, row(t.bpm, t.notes_per_beat), t.decision, t.counts, t.clean, t.spread_percent, t.seconds, t.slur_seconds,
		       CASE WHEN t.is_foreign THEN '[]' ELSE t.sums END
		FROM takes t JOIN studios s ON s.id = t.studio_id
		WHERE t.assignment_id = $1 AND t.state = 'measured' AND t.aside <> 'tryOut'
		  AND t.recorded_at >= $2::date::timestamp AT TIME ZONE s.time_zone AND t.recorded_at < ($2::date + 7)::timestamp AT TIME ZONE s.time_zone
		ORDER BY t.recorded_at, t.id`, assignment, begins))
	if err != nil || len(takes) == 0 {
		return err
	}
	sums := make([][]evenness.Sum, len(takes))
	for i, t := range takes {
		sums[i] = t.Sums
	}
	_, err = tx.Exec(ctx, `
		INSERT INTO practice_weeks (assignment_id, studio_id, student_id, begins, days, sums)
		SELECT id, studio_id, student_id, $2, $3, $4 FROM assignments WHERE id = $1
		ON CONFLICT (assignment_id, begins) DO UPDATE SET days = excluded.days, sums = excluded.sums`,
		assignment, begins, progress.DaysOf(takes), evenness.AddUp(sums...))
	return err
}

// A weekRow is what an assignment's week adds up to.
type weekRow struct {
	Begins time.Time
	Days   Lenient[[]progress.Day]
	Sums   Lenient[[]evenness.Sum]
}

// record is what was played of an assignment, in order.
func record(ctx context.Context, on executor, assignment uuid.UUID, rungs tempo.Rungs) (progress.Record, []progress.Dated, error) {
	weeks, err := allByPos[weekRow](on.Query(ctx, `
		SELECT begins, days, sums FROM practice_weeks WHERE assignment_id = $1 ORDER BY begins DESC LIMIT $2`, assignment, recordWeeks))
	slices.Reverse(weeks)
	r := progress.Record{Rungs: rungs}
	sums := make([]progress.Dated, len(weeks))
	for i, w := range weeks {
		r.Days = append(r.Days, w.Days.Value...)
		sums[i] = progress.Dated{Date: w.Begins, Sums: w.Sums.Value}
	}
	return r, sums, err
}

// Record returns what was played of an assignment day by day, and what the notes of each
// week add up to.
func (s *Store) Record(ctx context.Context, a Assignment) (progress.Record, []progress.Dated, error) {
	return record(ctx, s.pool, a.ID, a.Rungs())
}

// putState puts beside an assignment how the student stands with it, and the take that
// shows it.
func putState(ctx context.Context, tx pgx.Tx, assignment uuid.UUID) error {
	a, err := oneByPos[Assignment](tx.Query(ctx, `SELECT `+assignmentColumns+` FROM `+assignmentTables+assignmentPeople+` WHERE a.id = $1`, assignment))
	if err != nil {
		return err
	}
	r, sums, err := record(ctx, tx, assignment, a.Rungs())
	if err != nil || len(r.Days) == 0 {
		return err
	}
	shows, err := value[uuid.UUID](tx.Query(ctx, `
		SELECT id FROM (SELECT id, spread_percent FROM takes WHERE assignment_id = $1 AND counts ORDER BY recorded_at DESC, id DESC LIMIT $2) latest
		ORDER BY spread_percent DESC, id LIMIT 1`, assignment, latestTakes))
	if err != nil && !errors.Is(err, ErrNotFound) {
		return err
	}
	return keepState(ctx, tx, assignment, r.StateOf(a.GateNow(), sums), shows)
}

// keepState keeps a state, the take that shows it, and what of it puts students in order.
func keepState(ctx context.Context, on executor, assignment uuid.UUID, state progress.State, shows uuid.UUID) error {
	o := state.Outlook()
	_, err := on.Exec(ctx, `
		UPDATE assignments SET state = $2, shows_take = nullif($3, '00000000-0000-0000-0000-000000000000'::uuid),
		       need = $4, need_from = $5, need_then = $6, last_day = $7, of_gate = $8, late_ms = $9, dates = $10 WHERE id = $1`,
		assignment, state, shows, string(o.Why), dayOrNone(o.From), string(o.Then), dayOrNone(o.Last), o.Gate, o.Late, o.Dates)
	return err
}

// dayOrNone is a day; nil for zero.
func dayOrNone(day time.Time) *time.Time {
	if day.IsZero() {
		return nil
	}
	return &day
}

// latestTakes is how many of the latest takes that count the one that shows how it
// stands is looked for in.
const latestTakes = 5

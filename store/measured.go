package store

import (
	"context"
	"slices"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"manudrill/core/evenness"
	"manudrill/core/tempo"
)

// A Measurement is what was found in a take.
type Measurement struct {
	Analysis evenness.Analysis
	Seconds  float64
	Listener int // version of the listener
}

// resultOf is what an analysis tells the ladder.
func resultOf(a evenness.Analysis) tempo.Result {
	r := tempo.Result{HeldBPM: a.Tempo.BPM, Foreign: a.Foreign, Passes: []tempo.PassFigures{}}
	for _, p := range a.Passes {
		r.Passes = append(r.Passes, p.PassFigures)
	}
	return r
}

// Measured keeps what was found in a take and lets the ladder decide on it, and
// anew on those takes after it whose decision rests on it.
func (s *Store) Measured(ctx context.Context, take uuid.UUID, m Measurement) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		assignment, err := lockTake(ctx, tx, take)
		if err != nil {
			return err
		}
		a, result := m.Analysis, resultOf(m.Analysis)
		_, err = tx.Exec(ctx, `
			UPDATE takes SET state = 'measured', failure = NULL, listener = $2, analysis = $3, seconds = $4, held_bpm = $5,
			       notes_per_second = $6, spread_ms = $7, spread_percent = $8, right_percent = $9, is_foreign = $10, passes = $11
			WHERE id = $1`,
			take, m.Listener, a, m.Seconds, result.HeldBPM, a.Tempo.NotesPerSecond, a.Timing.SpreadMs, a.Timing.SpreadPercent,
			100*a.Counts.RightShare(), result.Foreign, result.Passes)
		if err != nil {
			return err
		}
		return decide(ctx, tx, assignment, take)
	})
}

// lockTake locks a take's assignment, so that its takes are decided one after the
// other, and returns its id.
func lockTake(ctx context.Context, tx pgx.Tx, take uuid.UUID) (assignment uuid.UUID, err error) {
	assignment, err = value[uuid.UUID](tx.Query(ctx, `SELECT assignment_id FROM takes WHERE id = $1`, take))
	if err != nil {
		return assignment, err
	}
	return value[uuid.UUID](tx.Query(ctx, `SELECT id FROM assignments WHERE id = $1 FOR NO KEY UPDATE`, assignment))
}

// rung is a measured take as the ladder sees it.
type rung struct {
	ID         uuid.UUID
	BPM        float64
	HeldBPM    float64
	Foreign    bool
	Passes     []tempo.PassFigures
	RecordedAt time.Time
	Ladder     Lenient[tempo.Ladder] // of the version that was played
}

const selectRungs = `SELECT t.id, t.bpm, t.held_bpm, t.is_foreign, t.passes, t.recorded_at, v.file->'ladder'
	FROM takes t JOIN assignments a ON a.id = t.assignment_id
	JOIN drill_versions v ON v.drill_id = a.drill_id AND v.version = t.version
	WHERE t.assignment_id = $1 AND t.state = 'measured' AND `

// decide lets the ladder decide on a take and on those after it that look back as
// far as to it, and puts the latest decision beside the assignment.
func decide(ctx context.Context, tx pgx.Tx, assignment, take uuid.UUID) error {
	before, err := allByPos[rung](tx.Query(ctx, selectRungs+`(t.recorded_at, t.id) <= (SELECT recorded_at, id FROM takes WHERE id = $2)
		ORDER BY t.recorded_at DESC, t.id DESC LIMIT $3`, assignment, take, tempo.LooksBack))
	if err != nil {
		return err
	}
	after, err := allByPos[rung](tx.Query(ctx, selectRungs+`(t.recorded_at, t.id) > (SELECT recorded_at, id FROM takes WHERE id = $2)
		ORDER BY t.recorded_at, t.id LIMIT $3`, assignment, take, tempo.LooksBack-1))
	if err != nil {
		return err
	}
	slices.Reverse(before)
	rungs := append(before, after...)
	for i := len(before) - 1; i < len(rungs); i++ {
		d := decision(rungs[:i+1])
		if _, err := tx.Exec(ctx, `UPDATE takes SET decision = $2, passed = $3 WHERE id = $1`, rungs[i].ID, d, d.Passed()); err != nil {
			return err
		}
	}
	_, err = tx.Exec(ctx, `
		UPDATE assignments a SET last = t.decision, last_take_at = t.recorded_at
		FROM (SELECT decision, recorded_at FROM takes WHERE assignment_id = $1 AND state = 'measured' ORDER BY recorded_at DESC, id DESC LIMIT 1) t
		WHERE a.id = $1`, assignment)
	return err
}

// decision is the ladder's on the last of some takes: those before it at the same
// tempo without another in between count.
func decision(rungs []rung) tempo.Decision {
	last := rungs[len(rungs)-1]
	from := len(rungs) - 1
	for from > 0 && len(rungs)-from < tempo.LooksBack && rungs[from-1].BPM == last.BPM {
		from--
	}
	var results []tempo.Result
	for _, r := range rungs[from:] {
		results = append(results, tempo.Result{HeldBPM: r.HeldBPM, Foreign: r.Foreign, Passes: r.Passes})
	}
	return last.Ladder.Value.Decide(last.BPM, results)
}

// Failed keeps why a take could not be measured. What was measured in it before
// stays.
func (s *Store) Failed(ctx context.Context, take uuid.UUID, why string) error {
	return touch(AsHouse(ctx), s.pool, `
		UPDATE takes SET failure = $2, state = CASE WHEN analysis IS NULL THEN 'failed' ELSE state END WHERE id = $1`, take, why)
}

// MeasureAgain lets a take be measured once more, and does what is given in the
// same transaction. What was measured in it stays until then.
func (s *Store) MeasureAgain(ctx context.Context, take uuid.UUID, also func(pgx.Tx) error) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		if err := touch(ctx, tx, `
			UPDATE takes SET failure = NULL, state = CASE WHEN analysis IS NULL THEN 'waiting' ELSE state END WHERE id = $1`, take); err != nil {
			return err
		}
		return also(tx)
	})
}

package store

import (
	"context"
	"errors"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"manudrill/core/drill"
	"manudrill/core/evenness"
	"manudrill/core/tempo"
)

// The sources a take may have.
const (
	Microphone = "microphone"
	File       = "file"
	Simulated  = "simulated"
)

// A Take is one recording and what was measured in it.
type Take struct {
	ID           uuid.UUID
	AssignmentID uuid.UUID
	Student      Person
	Version      int     // of the drill that was played
	BPM          float64 // asked for
	Source       string
	RecordedAt   time.Time
	Seconds      float64
	Chart        drill.Chart // as it was played
	Analysis     evenness.Analysis
	Decision     tempo.Decision
}

// Result is what the take tells the ladder.
func (t Take) Result() tempo.Result {
	r := tempo.Result{HeldBPM: t.Analysis.Tempo.BPM, Foreign: t.Analysis.Foreign}
	for _, p := range t.Analysis.Passes {
		r.Passes = append(r.Passes, p.PassFigures)
	}
	return r
}

const selectTakes = `
	SELECT t.id, t.assignment_id, row(p.id, p.name, p.role, p.demo) AS student,
	       t.version, t.bpm, t.source, t.recorded_at, t.seconds, t.chart, t.analysis, t.decision
	FROM takes t JOIN assignments a ON a.id = t.assignment_id JOIN people p ON p.id = a.student_id`

// AddTake keeps a take with its sound, FLAC, or neither. decide is told the
// results of all takes of the assignment at the same tempo without another in
// between, this one last; its answer is kept with the take. A take whose id is
// kept already is left as it is.
func (s *Store) AddTake(ctx context.Context, t Take, flac []byte, decide func([]tempo.Result) tempo.Decision) error {
	return pgx.BeginFunc(ctx, s.pool, func(tx pgx.Tx) error {
		// Takes of one assignment are decided one after the other.
		if err := tx.QueryRow(ctx, `SELECT id FROM assignments WHERE id = $1 FOR UPDATE`, t.AssignmentID).Scan(nil); err != nil {
			if errors.Is(err, pgx.ErrNoRows) {
				return ErrNotFound
			}
			return err
		}
		results, err := resultsAt(ctx, tx, t.AssignmentID, t.BPM)
		if err != nil {
			return err
		}
		t.Decision = decide(append(results, t.Result()))
		tag, err := tx.Exec(ctx, `
			INSERT INTO takes (id, assignment_id, bpm, source, recorded_at, seconds, chart, analysis, decision, version)
			VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10) ON CONFLICT (id) DO NOTHING`,
			t.ID, t.AssignmentID, t.BPM, t.Source, t.RecordedAt, t.Seconds, t.Chart, t.Analysis, t.Decision, t.Version)
		if err != nil || tag.RowsAffected() == 0 {
			return err
		}
		_, err = tx.Exec(ctx, `INSERT INTO take_sounds (take_id, flac) VALUES ($1, $2)`, t.ID, flac)
		return err
	})
}

// resultsAt returns the results of the latest takes of an assignment as long as
// they are at bpm, oldest first.
func resultsAt(ctx context.Context, tx pgx.Tx, assignment uuid.UUID, bpm float64) ([]tempo.Result, error) {
	takes, err := all[Take](tx.Query(ctx, selectTakes+`
		WHERE t.assignment_id = $1 AND t.bpm = $2 AND t.recorded_at > coalesce(
			(SELECT max(o.recorded_at) FROM takes o WHERE o.assignment_id = $1 AND o.bpm <> $2), '-infinity')
		ORDER BY t.recorded_at`, assignment, bpm))
	results := make([]tempo.Result, len(takes))
	for i, t := range takes {
		results[i] = t.Result()
	}
	return results, err
}

// Take returns one take or [ErrNotFound].
func (s *Store) Take(ctx context.Context, id uuid.UUID) (Take, error) {
	return one[Take](s.pool.Query(ctx, selectTakes+` WHERE t.id = $1`, id))
}

// Takes returns takes, the latest first; of one assignment or one student where
// these are given.
func (s *Store) Takes(ctx context.Context, assignment, student *uuid.UUID) ([]Take, error) {
	return all[Take](s.pool.Query(ctx, selectTakes+`
		WHERE ($1::uuid IS NULL OR t.assignment_id = $1) AND ($2::uuid IS NULL OR a.student_id = $2)
		ORDER BY t.recorded_at DESC, t.id`, assignment, student))
}

// Sound returns the recording of a take, FLAC, or [ErrNotFound].
func (s *Store) Sound(ctx context.Context, take uuid.UUID) ([]byte, error) {
	type row struct{ FLAC []byte }
	got, err := one[row](s.pool.Query(ctx, `SELECT flac FROM take_sounds WHERE take_id = $1`, take))
	return got.FLAC, err
}

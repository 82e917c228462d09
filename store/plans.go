package store

import (
	"context"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"manudrill/core/plan"
	"manudrill/core/progress"
)

// A Plan is that of a student.
type Plan struct {
	StudentID uuid.UUID
	Settings  Lenient[plan.Settings]
	Plan      Lenient[plan.Plan]
	Revision  int
	Author    string // who has changed it last
	MadeOn    time.Time
}

const selectPlans = `SELECT student_id, settings, plan, revision, author, made_on FROM plans WHERE deleted_at IS NULL AND `

// Plan returns a student's or [ErrNotFound].
func (s *Store) Plan(ctx context.Context, student uuid.UUID) (Plan, error) {
	return oneByPos[Plan](s.pool.Query(ctx, selectPlans+`student_id = $1`, student))
}

// PutPlan keeps a student's plan from a revision, 0 for none; it fails with [ErrChanged]
// where that is no longer the latest. The drills that are played in it are given to the
// student; those that are deleted meanwhile are left out.
func (s *Store) PutPlan(ctx context.Context, student uuid.UUID, from int, settings plan.Settings, p plan.Plan, today time.Time, drills []uuid.UUID) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		if err := holdStudent(ctx, tx, student); err != nil {
			return err
		}
		if err := putPlan(ctx, tx, student, from, settings, p, today); err != nil {
			return err
		}
		for _, d := range drills {
			if _, err := assign(ctx, tx, d, student); err != nil {
				return err
			}
		}
		return write(ctx, tx, Line{Did: "set the plan of", Student: &student})
	})
}

func putPlan(ctx context.Context, tx pgx.Tx, student uuid.UUID, from int, settings plan.Settings, p plan.Plan, today time.Time) error {
	author := scopeOf(ctx).Actor.Name
	tag, err := tx.Exec(ctx, `
		INSERT INTO plans (student_id, settings, plan, author, made_on, due) VALUES ($1, $2, $3, $4, $5, $7)
		ON CONFLICT (student_id) DO UPDATE SET settings = $2, plan = $3, author = $4, made_on = $5, due = $7, changed_at = now(), deleted_at = NULL,
		       revision = plans.revision + 1
		WHERE plans.deleted_at IS NOT NULL AND $6 = 0 OR plans.revision = $6 AND plans.deleted_at IS NULL`, student, settings, p, author, today, from, p.Due())
	if err == nil && tag.RowsAffected() == 0 {
		err = ErrChanged
	}
	return err
}

// Replan keeps a plan that was made anew by its rules where nobody has changed it since
// a revision.
func (s *Store) Replan(ctx context.Context, student uuid.UUID, from int, p plan.Plan, today time.Time) error {
	_, err := s.pool.Exec(ctx, `UPDATE plans SET plan = $3, made_on = $4, due = $5, revision = revision + 1 WHERE student_id = $1 AND revision = $2 AND deleted_at IS NULL`, student, from, p, today, p.Due())
	return err
}

// DeletePlan takes a student's plan away.
func (s *Store) DeletePlan(ctx context.Context, student uuid.UUID) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		if err := touch(ctx, tx, `UPDATE plans SET deleted_at = now() WHERE student_id = $1 AND deleted_at IS NULL`, student); err != nil {
			return err
		}
		return write(ctx, tx, Line{Did: "took away the plan of", Student: &student})
	})
}

// RestorePlan brings a plan back that was taken away. One that is there stays.
func (s *Store) RestorePlan(ctx context.Context, student uuid.UUID) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		if err := touch(ctx, tx, `UPDATE plans SET deleted_at = NULL WHERE student_id = $1`, student); err != nil {
			return err
		}
		return write(ctx, tx, Line{Did: "brought back the plan of", Student: &student})
	})
}

// A DrillState is how a student stands with a drill.
type DrillState struct {
	Assignment uuid.UUID
	Ended      bool
	State      *Lenient[progress.State] // nil until a take is measured
}

// DrillStates returns how a student stands with each drill that they have or had.
func (s *Store) DrillStates(ctx context.Context, student uuid.UUID) (map[uuid.UUID]DrillState, error) {
	type row struct {
		Drill uuid.UUID
		DrillState
	}
	rows, err := allByPos[row](s.pool.Query(ctx, `SELECT drill_id, id, ended_at IS NOT NULL, state FROM assignments WHERE student_id = $1`, student))
	states := map[uuid.UUID]DrillState{}
	for _, r := range rows {
		if was, is := states[r.Drill]; !is || was.Ended {
			states[r.Drill] = r.DrillState
		}
	}
	return states, err
}

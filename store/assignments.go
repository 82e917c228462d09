package store

import (
	"context"
	"time"

	"github.com/google/uuid"

	"manudrill/core/drill"
	"manudrill/core/tempo"
	"manudrill/formats/drillfile"
)

// An Assignment is a drill given to a student.
type Assignment struct {
	ID         uuid.UUID
	DrillID    uuid.UUID
	Version    int // of the drill
	Newest     int // version there is
	File       drillfile.File
	Student    Person
	Setup      *drill.Setup // the student's; nil for the usual one
	AssignedAt time.Time
	Takes      int
	Last       *tempo.Decision // of the latest take
	LastTakeAt *time.Time
	Ended      bool
}

// BPM is the tempo reached: what the latest take decided, within the ladder as
// it is now.
func (a Assignment) BPM() float64 {
	l := a.File.Ladder
	if a.Last == nil {
		return l.StartBPM
	}
	return max(l.StartBPM, min(l.TargetBPM, a.Last.NextBPM))
}

// StudentSetup is the setup the student plays with.
func (a Assignment) StudentSetup() drill.Setup {
	if a.Setup == nil {
		return drill.UsualSetup()
	}
	return *a.Setup
}

const selectAssignments = `
	SELECT a.id, a.drill_id, a.version, d.version AS newest, v.file, a.assigned_at, a.ended_at IS NOT NULL AS ended,
	       row(p.id, p.name, p.role, p.demo) AS student, p.setup,
	       (SELECT count(*) FROM takes t WHERE t.assignment_id = a.id) AS takes,
	       last.decision AS last, last.recorded_at AS last_take_at
	FROM assignments a JOIN drills d ON d.id = a.drill_id
	JOIN drill_versions v ON v.drill_id = a.drill_id AND v.version = a.version JOIN people p ON p.id = a.student_id
	LEFT JOIN LATERAL (SELECT decision, recorded_at FROM takes t WHERE t.assignment_id = a.id
	                   ORDER BY recorded_at DESC LIMIT 1) last ON true`

// Assignments returns what is assigned now, the latest first; of one student or
// one drill where these are given.
func (s *Store) Assignments(ctx context.Context, student, drill *uuid.UUID) ([]Assignment, error) {
	return all[Assignment](s.pool.Query(ctx, selectAssignments+`
		WHERE a.ended_at IS NULL AND ($1::uuid IS NULL OR a.student_id = $1) AND ($2::uuid IS NULL OR a.drill_id = $2)
		ORDER BY a.assigned_at DESC, a.id`, student, drill))
}

// Assignment returns one assignment, ended or not, or [ErrNotFound].
func (s *Store) Assignment(ctx context.Context, id uuid.UUID) (Assignment, error) {
	return one[Assignment](s.pool.Query(ctx, selectAssignments+` WHERE a.id = $1`, id))
}

// Assign gives a drill to a student and returns the assignment's id, which is
// the old one's when the student has the drill already.
func (s *Store) Assign(ctx context.Context, drill, student uuid.UUID) (uuid.UUID, error) {
	type row struct{ ID uuid.UUID }
	got, err := one[row](s.pool.Query(ctx, `
		WITH fresh AS (
			INSERT INTO assignments (id, drill_id, version, student_id)
			SELECT $1, d.id, d.version, p.id FROM drills d, people p
			WHERE d.id = $2 AND d.deleted_at IS NULL AND p.id = $3 AND p.role = 'student'
			ON CONFLICT DO NOTHING RETURNING id)
		SELECT id FROM fresh UNION ALL
		SELECT id FROM assignments WHERE drill_id = $2 AND student_id = $3 AND ended_at IS NULL LIMIT 1`,
		uuid.New(), drill, student))
	return got.ID, err
}

// GiveNewest puts the newest version of the drill on the student's stand. The
// tempo reached stays, within the new ladder.
func (s *Store) GiveNewest(ctx context.Context, id uuid.UUID) error {
	return s.touch(ctx, `
		UPDATE assignments a SET version = d.version FROM drills d
		WHERE a.id = $1 AND a.drill_id = d.id AND a.ended_at IS NULL`, id)
}

// Unassign takes an assignment back. Its takes stay.
func (s *Store) Unassign(ctx context.Context, id uuid.UUID) error {
	return s.touch(ctx, `UPDATE assignments SET ended_at = now() WHERE id = $1 AND ended_at IS NULL`, id)
}

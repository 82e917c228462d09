package store

import (
	"context"
	"time"

	"github.com/google/uuid"
)

// binKeeps is how long what was deleted can be brought back, as PostgreSQL writes
// it.
const binKeeps = "30 days"

// What can be in the bin.
const (
	BinDrill      = "drill"
	BinBlock      = "block"
	BinAssignment = "assignment"
	BinRoutine    = "routine"
)

// A Binned thing was deleted or taken back and can be brought back.
type Binned struct {
	Kind    string
	ID      uuid.UUID
	Name    string // of the drill, block or routine
	Student string // of an assignment or a routine
	At      time.Time
	Until   time.Time // can it be brought back
}

// Bin returns what can be brought back, the latest first. Assignments that ended
// because their drill was deleted come back with it and are not listed.
func (s *Store) Bin(ctx context.Context, page Page) ([]Binned, error) {
	q := question{args: []any{binKeeps}, where: `at > now() - $1::interval`}
	q.after(page, `at`, `id`)
	return all[Binned](s.pool.Query(ctx, `
		WITH bin AS (
			SELECT 'drill' AS kind, d.id, coalesce(v.file#>>'{drill,name}', '') AS name, '' AS student, d.deleted_at AS at
			FROM drills d JOIN drill_versions v ON v.drill_id = d.id AND v.version = d.version
			UNION ALL
			SELECT 'block', id, coalesce(block->>'name', ''), '', deleted_at FROM blocks
			UNION ALL
			SELECT 'routine', r.id, coalesce(r.routine->>'name', ''), p.name, r.deleted_at FROM routines r JOIN people p ON p.id = r.student_id
			UNION ALL
			SELECT 'assignment', a.id, coalesce(v.file#>>'{drill,name}', ''), p.name, a.ended_at
			FROM `+assignmentTables+assignmentPeople+`
			WHERE NOT a.ended_by_drill AND d.deleted_at IS NULL AND NOT EXISTS (
				SELECT FROM assignments o WHERE o.drill_id = a.drill_id AND o.student_id = a.student_id AND o.ended_at IS NULL))
		SELECT kind, id, name, student, at, at + $1::interval AS until FROM bin`+q.text(), q.args...))
}

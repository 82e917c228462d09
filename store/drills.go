package store

import (
	"context"
	"time"

	"github.com/google/uuid"

	"manudrill/formats/drillfile"
)

// A Drill is a saved drill document.
type Drill struct {
	ID        uuid.UUID
	File      drillfile.File
	ChangedAt time.Time
	Students  []string // who has it
	Takes     int      // made of it, by anybody
}

const selectDrills = `
	SELECT d.id, d.file, d.changed_at,
	       array(SELECT p.name FROM assignments a JOIN people p ON p.id = a.student_id
	             WHERE a.drill_id = d.id AND a.ended_at IS NULL ORDER BY p.name) AS students,
	       (SELECT count(*) FROM takes t JOIN assignments a ON a.id = t.assignment_id WHERE a.drill_id = d.id) AS takes
	FROM drills d WHERE d.deleted_at IS NULL`

// Drills returns all drills, the latest change first.
func (s *Store) Drills(ctx context.Context) ([]Drill, error) {
	return all[Drill](s.pool.Query(ctx, selectDrills+` ORDER BY d.changed_at DESC, d.id`))
}

// Drill returns one drill or [ErrNotFound].
func (s *Store) Drill(ctx context.Context, id uuid.UUID) (Drill, error) {
	return one[Drill](s.pool.Query(ctx, selectDrills+` AND d.id = $1`, id))
}

// AddDrill saves a new drill.
func (s *Store) AddDrill(ctx context.Context, id uuid.UUID, file drillfile.File) error {
	_, err := s.pool.Exec(ctx, `INSERT INTO drills (id, file) VALUES ($1, $2)`, id, file)
	return err
}

// ChangeDrill replaces a drill's document. Takes keep the chart they were
// played from.
func (s *Store) ChangeDrill(ctx context.Context, id uuid.UUID, file drillfile.File) error {
	return s.touch(ctx, `UPDATE drills SET file = $2, changed_at = now() WHERE id = $1 AND deleted_at IS NULL`, id, file)
}

// DeleteDrill takes a drill off the list and ends its assignments. Its takes
// stay.
func (s *Store) DeleteDrill(ctx context.Context, id uuid.UUID) error {
	return s.touch(ctx, `
		WITH gone AS (UPDATE drills SET deleted_at = now() WHERE id = $1 AND deleted_at IS NULL RETURNING id),
		     ended AS (UPDATE assignments SET ended_at = now() FROM gone WHERE drill_id = gone.id AND ended_at IS NULL)
		SELECT id FROM gone`, id)
}

// touch runs a statement that must find its row.
func (s *Store) touch(ctx context.Context, statement string, args ...any) error {
	tag, err := s.pool.Exec(ctx, statement, args...)
	if err == nil && tag.RowsAffected() == 0 {
		return ErrNotFound
	}
	return err
}

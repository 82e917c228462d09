package store

import (
	"context"
	"errors"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"manudrill/formats/drillfile"
)

// A Drill is a saved drill as it is now.
type Drill struct {
	ID        uuid.UUID
	Version   int // the newest
	File      drillfile.File
	ChangedAt time.Time
	Students  []string // who has it
	Takes     int      // made of any of its versions, by anybody
	Shelf
}

// A Shelf is where a drill stands in the library.
type Shelf struct {
	Folder    string
	Tags      []string
	Favourite bool
}

const selectDrills = `
	SELECT d.id, d.version, v.file, v.saved_at AS changed_at, d.folder, d.tags, d.favourite,
	       array(SELECT p.name FROM assignments a JOIN people p ON p.id = a.student_id
	             WHERE a.drill_id = d.id AND a.ended_at IS NULL ORDER BY p.name) AS students,
	       (SELECT count(*) FROM takes t JOIN assignments a ON a.id = t.assignment_id WHERE a.drill_id = d.id) AS takes
	FROM drills d JOIN drill_versions v ON v.drill_id = d.id AND v.version = d.version
	WHERE d.deleted_at IS NULL`

// Drills returns all drills, the latest change first.
func (s *Store) Drills(ctx context.Context) ([]Drill, error) {
	return all[Drill](s.pool.Query(ctx, selectDrills+` ORDER BY v.saved_at DESC, d.id`))
}

// Drill returns one drill or [ErrNotFound].
func (s *Store) Drill(ctx context.Context, id uuid.UUID) (Drill, error) {
	return one[Drill](s.pool.Query(ctx, selectDrills+` AND d.id = $1`, id))
}

// AddDrill saves a new drill.
func (s *Store) AddDrill(ctx context.Context, id uuid.UUID, file drillfile.File, shelf Shelf) error {
	return pgx.BeginFunc(ctx, s.pool, func(tx pgx.Tx) error {
		if _, err := tx.Exec(ctx, `INSERT INTO drills (id, folder, tags, favourite) VALUES ($1, $2, $3, $4)`,
			id, shelf.Folder, notNil(shelf.Tags), shelf.Favourite); err != nil {
			return err
		}
		return addVersion(ctx, tx, id, 1, file)
	})
}

func addVersion(ctx context.Context, tx pgx.Tx, id uuid.UUID, version int, file drillfile.File) error {
	_, err := tx.Exec(ctx, `INSERT INTO drill_versions (drill_id, version, file) VALUES ($1, $2, $3)`, id, version, file)
	return err
}

func notNil(tags []string) []string {
	if tags == nil {
		return []string{}
	}
	return tags
}

// ChangeDrill saves a changed drill. A version that takes were made of stays as
// it is: the change becomes the next version, which students without takes get
// at once and the others when it is given to them.
func (s *Store) ChangeDrill(ctx context.Context, id uuid.UUID, file drillfile.File) error {
	return pgx.BeginFunc(ctx, s.pool, func(tx pgx.Tx) error {
		var version int
		var same bool
		err := tx.QueryRow(ctx, `
			SELECT d.version, v.file = $2 FROM drills d JOIN drill_versions v ON v.drill_id = d.id AND v.version = d.version
			WHERE d.id = $1 AND d.deleted_at IS NULL FOR UPDATE OF d`, id, file).Scan(&version, &same)
		if errors.Is(err, pgx.ErrNoRows) {
			return ErrNotFound
		}
		if err != nil || same {
			return err
		}
		var played bool
		if err := tx.QueryRow(ctx, `
			SELECT EXISTS (SELECT FROM takes t JOIN assignments a ON a.id = t.assignment_id WHERE a.drill_id = $1 AND t.version = $2)`,
			id, version).Scan(&played); err != nil {
			return err
		}
		if !played {
			_, err := tx.Exec(ctx, `UPDATE drill_versions SET file = $3, saved_at = now() WHERE drill_id = $1 AND version = $2`, id, version, file)
			return err
		}
		return nextVersion(ctx, tx, id, version+1, file)
	})
}

func nextVersion(ctx context.Context, tx pgx.Tx, id uuid.UUID, version int, file drillfile.File) error {
	if err := addVersion(ctx, tx, id, version, file); err != nil {
		return err
	}
	if _, err := tx.Exec(ctx, `UPDATE drills SET version = $2 WHERE id = $1`, id, version); err != nil {
		return err
	}
	_, err := tx.Exec(ctx, `
		UPDATE assignments a SET version = $2
		WHERE drill_id = $1 AND ended_at IS NULL AND NOT EXISTS (SELECT FROM takes t WHERE t.assignment_id = a.id)`, id, version)
	return err
}

// A Version is a drill as it once was, or is now.
type Version struct {
	Version  int
	File     drillfile.File
	SavedAt  time.Time
	Takes    int      // made of it
	Students []string // who have it on the stand
}

// Version returns the document of one version of a drill, deleted or not, or
// [ErrNotFound].
func (s *Store) Version(ctx context.Context, id uuid.UUID, version int) (drillfile.File, error) {
	type row struct{ File drillfile.File }
	got, err := one[row](s.pool.Query(ctx, `SELECT file FROM drill_versions WHERE drill_id = $1 AND version = $2`, id, version))
	return got.File, err
}

// Versions returns a drill's history, the newest first.
func (s *Store) Versions(ctx context.Context, id uuid.UUID) ([]Version, error) {
	return all[Version](s.pool.Query(ctx, `
		SELECT v.version, v.file, v.saved_at,
		       (SELECT count(*) FROM takes t JOIN assignments a ON a.id = t.assignment_id
		        WHERE a.drill_id = v.drill_id AND t.version = v.version) AS takes,
		       array(SELECT p.name FROM assignments a JOIN people p ON p.id = a.student_id
		             WHERE a.drill_id = v.drill_id AND a.version = v.version AND a.ended_at IS NULL ORDER BY p.name) AS students
		FROM drill_versions v JOIN drills d ON d.id = v.drill_id
		WHERE v.drill_id = $1 AND d.deleted_at IS NULL ORDER BY v.version DESC`, id))
}

// PutOnShelf says where a drill stands in the library.
func (s *Store) PutOnShelf(ctx context.Context, id uuid.UUID, shelf Shelf) error {
	return s.touch(ctx, `UPDATE drills SET folder = $2, tags = $3, favourite = $4 WHERE id = $1 AND deleted_at IS NULL`,
		id, shelf.Folder, notNil(shelf.Tags), shelf.Favourite)
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

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
	Revision  int // counts the changes of its settings
	Name      string
	File      Lenient[drillfile.File]
	ChangedAt time.Time
	Students  []string // who has it
	Takes     int      // made of any of its versions, by anybody
	Shelf
}

// A Shelf is where a drill stands in the library.
type Shelf struct {
	Folder        string
	Tags          []string
	Favourite     bool
	ShelfRevision int // counts the changes of the shelf
}

const selectDrills = `
	SELECT d.id, d.version, d.revision, coalesce(v.file#>>'{drill,name}', '') AS name, v.file, v.saved_at AS changed_at,
	       d.folder, d.tags, d.favourite, d.shelf_revision,
	       array(SELECT p.name FROM assignments a JOIN people p ON p.id = a.student_id
	             WHERE a.drill_id = d.id AND a.ended_at IS NULL ORDER BY p.name) AS students,
	       (SELECT coalesce(sum(a.takes), 0) FROM assignments a WHERE a.drill_id = d.id)::integer AS takes
	FROM drills d JOIN drill_versions v ON v.drill_id = d.id AND v.version = d.version`

// Drills returns all drills, the latest change first.
func (s *Store) Drills(ctx context.Context, page Page) ([]Drill, error) {
	q := question{where: `d.deleted_at IS NULL`}
	q.after(page, `v.saved_at`, `d.id`)
	return all[Drill](s.pool.Query(ctx, selectDrills+q.text(), q.args...))
}

// Drill returns one drill or [ErrNotFound].
func (s *Store) Drill(ctx context.Context, id uuid.UUID) (Drill, error) {
	return one[Drill](s.pool.Query(ctx, selectDrills+` WHERE d.deleted_at IS NULL AND d.id = $1`, id))
}

// AddDrill saves a new drill under an id that its maker has given it. Where the id
// is there already, the drill of it is left as it is: it was saved twice.
func (s *Store) AddDrill(ctx context.Context, id uuid.UUID, file drillfile.File, shelf Shelf) error {
	return s.in(ctx, func(tx pgx.Tx) error { return addDrill(ctx, tx, id, file, shelf) })
}

func addDrill(ctx context.Context, tx pgx.Tx, id uuid.UUID, file drillfile.File, shelf Shelf) error {
	tag, err := tx.Exec(ctx, `INSERT INTO drills (id, folder, tags, favourite) VALUES ($1, $2, $3, $4) ON CONFLICT DO NOTHING`,
		id, shelf.Folder, notNil(shelf.Tags), shelf.Favourite)
	if err != nil || tag.RowsAffected() == 0 {
		return err
	}
	return addVersion(ctx, tx, id, 1, file)
}

// AddRemedy saves a drill made for one student and gives it to them. Asked for
// again, it is the same drill, on the stand again.
func (s *Store) AddRemedy(ctx context.Context, id uuid.UUID, file drillfile.File, shelf Shelf, student uuid.UUID) (assignment uuid.UUID, err error) {
	err = s.in(ctx, func(tx pgx.Tx) error {
		if err := addDrill(ctx, tx, id, file, shelf); err != nil {
			return err
		}
		if _, err := tx.Exec(ctx, `UPDATE drills SET deleted_at = NULL WHERE id = $1 AND deleted_at IS NOT NULL`, id); err != nil {
			return err
		}
		assignment, err = assign(ctx, tx, id, student)
		return err
	})
	return assignment, err
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

// ChangeDrill saves a drill that was changed from a revision; it fails with
// [ErrChanged] where that is no longer the latest. A version that was given to
// somebody stays as it is: the change becomes the next version, which students
// without takes get at once and the others when it is given to them.
func (s *Store) ChangeDrill(ctx context.Context, id uuid.UUID, from int, file drillfile.File) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		var version, revision int
		var same bool
		err := tx.QueryRow(ctx, `
			SELECT d.version, d.revision, v.file = $2 FROM drills d JOIN drill_versions v ON v.drill_id = d.id AND v.version = d.version
			WHERE d.id = $1 AND d.deleted_at IS NULL FOR UPDATE OF d`, id, file).Scan(&version, &revision, &same)
		switch {
		case errors.Is(err, pgx.ErrNoRows):
			return ErrNotFound
		case err != nil || same: // saved twice, or by two alike
			return err
		case revision != from:
			return ErrChanged
		}
		if _, err := tx.Exec(ctx, `UPDATE drills SET revision = revision + 1 WHERE id = $1`, id); err != nil {
			return err
		}
		given, err := value[bool](tx.Query(ctx, `
			SELECT EXISTS (SELECT FROM assignments WHERE drill_id = $1 AND version = $2)
			    OR EXISTS (SELECT FROM takes t JOIN assignments a ON a.id = t.assignment_id WHERE a.drill_id = $1 AND t.version = $2)`,
			id, version))
		switch {
		case err != nil:
			return err
		case given:
			if err := nextVersion(ctx, tx, id, version+1, file); err != nil {
				return err
			}
			return writeOfDrill(ctx, tx, "changed", id)
		}
		_, err = tx.Exec(ctx, `UPDATE drill_versions SET file = $3, saved_at = now() WHERE drill_id = $1 AND version = $2`, id, version, file)
		if err != nil {
			return err
		}
		return writeOfDrill(ctx, tx, "changed", id)
	})
}

func nextVersion(ctx context.Context, tx pgx.Tx, id uuid.UUID, version int, file drillfile.File) error {
	if err := addVersion(ctx, tx, id, version, file); err != nil {
		return err
	}
	if _, err := tx.Exec(ctx, `UPDATE drills SET version = $2 WHERE id = $1`, id, version); err != nil {
		return err
	}
	_, err := tx.Exec(ctx, `UPDATE assignments SET version = $2 WHERE drill_id = $1 AND ended_at IS NULL AND takes = 0`, id, version)
	return err
}

// A Version is a drill as it once was, or is now.
type Version struct {
	Version  int
	File     Lenient[drillfile.File]
	SavedAt  time.Time
	Takes    int      // made of it
	Students []string // who have it on the stand
}

// Version returns the document of one version of a drill, deleted or not, or
// [ErrNotFound].
func (s *Store) Version(ctx context.Context, id uuid.UUID, version int) (Lenient[drillfile.File], error) {
	return value[Lenient[drillfile.File]](s.pool.Query(ctx, `SELECT file FROM drill_versions WHERE drill_id = $1 AND version = $2`, id, version))
}

// VersionsPage is how many versions are returned at once.
const VersionsPage = 50

// Versions returns a drill's history, the newest first, before a version where
// one is given.
func (s *Store) Versions(ctx context.Context, id uuid.UUID, before *int) ([]Version, error) {
	return all[Version](s.pool.Query(ctx, `
		SELECT v.version, v.file, v.saved_at,
		       (SELECT count(*) FROM takes t JOIN assignments a ON a.id = t.assignment_id
		        WHERE a.drill_id = v.drill_id AND t.version = v.version) AS takes,
		       array(SELECT p.name FROM assignments a JOIN people p ON p.id = a.student_id
		             WHERE a.drill_id = v.drill_id AND a.version = v.version AND a.ended_at IS NULL ORDER BY p.name) AS students
		FROM drill_versions v JOIN drills d ON d.id = v.drill_id
		WHERE v.drill_id = $1 AND d.deleted_at IS NULL AND ($2::integer IS NULL OR v.version < $2)
		ORDER BY v.version DESC LIMIT $3`, id, before, VersionsPage))
}

// PutOnShelf says where a drill stands in the library. It fails with [ErrChanged]
// where the shelf it was moved from is no longer the latest.
func (s *Store) PutOnShelf(ctx context.Context, id uuid.UUID, shelf Shelf) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		revision, err := value[int](tx.Query(ctx, `SELECT shelf_revision FROM drills WHERE id = $1 AND deleted_at IS NULL FOR UPDATE`, id))
		if err != nil {
			return err
		}
		if revision != shelf.ShelfRevision {
			return ErrChanged
		}
		_, err = tx.Exec(ctx, `UPDATE drills SET folder = $2, tags = $3, favourite = $4, shelf_revision = shelf_revision + 1 WHERE id = $1`,
			id, shelf.Folder, notNil(shelf.Tags), shelf.Favourite)
		return err
	})
}

// DeleteDrill takes a drill off the list and ends its assignments. Its takes stay,
// and for a while it can be brought back.
func (s *Store) DeleteDrill(ctx context.Context, id uuid.UUID) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		if err := touch(ctx, tx, `UPDATE drills SET deleted_at = now() WHERE id = $1 AND deleted_at IS NULL`, id); err != nil {
			return err
		}
		if _, err := tx.Exec(ctx, `UPDATE assignments SET ended_at = now(), ended_by_drill = true WHERE drill_id = $1 AND ended_at IS NULL`, id); err != nil {
			return err
		}
		return writeOfDrill(ctx, tx, "deleted", id)
	})
}

// RestoreDrill brings a deleted drill back, with the assignments that ended with
// it.
func (s *Store) RestoreDrill(ctx context.Context, id uuid.UUID) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		if err := touch(ctx, tx, `UPDATE drills SET deleted_at = NULL WHERE id = $1 AND deleted_at > now() - $2::interval`, id, binKeeps); err != nil {
			return err
		}
		if _, err := tx.Exec(ctx, `UPDATE assignments SET ended_at = NULL, ended_by_drill = false WHERE drill_id = $1 AND ended_by_drill`, id); err != nil {
			return err
		}
		return writeOfDrill(ctx, tx, "brought back", id)
	})
}

// writeOfDrill writes down what was done to a drill.
func writeOfDrill(ctx context.Context, tx pgx.Tx, did string, id uuid.UUID) error {
	name, err := value[string](tx.Query(ctx, `
		SELECT coalesce(v.file#>>'{drill,name}', '') FROM drills d JOIN drill_versions v ON v.drill_id = d.id AND v.version = d.version WHERE d.id = $1`, id))
	if err != nil {
		return err
	}
	return write(ctx, tx, Line{Did: did, About: name})
}

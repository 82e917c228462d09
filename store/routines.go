package store

import (
	"context"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"manudrill/core/practice"
	"manudrill/formats/drillfile"
)

// A Routine is one of a student. The drills of its items are named by their ids.
type Routine struct {
	ID        uuid.UUID
	Student   Person
	Routine   Lenient[practice.Routine]
	Revision  int
	Author    string // who has changed it last
	MadeAt    time.Time
	ChangedAt time.Time
}

// MaxRoutines is the most routines a student may have, so that they fit one answer.
const MaxRoutines = 50

const selectRoutines = `SELECT r.id, row(p.id, p.name, p.role, p.demo), r.routine, r.revision, r.author, r.made_at, r.changed_at
	FROM routines r JOIN people p ON p.id = r.student_id WHERE r.deleted_at IS NULL AND `

// Routines returns all of a student, that which was changed last first.
func (s *Store) Routines(ctx context.Context, student uuid.UUID) ([]Routine, error) {
	return allByPos[Routine](s.pool.Query(ctx, selectRoutines+`r.student_id = $1 ORDER BY r.changed_at DESC, r.id DESC LIMIT $2`, student, MaxRoutines))
}

// Routine returns one or [ErrNotFound].
func (s *Store) Routine(ctx context.Context, id uuid.UUID) (Routine, error) {
	return oneByPos[Routine](s.pool.Query(ctx, selectRoutines+`r.id = $1`, id))
}

// PutRoutine makes a routine for a student, or changes the one of its id from a
// revision; it fails with [ErrChanged] where that is no longer the latest. The drills
// of its items are given to the student.
func (s *Store) PutRoutine(ctx context.Context, id, student uuid.UUID, from int, r practice.Routine, drills []uuid.UUID) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		if err := holdStudent(ctx, tx, student); err != nil {
			return err
		}
		return putRoutine(ctx, tx, id, student, from, r, drills)
	})
}

// holdStudent lets one at a time change what a student has, so that what is counted
// stays counted.
func holdStudent(ctx context.Context, tx pgx.Tx, student uuid.UUID) error {
	return touch(ctx, tx, `SELECT 1 FROM people WHERE id = $1 AND role = 'student' FOR NO KEY UPDATE`, student)
}

// putRoutine is PutRoutine for a student who is held.
func putRoutine(ctx context.Context, tx pgx.Tx, id, student uuid.UUID, from int, r practice.Routine, drills []uuid.UUID) error {
	author := scopeOf(ctx).Actor.Name
	if err := roomForRoutine(ctx, tx, student, id); err != nil {
		return err
	}
	tag, err := tx.Exec(ctx, `INSERT INTO routines (id, student_id, routine, author) VALUES ($1, $2, $3, $4) ON CONFLICT DO NOTHING`, id, student, r, author)
	if err != nil {
		return err
	}
	if tag.RowsAffected() == 0 {
		if err := changeRoutine(ctx, tx, id, student, from, r, author); err != nil {
			return err
		}
	}
	for _, d := range drills {
		if _, err := assign(ctx, tx, d, student); err != nil {
			return err
		}
	}
	return write(ctx, tx, Line{Did: "set the routine", Student: &student, About: r.Name})
}

// roomForRoutine fails with [ErrTooMany] where a student, who is held, can have no other.
func roomForRoutine(ctx context.Context, tx pgx.Tx, student, other uuid.UUID) error {
	n, err := value[int](tx.Query(ctx, `SELECT count(*) FROM routines WHERE student_id = $1 AND deleted_at IS NULL AND id <> $2`, student, other))
	if err == nil && n >= MaxRoutines {
		err = ErrTooMany
	}
	return err
}

func changeRoutine(ctx context.Context, tx pgx.Tx, id, student uuid.UUID, from int, r practice.Routine, author string) error {
	type was struct {
		Revision int
		Same     bool
	}
	kept, err := oneByPos[was](tx.Query(ctx, `
		SELECT revision, routine = $3 FROM routines WHERE id = $1 AND student_id = $2 AND deleted_at IS NULL FOR UPDATE`, id, student, r))
	switch {
	case err != nil || kept.Same: // sent twice, or by two alike
		return err
	case kept.Revision != from:
		return ErrChanged
	}
	return touch(ctx, tx, `UPDATE routines SET routine = $2, author = $3, revision = revision + 1, changed_at = now() WHERE id = $1`, id, r, author)
}

// A NewDrill is one that comes with something else.
type NewDrill struct {
	ID    uuid.UUID
	File  drillfile.File
	Shelf Shelf
}

// AddRoutine makes a routine together with the drills it brings. Of those that are
// there already, deleted perhaps, nothing is changed but that they live.
func (s *Store) AddRoutine(ctx context.Context, id, student uuid.UUID, r practice.Routine, brought []NewDrill) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		if err := holdStudent(ctx, tx, student); err != nil {
			return err
		}
		drills := make([]uuid.UUID, len(brought))
		for i, d := range brought {
			if err := addDrill(ctx, tx, d.ID, d.File, d.Shelf); err != nil {
				return err
			}
			if _, err := tx.Exec(ctx, `UPDATE drills SET deleted_at = NULL WHERE id = $1 AND deleted_at IS NOT NULL`, d.ID); err != nil {
				return err
			}
			drills[i] = d.ID
		}
		return putRoutine(ctx, tx, id, student, 0, r, drills)
	})
}

// DeleteRoutine takes a routine from a student; what was played of it stays. For a
// while it can be brought back.
func (s *Store) DeleteRoutine(ctx context.Context, id uuid.UUID) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		if err := touch(ctx, tx, `UPDATE routines SET deleted_at = now() WHERE id = $1 AND deleted_at IS NULL`, id); err != nil {
			return err
		}
		of, err := routineOf(ctx, tx, id)
		if err != nil {
			return err
		}
		return write(ctx, tx, Line{Did: "took the routine away", Student: &of.StudentID, About: of.Name})
	})
}

// RestoreRoutine brings a deleted routine back.
func (s *Store) RestoreRoutine(ctx context.Context, id uuid.UUID) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		of, err := routineOf(ctx, tx, id)
		if err != nil {
			return err
		}
		if err := holdStudent(ctx, tx, of.StudentID); err != nil {
			return err
		}
		if err := roomForRoutine(ctx, tx, of.StudentID, id); err != nil {
			return err
		}
		if err := touch(ctx, tx, `UPDATE routines SET deleted_at = NULL WHERE id = $1 AND deleted_at > now() - $2::interval`, id, binKeeps); err != nil {
			return err
		}
		return write(ctx, tx, Line{Did: "brought the routine back", Student: &of.StudentID, About: of.Name})
	})
}

// ofRoutine is whose a routine is and what it is called, deleted or not.
type ofRoutine struct {
	StudentID uuid.UUID
	Name      string
}

func routineOf(ctx context.Context, tx pgx.Tx, id uuid.UUID) (ofRoutine, error) {
	return oneByPos[ofRoutine](tx.Query(ctx, `SELECT student_id, coalesce(routine->>'name', '') FROM routines WHERE id = $1`, id))
}

// mostOthers is how many other drills of a student are looked at, those played last.
const mostOthers = 20

// OtherStands returns what else lies on the stands of whoever has an assignment, what was played
// last first, twenty at the most.
func (s *Store) OtherStands(ctx context.Context, assignment uuid.UUID) ([]Stand, error) {
	return allByPos[Stand](s.pool.Query(ctx, `SELECT `+assignmentColumns+`, v.file, p.setup FROM `+assignmentTables+assignmentPeople+`
		WHERE a.student_id = (SELECT student_id FROM assignments WHERE id = $1) AND a.id <> $1 AND a.ended_at IS NULL
		ORDER BY a.last_take_at DESC NULLS LAST, a.id LIMIT $2`, assignment, mostOthers))
}

// StandsOf returns what a student has of some drills, in no order.
func (s *Store) StandsOf(ctx context.Context, student uuid.UUID, drills []uuid.UUID) ([]Stand, error) {
	return allByPos[Stand](s.pool.Query(ctx, `SELECT `+assignmentColumns+`, v.file, p.setup FROM `+assignmentTables+assignmentPeople+`
		WHERE a.student_id = $1 AND a.drill_id = ANY($2) AND a.ended_at IS NULL`, student, drills))
}

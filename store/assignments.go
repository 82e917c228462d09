package store

import (
	"context"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"manudrill/core/setup"
	"manudrill/core/tempo"
	"manudrill/formats/drillfile"
)

// An Assignment is a drill given to a student.
type Assignment struct {
	ID         uuid.UUID
	DrillID    uuid.UUID
	Version    int // of the drill, on the stand
	Newest     int // version there is
	DrillName  string
	Ladder     Lenient[tempo.Ladder]
	Division   int                  // notes per beat of the drill
	Rung       tempo.Rung           // on which the student stands
	Gate       *Lenient[tempo.Gate] // set for the student; nil for the ladder's
	Revision   int                  // counts what instructors set
	Set        *RungSet             // what was set, with its reason, since the last take; nil for nothing
	Student    Person
	AssignedAt time.Time
	EndedAt    *time.Time // when it was taken back
	Takes      int
	Last       *tempo.Decision // of the latest take measured
	LastTakeAt *time.Time
	Video      bool // the hands are asked for on video
}

// The columns of an [Assignment] in the order of its fields.
const (
	assignmentColumns = `a.id, a.drill_id, a.version, d.version, coalesce(v.file#>>'{drill,name}', ''), v.file->'ladder',
		greatest(1, coalesce((v.file#>>'{drill,rhythm,notesPerBeat}')::integer, 1)), row(a.rung_bpm, a.notes_per_beat), a.gate, a.revision,
		(SELECT row(s.at, s.author, s.reason) FROM rung_sets s WHERE s.assignment_id = a.id AND s.reason <> ''
		 AND s.at > coalesce(a.last_take_at, '-infinity') ORDER BY s.at DESC LIMIT 1),
		row(p.id, p.name, p.role, p.demo), a.assigned_at, a.ended_at, a.takes, a.last, a.last_take_at, a.video`
	assignmentTables = `assignments a JOIN drills d ON d.id = a.drill_id
		JOIN drill_versions v ON v.drill_id = a.drill_id AND v.version = a.version`
	assignmentPeople = ` JOIN people p ON p.id = a.student_id`
)

// Rungs are those of the ladder; nil for one that cannot be read.
func (a Assignment) Rungs() tempo.Rungs { return a.Ladder.Value.Rungs(a.Division) }

// GateNow is the gate that holds for the student.
func (a Assignment) GateNow() tempo.Gate { return gateOr(a.Gate, a.Ladder.Value) }

// gateOr is a gate that was set, or the ladder's where none was or it cannot be read.
func gateOr(set *Lenient[tempo.Gate], ladder tempo.Ladder) tempo.Gate {
	if set != nil && set.Odd == nil {
		return set.Value
	}
	return ladder.Gate
}

// A Stand is an assignment with all that is needed to play it.
type Stand struct {
	Assignment
	File  Lenient[drillfile.File]
	Setup *Lenient[setup.Setup] // the student's; nil for the usual one
}

// StudentSetup is the setup the student plays with.
func (s Stand) StudentSetup() setup.Setup { return setupOr(s.Setup) }

// setupOr is a stored setup, or the usual one where there is none or it cannot be
// read.
func setupOr(stored *Lenient[setup.Setup]) setup.Setup {
	if stored == nil || stored.Odd != nil {
		return setup.Usual()
	}
	return stored.Value
}

// Assignments returns what is assigned now, the latest first; of one student or
// one drill where these are given.
func (s *Store) Assignments(ctx context.Context, student, drill *uuid.UUID, page Page) ([]Assignment, error) {
	q := question{where: `a.ended_at IS NULL`}
	student = asking(ctx, student)
	if student != nil {
		q.and(`a.student_id =`, *student)
	}
	if drill != nil {
		q.and(`a.drill_id =`, *drill)
	}
	q.after(page, `a.assigned_at`, `a.id`)
	return allByPos[Assignment](s.pool.Query(ctx, `SELECT `+assignmentColumns+` FROM `+assignmentTables+assignmentPeople+q.text(), q.args...))
}

// Stand returns one assignment, ended or not, or [ErrNotFound].
func (s *Store) Stand(ctx context.Context, id uuid.UUID) (Stand, error) {
	return oneByPos[Stand](s.pool.Query(ctx, `SELECT `+assignmentColumns+`, v.file, p.setup FROM `+assignmentTables+assignmentPeople+` WHERE a.id = $1`, id))
}

// Assign gives a drill to a student and returns the assignment's id. A student who
// has the drill keeps it; one who had it stands where they stood.
func (s *Store) Assign(ctx context.Context, drill, student uuid.UUID) (id uuid.UUID, err error) {
	err = s.in(ctx, func(tx pgx.Tx) error {
		id, err = assign(ctx, tx, drill, student)
		return err
	})
	return id, err
}

func assign(ctx context.Context, tx pgx.Tx, drill, student uuid.UUID) (uuid.UUID, error) {
	version, err := holdDrill(ctx, tx, drill)
	if err != nil {
		return uuid.Nil, err
	}
	if _, err := value[int](tx.Query(ctx, `SELECT 1 FROM people WHERE id = $1 AND role = 'student' FOR KEY SHARE`, student)); err != nil {
		return uuid.Nil, err
	}
	// Two at once: the index lets one in, and the other finds it.
	if err := begin(ctx, tx, drill, version, student); err != nil {
		return uuid.Nil, err
	}
	// Locked in the order of their ids; the one that is live, or else the one that
	// was played last, is the student's.
	id, err := value[uuid.UUID](tx.Query(ctx, `
		WITH had AS (SELECT * FROM assignments WHERE drill_id = $1 AND student_id = $2 ORDER BY id FOR NO KEY UPDATE)
		SELECT id FROM had ORDER BY ended_at IS NULL DESC, last_take_at DESC NULLS LAST, assigned_at DESC LIMIT 1`, drill, student))
	if err != nil {
		return uuid.Nil, err
	}
	if err := resume(ctx, tx, id, version); err != nil {
		return id, err
	}
	return id, writeOf(ctx, tx, "assigned", id)
}

// writeOf writes down what was done to an assignment.
func writeOf(ctx context.Context, tx pgx.Tx, did string, assignment uuid.UUID) error {
	type about struct {
		StudentID uuid.UUID
		Drill     string
	}
	of, err := oneByPos[about](tx.Query(ctx, `
		SELECT a.student_id, coalesce(v.file#>>'{drill,name}', '') FROM `+assignmentTables+` WHERE a.id = $1`, assignment))
	if err != nil {
		return err
	}
	return write(ctx, tx, Line{Did: did, Student: &of.StudentID, About: of.Drill})
}

// begin gives a drill to a student who never had it, on the first rung of its
// ladder.
func begin(ctx context.Context, tx pgx.Tx, drill uuid.UUID, version int, student uuid.UUID) error {
	file, err := value[Lenient[drillfile.File]](tx.Query(ctx, `SELECT file FROM drill_versions WHERE drill_id = $1 AND version = $2`, drill, version))
	if err != nil {
		return err
	}
	first := tempo.Rung{BPM: tempo.Usual().StartBPM, NotesPerBeat: max(1, file.Value.Drill.Rhythm.NotesPerBeat)}
	if rungs := file.Value.Rungs(); len(rungs) > 0 {
		first = rungs[0]
	}
	id := uuid.New()
	tag, err := tx.Exec(ctx, `
		INSERT INTO assignments (id, drill_id, version, student_id, rung_bpm, notes_per_beat)
		SELECT $1, $2, $3, $4, $5, $6 WHERE NOT EXISTS (SELECT FROM assignments WHERE drill_id = $2 AND student_id = $4)
		ON CONFLICT DO NOTHING`, id, drill, version, student, first.BPM, first.NotesPerBeat)
	if err != nil || tag.RowsAffected() == 0 {
		return err
	}
	return addFirst(ctx, tx, id, first)
}

// resume lets an ended assignment live again. Where nothing was played, it gets
// the newest version.
func resume(ctx context.Context, tx pgx.Tx, id uuid.UUID, newest int) error {
	_, err := tx.Exec(ctx, `
		UPDATE assignments SET ended_at = NULL, ended_by_drill = false, assigned_at = now(),
		       version = CASE WHEN takes = 0 THEN $2 ELSE version END
		WHERE id = $1 AND ended_at IS NOT NULL`, id, newest)
	return err
}

// holdDrill keeps a drill from being changed or deleted until the transaction
// ends, and returns its newest version.
func holdDrill(ctx context.Context, tx pgx.Tx, id uuid.UUID) (version int, err error) {
	return value[int](tx.Query(ctx, `SELECT version FROM drills WHERE id = $1 AND deleted_at IS NULL FOR SHARE`, id))
}

// GiveNewest puts the newest version of the drill on the student's stand. The rung
// stays, whatever the new ladder is.
func (s *Store) GiveNewest(ctx context.Context, id uuid.UUID) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		drill, err := value[uuid.UUID](tx.Query(ctx, `SELECT drill_id FROM assignments WHERE id = $1`, id))
		if err != nil {
			return err
		}
		newest, err := holdDrill(ctx, tx, drill)
		if err != nil {
			return err
		}
		if err := touch(ctx, tx, `UPDATE assignments SET version = $2 WHERE id = $1 AND ended_at IS NULL`, id, newest); err != nil {
			return err
		}
		return writeOf(ctx, tx, "gave the newest version of", id)
	})
}

// Unassign takes an assignment back. Its takes stay, and so does where the student
// stood.
func (s *Store) Unassign(ctx context.Context, id uuid.UUID) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		if err := touch(ctx, tx, `UPDATE assignments SET ended_at = now(), ended_by_drill = false WHERE id = $1 AND ended_at IS NULL`, id); err != nil {
			return err
		}
		return writeOf(ctx, tx, "took back", id)
	})
}

// Reassign gives an assignment back that was taken back.
func (s *Store) Reassign(ctx context.Context, id uuid.UUID) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		type pair struct{ DrillID, StudentID uuid.UUID }
		of, err := one[pair](tx.Query(ctx, `SELECT drill_id, student_id FROM assignments WHERE id = $1`, id))
		if err != nil {
			return err
		}
		_, err = assign(ctx, tx, of.DrillID, of.StudentID)
		return err
	})
}

// AllAssignments returns the ids of all that a student was ever given, the earliest
// first.
func (s *Store) AllAssignments(ctx context.Context, student uuid.UUID) ([]uuid.UUID, error) {
	return everyID(s.pool.Query(ctx, `SELECT id FROM assignments WHERE student_id = $1 ORDER BY assigned_at, id`, student))
}

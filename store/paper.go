package store

import (
	"context"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

// A PaperEntry is a line of a log that was kept on paper.
type PaperEntry struct {
	Student      uuid.UUID
	Day          time.Time // midnight, UTC
	Drill        string
	BPM          *float64
	NotesPerBeat *int
	Minutes      *float64
	Note         string
}

// paperHash is an entry's, of a row that has its fields by their names: the same line is the
// same, whoever brings it in again.
const paperHash = `sha256(convert_to(concat_ws(chr(31), day::date, lower(drill), coalesce(bpm::text, '-'), coalesce(notes_per_beat::text, '-'), coalesce(minutes::text, '-'), note), 'UTF8'))`

// PutPaper keeps entries as one log, all of them that are not kept already, and returns how
// many these are. A log that is kept already is left as it is.
func (s *Store) PutPaper(ctx context.Context, log uuid.UUID, entries []PaperEntry) (kept int, err error) {
	sc := scopeOf(ctx)
	columns := struct {
		students      []uuid.UUID
		days          []time.Time
		drills, notes []string
		bpms, minutes []*float64
		notesPerBeat  []*int
	}{}
	for _, e := range entries {
		columns.students = append(columns.students, e.Student)
		columns.days = append(columns.days, e.Day)
		columns.drills = append(columns.drills, e.Drill)
		columns.notes = append(columns.notes, e.Note)
		columns.bpms = append(columns.bpms, e.BPM)
		columns.minutes = append(columns.minutes, e.Minutes)
		columns.notesPerBeat = append(columns.notesPerBeat, e.NotesPerBeat)
	}
	err = s.in(ctx, func(tx pgx.Tx) error {
		// What was taken back stands in the way of the same lines.
		if _, err := tx.Exec(ctx, `DELETE FROM paper_logs WHERE deleted_at IS NOT NULL AND id <> $1`, log); err != nil {
			return err
		}
		tag, err := tx.Exec(ctx, `INSERT INTO paper_logs (id, author) VALUES ($1, $2) ON CONFLICT DO NOTHING`, log, sc.Actor.Name)
		if err != nil || tag.RowsAffected() == 0 {
			return err
		}
		// Who is not of the studio is not seen, and gets nothing.
		tag, err = tx.Exec(ctx, `
			INSERT INTO paper_entries (student_id, hash, log_id, day, drill, bpm, notes_per_beat, minutes, note)
			SELECT student, `+paperHash+`, $1, day, drill, bpm, notes_per_beat, minutes, note
			FROM unnest($2::uuid[], $3::date[], $4::text[], $5::float8[], $6::integer[], $7::float8[], $8::text[]) e (student, day, drill, bpm, notes_per_beat, minutes, note)
			WHERE EXISTS (SELECT FROM people WHERE id = student AND role = 'student') ON CONFLICT DO NOTHING`,
			log, columns.students, columns.days, columns.drills, columns.bpms, columns.notesPerBeat, columns.minutes, columns.notes)
		if err != nil {
			return err
		}
		if kept = int(tag.RowsAffected()); kept == 0 {
			_, err = tx.Exec(ctx, `DELETE FROM paper_logs WHERE id = $1`, log)
			return err
		}
		return write(ctx, tx, Line{Did: "brought in a paper log"})
	})
	return kept, err
}

// DeletePaper takes a log that was brought in back, with all its entries: it can be restored
// until another is brought in.
func (s *Store) DeletePaper(ctx context.Context, log uuid.UUID) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		if err := touch(ctx, tx, `UPDATE paper_logs SET deleted_at = now() WHERE id = $1 AND deleted_at IS NULL`, log); err != nil {
			return err
		}
		return write(ctx, tx, Line{Did: "took back a paper log"})
	})
}

// RestorePaper brings a log back that was taken back; one that is there stays.
func (s *Store) RestorePaper(ctx context.Context, log uuid.UUID) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		if err := touch(ctx, tx, `UPDATE paper_logs SET deleted_at = NULL WHERE id = $1`, log); err != nil {
			return err
		}
		return write(ctx, tx, Line{Did: "brought back a paper log"})
	})
}

// maxPaper is the most entries of a student that are looked over, the latest.
const maxPaper = 3000

// Paper returns what was kept of a student on paper, the earliest first.
func (s *Store) Paper(ctx context.Context, student uuid.UUID) ([]PaperEntry, error) {
	return allByPos[PaperEntry](s.pool.Query(ctx, `
		SELECT * FROM (SELECT student_id, day, drill, bpm, notes_per_beat, minutes, note FROM paper_entries
			WHERE student_id = $1 AND EXISTS (SELECT FROM paper_logs l WHERE l.id = log_id AND l.deleted_at IS NULL) ORDER BY day DESC, hash LIMIT $2) latest ORDER BY day`, student, maxPaper))
}

// PaperLogs returns the logs in which a student is, the latest first.
func (s *Store) PaperLogs(ctx context.Context, student uuid.UUID) ([]PaperLog, error) {
	return allByPos[PaperLog](s.pool.Query(ctx, `
		SELECT l.id, l.at, l.author, (SELECT count(*) FROM paper_entries e WHERE e.log_id = l.id) FROM paper_logs l
		WHERE l.deleted_at IS NULL AND EXISTS (SELECT FROM paper_entries e WHERE e.log_id = l.id AND e.student_id = $1) ORDER BY l.at DESC, l.id LIMIT 50`, student))
}

// A PaperLog is one that was brought in.
type PaperLog struct {
	ID      uuid.UUID
	At      time.Time
	Author  string
	Entries int // of all students that are seen
}

// A Named is how a student can be meant in a list.
type Named struct {
	ID          uuid.UUID
	Name, Email string
}

// Names returns how the students who are here can be meant.
func (s *Store) Names(ctx context.Context) ([]Named, error) {
	return allByPos[Named](s.pool.Query(ctx, `SELECT id, name, coalesce(email, '') FROM people WHERE role = 'student' AND archived_at IS NULL AND remove_at IS NULL ORDER BY name, id`))
}

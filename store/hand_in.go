package store

import (
	"context"
	"errors"
	"fmt"
	"io"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"manudrill/core/drill/chart"
	"manudrill/core/tempo"
)

// A HandIn is a take as it comes, before it is measured.
type HandIn struct {
	ID           uuid.UUID // made by the client: handing in twice makes one take
	AssignmentID uuid.UUID
	Version      int // of the drill that was played
	Rung         tempo.Rung
	Aside        tempo.Aside // of what a person has played; of a simulated take it is told by whose it is
	RiseBPM      float64     // by how much each pass is faster than the one before
	ClickAt      *float64    // when the first beat is clicked in the recording, s, where that is known
	AsHeard      bool        // nobody knows the tempo: it is what is heard, or the rung's where none is
	Source       string
	RecordedAt   time.Time
	Chart        chart.Chart
	Sound        io.Reader // nil where it is no more there: the results are measured from elsewhere
	Hash         []byte    // of the file, so that the same one is known again; nil where that is no matter
}

// An ErrSameSound says which take holds the same recording already.
type ErrSameSound struct {
	TakeID     uuid.UUID
	RecordedAt time.Time
}

func (e ErrSameSound) Error() string { return fmt.Sprintf("the same recording is take %s", e.TakeID) }

// HandIn keeps a take with its sound, to be measured, and does what is given in
// the same transaction: once it has returned, all of it is there. A take whose id
// is kept already is left as it is.
func (s *Store) HandIn(ctx context.Context, h HandIn, also func(pgx.Tx) error) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		tag, err := tx.Exec(ctx, `
			INSERT INTO takes (id, assignment_id, student_id, drill_name, version, bpm, notes_per_beat, source, aside, recorded_at, seconds, chart, content_hash, tempo_as_heard, state)
			SELECT $1, a.id, a.student_id, $2, $3, $4, $5, $6::text, CASE WHEN $6::text = 'simulated' AND NOT p.demo THEN 'tryOut' ELSE $12::text END, $7, 0, $8, $9, $11, 'waiting'
			FROM assignments a JOIN people p ON p.id = a.student_id WHERE a.id = $10
			ON CONFLICT DO NOTHING`,
			h.ID, h.Chart.Name, h.Version, h.Rung.BPM, h.Rung.NotesPerBeat, h.Source, h.RecordedAt, h.Chart, h.Hash, h.AssignmentID, h.AsHeard, string(h.Aside))
		if err != nil {
			return err
		}
		if tag.RowsAffected() == 0 {
			return whyNot(ctx, tx, h)
		}
		if h.Sound == nil {
			_, err = tx.Exec(ctx, `UPDATE takes SET sound_dropped_at = now() WHERE id = $1`, h.ID)
		} else {
			err = s.putSound(ctx, tx, h.ID, h.Sound)
		}
		if err != nil {
			return err
		}
		// Last, so that nobody waits for the sound: only now is anything locked that
		// others want.
		if err := touch(ctx, tx, `UPDATE assignments SET takes = takes + (SELECT aside <> 'tryOut' FROM takes WHERE id = $2)::integer WHERE id = $1`, h.AssignmentID, h.ID); err != nil {
			return err
		}
		return also(tx)
	})
}

// errKept takes a transaction back in which there was nothing to do.
var errKept = errors.New("this take is kept already")

// IsKept reports whether a take was not handed in because it is there already.
func IsKept(err error) bool { return errors.Is(err, errKept) }

// whyNot tells why a take was not kept: another holds the same sound, it is there
// itself, or there is no such assignment.
func whyNot(ctx context.Context, tx pgx.Tx, h HandIn) error {
	same, err := sameSound(ctx, tx, h.AssignmentID, h.ID, h.Hash)
	if err == nil {
		return same
	}
	if !errors.Is(err, ErrNotFound) {
		return err
	}
	if _, err := value[int](tx.Query(ctx, `SELECT 1 FROM takes WHERE id = $1`, h.ID)); err != nil {
		return err
	}
	return errKept
}

// sameSound is the take of an assignment, other than one, that holds a recording
// already, or [ErrNotFound].
func sameSound(ctx context.Context, tx pgx.Tx, assignment, other uuid.UUID, hash []byte) (ErrSameSound, error) {
	return oneByPos[ErrSameSound](tx.Query(ctx, `SELECT id, recorded_at FROM takes WHERE assignment_id = $1 AND content_hash = $2 AND id <> $3`,
		assignment, hash, other))
}

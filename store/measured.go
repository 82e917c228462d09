package store

import (
	"context"
	"fmt"
	"slices"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"manudrill/core/evenness"
	"manudrill/core/tempo"
)

// A Measurement is what was found in a take.
type Measurement struct {
	Analysis    evenness.Analysis
	Sums        []evenness.Sum // what its notes add up to
	Seconds     float64
	SlurSeconds float64    // that the fretting hand made sound by itself
	Listener    int        // version of the listener
	Other       *uuid.UUID // assignment of the drill that was played instead; nil for none that is known
}

// Measured keeps what was found in a take and lets the ladder decide on it, and
// anew on those takes after it whose decision rests on it.
func (s *Store) Measured(ctx context.Context, take uuid.UUID, m Measurement) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		played, err := lockTake(ctx, tx, take)
		if err != nil {
			return err
		}
		if played.AsHeard && !m.Analysis.Foreign {
			played.Rung.BPM = tempo.Nearest(m.Analysis.Tempo.BPM)
			m.Analysis = m.Analysis.Asked(played.Rung.BPM)
		}
		said, err := correctionsTo(ctx, tx, take)
		if err != nil {
			return err
		}
		a := m.Analysis.Corrected(whatOf(said))
		result := a.Result()
		_, err = tx.Exec(ctx, `
			UPDATE takes SET state = 'measured', failure = NULL, listener = $2, analysis = $3, seconds = $4, held_bpm = $5,
			       notes_per_second = $6, spread_ms = $7, spread_percent = $8, right_percent = $9, is_foreign = $10, passes = $11, counts = $12, slur_seconds = $14, sums = $15, transposed = $16, other_id = $17,
			       bpm = $13, chart = jsonb_set(chart, '{bpm}', to_jsonb($13::float8))
			WHERE id = $1`,
			take, m.Listener, m.Analysis, m.Seconds, result.HeldBPM, a.Tempo.NotesPerSecond, a.Timing.SpreadMs, a.Timing.SpreadPercent,
			100*a.Counts.RightShare(), result.Foreign, result.Passes, played.counts(result), played.Rung.BPM, m.SlurSeconds, append([]evenness.Sum{}, m.Sums...), result.Transposed, m.Other)
		if err != nil {
			return err
		}
		return decide(ctx, tx, played.Assignment, take)
	})
}

// playedTake is a take as far as its ladder looks at it before it is measured.
type playedTake struct {
	Assignment uuid.UUID
	Rung       tempo.Rung
	Aside      tempo.Aside
	AsHeard    bool // its tempo is yet to be heard; once measured it stays what it is
}

// counts reports whether what was measured says something about the rung.
func (p playedTake) counts(result tempo.Result) bool {
	return p.Aside == tempo.NoAside && p.Rung.Counts(result)
}

// lockTake locks a take's assignment, so that its takes are decided one after the
// other.
func lockTake(ctx context.Context, tx pgx.Tx, take uuid.UUID) (playedTake, error) {
	played, err := oneByPos[playedTake](tx.Query(ctx, `SELECT assignment_id, row(bpm, notes_per_beat), aside, tempo_as_heard AND analysis IS NULL FROM takes WHERE id = $1`, take))
	if err != nil {
		return played, err
	}
	return played, touch(ctx, tx, `SELECT 1 FROM assignments WHERE id = $1 FOR NO KEY UPDATE`, played.Assignment)
}

// attempt is a measured take as the ladder sees it.
type attempt struct {
	ID           uuid.UUID
	Rung         tempo.Rung
	HeldBPM      float64
	Foreign      bool
	Aside        tempo.Aside
	Passes       []tempo.PassFigures
	Transposed   int
	Ladder       Lenient[tempo.Ladder] // of the version that was played
	NotesPerBeat int                   // of the drill
	Set          uuid.UUID             // what an instructor had set last before it
	Gate         *Lenient[tempo.Gate]  // that was set then; nil for the ladder's
	Hurt         bool                  // the student had reported pain
}

func (a attempt) result() tempo.Result {
	return tempo.Result{HeldBPM: a.HeldBPM, Foreign: a.Foreign, Passes: a.Passes, Transposed: a.Transposed}
}

// attempts asks for takes of an assignment as the ladder sees them: those of a condition in
// an order, so many. The takes are chosen before anything is joined to them, so that the
// database has no reason to join them all and to sort what comes of it.
func attempts(condition, order, limit string) string {
	return selectAttempts + `FROM (SELECT * FROM takes t WHERE t.assignment_id = $1 AND ` + condition + ` ORDER BY ` + order + ` LIMIT ` + limit + `) t` + attemptTables + ` ORDER BY ` + order
}

// latest and earliest are the orders of attempts.
const (
	latest   = `t.recorded_at DESC, t.id DESC`
	earliest = `t.recorded_at, t.id`
)

var selectAttempts = `
	SELECT t.id, row(t.bpm, t.notes_per_beat), t.held_bpm, t.is_foreign, t.aside, t.passes, t.transposed, v.file->'ladder',
	       greatest(1, coalesce((v.file#>>'{drill,rhythm,notesPerBeat}')::integer, 1)), coalesce(s.id, '00000000-0000-0000-0000-000000000000'), s.gate,
	       EXISTS (SELECT FROM hand_reports h WHERE h.student_id = a.student_id AND ` + fmt.Sprintf(hurts, "t.recorded_at") + `) `

const attemptTables = `
	JOIN assignments a ON a.id = t.assignment_id
	JOIN drill_versions v ON v.drill_id = a.drill_id AND v.version = t.version
	LEFT JOIN LATERAL (SELECT id, gate FROM rung_sets s WHERE s.assignment_id = a.id AND s.at <= t.recorded_at ORDER BY at DESC, id DESC LIMIT 1) s ON true`

// decide lets the ladder decide on a take and on those after it that look back as
// far as to it, and puts where the student stands now beside the assignment. Of
// other takes those alone are looked at that count.
func decide(ctx context.Context, tx pgx.Tx, assignment, take uuid.UUID) error {
	before, err := allByPos[attempt](tx.Query(ctx, attempts(`(t.counts OR t.id = $2) AND (t.recorded_at, t.id) <= (SELECT recorded_at, id FROM takes WHERE id = $2)`, latest, `$3`), assignment, take, tempo.LooksBack))
	if err != nil {
		return err
	}
	after, err := allByPos[attempt](tx.Query(ctx, attempts(`t.counts AND (t.recorded_at, t.id) > (SELECT recorded_at, id FROM takes WHERE id = $2)`, earliest, `$3`), assignment, take, tempo.LooksBack-1))
	if err != nil {
		return err
	}
	slices.Reverse(before)
	all := append(before, after...)
	var decided []uuid.UUID
	for i := len(before) - 1; i < len(all); i++ {
		d := decision(all[:i+1])
		if _, err := tx.Exec(ctx, `UPDATE takes SET decision = $2, passed = $3, clean = $4 WHERE id = $1`, all[i].ID, d, d.Passed(), d.Clean(all[i].result())); err != nil {
			return err
		}
		decided = append(decided, all[i].ID)
	}
	if err := stand(ctx, tx, assignment); err != nil {
		return err
	}
	return addUp(ctx, tx, assignment, decided)
}

// stand puts beside an assignment what its latest take has decided, and the rung on
// which the student stands: where the last move has led, be it a take that counts
// or what an instructor has set.
func stand(ctx context.Context, tx pgx.Tx, assignment uuid.UUID) error {
	_, err := tx.Exec(ctx, `
		UPDATE assignments a SET last = t.decision, last_take_at = t.recorded_at
		FROM (SELECT decision, recorded_at FROM takes WHERE assignment_id = $1 AND state = 'measured' AND aside = '' ORDER BY recorded_at DESC, id DESC LIMIT 1) t
		WHERE a.id = $1`, assignment)
	if err != nil {
		return err
	}
	_, err = tx.Exec(ctx, `
		UPDATE assignments a SET rung_bpm = m.bpm, notes_per_beat = m.notes_per_beat
		FROM (
			(SELECT (decision#>>'{next,bpm}')::float8 AS bpm, (decision#>>'{next,notesPerBeat}')::integer AS notes_per_beat, recorded_at AS at
			 FROM takes WHERE assignment_id = $1 AND counts ORDER BY recorded_at DESC, id DESC LIMIT 1)
			UNION ALL
			(SELECT bpm, notes_per_beat, at FROM rung_sets WHERE assignment_id = $1 ORDER BY at DESC, id DESC LIMIT 1)
			ORDER BY at DESC LIMIT 1) m
		WHERE a.id = $1`, assignment)
	return err
}

// decision is the ladder's on the last of some takes: those before it at the same
// rung count, without another in between and since an instructor has set it.
func decision(attempts []attempt) tempo.Decision {
	last := attempts[len(attempts)-1]
	results := resultsAt(attempts, last.Rung, last.Set)
	ladder := last.Ladder.Value
	ladder.Gate = gateOr(last.Gate, ladder)
	if last.Aside != tempo.NoAside {
		return last.Aside.Decision(last.Rung, ladder.Gate)
	}
	d := ladder.Decide(last.Rung, last.NotesPerBeat, results)
	if last.Hurt {
		return d.WithPain()
	}
	return d
}

// resultsAt are those of the latest attempts, as many as a ladder looks back to, that were
// at a rung since an instructor has set it.
func resultsAt(attempts []attempt, at tempo.Rung, set uuid.UUID) []tempo.Result {
	from := len(attempts)
	for from > 0 && len(attempts)-from < tempo.LooksBack && attempts[from-1].Rung == at && attempts[from-1].Set == set {
		from--
	}
	results := []tempo.Result{}
	for _, a := range attempts[from:] {
		results = append(results, a.result())
	}
	return results
}

// ResultsNow are those on which the decision on an assignment's next take will rest, in
// order.
func (s *Store) ResultsNow(ctx context.Context, assignment uuid.UUID) (results []tempo.Result, err error) {
	err = s.in(ctx, func(tx pgx.Tx) error {
		now, err := oneByPos[struct {
			Rung tempo.Rung
			Set  uuid.UUID
		}](tx.Query(ctx, `
			SELECT row(rung_bpm, notes_per_beat), coalesce((SELECT id FROM rung_sets WHERE assignment_id = $1 ORDER BY at DESC, id DESC LIMIT 1), '00000000-0000-0000-0000-000000000000')
			FROM assignments WHERE id = $1`, assignment))
		if err != nil {
			return err
		}
		counting, err := allByPos[attempt](tx.Query(ctx, attempts(`t.counts`, latest, `$2`), assignment, tempo.LooksBack-1))
		slices.Reverse(counting)
		results = resultsAt(counting, now.Rung, now.Set)
		return err
	})
	return results, err
}

// Failed keeps why a take could not be measured. What was measured in it before
// stays.
func (s *Store) Failed(ctx context.Context, take uuid.UUID, why string) error {
	return touch(AsHouse(ctx), s.pool, `
		UPDATE takes SET failure = $2, state = CASE WHEN analysis IS NULL THEN 'failed' ELSE state END WHERE id = $1`, take, why)
}

// MeasureAgain lets a take be measured once more, and does what is given in the
// same transaction; or returns [ErrNotFound] or [ErrDropped]. What was measured in it
// stays until then.
func (s *Store) MeasureAgain(ctx context.Context, take uuid.UUID, also func(pgx.Tx) error) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		dropped, err := value[bool](tx.Query(ctx, `
			UPDATE takes SET failure = NULL, state = CASE WHEN analysis IS NULL THEN 'waiting' ELSE state END WHERE id = $1
			RETURNING sound_dropped_at IS NOT NULL`, take))
		switch {
		case err != nil:
			return err
		case dropped:
			return ErrDropped
		}
		return also(tx)
	})
}

package store

import (
	"context"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"manudrill/core/evenness"
)

// A Correction is what somebody has said of a take that was not so.
type Correction struct {
	ID     uuid.UUID           `json:"id"`
	What   evenness.Correction `json:"what"`
	Author *string             `json:"author"` // nil where they are not here any more
	At     time.Time           `json:"at"`
}

// MaxCorrections is the most that a take may have: each note and more.
const MaxCorrections = 500

// correctionsOf are those of take t, as JSON, in the order in which they were said.
const correctionsOf = `
	(SELECT coalesce(jsonb_agg(jsonb_build_object('id', c.id, 'what', c.what, 'author', (SELECT name FROM people WHERE people.id = c.author_id), 'at', c.at) ORDER BY c.at, c.id), '[]')
	 FROM corrections c WHERE c.take_id = t.id)`

// Correct keeps that something told of a take was not so, and lets the ladder decide anew. What
// the take does not tell of is refused in the words of [evenness.Correction.Check]; said again
// under its id it changes nothing.
func (s *Store) Correct(ctx context.Context, take, id uuid.UUID, what evenness.Correction) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		return corrected(ctx, tx, take, func(kept []Correction, a evenness.Analysis) error {
			for _, c := range kept {
				if c.ID == id || c.What == what {
					return nil
				}
			}
			if len(kept) >= MaxCorrections {
				return ErrTooMany
			}
			if err := what.Check(a); err != nil {
				return err
			}
			_, err := tx.Exec(ctx, `
				INSERT INTO corrections (id, take_id, what, author_id) VALUES ($1, $2, $3, nullif($4, '00000000-0000-0000-0000-000000000000'::uuid))
				ON CONFLICT (id) DO NOTHING`, id, take, what, scopeOf(ctx).Actor.ID)
			return err
		})
	})
}

// TakeBackCorrection lets what was told of a take stand again.
func (s *Store) TakeBackCorrection(ctx context.Context, take, id uuid.UUID) error {
	return s.in(ctx, func(tx pgx.Tx) error {
		return corrected(ctx, tx, take, func([]Correction, evenness.Analysis) error {
			return touch(ctx, tx, `DELETE FROM corrections WHERE id = $1 AND take_id = $2`, id, take)
		})
	})
}

// corrected changes the corrections of a measured take, whose assignment is locked, and counts
// it anew. The change is given those that there are, and the take as they leave it.
func corrected(ctx context.Context, tx pgx.Tx, take uuid.UUID, change func([]Correction, evenness.Analysis) error) error {
	played, err := lockTake(ctx, tx, take)
	if err != nil {
		return err
	}
	measured, err := value[evenness.Analysis](tx.Query(ctx, `SELECT analysis FROM takes WHERE id = $1 AND analysis IS NOT NULL`, take))
	if err != nil {
		return err
	}
	kept, err := correctionsTo(ctx, tx, take)
	if err != nil {
		return err
	}
	if err := change(kept, measured.Corrected(whatOf(kept))); err != nil {
		return err
	}
	if kept, err = correctionsTo(ctx, tx, take); err != nil {
		return err
	}
	a := measured.Corrected(whatOf(kept))
	result := a.Result()
	_, err = tx.Exec(ctx, `UPDATE takes SET right_percent = $2, passes = $3, transposed = $4, counts = $5 WHERE id = $1`,
		take, 100*a.Counts.RightShare(), result.Passes, result.Transposed, played.counts(result))
	if err != nil {
		return err
	}
	return decide(ctx, tx, played.Assignment, take)
}

// correctionsTo are those of a take.
func correctionsTo(ctx context.Context, tx pgx.Tx, take uuid.UUID) ([]Correction, error) {
	return value[[]Correction](tx.Query(ctx, `SELECT `+correctionsOf+` FROM takes t WHERE t.id = $1`, take))
}

func whatOf(corrections []Correction) []evenness.Correction {
	what := make([]evenness.Correction, len(corrections))
	for i, c := range corrections {
		what[i] = c.What
	}
	return what
}

// A Contradicted is how often a kind of what is told was said not to be so.
type Contradicted struct {
	Of    string
	Kind  string
	Said  int // times
	Takes int // of so many
}

// Contradictions tells how often each kind of what is told of takes was said not to be so, the
// most often first, and how many takes were measured: of the studio, without names.
func (s *Store) Contradictions(ctx context.Context) (kinds []Contradicted, measured int, err error) {
	kinds, err = allByPos[Contradicted](s.pool.Query(ctx, `
		SELECT what->>'of', what->>'kind', count(*), count(DISTINCT take_id) FROM corrections
		GROUP BY 1, 2 ORDER BY 3 DESC, 1, 2 LIMIT $1`, MaxPage))
	if err != nil {
		return nil, 0, err
	}
	measured, err = value[int](s.pool.Query(ctx, `SELECT count(*) FROM takes WHERE state = 'measured'`))
	return kinds, measured, err
}

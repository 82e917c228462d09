package store

import (
	"context"
	"errors"
	"time"

	"github.com/google/uuid"

	"manudrill/core/drill/chart"
	"manudrill/core/evenness"
	"manudrill/core/tempo"
)

// The sources a take may have.
const (
	Microphone = "microphone"
	File       = "file"
	Simulated  = "simulated"
	MIDI       = "midi" // an instrument that tells its notes
	Key        = "key"  // of a computer, tapped: notes without pitch
)

// The states a take may be in.
const (
	Waiting  = "waiting"  // handed in, to be measured
	Measured = "measured" // also while it is measured again
	Failed   = "failed"   // could not be measured
)

// A TakeSummary is what lists show of a take.
type TakeSummary struct {
	ID             uuid.UUID
	AssignmentID   uuid.UUID
	DrillName      string
	Student        Person
	Version        int        // of the drill that was played
	Rung           tempo.Rung // asked for
	Source         string
	Aside          tempo.Aside // why it counts for nothing, whatever is measured
	RecordedAt     time.Time   // by the device
	HandedInAt     time.Time
	State          string
	Failure        *string // why it could not be measured
	Listener       *int    // version of the listener that judged it
	Seconds        float64
	HeldBPM        float64
	NotesPerSecond float64
	SpreadMs       float64
	SpreadPercent  float64
	RightPercent   float64
	Decision       *tempo.Decision
	SoundDropped   bool // its time was over; the results stay
}

// A Take is one recording and what was measured in it.
type Take struct {
	TakeSummary
	Chart    chart.Chart        // as it was played
	Analysis *evenness.Analysis // nil until it is measured
	Video    *Video             // of the hands; nil for none

	Other       *OtherDrill  // that was played instead; nil for none that is known
	Corrections []Correction // of what was told of it, with which the analysis is given
}

// An OtherDrill is one that a student has and has played in place of another.
type OtherDrill struct {
	Assignment uuid.UUID
	Name       string
}

// The columns of a [TakeSummary] in the order of its fields.
const (
	takeColumns = `t.id, t.assignment_id, t.drill_name, row(p.id, p.name, p.role, p.demo), t.version, row(t.bpm, t.notes_per_beat), t.source, t.aside,
		t.recorded_at, t.handed_in_at, t.state, t.failure, t.listener, t.seconds, t.held_bpm, t.notes_per_second,
		t.spread_ms, t.spread_percent, t.right_percent, t.decision, t.sound_dropped_at IS NOT NULL`
	takeTables = `takes t JOIN people p ON p.id = t.student_id`
)

const otherDrill = `
	(SELECT row(o.id, coalesce(v.file#>>'{drill,name}', '')) FROM assignments o JOIN drill_versions v ON v.drill_id = o.drill_id AND v.version = o.version
	 WHERE o.id = t.other_id AND o.ended_at IS NULL)`

// Take returns one take or [ErrNotFound].
func (s *Store) Take(ctx context.Context, id uuid.UUID) (Take, error) {
	t, err := oneByPos[Take](s.pool.Query(ctx, `SELECT `+takeColumns+`, t.chart, t.analysis, (SELECT row(v.media, v.size, v.starts_at) FROM take_videos v WHERE v.take_id = t.id), `+otherDrill+`, `+correctionsOf+` FROM `+takeTables+` WHERE t.id = $1`, id))
	if err == nil && t.Analysis != nil {
		is := t.Analysis.Corrected(whatOf(t.Corrections))
		t.Analysis = &is
	}
	return t, err
}

// TakeSummary returns what lists show of one take or [ErrNotFound].
func (s *Store) TakeSummary(ctx context.Context, id uuid.UUID) (TakeSummary, error) {
	return oneByPos[TakeSummary](s.pool.Query(ctx, `SELECT `+takeColumns+` FROM `+takeTables+` WHERE t.id = $1`, id))
}

// TakeState tells how far a take is, or [ErrNotFound].
func (s *Store) TakeState(ctx context.Context, id uuid.UUID) (string, error) {
	return value[string](s.pool.Query(ctx, `SELECT state FROM takes WHERE id = $1`, id))
}

// Takes returns takes, the latest first; of one assignment, or else of one
// student, where these are given.
func (s *Store) Takes(ctx context.Context, assignment, student *uuid.UUID, page Page) ([]TakeSummary, error) {
	q := question{where: `true`}
	student = asking(ctx, student)
	switch {
	case assignment != nil:
		q.and(`t.assignment_id =`, *assignment)
	case student != nil:
		q.and(`t.student_id =`, *student)
	}
	q.after(page, `t.recorded_at`, `t.id`)
	return allByPos[TakeSummary](s.pool.Query(ctx, `SELECT `+takeColumns+` FROM `+takeTables+q.text(), q.args...))
}

// A TrendTake is a take as far as progress looks at it.
type TrendTake struct {
	ID            uuid.UUID
	RecordedAt    time.Time
	Rung          tempo.Rung
	SpreadPercent float64
	Passed        bool
}

// Trend returns the takes of an assignment that count, as far as progress looks at
// them, the latest first, and the fastest rung that was passed before the earliest
// of them; nil for none.
func (s *Store) Trend(ctx context.Context, assignment uuid.UUID, page Page) (takes []TrendTake, passedBefore *tempo.Rung, err error) {
	q := question{where: `counts`}
	q.and(`assignment_id =`, assignment)
	q.after(page, `recorded_at`, `id`)
	takes, err = allByPos[TrendTake](s.pool.Query(ctx, `SELECT id, recorded_at, row(bpm, notes_per_beat), spread_percent, passed FROM takes`+q.text(), q.args...))
	if err != nil || len(takes) == 0 {
		return takes, nil, err
	}
	// The time is asked for so that only the index of what was passed serves: by the
	// one of all takes, all of them would be read.
	before, err := oneByPos[tempo.Rung](s.pool.Query(ctx, `
		SELECT bpm, notes_per_beat FROM takes WHERE assignment_id = $1 AND passed AND recorded_at + interval '0' < $2
		ORDER BY bpm * notes_per_beat DESC, recorded_at LIMIT 1`,
		assignment, takes[len(takes)-1].RecordedAt))
	if errors.Is(err, ErrNotFound) {
		return takes, nil, nil
	}
	return takes, &before, err
}

// TakesWaiting returns how many takes are handed in and not measured yet.
func (s *Store) TakesWaiting(ctx context.Context) (int, error) {
	return value[int](s.pool.Query(AsHouse(ctx), `SELECT count(*) FROM takes WHERE state = 'waiting'`))
}

// WithinStudioOf returns a context in which the studio of a take is asked, as its
// worker does; or [ErrNotFound].
func (s *Store) WithinStudioOf(ctx context.Context, take uuid.UUID) (context.Context, error) {
	studio, err := value[uuid.UUID](s.pool.Query(AsHouse(ctx), `SELECT studio_id FROM takes WHERE id = $1`, take))
	return Within(ctx, Scope{Studio: studio}), err
}

package store

import (
	"context"
	"io"
	"testing"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5/pgxpool"
	"github.com/pressly/goose/v3"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/guitar"
	"manudrill/pgcluster"
)

// migrateTo brings an empty database to an older version of its tables.
func migrateTo(t *testing.T, ctx context.Context, url string, version int64) *pgxpool.Pool {
	t.Helper()
	pool, err := pgxpool.New(ctx, url)
	require.NoError(t, err)
	require.NoError(t, withMigrations(pool, func(p *goose.Provider) error {
		_, err := p.UpTo(ctx, version)
		return err
	}))
	return pool
}

// Drills saved by the first engine are the same drills in the second.
func TestDrillsOfTheFirstEngineAreKept(t *testing.T) {
	t.Parallel()
	ctx := AsHouse(context.Background())
	cluster, err := pgcluster.StartThrowaway(ctx)
	require.NoError(t, err)
	defer func() { assert.NoError(t, cluster.Stop()) }()
	old := migrateTo(t, ctx, cluster.URL, 1)
	const ladder = `"ladder": {"startBpm": 60, "stepBpm": 4, "targetBpm": 112, "gate": {"rightPercent": 95, "spreadPercent": 7, "levelSpreadDb": 4, "passesInARow": 2}}`
	drills := map[uuid.UUID]struct{ file, places string }{
		uuid.New(): {`{"drill": {"name": "slurs", "pattern": {"kind": "slurCombinations", "combinations": [[1, 2], [3, 4]], "slur": "pull"},
			"position": 7, "strings": [2, 1], "thereAndBack": true, "repeats": 2, "notesPerBeat": 4, "passes": 3}, ` + ladder + `}`, "pull"},
		uuid.New(): {`{"drill": {"name": "fingers", "pattern": {"kind": "fingerPerFret", "order": [4, 2, 1]},
			"position": 5, "strings": [6], "thereAndBack": false, "repeats": 1, "notesPerBeat": 3, "passes": 2}, ` + ladder + `}`, "pick"},
	}
	for id, d := range drills {
		_, err := old.Exec(ctx, `INSERT INTO drills (id, file) VALUES ($1, $2)`, id, d.file)
		require.NoError(t, err)
	}
	old.Close()

	s, err := Open(ctx, cluster.URL)
	require.NoError(t, err)
	defer s.Close()
	for id, d := range drills {
		kept, err := s.Drill(ctx, id)
		require.NoError(t, err)
		require.Empty(t, kept.File.Value.Check(guitar.Standard()))
		chart, err := kept.File.Value.Drill.Chart(guitar.Standard(), 60)
		require.NoError(t, err)
		frets := make([]int, len(chart.Notes))
		for i, n := range chart.Notes {
			frets[i] = n.Fret
		}
		assert.Equal(t, d.places, string(chart.Notes[1].Attack))
		if kept.File.Value.Drill.Name == "slurs" {
			// Pull-offs 2-1 twice on each string over two strings and back, then 4-3; the
			// string a pass begins on comes once where the next begins.
			assert.Equal(t, []int{8, 7, 8, 7, 8, 7, 8, 7, 10, 9, 10, 9, 10, 9, 10, 9}, frets)
		} else {
			assert.Equal(t, []int{8, 6, 5}, frets)
		}
		assert.InDelta(t, 112, kept.File.Value.Ladder.TargetBPM, 0)
	}
}

// Takes kept in the form before summaries are columns are the same takes after it,
// their sound byte for byte, and the same again when the migration is taken back.
func TestTakesAreKeptThereAndBack(t *testing.T) {
	t.Parallel()
	ctx := context.Background()
	cluster, err := pgcluster.StartThrowaway(ctx)
	require.NoError(t, err)
	defer func() { assert.NoError(t, cluster.Stop()) }()
	pool := migrateTo(t, ctx, cluster.URL, 3)
	defer pool.Close()
	drill, student, assignment, take := uuid.New(), uuid.New(), uuid.New(), uuid.New()
	sound := make([]byte, 600_000)
	for i := range sound {
		sound[i] = byte(i * i >> 7)
	}
	exec := func(sql string, args ...any) {
		t.Helper()
		_, err := pool.Exec(ctx, sql, args...)
		require.NoError(t, err)
	}
	exec(`INSERT INTO people (id, name, role) VALUES ($1, 'Ann', 'student')`, student)
	exec(`INSERT INTO drills (id) VALUES ($1)`, drill)
	exec(`INSERT INTO drill_versions (drill_id, version, file) VALUES ($1, 1, '{"drill": {"name": "pairs"}, "ladder": {"startBpm": 60, "targetBpm": 90}}')`, drill)
	exec(`INSERT INTO assignments (id, drill_id, student_id) VALUES ($1, $2, $3)`, assignment, drill, student)
	exec(`INSERT INTO takes (id, assignment_id, bpm, source, recorded_at, seconds, chart, analysis, decision) VALUES
		($1, $2, 60, 'file', '2026-05-04T12:00:00Z', 12.5, '{"name": "pairs", "notes": []}',
		'{"tempo": {"bpm": 60.5, "notesPerSecond": 2}, "timing": {"spreadMs": 9, "spreadPercent": 4}, "counts": {"expected": 9, "played": 8, "extra": 1}, "passes": [{"pass": 0, "rightPercent": 80, "spreadPercent": 4, "levelSpreadDb": 1}], "foreign": false}',
		'{"step": "up", "nextBpm": 64, "reason": "2 clean passes", "reached": false}')`, take, assignment)
	exec(`INSERT INTO take_sounds (take_id, flac) VALUES ($1, $2)`, take, sound)

	// Two programs start at once: one migrates, the other waits.
	opened := make(chan error, 2)
	for range 2 {
		go func() {
			s, err := Open(ctx, cluster.URL)
			if err == nil {
				s.Close()
			}
			opened <- err
		}()
	}
	require.NoError(t, <-opened)
	require.NoError(t, <-opened)

	s := &Store{pool: pool}
	kept, err := s.TakeSummary(ctx, take)
	require.NoError(t, err)
	assert.Equal(t, []any{"pairs", "Ann", Measured, 60.5, 2.0, 9.0, 4.0, 80.0, 64.0},
		[]any{kept.DrillName, kept.Student.Name, kept.State, kept.HeldBPM, kept.NotesPerSecond, kept.SpreadMs, kept.SpreadPercent, kept.RightPercent, kept.Decision.Next.BPM})
	stand, err := s.Stand(ctx, assignment)
	require.NoError(t, err)
	assert.Equal(t, []any{1, 64.0}, []any{stand.Takes, stand.Rung.BPM})
	_, passed, err := s.Trend(ctx, assignment, Page{After: &Cursor{At: kept.RecordedAt.AddDate(0, 0, 1)}, Limit: 1})
	require.NoError(t, err)
	assert.Nil(t, passed, "before the first take nothing was passed")
	reader, err := s.Sound(ctx, take)
	require.NoError(t, err)
	got, err := io.ReadAll(reader)
	require.NoError(t, err)
	assert.Equal(t, sound, got)

	require.NoError(t, MigrateDown(ctx, pool, 3))
	var flac, decision []byte
	require.NoError(t, pool.QueryRow(ctx, `SELECT flac, decision FROM takes JOIN take_sounds ON take_id = id`).Scan(&flac, &decision))
	assert.Equal(t, sound, flac)
	assert.Contains(t, string(decision), "2 clean passes")
	require.NoError(t, Migrate(ctx, pool))

	exec(`UPDATE takes SET state = 'waiting', analysis = NULL`)
	err = MigrateDown(ctx, pool, 3)
	require.Error(t, err, "the older form has no place for a take that waits")
	assert.Contains(t, err.Error(), "measure or discard them")
}

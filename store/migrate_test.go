package store

import (
	"context"
	"io/fs"
	"testing"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5/pgxpool"
	"github.com/jackc/pgx/v5/stdlib"
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
	dir, err := fs.Sub(migrations, "migrations")
	require.NoError(t, err)
	db := stdlib.OpenDBFromPool(pool)
	defer db.Close()
	provider, err := goose.NewProvider(goose.DialectPostgres, db, dir)
	require.NoError(t, err)
	_, err = provider.UpTo(ctx, version)
	require.NoError(t, err)
	return pool
}

// Drills saved by the first engine are the same drills in the second.
func TestDrillsOfTheFirstEngineAreKept(t *testing.T) {
	ctx := context.Background()
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
		require.Empty(t, kept.File.Check(guitar.Standard()))
		chart, err := kept.File.Drill.Chart(guitar.Standard(), 60)
		require.NoError(t, err)
		frets := make([]int, len(chart.Notes))
		for i, n := range chart.Notes {
			frets[i] = n.Fret
		}
		assert.Equal(t, d.places, string(chart.Notes[1].Attack))
		if kept.File.Drill.Name == "slurs" {
			// Pull-offs 2-1 twice on each string over two strings and back, then 4-3.
			assert.Equal(t, []int{8, 7, 8, 7, 8, 7, 8, 7, 8, 7, 8, 7, 10, 9, 10, 9, 10, 9, 10, 9, 10, 9, 10, 9}, frets)
		} else {
			assert.Equal(t, []int{8, 6, 5}, frets)
		}
		assert.InDelta(t, 112, kept.File.Ladder.TargetBPM, 0)
	}
}

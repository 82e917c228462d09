package pgcluster_test

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/pgcluster"
)

func TestDataStaysFromOneStartToTheNext(t *testing.T) {
	dir, err := os.MkdirTemp("", "manudrill-keep-") // t.TempDir lies where another user may not go
	require.NoError(t, err)
	t.Cleanup(func() { os.RemoveAll(dir) })
	require.NoError(t, os.Chmod(dir, 0o755))
	data := filepath.Join(dir, "db")
	for round, statement := range []string{"CREATE TABLE kept AS SELECT 42 AS n", "SELECT n FROM kept"} {
		c, err := pgcluster.Start(t.Context(), data)
		require.NoError(t, err, "round %d", round)
		conn, err := pgx.Connect(t.Context(), c.URL)
		require.NoError(t, err)
		_, err = conn.Exec(t.Context(), statement)
		assert.NoError(t, err)
		require.NoError(t, conn.Close(t.Context()))
		require.NoError(t, c.Stop())
	}
}

func TestThrowawayLeavesNothing(t *testing.T) {
	own, err := os.MkdirTemp("/tmp", "manudrill-throwaway-") // other tests have theirs beside it
	require.NoError(t, err)
	t.Cleanup(func() { assert.NoError(t, os.RemoveAll(own)) })
	require.NoError(t, os.Chmod(own, 0o755)) // the server's owner must get in
	t.Setenv("TMPDIR", own)
	c, err := pgcluster.StartThrowaway(t.Context())
	require.NoError(t, err)
	require.NoError(t, c.Stop())
	_, err = pgx.Connect(t.Context(), c.URL)
	assert.Error(t, err)
	left, err := os.ReadDir(own)
	require.NoError(t, err)
	assert.Empty(t, left)
}

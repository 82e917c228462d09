package pgcluster_test

import (
	"context"
	"os"
	"path/filepath"
	"syscall"
	"testing"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/pgcluster"
)

// folder is one that the server's owner may enter; t.TempDir lies where it may not.
func folder(t *testing.T) string {
	t.Helper()
	dir, err := os.MkdirTemp("/tmp", "manudrill-test-")
	require.NoError(t, err)
	t.Cleanup(func() { assert.NoError(t, os.RemoveAll(dir)) })
	require.NoError(t, os.Chmod(dir, 0o755))
	return dir
}

func started(t *testing.T, data string) *pgcluster.Cluster {
	t.Helper()
	c, err := pgcluster.Start(t.Context(), data)
	require.NoError(t, err)
	return c
}

// does runs a statement on a server.
func does(t *testing.T, c *pgcluster.Cluster, statement string) error {
	t.Helper()
	conn, err := pgx.Connect(t.Context(), c.URL)
	if err != nil {
		return err
	}
	defer conn.Close(t.Context())
	_, err = conn.Exec(t.Context(), statement)
	return err
}

func TestDataStaysFromOneStartToTheNext(t *testing.T) {
	data := filepath.Join(folder(t), "db")
	for round, statement := range []string{"CREATE TABLE kept AS SELECT 42 AS n", "SELECT n FROM kept"} {
		c := started(t, data)
		assert.NoError(t, does(t, c, statement), "round %d", round)
		require.NoError(t, c.Stop())
	}
}

func TestThrowawayLeavesNothing(t *testing.T) {
	own := folder(t)
	t.Setenv("TMPDIR", own) // other tests have theirs beside it
	c, err := pgcluster.StartThrowaway(t.Context())
	require.NoError(t, err)
	require.NoError(t, c.Stop())
	assert.Error(t, does(t, c, "SELECT 1"))
	left, err := os.ReadDir(own)
	require.NoError(t, err)
	assert.Empty(t, left)
}

// Nobody but the server's owner and root may come near it.
func TestTheServerIsClosedToOthers(t *testing.T) {
	data := filepath.Join(folder(t), "db")
	c := started(t, data)
	defer func() { assert.NoError(t, c.Stop()) }()
	info, err := os.Stat(data + ".run")
	require.NoError(t, err)
	assert.Equal(t, os.FileMode(0o700), info.Mode().Perm())
	require.NoError(t, does(t, c, `DO $$ BEGIN IF current_setting('listen_addresses') <> '' THEN RAISE 'it listens on a network'; END IF; END $$`))
}

// Whatever kills the server, it is there again, with all that was kept.
func TestAServerThatDiesIsStartedAgain(t *testing.T) {
	c := started(t, filepath.Join(folder(t), "db"))
	defer func() { assert.NoError(t, c.Stop()) }()
	require.NoError(t, does(t, c, "CREATE TABLE kept AS SELECT 42 AS n"))
	for range 2 {
		require.NoError(t, syscall.Kill(c.PID(), syscall.SIGKILL))
		require.Eventually(t, func() bool { return does(t, c, "SELECT n FROM kept") == nil }, time.Minute, 50*time.Millisecond)
	}
}

// A start that is broken off in its first second leaves nothing that the next one
// stumbles over.
func TestAStartThatIsBrokenOff(t *testing.T) {
	data := filepath.Join(folder(t), "db")
	for _, after := range []time.Duration{0, 50 * time.Millisecond, 300 * time.Millisecond, 700 * time.Millisecond} {
		ctx, cancel := context.WithTimeout(t.Context(), after)
		c, err := pgcluster.Start(ctx, data)
		cancel()
		if err == nil {
			require.NoError(t, c.Stop())
		}
	}
	c := started(t, data)
	assert.NoError(t, does(t, c, "SELECT 1"))
	require.NoError(t, c.Stop())
}

// Data that an older program has half made is put aside, not used and not deleted.
func TestHalfMadeDataIsPutAside(t *testing.T) {
	dir := folder(t)
	data := filepath.Join(dir, "db")
	require.NoError(t, os.MkdirAll(filepath.Join(data, "global"), 0o700))
	require.NoError(t, os.WriteFile(filepath.Join(data, "PG_VERSION"), []byte("15\n"), 0o600))
	c := started(t, data)
	assert.NoError(t, does(t, c, "SELECT 1"))
	require.NoError(t, c.Stop())
	aside, err := filepath.Glob(data + ".unfinished-*")
	require.NoError(t, err)
	assert.Len(t, aside, 1)
}

func TestDataIsUsedByOneProgram(t *testing.T) {
	data := filepath.Join(folder(t), "db")
	c := started(t, data)
	_, err := pgcluster.Start(t.Context(), data)
	assert.ErrorIs(t, err, pgcluster.ErrInUse)
	assert.NoError(t, does(t, c, "SELECT 1"), "the one that has it goes on")
	require.NoError(t, c.Stop())
	require.NoError(t, started(t, data).Stop())
}

// A path too long for a socket is no matter.
func TestALongPath(t *testing.T) {
	data := filepath.Join(folder(t), "a-rather-long-name-of-a-folder-that-somebody-has-thought-of", "and-another-one-that-is-no-shorter", "db")
	c := started(t, data)
	assert.NoError(t, does(t, c, "SELECT 1"))
	require.NoError(t, c.Stop())
}

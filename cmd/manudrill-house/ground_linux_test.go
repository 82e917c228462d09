package main

import (
	"bytes"
	"errors"
	"fmt"
	"net/http"
	"os"
	"path/filepath"
	"syscall"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5/pgxpool"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/pgcluster"
	"manudrill/store"
)

// smallDisk is a folder with so many megabytes of room. It takes root to make one.
func smallDisk(t *testing.T, megabytes int) string {
	t.Helper()
	if os.Geteuid() != 0 {
		t.Skip("only root can make a small disk")
	}
	dir := ownFolder(t)
	require.NoError(t, syscall.Mount("tmpfs", dir, "tmpfs", 0, fmt.Sprintf("size=%dm,mode=0755", megabytes)))
	t.Cleanup(func() { assert.NoError(t, syscall.Unmount(dir, syscall.MNT_DETACH)) })
	return dir
}

// fill leaves no room on a disk and returns how to make it again.
func fill(t *testing.T, disk string) (empty func()) {
	t.Helper()
	name := filepath.Join(disk, "filler")
	file, err := os.Create(name)
	require.NoError(t, err)
	for err == nil {
		_, err = file.Write(make([]byte, 64<<10))
	}
	require.ErrorIs(t, err, syscall.ENOSPC)
	require.NoError(t, file.Close())
	return func() { require.NoError(t, os.Remove(name)) }
}

// A full disk is said to be full; what was kept stays, and once there is room all
// goes on.
func TestAFullDisk(t *testing.T) {
	if testing.Short() {
		t.Skip("takes long")
	}
	t.Parallel()
	for name, which := range map[string]func(disk string) (data string, env []string, says []int){
		"of the recordings that come in": func(disk string) (string, []string, []int) {
			return ownFolder(t), []string{"TMPDIR=" + disk}, []int{http.StatusInsufficientStorage}
		},
		// Without room for its log PostgreSQL ends, and is started again and again.
		"of the database": func(disk string) (string, []string, []int) {
			return disk, nil, []int{http.StatusInsufficientStorage, http.StatusServiceUnavailable}
		},
	} {
		t.Run(name, func(t *testing.T) {
			disk := smallDisk(t, 160)
			data, env, says := which(disk)
			p := begin(t, data, env, "serve", "--listen", "127.0.0.1:0").serves()
			s := opened(t, p)
			before := len(s.teacher.all("/takes"))
			empty := fill(t, disk)
			id := uuid.New()
			path := fmt.Sprintf("/assignments/%s/takes/%s?source=file&bpm=60", s.assignment, id)
			status := 0
			for range 60 { // the database has some room of its own at first
				large := append(bytes.Clone(s.recordings[3]), bytes.Repeat([]byte(uuid.NewString()), 20_000)...)
				status, _ = s.student.ask(http.MethodPut, path, large, nil)
				if status >= 500 {
					break
				}
				id = uuid.New()
				path = fmt.Sprintf("/assignments/%s/takes/%s?source=file&bpm=60", s.assignment, id)
			}
			assert.Contains(t, says, status)
			empty()
			s.student.must(http.MethodPut, path, s.recordings[4], nil)
			assert.Greater(t, len(s.teacher.all("/takes")), before)
			close(s.stop)
			p.stops()
		})
	}
}

// While the database is away nobody is told that they are nobody: it is said that
// it does not answer, and that nothing is lost.
func TestADatabaseThatIsAway(t *testing.T) {
	if testing.Short() {
		t.Skip("takes long")
	}
	t.Parallel()
	cluster, err := pgcluster.StartThrowaway(t.Context())
	require.NoError(t, err)
	p := begin(t, ownFolder(t), []string{"DATABASE_URL=" + cluster.URL}, "serve", "--listen", "127.0.0.1:0", "--no-work").serves()
	v := visiting(t, p.base)
	v.begins(p)
	require.NoError(t, cluster.Stop())
	require.Eventually(t, func() bool { // until nothing is remembered any more
		status, err := v.ask(http.MethodGet, "/session", nil, nil)
		return err == nil && status == http.StatusServiceUnavailable
	}, patience, 50*time.Millisecond)
	for _, path := range []string{"/takes", "/assignments", "/people"} {
		status, err := v.ask(http.MethodGet, path, nil, nil)
		require.NoError(t, err)
		assert.Equal(t, http.StatusServiceUnavailable, status, path)
	}
	for path, want := range map[string]int{"/healthz": 204, "/readyz": 503} {
		resp, err := http.Get(p.base + path)
		require.NoError(t, err)
		require.NoError(t, resp.Body.Close())
		assert.Equal(t, want, resp.StatusCode, path)
	}
	p.stops()
}

// A program that is killed while it brings the tables up to date leaves them so
// that the next one does.
func TestKilledInTheMiddleOfAMigration(t *testing.T) {
	if testing.Short() {
		t.Skip("takes long")
	}
	t.Parallel()
	cluster, err := pgcluster.StartThrowaway(t.Context())
	require.NoError(t, err)
	defer func() { assert.NoError(t, cluster.Stop()) }()
	s, err := store.Open(t.Context(), cluster.URL)
	require.NoError(t, err)
	s.Close()
	pool, err := pgxpool.New(t.Context(), cluster.URL)
	require.NoError(t, err)
	defer pool.Close()
	require.NoError(t, store.MigrateDown(t.Context(), pool, 3))
	_, err = pool.Exec(t.Context(), `
		WITH p AS (INSERT INTO people (id, name, role) VALUES (gen_random_uuid(), 'Ann', 'student') RETURNING id),
		     d AS (INSERT INTO drills (id) VALUES (gen_random_uuid()) RETURNING id),
		     v AS (INSERT INTO drill_versions (drill_id, version, file) SELECT id, 1, '{"drill": {"name": "x"}, "ladder": {}}' FROM d),
		     a AS (INSERT INTO assignments (id, drill_id, student_id) SELECT gen_random_uuid(), d.id, p.id FROM d, p RETURNING id)
		INSERT INTO takes (id, assignment_id, bpm, source, recorded_at, seconds, chart, analysis, decision)
		SELECT gen_random_uuid(), a.id, 60, 'file', now(), 1, '{"name": "x"}', '{"passes": null}', '{"step": "hold"}' FROM a, generate_series(1, 20000);
		INSERT INTO take_sounds (take_id, flac) SELECT id, repeat('sound', 2000)::bytea FROM takes`)
	require.NoError(t, err)
	for n := range 8 {
		p := begin(t, ownFolder(t), []string{"DATABASE_URL=" + cluster.URL}, "work")
		time.Sleep(time.Duration(100+90*n) * time.Millisecond)
		p.signal(syscall.SIGKILL)
		_ = p.ends()
	}
	s, err = store.Open(t.Context(), cluster.URL)
	require.NoError(t, err)
	defer s.Close()
	var takes, sounds int
	require.NoError(t, pool.QueryRow(t.Context(), `SELECT (SELECT count(*) FROM takes WHERE drill_name = 'x'), (SELECT count(*) FROM sound_parts)`).Scan(&takes, &sounds))
	assert.Equal(t, []int{20000, 20000}, []int{takes, sounds})
}

// What was backed up is there again, sounds too, in another place.
func TestBackedUpAndRestored(t *testing.T) {
	if testing.Short() {
		t.Skip("takes long")
	}
	t.Parallel()
	data, elsewhere := ownFolder(t), ownFolder(t)
	p := servingOn(t, data)
	s := opened(t, p)
	for n := range 6 {
		s.handIn(uuid.New(), n+1)
	}
	file := filepath.Join(t.TempDir(), "studio.backup")
	run := func(data string, args ...string) error {
		b := begin(t, data, nil, args...)
		err := b.ends()
		if err != nil {
			return errors.New(b.words())
		}
		return nil
	}
	require.NoError(t, run(data, "backup", file), "while the server runs")
	s.allIsThere()
	want := soundOf(t, s.student, s.commented)
	isThere := func(v *visitor) {
		t.Helper()
		for id := range s.takes {
			status, err := v.ask(http.MethodGet, "/takes/"+id.String(), nil, nil)
			require.NoError(t, err)
			assert.Equal(t, http.StatusOK, status)
		}
		assert.Equal(t, want, soundOf(t, v, s.commented))
	}
	p.stops()

	require.NoError(t, run(elsewhere, "restore", file))
	p = servingOn(t, elsewhere)
	v := visiting(t, p.base)
	v.signsIn()
	isThere(v)
	p.stops()

	err := run(elsewhere, "restore", file)
	require.Error(t, err)
	assert.Contains(t, err.Error(), "there is a studio here already")
	require.NoError(t, run(elsewhere, "restore", "--replace", file))

	// A backup of an older Manudrill, whose tables are fewer, is brought up to date.
	require.NoError(t, run(elsewhere, "rollback", "5"))
	older := filepath.Join(t.TempDir(), "older.backup")
	require.NoError(t, run(elsewhere, "backup", older))
	third := ownFolder(t)
	require.NoError(t, run(third, "restore", older))
	p = servingOn(t, third)
	v = visiting(t, p.base)
	v.begins(p) // who could sign in is not in the older form: the studio is taken over
	isThere(v)
	p.stops()

	require.NoError(t, run(elsewhere, "rollback", "4"))
	err = run(elsewhere, "rollback", "here")
	require.Error(t, err)
	assert.Contains(t, err.Error(), "is no version of the tables")
}

func soundOf(t *testing.T, v *visitor, take uuid.UUID) []byte {
	t.Helper()
	resp, err := v.http.Get(v.base + "/api/takes/" + take.String() + "/sound")
	require.NoError(t, err)
	defer resp.Body.Close()
	var b bytes.Buffer
	_, err = b.ReadFrom(resp.Body)
	require.NoError(t, err)
	require.Equal(t, http.StatusOK, resp.StatusCode)
	return b.Bytes()
}

package jobs_test

import (
	"bytes"
	"context"
	"os"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill"
	"manudrill/core/guitar"
	"manudrill/core/simulate"
	"manudrill/core/tempo"
	"manudrill/formats/drillfile"
	"manudrill/formats/sound"
	"manudrill/server/jobs"
	"manudrill/store"
	"manudrill/storetest"
)

var (
	s   *store.Store
	ann = store.Person{ID: uuid.New(), Name: "Ann", Role: store.Student}
)

func TestMain(m *testing.M) {
	os.Exit(storetest.Main(m, func(opened *store.Store) { s = opened }, ann))
}

// handedIn hands in a take of a drill of its own with the job to measure it.
func handedIn(t *testing.T) uuid.UUID {
	t.Helper()
	d := drill.New("pairs", drill.SlurCombinations{Combinations: [][]int{{1, 3}}, Slur: drill.HammerOns})
	file := drillfile.File{Drill: d, Ladder: tempo.Usual()}
	drillID, take := uuid.New(), uuid.New()
	require.NoError(t, s.AddDrill(in(t), drillID, file, store.Shelf{}))
	assignment, err := s.Assign(in(t), drillID, ann.ID)
	require.NoError(t, err)
	chart, err := d.Chart(guitar.Standard(), 120)
	require.NoError(t, err)
	_, samples, err := simulate.Player{Seed: 3, MotorMs: 2}.Take(chart)
	require.NoError(t, err)
	wav := sound.FromMono(simulate.Rate, samples).EncodeWAV()
	queue, err := jobs.NewQueue(s)
	require.NoError(t, err)
	require.NoError(t, s.HandIn(in(t), store.HandIn{
		ID: take, AssignmentID: assignment, Version: 1, Rung: tempo.Rung{BPM: 120, NotesPerBeat: 2}, Source: store.File, RecordedAt: time.Now(), Chart: chart, Sound: bytes.NewReader(wav), Hash: take[:],
	}, func(tx pgx.Tx) error { return queue.Measure(in(t), tx, take) }))
	return take
}

func working(t *testing.T) {
	t.Helper()
	w, err := jobs.Start(in(t), s, nil)
	require.NoError(t, err)
	t.Cleanup(func() { assert.NoError(t, w.Stop(context.Background())) })
}

func becomes(t *testing.T, take uuid.UUID, state string) store.TakeSummary {
	t.Helper()
	require.Eventually(t, func() bool {
		is, err := s.TakeState(in(t), take)
		return err == nil && is == state
	}, time.Minute, 20*time.Millisecond)
	summary, err := s.TakeSummary(in(t), take)
	require.NoError(t, err)
	return summary
}

// left marks a take's job as running under a worker that is no longer there.
func left(t *testing.T, take uuid.UUID, attempt int) {
	t.Helper()
	tag, err := s.Pool().Exec(in(t), `UPDATE river_job SET state = 'running', attempted_at = now(), attempted_by = '{gone}', attempt = $2 WHERE args->>'takeId' = $1`, take.String(), attempt)
	require.NoError(t, err)
	require.EqualValues(t, 1, tag.RowsAffected())
}

func TestATakeIsMeasuredOnceItIsHandedIn(t *testing.T) {
	take := handedIn(t)
	working(t)
	measured := becomes(t, take, store.Measured)
	assert.Positive(t, measured.Seconds)
	kept, err := s.Sound(in(t), take)
	require.NoError(t, err)
	start := make([]byte, 4)
	_, err = kept.Read(start)
	require.NoError(t, err)
	assert.Equal(t, "fLaC", string(start), "kept as FLAC from then on")
}

// The job of a worker that was killed is taken up by another, soon.
func TestWhatADeadWorkerLeavesIsTakenUp(t *testing.T) {
	before, after := handedIn(t), handedIn(t)
	left(t, before, 1)
	working(t)
	becomes(t, before, store.Measured)
	becomes(t, after, store.Measured)
	later := handedIn(t)
	becomes(t, later, store.Measured)
}

// A job that has ended as many workers as it may be tried ends no more of them,
// and its take says so.
func TestAJobThatEndsItsWorkersIsGivenUp(t *testing.T) {
	take := handedIn(t)
	left(t, take, 5)
	working(t)
	failed := becomes(t, take, store.Failed)
	assert.Contains(t, *failed.Failure, "The recording is kept")
}

// A job whose worker lives is left to it, however long it takes.
func TestALivingWorkerIsLeftAlone(t *testing.T) {
	take := handedIn(t)
	working(t)
	becomes(t, take, store.Measured)
	var by string
	require.Eventually(t, func() bool { // the queue notes that it is done a little later
		return s.Pool().QueryRow(in(t), `SELECT attempted_by[1] FROM river_job WHERE state = 'completed' AND args->>'takeId' = $1`, take.String()).Scan(&by) == nil
	}, time.Minute, 20*time.Millisecond)
	_, err := s.Pool().Exec(in(t), `UPDATE river_job SET state = 'running', finalized_at = NULL WHERE args->>'takeId' = $1`, take.String())
	require.NoError(t, err)
	working(t) // which looks about as it starts
	var state string
	require.NoError(t, s.Pool().QueryRow(in(t), `SELECT state FROM river_job WHERE args->>'takeId' = $1`, take.String()).Scan(&state))
	assert.Equal(t, "running", state, "it runs under %s", by)
	_, err = s.Pool().Exec(in(t), `DELETE FROM river_job WHERE args->>'takeId' = $1`, take.String())
	require.NoError(t, err)
}

// in is the test's context, in which its studio is asked.
func in(t *testing.T) context.Context { return storetest.In(t.Context()) }

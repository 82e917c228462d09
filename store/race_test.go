package store_test

import (
	"bytes"
	"context"
	"errors"
	"io"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/guitar"
	"manudrill/core/tempo"
	"manudrill/formats/drillfile"
	"manudrill/store"
)

// atOnce does all things at the same time and returns what went wrong besides
// what may: a thing that is gone, or was changed by another.
func atOnce(things ...func() error) error {
	faults := make([]error, len(things))
	start := make(chan struct{})
	var wg sync.WaitGroup
	for i, do := range things {
		wg.Go(func() {
			<-start
			if err := do(); !errors.Is(err, store.ErrNotFound) && !errors.Is(err, store.ErrChanged) {
				faults[i] = err
			}
		})
	}
	close(start)
	wg.Wait()
	return errors.Join(faults...)
}

// Whatever is done at the same moment as a drill is deleted, no live assignment of
// it is left, and nothing fails in a way that nobody expects.
func TestNothingLivesOnOfADeletedDrill(t *testing.T) {
	s := own(t)
	for range 40 {
		id := added(t, s, store.Shelf{})
		a, err := s.Assign(in(t), id, ben.ID)
		require.NoError(t, err)
		require.NoError(t, atOnce(
			func() error { _, err := s.Assign(in(t), id, ann.ID); return err },
			func() error { return s.DeleteDrill(in(t), id) },
			func() error { return s.ChangeDrill(in(t), id, 1, fileAt(8)) },
			func() error { return s.GiveNewest(in(t), a) },
			func() error { return handIn(t, s, a) },
			func() error { return s.Unassign(in(t), a) },
			func() error { return s.Reassign(in(t), a) },
		))
		var live int
		require.NoError(t, s.Pool().QueryRow(in(t), `SELECT count(*) FROM assignments WHERE drill_id = $1 AND ended_at IS NULL`, id).Scan(&live))
		assert.Zero(t, live)
	}
}

// handIn hands in a take of what lies on the stand just now.
func handIn(t *testing.T, s *store.Store, assignment uuid.UUID) error {
	a, err := s.Stand(in(t), assignment)
	if err != nil {
		return err
	}
	chart, err := a.File.Value.Drill.Chart(guitar.Standard(), 60)
	if err != nil {
		return err
	}
	id := uuid.New()
	return s.HandIn(in(t), store.HandIn{
		ID: id, AssignmentID: a.ID, Version: a.Version, Rung: tempo.Rung{BPM: 60, NotesPerBeat: 2}, Source: store.File, RecordedAt: time.Now(), Chart: chart, Sound: strings.NewReader("x"), Hash: id[:],
	}, nothing)
}

// A version that was played is the same ever after, also where the drill is changed
// while the take comes in.
func TestAPlayedVersionIsNeverChanged(t *testing.T) {
	s := own(t)
	for range 40 {
		id := added(t, s, store.Shelf{})
		a, err := s.Assign(in(t), id, ann.ID)
		require.NoError(t, err)
		require.NoError(t, atOnce(
			func() error { return handIn(t, s, a) },
			func() error { return s.ChangeDrill(in(t), id, 1, fileAt(8)) },
			func() error { return handIn(t, s, a) },
		))
		takes, err := s.Takes(in(t), &a, nil, store.Page{})
		require.NoError(t, err)
		require.Len(t, takes, 2)
		for _, summary := range takes {
			take, err := s.Take(in(t), summary.ID)
			require.NoError(t, err)
			file, err := s.Version(in(t), id, take.Version)
			require.NoError(t, err)
			assert.Equal(t, file.Value.Drill.Path.Position, take.Chart.Notes[0].Fret, "version %d", take.Version)
		}
	}
}

// Of two who save the same revision, one is told.
func TestTheSecondOfTwoChangesIsTold(t *testing.T) {
	s := own(t)
	for range 20 {
		id := added(t, s, store.Shelf{})
		var mu sync.Mutex
		changed := 0
		save := func(position int) func() error {
			return func() error {
				err := s.ChangeDrill(in(t), id, 1, fileAt(position))
				if errors.Is(err, store.ErrChanged) {
					mu.Lock()
					changed++
					mu.Unlock()
				}
				return err
			}
		}
		require.NoError(t, atOnce(save(7), save(9)))
		assert.Equal(t, 1, changed)
		d, err := s.Drill(in(t), id)
		require.NoError(t, err)
		assert.Equal(t, 2, d.Revision)
	}
}

// Two clicks at the same moment make one of everything.
func TestADoubleClickMakesOne(t *testing.T) {
	s := own(t)
	for range 20 {
		drill, block, remedy := uuid.New(), uuid.New(), uuid.New()
		add := func() error { return s.AddDrill(in(t), drill, fileAt(5), store.Shelf{}) }
		addBlock := func() error {
			return s.AddBlock(in(t), block, drillfile.Block{Name: "two"})
		}
		addRemedy := func() error {
			_, err := s.AddRemedy(in(t), remedy, fileAt(5), store.Shelf{}, ann.ID)
			return err
		}
		require.NoError(t, atOnce(add, add, addBlock, addBlock, addRemedy, addRemedy))
		versions, err := s.Versions(in(t), drill, nil)
		require.NoError(t, err)
		assert.Len(t, versions, 1)
		given, err := s.Assignments(in(t), nil, &remedy, store.Page{})
		require.NoError(t, err)
		assert.Len(t, given, 1)
		assign := func() error { _, err := s.Assign(in(t), drill, ben.ID); return err }
		require.NoError(t, atOnce(assign, assign, assign))
		given, err = s.Assignments(in(t), nil, &drill, store.Page{})
		require.NoError(t, err)
		assert.Len(t, given, 1)
		require.NoError(t, s.DeleteBlock(in(t), block))
	}
}

// What was taken back or deleted comes back with all that hung on it.
func TestWhatWasTakenBackComesBack(t *testing.T) {
	s := own(t)
	drill := added(t, s, store.Shelf{})
	a, err := s.Assign(in(t), drill, ann.ID)
	require.NoError(t, err)
	playedAs(t, s, a, 60, noon, clean(60, 2))
	require.InDelta(t, 64, bpm(t, s, a), 0)

	require.NoError(t, s.Unassign(in(t), a))
	assert.ErrorIs(t, s.Unassign(in(t), a), store.ErrNotFound)
	assert.Contains(t, inBin(t, s), a)
	again, err := s.Assign(in(t), drill, ann.ID)
	require.NoError(t, err)
	assert.Equal(t, a, again, "assigned again, the student stands where they stood")
	assert.InDelta(t, 64, bpm(t, s, again), 0)
	require.NoError(t, s.Unassign(in(t), a))
	require.NoError(t, s.Reassign(in(t), a))
	assert.NotContains(t, inBin(t, s), a)

	b, err := s.Assign(in(t), drill, ben.ID)
	require.NoError(t, err)
	require.NoError(t, s.Unassign(in(t), b))
	require.NoError(t, s.DeleteDrill(in(t), drill))
	bin := inBin(t, s)
	assert.Contains(t, bin, drill)
	assert.NotContains(t, bin, a, "it comes back with its drill")
	require.NoError(t, s.RestoreDrill(in(t), drill))
	given, err := s.Assignments(in(t), nil, &drill, store.Page{})
	require.NoError(t, err)
	require.Len(t, given, 1, "what was taken back before stays so")
	assert.Equal(t, a, given[0].ID)

	require.NoError(t, s.DeleteDrill(in(t), drill))
	_, err = s.Pool().Exec(in(t), `UPDATE drills SET deleted_at = deleted_at - interval '31 days' WHERE id = $1`, drill)
	require.NoError(t, err)
	assert.NotContains(t, inBin(t, s), drill)
	assert.ErrorIs(t, s.RestoreDrill(in(t), drill), store.ErrNotFound, "after 30 days it is gone")
}

func inBin(t *testing.T, s *store.Store) []uuid.UUID {
	t.Helper()
	bin, err := s.Bin(in(t), store.Page{})
	require.NoError(t, err)
	var ids []uuid.UUID
	for _, b := range bin {
		ids = append(ids, b.ID)
	}
	return ids
}

// A hand-in of which the sound comes in slowly keeps nobody waiting: neither the
// instructor who changes the drill nor another take of it.
func TestALongSoundHoldsNobodyUp(t *testing.T) {
	s := own(t)
	id := added(t, s, store.Shelf{})
	a, err := s.Assign(in(t), id, ann.ID)
	require.NoError(t, err)
	stand, err := s.Stand(in(t), a)
	require.NoError(t, err)
	chart, err := stand.File.Value.Drill.Chart(guitar.Standard(), 60)
	require.NoError(t, err)
	sound, rest := io.Pipe()
	done := make(chan error)
	slow := uuid.New()
	go func() {
		done <- s.HandIn(in(t), store.HandIn{
			ID: slow, AssignmentID: a, Version: 1, Rung: tempo.Rung{BPM: 60, NotesPerBeat: 2}, Source: store.File, RecordedAt: time.Now(), Chart: chart, Sound: sound, Hash: slow[:],
		}, nothing)
	}()
	_, err = rest.Write([]byte("the beginning"))
	require.NoError(t, err)
	require.NoError(t, handIn(t, s, a))
	require.NoError(t, s.ChangeDrill(in(t), id, 1, fileAt(9)))
	require.NoError(t, s.Unassign(in(t), a))
	_, err = s.Assign(in(t), id, ann.ID)
	require.NoError(t, err)
	require.NoError(t, rest.Close())
	require.NoError(t, <-done)
	stand, err = s.Stand(in(t), a)
	require.NoError(t, err)
	assert.Equal(t, 2, stand.Takes)
}

// A hand-in that is broken off anywhere can be handed in again at once: nothing of
// the first still holds the take.
func TestABrokenHandInIsHandedInAgain(t *testing.T) {
	s := own(t)
	a := assignedTo(t, s, ann)
	stand, err := s.Stand(in(t), a)
	require.NoError(t, err)
	chart, err := stand.File.Value.Drill.Chart(guitar.Standard(), 60)
	require.NoError(t, err)
	sound := make([]byte, 3<<20) // more than a connection takes at once
	broken := 0
	for n := range 24 {
		id := uuid.New()
		hand := func(ctx context.Context) error {
			return s.HandIn(ctx, store.HandIn{
				ID: id, AssignmentID: a, Version: 1, Rung: tempo.Rung{BPM: 60, NotesPerBeat: 2}, Source: store.File, RecordedAt: noon, Chart: chart, Sound: bytes.NewReader(sound), Hash: id[:],
			}, nothing)
		}
		ctx, cancel := context.WithTimeout(in(t), time.Duration(n)*800*time.Microsecond)
		if hand(ctx) != nil {
			broken++
		}
		cancel()
		if err := hand(in(t)); !store.IsKept(err) {
			require.NoError(t, err)
		}
	}
	assert.Positive(t, broken)
}

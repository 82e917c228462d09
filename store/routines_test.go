package store_test

import (
	"errors"
	"fmt"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/practice"
	"manudrill/store"
)

// of is a routine of one drill.
func of(drill uuid.UUID, name string) practice.Routine {
	return practice.Routine{Name: name, Items: []practice.Item{
		{Kind: practice.Play, Drill: drill.String(), Enough: &practice.Enough{By: practice.ByTakes, Count: 3}}, {Kind: practice.Rest, Seconds: 30},
	}}
}

func TestARoutineGivesItsDrills(t *testing.T) {
	s := own(t)
	ctx := in(t)
	id, drill := uuid.New(), added(t, s, store.Shelf{})
	require.NoError(t, s.PutRoutine(ctx, id, ann.ID, 0, of(drill, "Monday"), []uuid.UUID{drill}))
	stands, err := s.StandsOf(ctx, ann.ID, []uuid.UUID{drill, uuid.New()})
	require.NoError(t, err)
	require.Len(t, stands, 1)
	assert.Equal(t, drill, stands[0].DrillID)

	// Sent again it is the same; from an older revision it is refused.
	require.NoError(t, s.PutRoutine(ctx, id, ann.ID, 0, of(drill, "Monday"), []uuid.UUID{drill}))
	require.NoError(t, s.PutRoutine(ctx, id, ann.ID, 1, of(drill, "Tuesday"), []uuid.UUID{drill}))
	assert.ErrorIs(t, s.PutRoutine(ctx, id, ann.ID, 1, of(drill, "Wednesday"), []uuid.UUID{drill}), store.ErrChanged)
	assert.ErrorIs(t, s.PutRoutine(ctx, id, ben.ID, 2, of(drill, "Ben's"), []uuid.UUID{drill}), store.ErrNotFound, "it is Ann's")
	kept, err := s.Routine(ctx, id)
	require.NoError(t, err)
	assert.Equal(t, "Tuesday", kept.Routine.Value.Name)
	assert.Equal(t, 2, kept.Revision)

	require.NoError(t, s.DeleteRoutine(ctx, id))
	_, err = s.Routine(ctx, id)
	assert.ErrorIs(t, err, store.ErrNotFound)
	assert.ErrorIs(t, s.DeleteRoutine(ctx, id), store.ErrNotFound)
	require.NoError(t, s.RestoreRoutine(ctx, id))
	again, err := s.Routine(ctx, id)
	require.NoError(t, err)
	assert.Equal(t, kept, again)
}

// A routine whose drill is gone is not made, and neither is half of it.
func TestARoutineOfADrillThatIsGone(t *testing.T) {
	s := own(t)
	ctx := in(t)
	id, here, gone := uuid.New(), added(t, s, store.Shelf{}), added(t, s, store.Shelf{})
	require.NoError(t, s.DeleteDrill(ctx, gone))
	assert.ErrorIs(t, s.PutRoutine(ctx, id, ben.ID, 0, of(gone, "x"), []uuid.UUID{here, gone}), store.ErrNotFound)
	_, err := s.Routine(ctx, id)
	assert.ErrorIs(t, err, store.ErrNotFound)
	stands, err := s.StandsOf(ctx, ben.ID, []uuid.UUID{here})
	require.NoError(t, err)
	assert.Empty(t, stands)
}

// Whatever is done to a routine at the same moment, it is changed once from each
// revision, and none of those who do it wait for each other in a ring.
func TestTwoChangeARoutineAtOnce(t *testing.T) {
	s := own(t)
	ctx := in(t)
	for range 20 {
		id, drill := uuid.New(), added(t, s, store.Shelf{})
		require.NoError(t, s.PutRoutine(ctx, id, ann.ID, 0, of(drill, "first"), []uuid.UUID{drill}))
		changed := make([]bool, 4)
		var things []func() error
		for i := range changed {
			things = append(things, func() error {
				err := s.PutRoutine(ctx, id, ann.ID, 1, of(drill, fmt.Sprint("change ", i)), []uuid.UUID{drill})
				changed[i] = err == nil
				return err
			})
		}
		things = append(things, func() error { return s.DeleteDrill(ctx, drill) }, func() error {
			return s.AddRoutine(ctx, uuid.New(), ann.ID, of(drill, "brought"), []store.NewDrill{{ID: drill, File: fileAt(7)}})
		})
		require.NoError(t, atOnce(things...))
		n := 0
		for _, did := range changed {
			if did {
				n++
			}
		}
		assert.LessOrEqual(t, n, 1, "one may have come before the drill was deleted")
		require.NoError(t, clearRoutines(ann.ID, t, s))
	}
}

func clearRoutines(student uuid.UUID, t *testing.T, s *store.Store) error {
	all, err := s.Routines(in(t), student)
	for _, r := range all {
		err = errors.Join(err, s.DeleteRoutine(in(t), r.ID))
	}
	return err
}

// However many at once, a student has no more routines than fit one answer.
func TestNoMoreRoutinesThanFit(t *testing.T) {
	s := own(t)
	ctx := in(t)
	drill := added(t, s, store.Shelf{})
	put := func() error {
		return s.PutRoutine(ctx, uuid.New(), ben.ID, 0, of(drill, "one of many"), []uuid.UUID{drill})
	}
	for range store.MaxRoutines - 1 {
		require.NoError(t, put())
	}
	full := 0
	faults := make(chan error, 4)
	for range cap(faults) {
		go func() { faults <- put() }()
	}
	for range cap(faults) {
		if err := <-faults; err != nil {
			require.ErrorIs(t, err, store.ErrTooMany)
			full++
		}
	}
	assert.Equal(t, 3, full)
	require.NoError(t, clearRoutines(ben.ID, t, s))
}

// A routine is brought back by no second way around the bound on how many there are.
func TestARoutineComesBackOnlyWhereThereIsRoom(t *testing.T) {
	s := own(t)
	ctx := in(t)
	drill, first := added(t, s, store.Shelf{}), uuid.New()
	require.NoError(t, s.PutRoutine(ctx, first, ben.ID, 0, of(drill, "first"), []uuid.UUID{drill}))
	require.NoError(t, s.DeleteRoutine(ctx, first))
	for range store.MaxRoutines {
		require.NoError(t, s.PutRoutine(ctx, uuid.New(), ben.ID, 0, of(drill, "one of many"), []uuid.UUID{drill}))
	}
	assert.ErrorIs(t, s.RestoreRoutine(ctx, first), store.ErrTooMany)
	require.NoError(t, clearRoutines(ben.ID, t, s))
	require.NoError(t, s.RestoreRoutine(ctx, first))
	require.NoError(t, clearRoutines(ben.ID, t, s))
}

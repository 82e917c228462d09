package store_test

import (
	"context"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/practice"
	"manudrill/core/tempo"
	"manudrill/store"
	"manudrill/storetest"
)

func newStudent(t *testing.T, s *store.Store) store.Person {
	t.Helper()
	p := store.Person{ID: uuid.New(), Name: "Rill", Role: store.Student, Demo: true}
	require.NoError(t, s.AddPerson(storetest.In(t.Context()), p))
	t.Cleanup(func() { assert.NoError(t, s.Archive(context.WithoutCancel(in(t)), p.ID)) }) // off the lists
	return p
}

var hurt = practice.HandReport{Kind: practice.IsHurt}

// Reported pain stops every ladder from climbing, from when it was said on, until an
// instructor clears it; what is withdrawn has stopped nothing.
func TestPainStopsTheLadder(t *testing.T) {
	s := own(t)
	rill := newStudent(t, s)
	a := assignedTo(t, s, rill)
	before := playedAs(t, s, a, 60, noon, clean(60, 2))
	assert.Equal(t, tempo.Up, before.Decision.Step)

	report := uuid.New()
	require.NoError(t, s.AddHandReport(in(t), report, rill.ID, noon.Add(time.Minute), hurt))
	after := playedAs(t, s, a, 64, noon.Add(2*time.Minute), clean(64, 2))
	assert.Equal(t, tempo.Hold, after.Decision.Step)
	assert.Contains(t, after.Decision.Reason, "you have reported pain")
	assert.InDelta(t, 64, bpm(t, s, a), 0)
	hurts, err := s.Hurts(in(t), rill.ID)
	require.NoError(t, err)
	assert.True(t, hurts)
	pupil, err := s.Pupil(in(t), rill.ID)
	require.NoError(t, err)
	assert.WithinDuration(t, noon.Add(time.Minute), *pupil.HurtSince, 0)

	// Said again it is said once, with where it aches; another student can neither change
	// it nor take it back.
	wrist := practice.HandReport{Kind: practice.IsHurt, Aches: []practice.Place{"wrist"}}
	require.NoError(t, s.AddHandReport(in(t), report, rill.ID, noon.Add(time.Hour), wrist))
	reports, err := s.HandReports(in(t), rill.ID, store.Page{})
	require.NoError(t, err)
	require.Len(t, reports, 1)
	assert.Equal(t, wrist, reports[0].Report.Value)
	assert.WithinDuration(t, noon.Add(time.Minute), reports[0].At, 0)
	assert.ErrorIs(t, s.AddHandReport(in(t), report, ben.ID, noon, hurt), store.ErrNotFound)
	assert.ErrorIs(t, s.WithdrawHandReport(in(t), report, ben.ID), store.ErrNotFound)

	// Pressed by mistake: the take climbs after all.
	require.NoError(t, s.WithdrawHandReport(in(t), report, rill.ID))
	again, err := s.TakeSummary(in(t), after.ID)
	require.NoError(t, err)
	assert.Equal(t, tempo.Up, again.Decision.Step)
	assert.InDelta(t, 68, bpm(t, s, a), 0)

	// A report that comes late, from a device without a line, counts from when it was said.
	require.NoError(t, s.AddHandReport(in(t), uuid.New(), rill.ID, noon.Add(90*time.Second), hurt))
	assert.InDelta(t, 64, bpm(t, s, a), 0)

	require.NoError(t, s.ClearPain(in(t), rill.ID))
	assert.InDelta(t, 64, bpm(t, s, a), 0, "what was decided meanwhile stays")
	next := playedAs(t, s, a, 64, time.Now().Add(time.Second), clean(64, 2))
	assert.Equal(t, tempo.Up, next.Decision.Step)
}

// Pain that is reported while a take is measured stops it, whichever comes first.
func TestPainWhileATakeIsMeasured(t *testing.T) {
	s := own(t)
	for range 20 {
		rill := newStudent(t, s)
		a := assignedTo(t, s, rill)
		var wg sync.WaitGroup
		start := make(chan struct{})
		wg.Go(func() { <-start; playedAs(t, s, a, 60, noon.Add(time.Minute), clean(60, 2)) })
		wg.Go(func() {
			<-start
			assert.NoError(t, s.AddHandReport(in(t), uuid.New(), rill.ID, noon, hurt))
		})
		close(start)
		wg.Wait()
		assert.InDelta(t, 60, bpm(t, s, a), 0)
	}
}

// Minutes by week, by hand: two takes of ten seconds this week, of which three and five
// are slurs; a try-out and a take of long ago count for nothing.
func TestTheLoadOfWeeks(t *testing.T) {
	s := own(t)
	rill := newStudent(t, s)
	a := assignedTo(t, s, rill)
	monday := time.Now().UTC().AddDate(0, 0, -int(time.Now().UTC().Weekday()+6)%7).Truncate(24 * time.Hour)
	measured := func(at time.Time, slur float64) {
		take := playedAs(t, s, a, 60, at, clean(60, 1))
		require.NoError(t, s.Measured(in(t), take.ID, store.Measurement{Analysis: clean(60, 1), Seconds: 10, SlurSeconds: slur, Listener: 3}))
	}
	measured(monday.Add(time.Minute), 3)
	measured(monday.Add(2*time.Minute), 5)
	measured(monday.AddDate(0, 0, -70), 10)
	weeks, err := s.Load(in(t), rill.ID)
	require.NoError(t, err)
	require.Len(t, weeks, 1)
	assert.WithinDuration(t, monday, weeks[0].Begins, 0)
	assert.Equal(t, 2, weeks[0].Takes)
	assert.InDelta(t, 20, weeks[0].Seconds, 0)
	assert.InDelta(t, 8, weeks[0].SlurSeconds, 0)
}

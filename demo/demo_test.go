package demo_test

import (
	"context"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/demo"
	"manudrill/store"
	"manudrill/storetest"
)

func TestTheDemoStudio(t *testing.T) {
	s, closeStore, err := storetest.Open(t.Context())
	require.NoError(t, err)
	t.Cleanup(func() { assert.NoError(t, closeStore()) })
	now := time.Date(2026, 5, 4, 12, 0, 0, 0, time.UTC)
	told := 0
	require.NoError(t, demo.Load(t.Context(), s, 1, now, func(done, all int) { told = max(told, done) }))

	in := store.Within(t.Context(), store.Scope{Studio: demo.Studio})
	people, err := s.People(in, nil)
	require.NoError(t, err)
	assert.Len(t, people, 6)
	for _, p := range people {
		assert.True(t, p.Demo, "%s must be labelled as demo", p.Name)
	}
	takes, err := s.Takes(in, nil, nil, store.Page{})
	require.NoError(t, err)
	assert.Len(t, takes, told)
	for _, summary := range takes {
		take, err := s.Take(in, summary.ID)
		require.NoError(t, err)
		assert.False(t, take.Analysis.Foreign)
		assert.GreaterOrEqual(t, take.Analysis.Counts.Played, take.Analysis.Counts.Expected*8/10)
		assert.True(t, take.RecordedAt.Before(now), "takes lie in the past")
		assert.NotEmpty(t, take.Decision.Reason)
	}

	require.NoError(t, demo.Load(t.Context(), s, 1, now, func(int, int) {}))
	again, err := s.Takes(in, nil, nil, store.Page{})
	require.NoError(t, err)
	assert.Equal(t, takes, again, "a studio with people is left as it is")
}

// A demo whose making was cut off is made to its end, and is the same as one made
// in one go.
func TestTheDemoIsMadeToItsEnd(t *testing.T) {
	whole, closeWhole, err := storetest.Open(t.Context())
	require.NoError(t, err)
	t.Cleanup(func() { assert.NoError(t, closeWhole()) })
	cut, closeCut, err := storetest.Open(t.Context())
	require.NoError(t, err)
	t.Cleanup(func() { assert.NoError(t, closeCut()) })
	now := time.Date(2026, 5, 4, 12, 0, 0, 0, time.UTC)
	require.NoError(t, demo.Load(t.Context(), whole, 1, now, func(int, int) {}))

	ctx, cancel := context.WithCancel(t.Context())
	err = demo.Load(ctx, cut, 1, now, func(done, _ int) {
		if done == 5 {
			cancel()
		}
	})
	require.ErrorIs(t, err, context.Canceled)
	require.NoError(t, demo.Load(t.Context(), cut, 1, now.Add(48*time.Hour), func(int, int) {}))
	in := store.Within(t.Context(), store.Scope{Studio: demo.Studio})
	want, err := whole.Takes(in, nil, nil, store.Page{})
	require.NoError(t, err)
	got, err := cut.Takes(in, nil, nil, store.Page{})
	require.NoError(t, err)
	require.Len(t, got, len(want))
	for i := range want {
		want[i].HandedInAt, got[i].HandedInAt = now, now
		want[i].AssignmentID, got[i].AssignmentID = uuid.Nil, uuid.Nil // which are made anew
	}
	assert.Equal(t, want, got)
}

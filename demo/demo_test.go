package demo_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/demo"
	"manudrill/storetest"
)

func TestTheDemoStudio(t *testing.T) {
	s, closeStore, err := storetest.Open(t.Context())
	require.NoError(t, err)
	t.Cleanup(func() { assert.NoError(t, closeStore()) })
	now := time.Date(2026, 5, 4, 12, 0, 0, 0, time.UTC)
	told := 0
	require.NoError(t, demo.Load(t.Context(), s, 1, now, func(done, all int) { told = max(told, done) }))

	people, err := s.People(t.Context())
	require.NoError(t, err)
	assert.Len(t, people, 5)
	for _, p := range people {
		assert.True(t, p.Demo, "%s must be labelled as demo", p.Name)
	}
	takes, err := s.Takes(t.Context(), nil, nil)
	require.NoError(t, err)
	assert.Len(t, takes, told)
	for _, take := range takes {
		assert.False(t, take.Analysis.Foreign)
		assert.GreaterOrEqual(t, take.Analysis.Counts.Played, take.Analysis.Counts.Expected*8/10)
		assert.True(t, take.RecordedAt.Before(now), "takes lie in the past")
		assert.NotEmpty(t, take.Decision.Reason)
	}

	require.NoError(t, demo.Load(t.Context(), s, 1, now, func(int, int) {}))
	again, err := s.Takes(t.Context(), nil, nil)
	require.NoError(t, err)
	assert.Len(t, again, len(takes), "a studio with people is left as it is")
}

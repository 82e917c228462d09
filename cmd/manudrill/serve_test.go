package main

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/store"
	"manudrill/storetest"
)

func TestAnEmptyStudioHasSomebodyToBe(t *testing.T) {
	s, closeStore, err := storetest.Open(t.Context())
	require.NoError(t, err)
	t.Cleanup(func() { assert.NoError(t, closeStore()) })
	for range 2 { // the second start finds people
		require.NoError(t, openStudio(t.Context(), s))
	}
	people, err := s.People(t.Context(), nil)
	require.NoError(t, err)
	require.Len(t, people, 2)
	assert.Equal(t, []string{store.Instructor, store.Student}, []string{people[0].Role, people[1].Role})
}

package guitar_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/guitar"
)

// Distances by d(n) = L·(1 − 2^(−n/12)) on a 648 mm scale: from fret 1 to 5 it is
// 648·(2^(−1/12) − 2^(−5/12)) = 126.2 mm; from 12 to 16, 66.8 mm.
func TestReachSteps(t *testing.T) {
	steps := guitar.Standard().ReachSteps()
	require.Len(t, steps, 6)
	for i, pair := range guitar.Pairs {
		s := steps[i]
		assert.Equal(t, pair, s.Pair)
		assert.Equal(t, s.To-s.From+1, s.Frets)
		for k := 1; k < len(s.Places); k++ {
			assert.Greater(t, s.Places[k].MM, s.Places[k-1].MM, "each place is wider than the one before")
			assert.Equal(t, s.Places[k-1].Fret-1, s.Places[k].Fret)
		}
	}
	outer := steps[5]
	assert.Equal(t, "14", outer.Pair)
	assert.InDelta(t, 66.8, outer.Places[0].MM, 0.1)
	assert.InDelta(t, 126.2, outer.Places[11].MM, 0.1)
	short := guitar.Standard()
	short.Capo = short.Frets - 4
	assert.Empty(t, short.ReachSteps()[5].Places, "where there is no room, there is no place")
}

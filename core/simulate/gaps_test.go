package simulate_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Where each note is stopped before the next, at eleven a second, the next begins where
// it is played, not where the string is stopped 35 ms before.
func TestANoteBeginsWhereItIsPlayedNotWhereTheOneBeforeIsStopped(t *testing.T) {
	chart := bothWays(t, 112)
	for seed := range uint64(6) {
		p := usual(700 + seed)
		p.GapPercent, p.SlurDropDB, p.NoiseDB = 40, 3, -60
		a, strokes := measured(chart, p)
		require.Equal(t, len(strokes), a.Counts.Played)
		for i, n := range a.Notes {
			assert.InDelta(t, strokes[i].T, *n.T, 0.012, "seed %d, note %d", seed, i)
		}
	}
}

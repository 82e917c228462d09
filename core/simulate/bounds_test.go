package simulate_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"manudrill/core/bounds"
	"manudrill/core/drill"
	"manudrill/core/listen"
	"manudrill/core/simulate"
	"manudrill/memtest"
)

// A player who would play for days is told so before any sound is made.
func TestNoTakeIsLongerThanTheLongest(t *testing.T) {
	chart := chartOf(t, 90, drill.HammerOns, 2)
	slow := chart
	slow.BPM = 0.001
	for name, try := range map[string]func() error{
		"a slow player": func() error { _, _, err := simulate.Player{BPM: 0.001}.Take(chart); return err },
		"a slow chart":  func() error { _, _, err := simulate.Player{}.Take(slow); return err },
		"a late note": func() error {
			return simulate.Sounding([]listen.Note{{Onset: 1e9, End: 1e9 + 1, Pitch: 60}}, func([]float64) error { return nil })
		},
		"a chart": slow.Validate,
	} {
		memtest.AtMost(t, memtest.MB, name, func() { assert.ErrorIs(t, try(), bounds.ErrTakeTooLong, name) })
	}
	memtest.AtMost(t, memtest.MB, "a rendition", func() {
		_, err := simulate.Rendition(slow, true)
		assert.ErrorIs(t, err, bounds.ErrRenditionTooLong)
	})
}

// The sound of a long take is made piece by piece: notes lie where they were
// played, also the one that a player has forgotten to let go.
func TestALongSoundingIsMadeInPieces(t *testing.T) {
	notes := []listen.Note{{Onset: 1, End: 1.5, Pitch: 60}, {Onset: 1.5, End: 1150, Pitch: 62}, {Onset: 1150.25, End: 1151, Pitch: 64}}
	samples, loud := 0, map[int]bool{}
	memtest.AtMost(t, 16*memtest.MB, "a sounding", func() {
		assert.NoError(t, simulate.Sounding(notes, func(x []float64) error {
			for i, v := range x {
				if math.Abs(v) > 0.05 {
					loud[(samples+i)*4/simulate.Rate] = true
				}
			}
			samples += len(x)
			return nil
		}))
	})
	assert.InDelta(t, 1152, float64(samples)/simulate.Rate, 0.01)
	assert.True(t, loud[4] && loud[6] && loud[4601], "at 1, 1.5 and 1150.25 s")
	assert.False(t, loud[3] || loud[4000], "silence before, and once the string has rung out")
}

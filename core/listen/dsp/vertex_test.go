package dsp

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"
)

// A parabola through three points of a dip has its lowest point within half a step (by
// arithmetic). Of what is no dip it may lie anywhere: the lag that is told stays near, so that
// no pitch is told that is no number.
func TestThePlaceOfADipStaysBesideIt(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		lag := rapid.IntRange(1, 600).Draw(t, "lag")
		d := make([]float64, lag+2)
		for i := range d[lag-1:] {
			d[lag-1+i] = rapid.Float64Range(0, 3).Draw(t, "d")
		}
		if d[lag] <= d[lag-1] && d[lag] <= d[lag+1] {
			assert.LessOrEqual(t, math.Abs(vertex(d, lag)), 0.5)
		}
		assert.InDelta(t, float64(lag), between(d, lag), float64(lag)/8+1e-9)
	})
	assert.InDelta(t, 0.25, vertex([]float64{1.25 * 1.25, 0.0625, 0.75 * 0.75}, 1), 1e-12, "of (x−0.25)²")
}

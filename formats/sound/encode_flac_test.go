package sound

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/mewkiz/flac/frame"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// made are samples by a rule.
func made(n int, of func(i int) float64) []int32 {
	x := make([]int32, n)
	for i := range x {
		x[i] = int32(math.Round(of(i)))
	}
	return x
}

// The fixed predictors foretell polynomials of a degree below their order exactly (RFC
// 9639, 9.2.5).
func TestTheFixedPredictorIsTheOneThatLeavesTheLeast(t *testing.T) {
	rng := rand.New(rand.NewPCG(1, 2))
	for name, c := range map[string]struct {
		samples []int32
		order   int
	}{
		"noise":     {made(500, func(int) float64 { return 300 * rng.NormFloat64() }), 0},
		"constant":  {made(500, func(int) float64 { return 77 }), 1},
		"line":      {made(500, func(i int) float64 { return 3*float64(i) - 500 }), 2},
		"parabola":  {made(500, func(i int) float64 { return float64(i*i) - 9*float64(i) }), 3},
		"cubic":     {made(500, func(i int) float64 { return float64(i*i*i)/1 - 7*float64(i) }), 4},
		"slow sine": {made(4096, func(i int) float64 { return 8000 * math.Sin(float64(i)/40) }), 3},
	} {
		h := predictedBy(c.samples)
		assert.Equal(t, frame.PredFixed, h.Pred, name)
		assert.Equal(t, c.order, h.Order, name)
	}
}

// riceFor leaves at the most a bit in fifty more than the best parameter does.
func TestTheRiceParameterSuitsTheMean(t *testing.T) {
	bits := func(k int, mean float64) float64 { return 1 + float64(k) + mean/math.Exp2(float64(k)) }
	for _, mean := range []float64{0, 0.5, 1, 3, 10, 77, 1000, 16000} {
		best := math.Inf(1)
		for k := range 20 {
			best = min(best, bits(k, mean))
		}
		assert.LessOrEqual(t, bits(riceFor(mean), mean), 1.02*best, "mean %g", mean)
	}
}

// What no parameter suits, and what is too short to be foretold, comes back all the same.
func TestWhatCannotBeForetoldIsKeptWithoutLoss(t *testing.T) {
	rng := rand.New(rand.NewPCG(3, 4))
	loud := make([]int32, 5000)
	for i := range loud {
		loud[i] = rng.Int32N(1<<24) - 1<<23
	}
	assert.Equal(t, frame.PredVerbatim, predictedBy(loud[:4096]).Pred)
	for name, x := range map[string][]int32{"loud": loud, "short": loud[:4], "silent": make([]int32, 5000)} {
		s := Sound{Rate: 44100, Bits: 24, Channels: [][]int32{x}}
		coded, err := s.EncodeFLAC()
		require.NoError(t, err, name)
		back, err := Decode(coded)
		require.NoError(t, err, name)
		assert.Equal(t, x, back.Channels[0], name)
	}
}

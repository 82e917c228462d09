package listen_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"

	"manudrill/core/listen"
)

// over is a string that rings through, and another, of a level beside it, struck at 1 s.
func over(seed uint64, ringing, other, loud float64) []float64 {
	rng := rand.New(rand.NewPCG(seed, 3))
	x := make([]float64, int(1.7*testRate))
	struck(x, rng, ringing, 0.5, 1.7, 0.1)
	struck(x, rng, other, 1.0, 1.7, 0.1*loud)
	for i := range x {
		x[i] += 1e-5 * rng.NormFloat64()
	}
	return x
}

// A note 10 dB below the string that rings on is a note, though the strongest partials are
// those of that string: of seven pairs of strings and four players each all but one or two.
// One 24 dB below, as a string that is touched, is none.
func TestASofterNoteOnAnotherStringIsHeard(t *testing.T) {
	if testing.Short() {
		t.Skip("takes long")
	}
	heard, none, all := 0, 0, 0
	for _, pair := range [][2]float64{{55, 69}, {50, 64}, {45, 61}, {57, 66}, {52, 59}, {64, 71}, {48, 55}} {
		for seed := range uint64(4) {
			all++
			for _, n := range listen.Listen(testRate, over(seed, pair[0], pair[1], 0.33)) {
				if math.Abs(n.Onset-1) < 0.008 {
					heard++
				}
			}
			if len(listen.Listen(testRate, over(seed, pair[0], pair[1], 0.06))) == 1 {
				none++
			}
		}
	}
	assert.GreaterOrEqual(t, heard, all-2)
	assert.LessOrEqual(t, heard, all, "none twice")
	assert.GreaterOrEqual(t, none, all-2)
}

package listen

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
)

// The difference by transforms is the one YIN defines (de Cheveigné & Kawahara,
// J. Acoust. Soc. Am. 111, 2002, eq. 6 and 8).
func TestTheDifferenceIsAsDefined(t *testing.T) {
	rng := rand.New(rand.NewPCG(1, 3))
	x := make([]float64, 1653)
	for i := range x {
		x[i] = rng.NormFloat64()
	}
	const maxLag = 400
	got := newYIN(22050, pitchSpan).difference(x, maxLag)
	sum := 0.0
	for lag := 1; lag <= maxLag; lag++ {
		d := 0.0
		for i := range len(x) - maxLag {
			d += (x[i] - x[i+lag]) * (x[i] - x[i+lag])
		}
		sum += d
		assert.InDelta(t, d*float64(lag)/sum, got[lag], 1e-9, "lag %d", lag)
	}
}

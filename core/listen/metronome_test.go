package listen

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"

	"manudrill/core/listen/dsp"
)

// burst is 30 ms of a click of noise that dies away, the same for the same seed.
func burst(seed uint64) []float64 {
	rng := rand.New(rand.NewPCG(seed, 5))
	x := make([]float64, 661)
	for i := range x {
		x[i] = 0.1 * rng.NormFloat64() * math.Exp(-float64(i)/(0.004*breakRate))
	}
	return x
}

// mixed is one click in which a share of the power is another's.
func mixed(a, b []float64, share float64) []float64 {
	x := make([]float64, len(a))
	for i := range x {
		x[i] = math.Sqrt(1-share)*a[i] + math.Sqrt(share)*b[i]
	}
	return x
}

// clickedAt is a listener that has heard two clicks so many seconds apart.
func clickedAt(apart float64, first, second []float64) *Listener {
	l, x := New(breakRate), make([]float64, int((apart+1.5)*breakRate))
	copy(x[11025:], first)
	copy(x[int((0.5+apart)*breakRate):], second)
	l.Write(x)
	l.Close()
	return l
}

// Two clicks that differ are a beat apart at 30 to 300 beats a minute.
func TestTheBeatOfTwoClicks(t *testing.T) {
	for _, c := range []struct {
		apart float64
		beat  bool
	}{{0.18, false}, {0.22, true}, {0.5, true}, {1.9, true}, {2.3, false}} {
		l := clickedAt(c.apart, burst(1), burst(2))
		assert.False(t, l.beats, "they are not alike")
		if !c.beat {
			assert.Zero(t, l.beat, "%g s apart", c.apart)
			continue
		}
		assert.InDelta(t, c.apart*breakRate, l.beat, 0.001*breakRate, "%g s apart", c.apart)
	}
}

// They are alike if one explains all but a quarter of the other's beginning: of these two, whose
// beginnings happen to be opposed, no more than a sixth may be another.
func TestClicksThatAreAlike(t *testing.T) {
	for share, alike := range map[float64]bool{0: true, 0.15: true, 0.2: false, 0.6: false} {
		assert.Equal(t, alike, clickedAt(0.5, burst(1), mixed(burst(1), burst(2), share)).beats, "%.2f of it is another", share)
	}
}

// Among other sounds a click is known again if it explains all but two fifths of their beginning.
func TestAClickIsTakenOut(t *testing.T) {
	for share, known := range map[float64]bool{0: true, 0.25: true, 0.33: false, 0.8: false} {
		l := New(breakRate)
		before := make([]float64, modelOrder-int(aloneFrom*l.rate))
		l.alone = []click{{0, append(before, burst(1)...)}}
		e := append(make([]float64, int((againShift-aloneFrom)*l.rate)), mixed(burst(1), burst(2), share)...)
		was := dsp.SumSquares(e)
		assert.Equal(t, known, l.takeClickOut(e, make([]float64, modelOrder)), "%.2f of it is another", share)
		if known {
			assert.InDelta(t, share, dsp.SumSquares(e)/was, 0.1)
		} else {
			assert.InDelta(t, was, dsp.SumSquares(e), 1e-12)
		}
	}
}

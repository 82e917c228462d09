package listen

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
)

const breakRate = 22050.0

// reed is a sound of many partials, as an overdriven string has: more than a prediction of
// low order can hold.
func reed(x []float64, hz, amplitude, phase float64) {
	for h := 1; float64(h)*hz < 0.45*breakRate; h++ {
		for i := range x {
			x[i] += amplitude / math.Sqrt(float64(h)) * math.Sin(2*math.Pi*float64(h)*hz*float64(i)/breakRate+phase*float64(h*h))
		}
	}
}

// brokenAt listens to a reed that breaks off for another at a sample, with noise beneath
// that is so loud, and asks about there.
func brokenAt(at int, before, after, noise float64) (found int, gain float64, same bool) {
	rng := rand.New(rand.NewPCG(1, 2))
	x := make([]float64, 8000)
	reed(x[:at], 196, before, 0.3)
	reed(x[at:], 196, after, 1.9)
	l := New(breakRate)
	for i := range x {
		l.sound.add([]float64{x[i] + noise*rng.NormFloat64()})
	}
	lead := l.lead // of silence, before the recording
	found, gain, same = l.breaksOff(lead+at-int(refineBefore*l.rate), lead+at+int(refineAfter*l.rate))
	return found - lead, gain, same
}

// A string struck again at its pitch, no louder and no brighter than before, is found by
// the period that no longer foretells the next, within half a millisecond.
func TestWhatIsStruckAgainBreaksOff(t *testing.T) {
	for at := 4000; at < 4100; at += 13 {
		found, gain, same := brokenAt(at, 0.1, 0.1, 1e-4)
		assert.InDelta(t, at, found, 0.0005*breakRate)
		assert.Greater(t, gain, 1.0)
		assert.False(t, same)
	}
}

// A string that is stopped breaks off too, but begins no note: what goes on must have a
// tenth of the power at the least.
func TestAStringThatIsStoppedBeginsNoNote(t *testing.T) {
	for _, c := range []struct {
		db     float64
		begins bool
	}{{-8.5, true}, {-11.5, false}, {-60, false}} {
		_, gain, _ := brokenAt(4000, 0.1, 0.1*math.Pow(10, c.db/20), 1e-4)
		assert.Equal(t, c.begins, gain > 0, "%.1f dB", c.db)
	}
}

// What goes on is the same, as long as it is heard above the noise to repeat itself: the
// correlation of two periods with noise of a power is 1/(1+noise/signal).
func TestWhatGoesOnIsTheSame(t *testing.T) {
	whole := make([]float64, 8000)
	reed(whole, 196, 0.1, 0.3)
	signal := 0.0
	for _, v := range whole {
		signal += v * v / float64(len(whole))
	}
	for _, c := range []struct {
		alike float64
		same  bool
	}{{0.99, true}, {0.93, true}, {0.86, false}, {0.5, false}} {
		noise := math.Sqrt(signal * (1/c.alike - 1))
		rng := rand.New(rand.NewPCG(3, 4))
		l := New(breakRate)
		for _, v := range whole {
			l.sound.add([]float64{v + noise*rng.NormFloat64()})
		}
		_, _, same := l.breaksOff(l.lead+4000, l.lead+4600)
		assert.Equal(t, c.same, same, "alike %.2f", c.alike)
	}
}

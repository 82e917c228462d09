package listen_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/guitar"
	"manudrill/core/listen"
)

// A slurred note fades in while the one before is stopped; where both and the
// time of the change are known, the listener must find it.
type slur struct {
	from, to float64 // MIDI notes
	rise     float64 // seconds
}

// sung writes a string of ten partials that fall off as their number, from a
// time on, with a rise and a slow decay.
func sung(out []float64, rate, midi, start, rise, end float64) {
	hz := guitar.Frequency(midi)
	for i := range out {
		t := float64(i)/rate - start
		if t < 0 || float64(i)/rate > end+0.003 {
			continue
		}
		gain := math.Exp(-t / 0.8)
		if t < rise {
			gain *= 0.5 - 0.5*math.Cos(math.Pi*t/rise)
		}
		if after := float64(i)/rate - end; after > 0 {
			gain *= 0.5 + 0.5*math.Cos(math.Pi*after/0.003)
		}
		for k := 1; k <= 10; k++ {
			out[i] += 0.08 * gain / float64(k) * math.Sin(2*math.Pi*hz*float64(k)*t+float64(k*k))
		}
	}
}

func TestSoftSlursStartWhereTheyFadeIn(t *testing.T) {
	const rate = 44100.0
	rng := rand.New(rand.NewPCG(3, 4))
	for _, s := range []slur{{57, 59, 0.012}, {60, 61, 0.010}, {64, 67, 0.012}, {52, 55, 0.008}, {69, 71, 0.012}, {59, 57, 0.012}} {
		change := 0.8 + 0.01*rng.Float64()
		x := make([]float64, int(1.6*rate))
		sung(x, rate, s.from, 0.3, 0.0005, change)
		sung(x, rate, s.to, change, s.rise, 1.4)
		for i := range x {
			x[i] += 0.001 * rng.NormFloat64() // a room, some 40 dB below the string
		}
		notes := listen.Listen(rate, x)
		require.Len(t, notes, 2, "%v", s)
		assert.Equal(t, int(s.to), notes[1].MIDI(), "%v", s)
		assert.InDelta(t, change, notes[1].Onset, 0.0015, "%v", s)
	}
}

// A plain attack stays where the waveform shows it, to a fraction of a
// millisecond.
func TestPlainAttacksStayWhereTheyAre(t *testing.T) {
	const rate = 44100.0
	rng := rand.New(rand.NewPCG(5, 6))
	for _, to := range []float64{52, 57, 62, 69} {
		x := make([]float64, int(1.6*rate))
		sung(x, rate, to-2, 0.3, 0.0005, 0.8)
		sung(x, rate, to, 0.8, 0.0005, 1.4)
		for i := range x {
			x[i] += 0.001 * rng.NormFloat64()
		}
		notes := listen.Listen(rate, x)
		require.Len(t, notes, 2)
		assert.InDelta(t, 0.8, notes[1].Onset, 0.0008, "to %v", to)
	}
}

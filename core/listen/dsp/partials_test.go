package dsp

import (
	"math"
	"math/cmplx"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

const testRate = 11025.0

// tones is a sum of sinusoids, each of a frequency in Hz, an amplitude and a phase at
// the sample zero.
func tones(n, zero int, of ...[3]float64) []float64 {
	x := make([]float64, n)
	for i := range x {
		for _, t := range of {
			x[i] += t[1] * math.Cos(2*math.Pi*t[0]*float64(i-zero)/testRate+t[2])
		}
	}
	return x
}

// Sinusoids far enough apart for the window are found at their frequency, amplitude and
// phase: made by the definition, so what must come out is known.
func TestAPursuitFindsTheSinusoidsThatWerePutIn(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var of [][3]float64
		for k := range rapid.IntRange(1, 6).Draw(t, "how many") {
			of = append(of, [3]float64{
				float64(k)*420 + rapid.Float64Range(150, 350).Draw(t, "Hz"),
				rapid.Float64Range(0.1, 1).Draw(t, "amplitude"),
				rapid.Float64Range(-3, 3).Draw(t, "phase"),
			})
		}
		zero := rapid.IntRange(-300, 600).Draw(t, "zero")
		found := NewPursuit(testRate).Partials(tones(480, zero, of...), zero)
		require.GreaterOrEqual(t, len(found), len(of))
		for _, want := range of {
			off := math.Inf(1)
			var nearest Partial
			for _, p := range found[:len(of)] {
				if d := math.Abs(p.Step*testRate/(2*math.Pi) - want[0]); d < off {
					off, nearest = d, p
				}
			}
			assert.Less(t, off, 1.5, "Hz")
			assert.InDelta(t, want[1], math.Hypot(nearest.Cosine, nearest.Sine), 0.05)
		}
	})
}

// What is sung on from a sound is what the sound would have gone on as.
func TestASoundIsSungOn(t *testing.T) {
	of := [][3]float64{{220, 0.5, 0.3}, {440, 0.3, -1}, {663, 0.2, 2}, {1320, 0.1, 1}}
	whole := tones(900, 0, of...)
	p := NewPursuit(testRate)
	sung := Sing(p.Partials(whole[:480], 0), 480, 640)
	left := 0.0
	for i, v := range sung {
		left += (whole[480+i] - v) * (whole[480+i] - v)
	}
	assert.Less(t, left, 0.02*SumSquares(whole[480:640]))
}

func TestTheStrongestPartialsAreThoseBelowAFrequency(t *testing.T) {
	x := tones(480, 0, [3]float64{300, 0.2, 0}, [3]float64{800, 0.1, 0}, [3]float64{2500, 1, 0})
	found := NewPursuit(testRate).Strongest(x, 0, 1, 1500)
	require.Len(t, found, 1)
	assert.InDelta(t, 300, found[0].Step*testRate/(2*math.Pi), 2)
}

// Sinusoids that are made, and looked for, sample from sample are those of their definitions,
// the lowest and the longest in use as well.
func TestSinusoidsFollowTheirDefinitions(t *testing.T) {
	for _, n := range []int{1, 2, 1001, 4096} {
		for _, step := range []float64{0.01, 0.7, 3} {
			p := Partial{step, 0.3, -0.8}
			sung := Sing([]Partial{p}, -7, n-7)
			for i, v := range sung {
				angle := step * float64(i-7)
				assert.InDelta(t, p.Cosine*math.Cos(angle)+p.Sine*math.Sin(angle), v, 1e-8)
			}
			window, sum, weight := Hann(n + 2)[1:n+1], complex(0, 0), 0.0
			for i, w := range window {
				sum += complex(w*sung[i], 0) * cmplx.Rect(1, -step*float64(i))
				weight += w
			}
			assert.InDelta(t, 0, cmplx.Abs(2*sum/complex(weight, 0)-Seen(sung, window, step)), 1e-8)
		}
	}
}

func TestASinusoidIsSeenAndTakenOut(t *testing.T) {
	step := 2 * math.Pi * 500 / testRate
	x := tones(480, 0, [3]float64{500, 0.4, 1.1})
	seen := Seen(x, Hann(480), step)
	assert.InDelta(t, 0.4*math.Cos(1.1), real(seen), 0.01)
	assert.InDelta(t, 0.4*math.Sin(1.1), imag(seen), 0.01)
	TakeOut(x, step)
	assert.Less(t, MeanSquare(x), 1e-4)
}

// Burg's method finds the coefficients of a process that was made with them (the
// example of any textbook on autoregression: an AR(2) with poles at 0.95 e^±iπ/4).
func TestBurgFindsWhatASoundIsForetoldBy(t *testing.T) {
	rng := rand.New(rand.NewPCG(1, 2))
	a := []float64{2 * 0.95 * math.Cos(math.Pi/4), -0.95 * 0.95}
	x := make([]float64, 4000)
	for i := 2; i < len(x); i++ {
		x[i] = a[0]*x[i-1] + a[1]*x[i-2] + rng.NormFloat64()
	}
	assert.InDeltaSlice(t, a, Burg(x, 2), 0.02)
	left := Innovation(a, x)
	require.Len(t, left, len(x)-2)
	assert.InDelta(t, 1, MeanSquare(left), 0.08, "what is left is the noise it was made of")
}

func TestAChangeOfVarianceIsFoundAndSteadyNoiseHasNone(t *testing.T) {
	rng := rand.New(rand.NewPCG(3, 4))
	x := make([]float64, 600)
	for i := range x {
		x[i] = rng.NormFloat64()
	}
	_, gain := ChangePoint(x)
	assert.Less(t, gain, 15.0)
	for i := 370; i < len(x); i++ {
		x[i] *= 4
	}
	at, gain := ChangePoint(x)
	assert.InDelta(t, 370, at, 4)
	assert.Greater(t, gain, 200.0)
}

func TestTheVarianceLeavesAnOffsetOut(t *testing.T) {
	x := tones(1102, 0, [3]float64{100, 1, 0})
	for i := range x {
		x[i] += 3
	}
	assert.InDelta(t, 0.5, Variance(x), 0.01)
	assert.InDelta(t, 9.5, MeanSquare(x), 0.1)
}

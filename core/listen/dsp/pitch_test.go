package dsp

import (
	"math/rand/v2"
	"testing"

	"manudrill/core/guitar"

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
	got := NewYIN(22050, 0.075).difference(x, maxLag)
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

// harmonics is a sound of so many harmonics, each of the strength that a function
// tells.
func harmonics(midi float64, n int, strength func(h int) float64) []float64 {
	var of [][3]float64
	for h := 1; float64(h)*guitar.Frequency(midi) < 4000; h++ {
		of = append(of, [3]float64{guitar.Frequency(midi) * float64(h), strength(h), float64(h * h)})
	}
	return tones(n, 0, of...)
}

// Pitches of the whole neck are those of equal temperament within a few cents, as a
// string sounds and with a fundamental that is hardly there, as a small loudspeaker
// or a pickup near the bridge leaves it.
func TestPitchesAreThoseOfTheFrets(t *testing.T) {
	y := NewYIN(testRate, 0.075)
	for name, c := range map[string]struct {
		highest  int
		strength func(h int) float64
	}{
		"falling":             {84, func(h int) float64 { return 1 / float64(h) }},
		"without fundamental": {64, func(h int) float64 { return max(0.03, min(1, float64(h-1))) / float64(h) }},
	} {
		for midi := 35; midi <= c.highest; midi++ {
			pitch, _ := y.Pitches(harmonics(float64(midi), 820, c.strength))
			assert.InDelta(t, midi, pitch, 0.15, "%s, %d", name, midi)
		}
	}
}

// An overdriven thick string is strong at 2 kHz: its pitch is that of the string, not of
// the nearest dip of that.
func TestAStrongHighPartialMovesNoPitch(t *testing.T) {
	y := NewYIN(testRate, 0.045)
	for midi := 40; midi <= 50; midi++ {
		x := harmonics(float64(midi)+0.13, 496, func(h int) float64 {
			if hz := float64(h) * guitar.Frequency(float64(midi)); hz > 1700 && hz < 2300 {
				return 1.2
			}
			return 1 / float64(h)
		})
		assert.InDelta(t, float64(midi)+0.13, y.Steady(x), 0.2, "%d", midi)
	}
}

func TestNoiseHasNoPitchAndTooShortASoundHasNone(t *testing.T) {
	y := NewYIN(testRate, 0.075)
	rng := rand.New(rand.NewPCG(5, 6))
	noise := make([]float64, 800)
	for i := range noise {
		noise[i] = rng.NormFloat64()
	}
	assert.Zero(t, y.Steady(noise))
	assert.Zero(t, y.Pitch(noise[:10]))
	pitch, other := y.Pitches(nil)
	assert.Zero(t, pitch)
	assert.Zero(t, other)
}

func TestWhatRepeatsAtAPitchRepeatsAtNoOtherFret(t *testing.T) {
	y := NewYIN(testRate, 0.045)
	x := harmonics(45, 496, func(h int) float64 { return 1 / float64(h) })
	assert.True(t, y.Repeats(x, 45))
	for _, other := range []float64{43, 44, 46, 47, 48} {
		assert.False(t, y.Repeats(x, other), "%g", other)
	}
}

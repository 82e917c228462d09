package dsp

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"gonum.org/v1/gonum/floats"
	"pgregory.net/rapid"
)

// sixPartials is so much of a sound of a period, its six partials at any phases.
func sixPartials(t *rapid.T, period float64, samples int) []float64 {
	x := make([]float64, samples)
	for h := 1; h <= 6; h++ {
		phase := rapid.Float64Range(0, 6).Draw(t, "phase")
		for i := range x {
			x[i] += math.Sin(2*math.Pi*float64(h)*float64(i)/period+phase) / float64(h)
		}
	}
	return x
}

// What has a period is like itself after any number of them, and nowhere else.
func TestALagIsSomePeriods(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		period := rapid.Float64Range(30, 150).Draw(t, "period")
		x := sixPartials(t, period, 771)
		lag, alike := Lag(x, 20, 460)
		assert.LessOrEqual(t, math.Abs(math.Remainder(float64(lag), period)), 0.75)
		assert.Greater(t, alike, 0.95)
	})
}

func TestNoiseIsNotLikeItself(t *testing.T) {
	rng := rand.New(rand.NewPCG(1, 2))
	x := make([]float64, 771)
	for i := range x {
		x[i] = rng.NormFloat64()
	}
	_, alike := Lag(x, 20, 460)
	assert.Less(t, alike, 0.3)
}

// An autoregressive process of order two is foretold by its own coefficients: what is left
// is what drove it (Burg's method finds them within what chance leaves, some 1/√n).
func TestBurgFindsWhatAProcessIsDrivenBy(t *testing.T) {
	rng := rand.New(rand.NewPCG(5, 6))
	drive, x := make([]float64, 4000), make([]float64, 4000)
	for i := range x {
		drive[i] = rng.NormFloat64()
		x[i] = drive[i]
		if i >= 2 {
			x[i] += 1.6*x[i-1] - 0.8*x[i-2]
		}
	}
	a := Burg(x, 2)
	assert.InDelta(t, 1.6, a[0], 3/math.Sqrt(4000))
	assert.InDelta(t, -0.8, a[1], 3/math.Sqrt(4000))
	assert.InDelta(t, 1, MeanSquare(Innovation(a, x)), 0.1)
}

// The point at which a variance changes is found: by definition it is where noise of one
// begins to be noise of the other.
func TestAChangeOfVarianceIsFound(t *testing.T) {
	rng := rand.New(rand.NewPCG(7, 8))
	for range 20 {
		x, at := make([]float64, 600), 100+rng.IntN(400)
		for i := range x {
			x[i] = rng.NormFloat64()
			if i >= at {
				x[i] *= 4
			}
		}
		found, gain := ChangePoint(x)
		assert.InDelta(t, at, found, 12)
		assert.Greater(t, gain, 100.0)
	}
	for i := range 20 {
		still := make([]float64, 600)
		for j := range still {
			still[j] = rng.NormFloat64()
		}
		_, gain := ChangePoint(still)
		assert.Less(t, gain, 25.0, i)
	}
}

// A period is the shortest time after which a sound is like itself, where two of them are as
// like, and where another sound has nearly as long a multiple.
func TestAPeriodIsTheShortestLag(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		period := rapid.Float64Range(60, 150).Draw(t, "period")
		x := sixPartials(t, period, 661)
		lag, alike := Period(x, 20, 460)
		assert.InDelta(t, period, lag, 1.5)
		assert.Greater(t, alike, 0.9)
	})
}

// A sound that is less like itself after one period than after two, by a twentieth and more,
// has the longer one: partials between those of the shorter make the difference, twice their
// share of the power.
func TestAPeriodIsNearlyAsAlikeAsAny(t *testing.T) {
	for less, period := range map[float64]int{0.04: 90, 0.06: 180} {
		x := make([]float64, 1080)
		for i := range x {
			phase := 2 * math.Pi * float64(i) / 180
			x[i] = math.Sqrt(1-less/2)*math.Sin(2*phase) + math.Sqrt(less/2)*math.Sin(phase+1)
		}
		lag, _ := Period(x, 20, 460)
		assert.InDelta(t, period, lag, 1.5, "less alike by %.2f", less)
	}
}

// The change is where its definition has it, though few logarithms are taken.
func TestAChangeIsThatOfAllPlaces(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		x := rapid.SliceOfN(rapid.Float64Range(-1, 1), 20, 80).Draw(t, "x")
		for i := range x[rapid.IntRange(0, len(x)).Draw(t, "from"):] {
			x[i] *= rapid.SampledFrom([]float64{0, 1e-6, 0.1, 1}).Draw(t, "share")
		}
		variance := func(x []float64, floor float64) float64 { return floats.Dot(x, x)/float64(len(x)) + floor }
		floor := 1e-12 + 1e-9*floats.Dot(x, x)
		one := float64(len(x)) * math.Log(variance(x, floor))
		most := 0.0
		for i := 8; i < len(x)-8; i++ {
			two := float64(i)*math.Log(variance(x[:i], floor)) + float64(len(x)-i)*math.Log(variance(x[i:], floor))
			most = max(most, one-two)
		}
		_, gain := ChangePoint(x)
		assert.InDelta(t, most, gain, 1e-5)
	})
}

// How like itself a sound is follows its definition at every lag, as gonum adds it up.
func TestALikenessIsThatOfTheReference(t *testing.T) {
	rng := rand.New(rand.NewPCG(9, 10))
	x := make([]float64, 103)
	for i := range x {
		x[i] = rng.NormFloat64()
	}
	lags := 0
	for by, alike := range likenesses(x, 1, len(x)-1) {
		here, there := x[by:], x[:len(x)-by]
		assert.InDelta(t, floats.Dot(here, there)/(floats.Norm(here, 2)*floats.Norm(there, 2)), alike, 1e-9)
		lags++
	}
	assert.Equal(t, len(x)-1, lags)
	for range likenesses(x, 5, 4) {
		assert.Fail(t, "there is no lag from 5 to 4")
	}
}

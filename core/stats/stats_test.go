package stats

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"gonum.org/v1/gonum/stat"
	"gonum.org/v1/gonum/stat/distuv"
)

// Percentage points as handbooks print them (Abramowitz & Stegun, Handbook of Mathematical
// Functions, 1964, tables 26.1, 26.8, 26.9 and 26.10; from memory).
func TestHandbookValues(t *testing.T) {
	assert.InDelta(t, 1.95996, NormalQuantile(0.975), 5e-6)
	assert.InDelta(t, 0.15866, NormalSurvival(1), 5e-6)
	assert.InDelta(t, 2.228, StudentQuantile(0.975, 10), 5e-4)
	assert.InDelta(t, -2.228, StudentQuantile(0.025, 10), 5e-4)
	assert.InDelta(t, 12.706, StudentQuantile(0.975, 1), 5e-4)
	assert.InDelta(t, 3.24697, ChiSquaredQuantile(0.025, 10), 5e-6)
	assert.InDelta(t, 0.05, FSurvival(3.3258, 5, 10), 1e-5)
}

// gonum's own distributions and moments say the same, over the range that takes have.
func TestGonumSaysTheSame(t *testing.T) {
	for _, p := range []float64{0.001, 0.025, 0.3, 0.5, 0.8, 0.975, 0.9999} {
		assert.InDelta(t, distuv.UnitNormal.Quantile(p), NormalQuantile(p), 1e-12)
		for _, k := range []float64{1, 2.5, 7, 40, 900} {
			assert.InDelta(t, distuv.StudentsT{Sigma: 1, Nu: k}.Quantile(p), StudentQuantile(p, k), 1e-9)
			assert.InEpsilon(t, distuv.ChiSquared{K: k}.Quantile(p), ChiSquaredQuantile(p, k), 1e-9)
			assert.InDelta(t, distuv.F{D1: k, D2: 12}.Survival(4*p), FSurvival(4*p, k, 12), 1e-12)
		}
	}
	for _, z := range []float64{-3, 0, 0.5, 6} {
		assert.InEpsilon(t, distuv.UnitNormal.Survival(z), NormalSurvival(z), 1e-9)
	}
	rng := rand.New(rand.NewPCG(3, 5))
	for _, n := range []int{2, 3, 50, 999} {
		x := make([]float64, n)
		for i := range x {
			x[i] = 1e6 + rng.NormFloat64()
		}
		assert.InDelta(t, stat.Mean(x, nil), Mean(x), 1e-9)
		assert.InEpsilon(t, stat.StdDev(x, nil), StdDev(x), 1e-9)
		assert.InEpsilon(t, stat.PopStdDev(x, nil), PopStdDev(x), 1e-9)
	}
}

func TestTooFewHaveNoSpread(t *testing.T) {
	assert.Zero(t, Mean(nil))
	for _, x := range [][]float64{nil, {4}} {
		assert.Zero(t, StdDev(x))
		assert.Zero(t, PopStdDev(x))
	}
	assert.False(t, math.IsNaN(StdDev([]float64{3, 3})))
}

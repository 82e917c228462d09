package progress

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat"
)

func count(n int) []float64 {
	t := make([]float64, n)
	for i := range t {
		t[i] = float64(i)
	}
	return t
}

// Values of scipy 1.10: stats.kendalltau(method="exact") and stats.theilslopes(alpha=0.9).
func TestAgainstSciPy(t *testing.T) {
	// The ratios of cloud seeding that Hollander & Wolfe work through (Nonparametric
	// Statistical Methods, example 9.1; from memory): their slope is −0.056.
	seeding := []float64{1.26, 1.27, 1.12, 1.16, 1.03}
	assert.InDelta(t, 0.23333333333, MannKendall(seeding).P, 1e-9)
	slope, told := TheilSen(count(5), seeding)
	require.True(t, told)
	assert.InDelta(t, -0.05625, slope.Value, 1e-12)
	assert.InDelta(t, -0.13, slope.Low, 1e-12)
	assert.InDelta(t, 0.01, slope.High, 1e-12)

	assert.InDelta(t, 0.03115079365, MannKendall([]float64{3, 1, 2, 5, 4, 8, 6, 7}).P, 1e-9)

	ties := []float64{60, 60, 64, 64, 68, 64, 68, 72, 72, 76, 76, 80}
	slope, _ = TheilSen(count(12), ties)
	assert.InDelta(t, 16.0/9, slope.Value, 1e-12)
	assert.InDelta(t, 1.5, slope.Low, 1e-12)
	assert.InDelta(t, 2, slope.High, 1e-12)

	gaps := []float64{0, 1, 2, 4, 5, 6, 8, 9, 10, 12}
	slope, _ = TheilSen(gaps, []float64{2.1, 2.4, 2.2, 2.9, 2.7, 3.3, 3.1, 3.0, 3.8, 3.6})
	assert.InDelta(t, 0.125, slope.Value, 1e-12)
	assert.InDelta(t, 0.075, slope.Low, 1e-12)
	assert.InDelta(t, 0.18, slope.High, 1e-12)
}

// S is Kendall's tau times the number of pairs, which gonum reckons for itself.
func TestAgainstGonum(t *testing.T) {
	for _, y := range [][]float64{{3, 1, 2, 5, 4, 8, 6, 7}, {1, 2, 3, 4}, {4, 3, 2, 1, 0}, {1.5, 9, -2, 4, 4.5, 4.2, 0, 11, 3, 8, 7}} {
		pairs := float64(len(y)*(len(y)-1)) / 2
		assert.InDelta(t, stat.Kendall(count(len(y)), y, nil)*pairs, float64(MannKendall(y).S), 1e-9)
	}
}

// The textbook's: of n values in order one of n! orders is as far from zero on either
// side (Kendall, Rank Correlation Methods, appendix table 1).
func TestMannKendallExactly(t *testing.T) {
	assert.InDelta(t, 2.0/24, MannKendall([]float64{1, 2, 3, 4}).P, 1e-12)
	assert.InDelta(t, 2.0/720, MannKendall([]float64{6, 5, 4, 3, 2, 1}).P, 1e-12)
	assert.Equal(t, Monotone{0, 1}, MannKendall(nil))
	assert.Equal(t, Monotone{0, 1}, MannKendall([]float64{5}))
	assert.Equal(t, Monotone{0, 1}, MannKendall([]float64{5, 5, 5, 5, 5}))
	assert.True(t, MannKendall([]float64{1, 2, 3, 4}).Rises(0.1))
	assert.True(t, MannKendall([]float64{4, 3, 2, 1}).Falls(0.1))
	assert.False(t, MannKendall([]float64{1, 2, 3}).Rises(0.1), "three in a row are chance")
	// Exact below ten and approximate from there on agree where they meet.
	nine, ten := MannKendall([]float64{2, 1, 4, 3, 6, 5, 8, 7, 9}).P, MannKendall([]float64{2, 1, 4, 3, 6, 5, 8, 7, 10, 9}).P
	assert.InDelta(t, nine, ten, 0.002)
}

func TestOneOddWeekMovesNoSlope(t *testing.T) {
	y := []float64{60, 62, 64, 66, 20, 70, 72, 74}
	slope, _ := TheilSen(count(8), y)
	assert.InDelta(t, 2, slope.Value, 0.15)
	_, told := TheilSen(count(2), y[:2])
	assert.False(t, told)
}

package dsp

import "math"

// LeastPower keeps what is divided by from nothing.
const LeastPower = 1e-18

// Decibels is the level of a mean square in dB of full scale, −120 at the least.
func Decibels(meanSquare float64) float64 { return 10 * math.Log10(meanSquare+1e-12) }

// MeanSquare is the power of x, 0 of nothing.
func MeanSquare(x []float64) float64 {
	if len(x) == 0 {
		return 0
	}
	return SumSquares(x) / float64(len(x))
}

// dot is the sum of the products of x and the first samples of y. Four sums need not wait for
// one another, as one would for each sample before it.
func dot(x, y []float64) float64 {
	var a, b, c, d float64
	y = y[:len(x)]
	for len(x) >= 4 && len(y) >= 4 {
		a += x[0] * y[0]
		b += x[1] * y[1]
		c += x[2] * y[2]
		d += x[3] * y[3]
		x, y = x[4:], y[4:]
	}
	for i, v := range x {
		a += v * y[i]
	}
	return a + b + (c + d)
}

// FromDecibels returns the mean square at a level in dB of full scale.
func FromDecibels(db float64) float64 { return math.Pow(10, db/10) }

// SumSquares is the energy of x.
func SumSquares(x []float64) float64 { return dot(x, x) }

// Variance is the power of x without the offset that some recorders add.
func Variance(x []float64) float64 {
	sum := 0.0
	for _, v := range x {
		sum += v
	}
	mean := sum / float64(max(1, len(x)))
	return MeanSquare(x) - mean*mean
}

package stats

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/floats"
)

// Mean is the arithmetic mean of x, 0 for none.
func Mean(x []float64) float64 {
	if len(x) == 0 {
		return 0
	}
	return floats.Sum(x) / float64(len(x))
}

// Median is the middle of x, or the mean of the two middle ones; 0 for none.
func Median(x []float64) float64 {
	if len(x) == 0 {
		return 0
	}
	in := slices.Sorted(slices.Values(x))
	return (in[(len(in)-1)/2] + in[len(in)/2]) / 2
}

// StdDev is the standard deviation of x as a sample of more, 0 for fewer than two.
func StdDev(x []float64) float64 { return deviation(x, len(x)-1) }

// PopStdDev is the standard deviation of x over all of it, 0 for fewer than two.
func PopStdDev(x []float64) float64 { return deviation(x, len(x)) }

// deviation is the root of the squares about the mean over a count, by the corrected
// two-pass algorithm of Chan, Golub & LeVeque (The American Statistician 37, 1983).
func deviation(x []float64, over int) float64 {
	if len(x) < 2 {
		return 0
	}
	mean := Mean(x)
	var squares, left float64
	for _, v := range x {
		d := v - mean
		squares += d * d
		left += d
	}
	return math.Sqrt((squares - left*left/float64(len(x))) / float64(over))
}

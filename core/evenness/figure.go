package evenness

import (
	"manudrill/core/stats"
	"math"
)

// A Figure is a measured value with how many notes it rests on and half the
// width of its 95 % confidence interval. There is none where they are too few.
type Figure struct {
	Value     float64 `json:"value"`
	PlusMinus float64 `json:"plusMinus"`
	Count     int     `json:"count"`
}

// Fewest is how many values a figure must rest on: with fewer its interval is
// wider than what it tells.
const Fewest = 5

// meanOf is the mean of x, with Student's interval; nil for too few.
func meanOf(x []float64) *Figure {
	if len(x) < Fewest {
		return nil
	}
	m, sd := stats.Mean(x), stats.StdDev(x)
	n := float64(len(x))
	t := stats.StudentQuantile(0.975, n-1)
	return &Figure{m, t * sd / math.Sqrt(n), len(x)}
}

// spreadOf is the standard deviation of x. Its interval is that of a normal
// sample's, by the χ² distribution, its wider side told.
func spreadOf(x []float64) *Figure {
	if len(x) < Fewest {
		return nil
	}
	s := stats.PopStdDev(x)
	k := float64(len(x) - 1)
	upper := s * math.Sqrt(k/stats.ChiSquaredQuantile(0.025, k))
	return &Figure{s, upper - s, len(x)}
}

// differenceOf is the mean of a less the mean of b, with Welch's interval
// (Biometrika 34, 1947); nil where either has too few.
func differenceOf(a, b []float64) *Figure {
	if len(a) < Fewest || len(b) < Fewest {
		return nil
	}
	ma, sa := stats.Mean(a), stats.StdDev(a)
	mb, sb := stats.Mean(b), stats.StdDev(b)
	n, m := float64(len(a)), float64(len(b))
	return welch(ma-mb, sa*sa/n, n, sb*sb/m, m)
}

// welch is a difference with the interval of Welch, of the variances of two means and
// how many values each rests on.
func welch(difference, va, n, vb, m float64) *Figure {
	f := &Figure{difference, 0, int(min(n, m))}
	if va+vb > 0 {
		nu := (va + vb) * (va + vb) / (va*va/(n-1) + vb*vb/(m-1))
		f.PlusMinus = stats.StudentQuantile(0.975, nu) * math.Sqrt(va+vb)
	}
	return f
}

// Exceeds reports whether the figure is surely beyond zero and its value beyond
// what can be heard.
func (f *Figure) Exceeds(audible float64) bool {
	return f != nil && f.Value > audible && f.Value-f.PlusMinus > 0
}

// Below is Exceeds on the other side.
func (f *Figure) Below(audible float64) bool {
	return f != nil && f.Value < -audible && f.Value+f.PlusMinus < 0
}

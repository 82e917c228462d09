package guitar

import "math"

// FretDistance returns how far fret n lies from the nut, in mm, on a string
// scaleMM long: d(n) = L·(1 − 2^(−n/12)).
func FretDistance(scaleMM float64, n int) float64 {
	return scaleMM * (1 - math.Exp2(-float64(n)/12))
}

// Reach returns the distance in mm between two frets of g, counted from the
// capo, whichever is lower. It is what two fingertips must span.
func (g Guitar) Reach(a, b int) float64 {
	return math.Abs(FretDistance(g.ScaleMM, g.Capo+a) - FretDistance(g.ScaleMM, g.Capo+b))
}

package dsp

import "gonum.org/v1/gonum/dsp/window"

// Hann is the window of Hann over n samples.
func Hann(n int) []float64 {
	w := make([]float64, n)
	for i := range w {
		w[i] = 1
	}
	return window.Hann(w)
}

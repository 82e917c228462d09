package dsp

import (
	"math/cmplx"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"gonum.org/v1/gonum/dsp/fourier"
)

// The transform agrees with gonum's at every length in use.
func TestTheTransformIsThatOfTheReference(t *testing.T) {
	rng := rand.New(rand.NewPCG(1, 1))
	for n := 4; n <= 8192; n *= 2 {
		x, want := make([]complex128, n), make([]complex128, n)
		for i := range x {
			x[i] = complex(rng.NormFloat64(), rng.NormFloat64())
		}
		want = fourier.NewCmplxFFT(n).Coefficients(want, x)
		NewFFT(n).Transform(x)
		for k := range x {
			assert.InDelta(t, 0, cmplx.Abs(x[k]-want[k]), 1e-9, "bin %d of %d", k, n)
		}
	}
}

func TestRealValuesAreThoseOfTheReference(t *testing.T) {
	rng := rand.New(rand.NewPCG(1, 2))
	for n := 4; n <= 4096; n *= 2 {
		x, window, weighed := make([]float64, n-1), make([]float64, n-1), make([]float64, n) // the last stays zero
		for i := range x {
			x[i], window[i] = rng.NormFloat64(), rng.Float64()
			weighed[i] = x[i] * window[i]
		}
		want := fourier.NewFFT(n).Coefficients(nil, weighed)
		for _, bins := range []int{n/2 + 1, n/3 + 1} {
			got := make([]complex128, bins)
			NewRealFFT(n).Values(got, x, window)
			for k, c := range got {
				assert.InDelta(t, 0, cmplx.Abs(c-want[k]), 1e-9, "bin %d of %d", k, n)
			}
		}
	}
}

func BenchmarkRealValues1024(b *testing.B) {
	x, dst := make([]float64, 1024), make([]complex128, 430)
	for i := range x {
		x[i] = float64(i%17) - 8
	}
	r, window := NewRealFFT(1024), Hann(1024)
	for b.Loop() {
		r.Values(dst, x, window)
	}
}

func BenchmarkReference1024(b *testing.B) {
	x := make([]float64, 1024)
	r, dst := fourier.NewFFT(1024), make([]complex128, 513)
	for i := range x {
		x[i] = float64(i%17) - 8
	}
	for b.Loop() {
		r.Coefficients(dst, x)
	}
}

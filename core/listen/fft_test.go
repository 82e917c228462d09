package listen

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
		newFFT(n).transform(x)
		for k := range x {
			assert.InDelta(t, 0, cmplx.Abs(x[k]-want[k]), 1e-9, "bin %d of %d", k, n)
		}
	}
}

func TestPowerIsThatOfTheReference(t *testing.T) {
	rng := rand.New(rand.NewPCG(1, 2))
	for n := 4; n <= 4096; n *= 2 {
		x := make([]float64, n)
		for i := range x[:n-1] { // the last stays zero: it is left out below
			x[i] = rng.NormFloat64()
		}
		want := fourier.NewFFT(n).Coefficients(nil, x)
		got := make([]float64, n/2+1)
		newRealFFT(n).power(got, x[:n-1])
		for k, c := range want {
			assert.InDelta(t, real(c)*real(c)+imag(c)*imag(c), got[k], 1e-7, "bin %d of %d", k, n)
		}
	}
}

func BenchmarkPower2048(b *testing.B) {
	x, dst := make([]float64, 2048), make([]float64, 560)
	for i := range x {
		x[i] = float64(i%17) - 8
	}
	r := newRealFFT(2048)
	for b.Loop() {
		r.power(dst, x)
	}
}

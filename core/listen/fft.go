package listen

import (
	"math"
	"math/bits"
)

// An fft transforms complex sequences of one length, a power of two, without
// sorting them first (Stockham, AFIPS 28, 1966), four ways at a step. It is the
// innermost loop of listening; a general library took five times as long.
type fft struct {
	turns []complex128 // the n-th roots of unity, exp(−2πi·k/n)
	spare []complex128
}

// newFFT returns a transform of n values. It panics unless n is a power of two.
func newFFT(n int) *fft {
	if bits.OnesCount(uint(n)) != 1 {
		panic("listen: the length of a transform must be a power of two")
	}
	f := &fft{make([]complex128, n), make([]complex128, n)}
	for k := range f.turns {
		s, c := math.Sincos(-2 * math.Pi * float64(k) / float64(n))
		f.turns[k] = complex(c, s)
	}
	return f
}

// transform replaces x[j] by Σ x[k]·exp(−2πi·jk/n).
func (f *fft) transform(x []complex128) {
	from, to := x, f.spare[:len(x)]
	n, stride := len(x), 1
	for ; n >= 4; n, stride = n/4, stride*4 {
		f.quarters(to, from, n, stride)
		from, to = to, from
	}
	if n == 2 { // in place: nothing more is moved
		for q, a := range from[:stride] {
			b := from[q+stride]
			from[q], from[q+stride] = a+b, a-b
		}
	}
	if &from[0] != &x[0] {
		copy(x, from)
	}
}

// quarters is one step: it splits each of stride interleaved transforms of
// length n into four of a quarter of it.
func (f *fft) quarters(to, from []complex128, n, stride int) {
	part := n / 4 * stride
	for p := range n / 4 {
		w1, w2, w3 := f.turns[p*stride], f.turns[2*p*stride], f.turns[3*p*stride]
		in, out := from[p*stride:], to[4*p*stride:]
		a, b, c, d := in[:stride], in[part:part+stride], in[2*part:2*part+stride], in[3*part:3*part+stride]
		o0, o1 := out[:stride], out[stride:2*stride]
		o2, o3 := out[2*stride:3*stride], out[3*stride:4*stride]
		for q := range a {
			ac, bd := a[q]+c[q], b[q]+d[q]
			less, side := a[q]-c[q], quarterTurn(b[q]-d[q])
			o0[q], o1[q] = ac+bd, w1*(less-side)
			o2[q], o3[q] = w2*(ac-bd), w3*(less+side)
		}
	}
}

func quarterTurn(z complex128) complex128 { return complex(-imag(z), real(z)) }

// A realFFT transforms real sequences of one length, as half as many complex
// values.
type realFFT struct {
	half  *fft
	turns []complex128
	buf   []complex128
}

// newRealFFT returns a transform of n real values, n a power of two of at least 4.
func newRealFFT(n int) *realFFT {
	return &realFFT{newFFT(n / 2), newFFT(n).turns, make([]complex128, n/2)}
}

// power writes |X[k]|² of the real sequence x into dst, from bin 0 on. x may be
// shorter than the transform; the rest is taken as zero.
func (r *realFFT) power(dst, x []float64) {
	r.transform(x)
	for k := range dst {
		z := r.bin(k)
		dst[k] = real(z)*real(z) + imag(z)*imag(z)
	}
}

// values writes X[k] itself.
func (r *realFFT) values(dst []complex128, x []float64) {
	r.transform(x)
	for k := range dst {
		dst[k] = r.bin(k)
	}
}

// transform takes even and odd samples as real and imaginary parts.
func (r *realFFT) transform(x []float64) {
	for i := range len(x) / 2 {
		r.buf[i] = complex(x[2*i], x[2*i+1])
	}
	clear(r.buf[len(x)/2:])
	if len(x)%2 == 1 {
		r.buf[len(x)/2] = complex(x[len(x)-1], 0)
	}
	r.half.transform(r.buf)
}

// bin takes one value of the real transform out of the complex one.
func (r *realFFT) bin(k int) complex128 {
	n := len(r.buf)
	a, b := r.buf[k&(n-1)], r.buf[(n-k)&(n-1)]
	odd := complex(real(a)-real(b), imag(a)+imag(b)) * r.turns[k]
	return complex((real(a)+real(b)+imag(odd))/2, (imag(a)-imag(b)-real(odd))/2)
}

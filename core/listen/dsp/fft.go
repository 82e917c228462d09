package dsp

import (
	"math"
	"math/bits"
	"math/cmplx"
)

// An FFT transforms complex sequences of one length, a power of two, without
// sorting them first (Stockham, AFIPS 28, 1966), four ways at a step. It is the
// innermost loop of listening; a general library took three times as long.
type FFT struct {
	turns []complex128 // its roots of unity
	spare []complex128
}

// NewFFT returns a transform of n values. It panics unless n is a power of two.
func NewFFT(n int) *FFT {
	if bits.OnesCount(uint(n)) != 1 {
		panic("dsp: the length of a transform must be a power of two")
	}
	return &FFT{roots(n), make([]complex128, n)}
}

// roots returns the n-th roots of unity, exp(−2πi·k/n).
func roots(n int) []complex128 {
	w := make([]complex128, n)
	for k := range w {
		s, c := math.Sincos(-2 * math.Pi * float64(k) / float64(n))
		w[k] = complex(c, s)
	}
	return w
}

// Transform replaces x[j] by Σ x[k]·exp(−2πi·jk/n). Its steps have loops of their
// own where that is faster: the first, which takes single values, and the last,
// which turns none.
func (f *FFT) Transform(x []complex128) {
	from, to := x, f.spare[:len(x)]
	n, stride := len(x), 1
	if n > 4 {
		f.firstQuarters(to, from)
		from, to = to, from
		n, stride = n/4, 4
	}
	for ; n > 4; n, stride = n/4, stride*4 {
		f.quarters(to, from, n, stride)
		from, to = to, from
	}
	switch n {
	case 4:
		lastQuarters(from)
	case 2:
		lastHalves(from)
	}
	if &from[0] != &x[0] {
		copy(x, from)
	}
}

// firstQuarters is [FFT.quarters] of one transform.
func (f *FFT) firstQuarters(to, from []complex128) {
	n := len(from) / 4
	a, b, c, d := from[:n], from[n:2*n], from[2*n:3*n], from[3*n:4*n]
	for p := range a {
		ac, bd := a[p]+c[p], b[p]+d[p]
		less, more := beside(a[p]-c[p], b[p]-d[p])
		out := (*[4]complex128)(to[4*p:])
		out[0], out[1] = ac+bd, f.turns[p]*less
		out[2], out[3] = f.turns[2*p]*(ac-bd), f.turns[3*p]*more
	}
}

// quarters is one step: it splits each of stride interleaved transforms of
// length n into four of a quarter of it.
func (f *FFT) quarters(to, from []complex128, n, stride int) {
	part := n / 4 * stride
	unturned(to[:stride], to[stride:2*stride], to[2*stride:3*stride], to[3*stride:4*stride], from, from[part:], from[2*part:], from[3*part:])
	for p := 1; p < n/4; p++ {
		w1, w2, w3 := f.turns[p*stride], f.turns[2*p*stride], f.turns[3*p*stride]
		in, out := from[p*stride:], to[4*p*stride:]
		a, b, c, d := in[:stride], in[part:part+stride], in[2*part:2*part+stride], in[3*part:3*part+stride]
		o0, o1 := out[:stride], out[stride:2*stride]
		o2, o3 := out[2*stride:3*stride], out[3*stride:4*stride]
		for q := range a {
			ac, bd := a[q]+c[q], b[q]+d[q]
			less, more := beside(a[q]-c[q], b[q]-d[q])
			o0[q], o1[q] = ac+bd, w1*less
			o2[q], o3[q] = w2*(ac-bd), w3*more
		}
	}
}

// lastQuarters makes the interleaved transforms of four values, in place.
func lastQuarters(x []complex128) {
	n := len(x) / 4
	a, b, c, d := x[:n], x[n:2*n], x[2*n:3*n], x[3*n:4*n]
	unturned(a, b, c, d, a, b, c, d)
}

// unturned is a step where the roots of unity are 1.
func unturned(o0, o1, o2, o3, a, b, c, d []complex128) {
	o1, o2, o3 = o1[:len(o0)], o2[:len(o0)], o3[:len(o0)]
	a, b, c, d = a[:len(o0)], b[:len(o0)], c[:len(o0)], d[:len(o0)]
	for q := range o0 {
		ac, bd := a[q]+c[q], b[q]+d[q]
		less, more := beside(a[q]-c[q], b[q]-d[q])
		o0[q], o1[q], o2[q], o3[q] = ac+bd, less, ac-bd, more
	}
}

// lastHalves makes those of two values.
func lastHalves(x []complex128) {
	n := len(x) / 2
	a, b := x[:n], x[n:2*n]
	for q := range a {
		a[q], b[q] = a[q]+b[q], a[q]-b[q]
	}
}

// beside returns z−i·w and z+i·w.
func beside(z, w complex128) (less, more complex128) {
	return complex(real(z)+imag(w), imag(z)-real(w)), complex(real(z)-imag(w), imag(z)+real(w))
}

func quarterTurn(z complex128) complex128 { return complex(-imag(z), real(z)) }

// halved spares a multiplication of complex numbers.
func halved(z complex128) complex128 { return complex(real(z)/2, imag(z)/2) }

// A RealFFT transforms real sequences of one length, as half as many complex
// values.
type RealFFT struct {
	half  *FFT
	turns []complex128 // the roots of unity, halved and a quarter further
	buf   []complex128
}

// NewRealFFT returns a transform of n real values, n a power of two of at least 4.
func NewRealFFT(n int) *RealFFT {
	turns := roots(n)
	for k, w := range turns {
		turns[k] = halved(quarterTurn(w))
	}
	return &RealFFT{NewFFT(n / 2), turns, make([]complex128, n/2)}
}

// Values writes X[k] of the real sequence x, weighed by a window as long, into
// dst, from k = 0 on. x may be shorter than the transform; the rest is taken as
// zero.
func (r *RealFFT) Values(dst []complex128, x, window []float64) {
	r.pack(x, window)
	r.half.Transform(r.buf)
	n := len(r.buf)
	for k := range min(len(dst), n/2+1) {
		a, b := r.buf[k], cmplx.Conj(r.buf[-k&(n-1)])
		even, odd := halved(a+b), (b-a)*r.turns[k]
		dst[k] = even + odd
		if n-k < len(dst) {
			dst[n-k] = cmplx.Conj(even - odd)
		}
	}
}

// pack takes even and odd samples as real and imaginary parts.
func (r *RealFFT) pack(x, window []float64) {
	window = window[:len(x)]
	pairs := r.buf[:len(x)/2]
	for i := range pairs {
		pairs[i] = complex(x[2*i]*window[2*i], x[2*i+1]*window[2*i+1])
	}
	clear(r.buf[len(pairs):])
	if last := len(x) - 1; last%2 == 0 {
		r.buf[last/2] = complex(x[last]*window[last], 0)
	}
}

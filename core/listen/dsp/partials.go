package dsp

import (
	"math"
	"math/bits"
	"math/cmplx"
)

// A Partial is one sinusoid of a sound: its angle per sample in radians, and its cosine
// and sine parts at the sample its phase is counted from.
type Partial struct{ Step, Cosine, Sine float64 }

// Amplitude is that of the sinusoid.
func (p Partial) Amplitude() float64 { return math.Hypot(p.Cosine, p.Sine) }

// Power is the square of the amplitude.
func (p Partial) Power() float64 { return p.Cosine*p.Cosine + p.Sine*p.Sine }

// Limits of what a sound is taken apart into: the number of sinusoids, and how far
// below the strongest the weakest may lie, in power.
const (
	maxPartials    = 16
	weakestPartial = 1e-4
)

// HighestPartial is the highest that is looked for, in Hz.
const HighestPartial = 4500

// LongestPursuit is the longest sound taken apart, in seconds.
const LongestPursuit = 0.045

// lobeReach is how many bins of the spectrum a sinusoid is taken out of, to
// either side: beyond them the window leaves less than a thousandth of it.
const lobeReach = 12

// A Pursuit takes short sounds at one rate apart into sinusoids. It is not for several
// at once.
type Pursuit struct {
	rate    float64
	fft     *RealFFT
	n       int               // length of the transform
	windows map[int][]float64 // by length
	bins    []complex128      // up to the highest partial
	powers  []float64         // of the bins
	lobes   []complex128
}

// NewPursuit returns one for sounds of at most [LongestPursuit] seconds at a rate. Longer
// ones panic.
func NewPursuit(rate float64) *Pursuit {
	longest := int(math.Ceil(LongestPursuit * rate))
	n := 1 << bits.Len(uint(1.8*float64(longest)))
	top := min(HighestPartial, 0.45*rate) / rate
	bins := int(top * float64(n))
	return &Pursuit{rate, NewRealFFT(n), n, map[int][]float64{}, make([]complex128, bins), make([]float64, bins), nil}
}

// Partials takes x apart by matching pursuit under a Hann window (Mallat &
// Zhang, IEEE Trans. Signal Processing 41, 1993), each sinusoid taken out of the
// spectrum by what the window makes of it. Phases are counted from the sample
// zero, which may lie outside x.
func (p *Pursuit) Partials(x []float64, zero int) []Partial {
	return p.Strongest(x, zero, maxPartials, HighestPartial)
}

// Strongest is at most so many partials of x, of those up to a frequency in Hz: see
// [Pursuit.Partials].
func (p *Pursuit) Strongest(x []float64, zero, most int, highest float64) []Partial {
	bins := p.bins
	p.bins = p.bins[:min(int(highest/p.rate*float64(p.n)), len(bins))]
	defer func() { p.bins = bins }()
	p.fft.Values(p.bins, x, p.Window(len(x)))
	for k, z := range p.bins {
		p.powers[k] = Power(z)
	}
	out := make([]Partial, 0, most)
	loudest := 0.0
	for len(out) < most {
		k := p.highest()
		power := p.powers[k]
		loudest = max(loudest, power)
		if power <= weakestPartial*loudest {
			break
		}
		step := p.summit(k) * 2 * math.Pi / float64(p.n)
		amplitude := p.takeOut(k, step, len(x)) * cmplx.Rect(1, step*float64(zero))
		out = append(out, Partial{step, real(amplitude), -imag(amplitude)})
	}
	return out
}

// Window is the Hann window of n samples, kept for the next time. It is not to be changed.
func (p *Pursuit) Window(n int) []float64 {
	w, ok := p.windows[n]
	if !ok {
		w = Hann(n)
		p.windows[n] = w
	}
	return w
}

// Power is the square of the magnitude.
func Power(z complex128) float64 { return real(z)*real(z) + imag(z)*imag(z) }

// highest returns the loudest bin, but for the lowest, where no string sounds,
// and the last, which has no neighbour.
func (p *Pursuit) highest() int {
	best, loudest := 2, 0.0
	for k, v := range p.powers[:len(p.bins)-1] {
		if v > loudest && k >= 2 {
			best, loudest = k, v
		}
	}
	return best
}

// summit returns the place of a spectral peak between bins, by a parabola
// through the logarithms about the loudest.
func (p *Pursuit) summit(k int) float64 {
	log := func(k int) float64 { return math.Log(p.powers[k] + 1e-300) }
	l, m, r := log(k-1), log(k), log(k+1)
	if d := l - 2*m + r; d < 0 {
		return float64(k) + max(-1, min(1, (l-r)/(2*d)))
	}
	return float64(k)
}

// takeOut takes the sinusoid that makes bin k out of the spectrum. It returns
// its amplitude as a complex number whose phase is that of the first sample.
func (p *Pursuit) takeOut(k int, step float64, length int) complex128 {
	first, last := max(0, k-lobeReach), min(len(p.bins)-1, k+lobeReach)
	bin := 2 * math.Pi / float64(p.n)
	p.lobes = hannLobes(p.lobes[:0], float64(first)*bin-step, bin, last-first+1, length)
	amplitude := p.bins[k] / p.lobes[k-first]
	for i, lobe := range p.lobes {
		rest := p.bins[first+i] - amplitude*lobe
		p.bins[first+i], p.powers[first+i] = rest, Power(rest)
	}
	return 2 * amplitude
}

// hannLobes appends the transform of a Hann window of n samples at so many angles
// per sample, each a step beyond the one before. A window's transform is real
// about its middle: there it is that of n ones, D(φ) = sin(nφ/2)/sin(φ/2), half of
// it at φ and a quarter at π·2/(n−1) to either side.
func hannLobes(lobes []complex128, angle, step float64, angles, n int) []complex128 {
	turned := func(by float64) (half, whole complex128) { // exp(iφ/2) and its n-th power
		return cmplx.Rect(1, by/2), cmplx.Rect(1, float64(n)*by/2)
	}
	half, whole := turned(angle)
	halfTurn, wholeTurn := turned(step)
	halfAside, wholeAside := turned(2 * math.Pi / float64(n-1))
	for range angles {
		lobe := ones(half, whole, n)/2 + ones(half*halfAside, whole*wholeAside, n)/4 +
			ones(half*cmplx.Conj(halfAside), whole*cmplx.Conj(wholeAside), n)/4
		lobes = append(lobes, complex(lobe, 0)*half*cmplx.Conj(whole)) // counted from the first sample
		half, whole = half*halfTurn, whole*wholeTurn
	}
	return lobes
}

// ones is D of n, from exp(iφ/2) and its n-th power.
func ones(half, whole complex128, n int) float64 {
	if math.Abs(imag(half)) < 1e-9 {
		return float64(n)
	}
	return imag(whole) / imag(half)
}

// Sing writes sinusoids out for the samples [from, to), counted as their phases
// are.
func Sing(partials []Partial, from, to int) []float64 {
	out := make([]float64, to-from)
	for _, p := range partials {
		at := func(i int) float64 {
			s, c := math.Sincos(p.Step * float64(from+i))
			return p.Cosine*c + p.Sine*s
		}
		// Each sample follows from the two before it of its kind, even or odd.
		turn := 2 * math.Cos(2*p.Step)
		even, odd, evenWas, oddWas := at(0), at(1), at(-2), at(-1)
		rest := out
		for ; len(rest) >= 2; rest = rest[2:] {
			rest[0] += even
			rest[1] += odd
			even, evenWas = turn*even-evenWas, even
			odd, oddWas = turn*odd-oddWas, odd
		}
		if len(rest) > 0 {
			rest[0] += even
		}
	}
	return out
}

// TakeOut takes the sinusoid of an angle per sample out of x, by least squares.
func TakeOut(x []float64, step float64) {
	s, c := math.Sincos(step)
	zr, zi, re, im := 1.0, 0.0, 0.0, 0.0
	for _, v := range x {
		re, im = re+v*zr, im+v*zi
		zr, zi = zr*c-zi*s, zr*s+zi*c
	}
	re, im = 2*re/float64(len(x)), 2*im/float64(len(x))
	for i, v := range Sing([]Partial{{step, re, im}}, 0, len(x)) {
		x[i] -= v
	}
}

// PowersAt are the powers of two sounds at a frequency in cycles a sample, under a
// window.
func PowersAt(x, y, window []float64, cycles float64) (float64, float64) {
	x, y = x[:len(window)], y[:len(window)]
	s, c := math.Sincos(2 * math.Pi * cycles)
	turn := complex(c, s)
	z := complex(1, 0)
	var ofX, ofY complex128
	for i, w := range window {
		ofX += complex(w*x[i]*real(z), w*x[i]*imag(z))
		ofY += complex(w*y[i]*real(z), w*y[i]*imag(z))
		z *= turn
	}
	return Power(ofX), Power(ofY)
}

// Seen is the amplitude under a window of the sinusoid of an angle per sample, its
// phase that of the first sample: the algorithm of Goertzel (Am. Math. Monthly 65, 1958), for
// even samples and odd ones apart.
func Seen(x, window []float64, step float64) complex128 {
	x = x[:len(window)]
	turn := 2 * math.Cos(2*step)
	var even, evenWas, odd, oddWas, weight float64
	pairs := len(window) / 2
	for i := range pairs {
		w, v := window[2*i], window[2*i+1]
		even, evenWas = (w*x[2*i]-evenWas)+turn*even, even
		odd, oddWas = (v*x[2*i+1]-oddWas)+turn*odd, odd
		weight += w + v
	}
	at := func(i int) complex128 { return cmplx.Rect(1, -step*float64(i)) }
	sum := complex(even, 0)*at(2*pairs-2) - complex(evenWas, 0)*at(2*pairs)
	sum += complex(odd, 0)*at(2*pairs-1) - complex(oddWas, 0)*at(2*pairs+1)
	if last := len(window) - 1; last%2 == 0 {
		sum += complex(window[last]*x[last], 0) * at(last)
		weight += window[last]
	}
	return 2 * sum / complex(weight, 0)
}

// Magnitude is |z|; math/cmplx guards against overflow, which costs time.
func Magnitude(z complex128) float64 { return math.Sqrt(Power(z)) }

package listen

import (
	"math"
	"math/bits"
	"math/cmplx"
)

// A partial is one sinusoid of a sound: its angle per sample, and its cosine and
// sine parts at the sample its phase is counted from.
type partial struct{ step, cosine, sine float64 }

// Limits of what a sound is taken apart into: the number of sinusoids, how far
// below the strongest the weakest may lie, in power, and their highest pitch.
const (
	maxPartials    = 16
	weakestPartial = 1e-4
	highestPartial = 4500 // Hz
)

// longestPursuit is the longest sound taken apart, in seconds.
const longestPursuit = 0.045

// lobeReach is how many bins of the spectrum a sinusoid is taken out of, to
// either side: beyond them the window leaves less than a thousandth of it.
const lobeReach = 12

// A pursuit takes short sounds apart into sinusoids.
type pursuit struct {
	fft     *realFFT
	n       int               // length of the transform
	windows map[int][]float64 // by length
	bins    []complex128      // up to the highest partial
	lobes   []complex128
}

// newPursuit is for sounds of at most longestPursuit seconds.
func newPursuit(rate float64) *pursuit {
	longest := int(math.Ceil(longestPursuit * rate))
	n := 1 << bits.Len(uint(1.8*float64(longest)))
	top := min(highestPartial, 0.45*rate) / rate
	return &pursuit{newRealFFT(n), n, map[int][]float64{}, make([]complex128, int(top*float64(n))), nil}
}

// partials takes x apart by matching pursuit under a Hann window (Mallat &
// Zhang, IEEE Trans. Signal Processing 41, 1993), each sinusoid taken out of the
// spectrum by what the window makes of it. Phases are counted from the sample
// zero, which may lie outside x.
func (p *pursuit) partials(x []float64, zero int) []partial {
	return p.strongest(x, zero, maxPartials, len(p.bins))
}

// strongest is at most so many partials of x, of the bins below one.
func (p *pursuit) strongest(x []float64, zero, most, below int) []partial {
	bins := p.bins
	p.bins = p.bins[:min(below, len(bins))]
	defer func() { p.bins = bins }()
	p.fft.values(p.bins, x, p.window(len(x)))
	out := make([]partial, 0, most)
	loudest := 0.0
	for len(out) < most {
		k := p.highest()
		power := power(p.bins[k])
		loudest = max(loudest, power)
		if power <= weakestPartial*loudest {
			break
		}
		step := p.summit(k) * 2 * math.Pi / float64(p.n)
		amplitude := p.takeOut(k, step, len(x)) * cmplx.Rect(1, step*float64(zero))
		out = append(out, partial{step, real(amplitude), -imag(amplitude)})
	}
	return out
}

func (p *pursuit) window(n int) []float64 {
	w, ok := p.windows[n]
	if !ok {
		w = hann(n)
		p.windows[n] = w
	}
	return w
}

func power(z complex128) float64 { return real(z)*real(z) + imag(z)*imag(z) }

// highest returns the loudest bin, but for the lowest, where no string sounds,
// and the last, which has no neighbour.
func (p *pursuit) highest() int {
	best, loudest := 2, 0.0
	for k, z := range p.bins[:len(p.bins)-1] {
		if v := power(z); k >= 2 && v > loudest {
			best, loudest = k, v
		}
	}
	return best
}

// summit returns the place of a spectral peak between bins, by a parabola
// through the logarithms about the loudest.
func (p *pursuit) summit(k int) float64 {
	log := func(k int) float64 { return math.Log(power(p.bins[k]) + 1e-300) }
	l, m, r := log(k-1), log(k), log(k+1)
	if d := l - 2*m + r; d < 0 {
		return float64(k) + max(-1, min(1, (l-r)/(2*d)))
	}
	return float64(k)
}

// takeOut takes the sinusoid that makes bin k out of the spectrum. It returns
// its amplitude as a complex number whose phase is that of the first sample.
func (p *pursuit) takeOut(k int, step float64, length int) complex128 {
	first, last := max(0, k-lobeReach), min(len(p.bins)-1, k+lobeReach)
	bin := 2 * math.Pi / float64(p.n)
	p.lobes = hannLobes(p.lobes[:0], float64(first)*bin-step, bin, last-first+1, length)
	amplitude := p.bins[k] / p.lobes[k-first]
	for i, lobe := range p.lobes {
		p.bins[first+i] -= amplitude * lobe
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

// sing writes sinusoids out for the samples [from, to), counted as their phases
// are.
func sing(partials []partial, from, to int) []float64 {
	out := make([]float64, to-from)
	for _, p := range partials {
		s, c := math.Sincos(p.step)
		zi, zr := math.Sincos(p.step * float64(from))
		for i := range out {
			out[i] += p.cosine*zr + p.sine*zi
			zr, zi = zr*c-zi*s, zr*s+zi*c
		}
	}
	return out
}

package listen

import "math"

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

// partialsOf takes x apart into sinusoids by matching pursuit under a Hann
// window (Mallat & Zhang, IEEE Trans. Signal Processing 41, 1993). Phases are
// counted from the sample zero, which may lie outside x.
func partialsOf(x []float64, zero int, rate float64) []partial {
	window := hann(len(x))
	rest := append([]float64(nil), x...)
	grid := math.Pi / float64(len(x)) // a quarter of the main lobe
	power := make([]float64, int(2*math.Pi*min(highestPartial, 0.45*rate)/rate/grid)+1)
	scan(rest, window, grid, power, 2, len(power))
	var out []partial
	loudest := 0.0
	for len(out) < maxPartials {
		best := 0
		for k := 2; k < len(power); k++ {
			if power[k] > power[best] {
				best = k
			}
		}
		loudest = max(loudest, power[best])
		if best == 0 || power[best] <= weakestPartial*loudest {
			break
		}
		step := summit(rest, window, float64(best)*grid, grid)
		re, im := project(rest, window, step)
		for i, v := range sing([]partial{{step, re, im}}, 0, len(rest)) {
			rest[i] -= v
		}
		s, c := math.Sincos(step * float64(zero))
		out = append(out, partial{step, re*c + im*s, im*c - re*s})
		scan(rest, window, grid, power, max(2, best-8), min(len(power), best+9))
	}
	return out
}

// scan measures the power of x at multiples of an angle.
func scan(x, window []float64, grid float64, power []float64, from, to int) {
	for k := from; k < to; k++ {
		re, im := project(x, window, float64(k)*grid)
		power[k] = re*re + im*im
	}
}

// project returns the cosine and sine parts of x at an angle per sample, counted
// from x[0], under a window.
func project(x, window []float64, step float64) (re, im float64) {
	sum := 0.0
	s, c := math.Sincos(step)
	zr, zi := 1.0, 0.0
	for i, v := range x {
		w := window[i]
		re += w * v * zr
		im += w * v * zi
		sum += w
		zr, zi = zr*c-zi*s, zr*s+zi*c
	}
	return 2 * re / sum, 2 * im / sum
}

// summit finds the top of a spectral peak near an angle by ever smaller steps.
func summit(x, window []float64, step, grid float64) float64 {
	power := func(at float64) float64 {
		re, im := project(x, window, at)
		return re*re + im*im
	}
	here := power(step)
	for by := grid / 2; by > grid/200; by /= 2 {
		for _, to := range []float64{step - by, step + by} {
			if p := power(to); p > here {
				step, here = to, p
				break
			}
		}
	}
	return step
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

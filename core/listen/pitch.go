package listen

import (
	"math"

	"manudrill/core/guitar"
)

// Bounds of the pitch search, in Hz: below the B of a seven-string guitar and
// above the highest fret.
const (
	lowestPitch  = 55
	highestPitch = 1400
)

// Times within a note, in seconds: the attack's noise is left out.
const (
	pitchFrom = 0.008
	pitchSpan = 0.075
)

// pitch returns the pitch of a note's sound as a MIDI note with its fraction, 0
// where there is none, by YIN: the lag at which the sound differs least from
// itself, its difference normalised by the mean over shorter lags.
func pitch(body []float64, rate float64) float64 {
	from := min(int(pitchFrom*rate), len(body)/4)
	x := body[from:min(len(body), from+int(pitchSpan*rate))]
	maxLag := min(int(rate/lowestPitch), len(x)/2)
	minLag := int(rate / highestPitch)
	if maxLag < minLag+2 {
		return 0
	}
	d := difference(x, maxLag)
	lag := dip(d, minLag)
	if lag == 0 {
		return 0
	}
	return guitar.MIDI(rate / (float64(lag) + vertex(d, lag)))
}

// difference returns YIN's cumulative mean normalised difference for lags 0 to
// maxLag, over as many samples as allow the longest lag.
func difference(x []float64, maxLag int) []float64 {
	w := len(x) - maxLag
	d := make([]float64, maxLag+1)
	d[0] = 1
	sum := 0.0
	for lag := 1; lag <= maxLag; lag++ {
		v := 0.0
		a, b := x[:w], x[lag:lag+w]
		for i := range a {
			e := a[i] - b[i]
			v += e * e
		}
		sum += v
		d[lag] = v * float64(lag) / (sum + 1e-18)
	}
	return d
}

// How a dip of the difference is judged. A dip nearly as deep as the deepest
// and at a shorter lag is the period; the deepest may lie at two or three
// periods when another string still rings. Where the deepest is all but perfect,
// nothing else rings, and what repeats less well at a shorter lag is a strong
// partial.
const (
	alike        = 0.15
	perfect      = 0.01
	alikePerfect = 0.06
	aperiodic    = 0.60
)

// dip returns the first dip of d about as deep as its deepest, or 0 if the
// sound repeats at no lag.
func dip(d []float64, minLag int) int {
	least := aperiodic
	for _, v := range d[minLag:] {
		least = min(least, v)
	}
	enough := least + alike
	if least < perfect {
		enough = least + alikePerfect
	}
	for lag := minLag; lag+1 < len(d); lag++ {
		if d[lag] <= d[lag-1] && d[lag] <= d[lag+1] && d[lag] < min(aperiodic, enough) {
			return deepest(d, lag, lag+lag/8)
		}
	}
	return 0
}

// deepest returns the lag in [from, to] at which d is least: a valley may have
// ripples on its slope.
func deepest(d []float64, from, to int) int {
	best := from
	for lag := from; lag <= min(to, len(d)-2); lag++ {
		if d[lag] < d[best] {
			best = lag
		}
	}
	return best
}

// vertex returns by how much a parabola through d around lag has its lowest
// point beside it.
func vertex(d []float64, lag int) float64 {
	l, m, r := d[lag-1], d[lag], d[lag+1]
	den := l - 2*m + r
	if math.Abs(den) < 1e-12 {
		return 0
	}
	return (l - r) / (2 * den)
}

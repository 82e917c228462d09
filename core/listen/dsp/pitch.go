package dsp

import (
	"math"
	"math/bits"
	"math/cmplx"

	"manudrill/core/guitar"
)

// Bounds of the pitch search, in Hz: below the B of a seven-string guitar and
// above the highest fret.
const (
	LowestPitch  = 55
	HighestPitch = 1400
)

// A YIN finds the pitch of sounds at one rate (de Cheveigné & Kawahara, J. Acoust. Soc.
// Am. 111, 2002). It is not for several at once.
type YIN struct {
	Rate   float64   // samples a second
	over   int       // samples that a sound is smoothed over
	smooth []float64 // the sound that was smoothed last
	there  *FFT
	back   *FFT // of half the length: what comes of it is real
	buf    []complex128
	spec   []complex128
}

// NewYIN returns one for sounds of at most so many seconds. Longer ones panic.
func NewYIN(rate, longest float64) *YIN {
	n := 1 << bits.Len(uint(longest*rate))
	return &YIN{
		Rate: rate, over: max(1, int(math.Round(smoothSeconds*rate))),
		there: NewFFT(n), back: NewFFT(n / 2), buf: make([]complex128, n), spec: make([]complex128, n/2),
	}
}

// Pitches returns the pitch of all of x as a MIDI note with its fraction, 0 where there
// is none: that of the lag at which the sound differs least from itself, its difference
// normalised by the mean over shorter lags. Where the sound repeats nearly as well at
// the lag of a pitch of another name, that is the other; 0 where it does not.
func (y *YIN) Pitches(x []float64) (pitch, other float64) {
	d := y.differences(x)
	lag := dip(d, y.shortest())
	if lag == 0 {
		return 0, 0
	}
	pitch, _ = y.exactly(x, d, lag)
	least := depth(d, deepest(d, y.shortest(), len(d)))
	for l := y.shortest(); l+1 < len(d); l++ {
		if d[l] > d[l-1] || d[l] > d[l+1] || depth(d, l) > min(aperiodic, least+alike) {
			continue
		}
		if maybe := guitar.MIDI(y.Rate / between(d, l)); math.Abs(math.Remainder(maybe-pitch, 12)) > otherName {
			return pitch, maybe
		}
	}
	return pitch, 0
}

// otherName is how far apart pitches of two names are at the least, in semitones.
const otherName = 0.6

// shortest is the lag of the highest pitch.
func (y *YIN) shortest() int { return int(y.Rate / HighestPitch) }

// differences is the difference of x for all lags, nil where x is too short for any.
func (y *YIN) differences(x []float64) []float64 {
	x = y.smoothed(x, y.over)
	maxLag := min(int(y.Rate/LowestPitch), len(x)/2)
	if maxLag < y.shortest()+2 {
		return nil
	}
	return y.difference(x, maxLag)
}

// smoothSeconds is over how long a sound is smoothed, twice, before its pitch is
// looked for.
const smoothSeconds = 0.0002

// smoothed is x as the mean of so many samples each, twice over, until it is asked for
// again.
func (y *YIN) smoothed(x []float64, over int) []float64 {
	y.smooth = summed(summed(append(y.smooth[:0], x...), over), over)
	return y.smooth
}

// summed replaces the samples of x by the sums of so many each.
func summed(x []float64, over int) []float64 {
	if len(x) < over {
		return x[:0]
	}
	sum := 0.0
	for _, v := range x[:over-1] {
		sum += v
	}
	for i, v := range x[over-1:] {
		sum += v
		sum, x[i] = sum-x[i], sum
	}
	return x[:len(x)-over+1]
}

// Pitch is the pitch of all of x.
func (y *YIN) Pitch(x []float64) float64 {
	pitch, _ := y.clearly(x)
	return pitch
}

// clearly is the pitch of all of x, and how much it differs from itself a period
// later, from 0 to 1.
func (y *YIN) clearly(x []float64) (pitch, unlike float64) {
	d := y.differences(x)
	lag := dip(d, y.shortest())
	if lag == 0 {
		return 0, 1
	}
	return y.exactly(x, d, lag)
}

// exactly is the pitch of x, whose difference d has a dip at a lag, and how much it
// differs from itself there. On a thick string strong partials of 2 kHz and more, as an
// overdriven one has, make dips beside that of the period, a semitone away: smoothing
// leaves one.
func (y *YIN) exactly(x, d []float64, lag int) (pitch, unlike float64) {
	if y.Rate/float64(lag) < thick {
		if e := y.difference(y.smoothed(x, y.over*thickSmoother), len(d)-1); e != nil {
			near := func(lag int) int { return deepest(e, lag-lag/thickWithin, lag+lag/thickWithin) }
			half := near(lag / 2)
			if d, lag = e, near(lag); y.Rate/float64(half) < thick && e[half] < min(aperiodic, e[lag]+alike) && divides(between(e, half), between(e, lag)) {
				lag = half // the octave that they hid
			}
		}
	}
	return guitar.MIDI(y.Rate / between(d, lag)), d[lag]
}

// Below thick, in Hz, a sound is smoothed so many times as much, and its pitch looked
// for within a share of the lag that is its inverse.
const (
	thick         = 170
	thickSmoother = 3
	thickWithin   = 10
)

// Steady is the pitch of all of x where it repeats plainly, 0 elsewhere.
func (y *YIN) Steady(x []float64) float64 {
	pitch, unlike := y.clearly(x)
	if unlike > plainly {
		return 0
	}
	return pitch
}

// What surely repeats at a pitch differs so little from itself some periods later, as
// many as fill so many seconds, that no other pitch need be looked for.
const (
	surely       = 0.05
	surelyLonger = 0.010
)

// Repeats reports whether x surely has a pitch.
func (y *YIN) Repeats(x []float64, pitch float64) bool {
	period := y.Rate / guitar.Frequency(pitch)
	lag := int(math.Round(math.Ceil(surelyLonger*y.Rate/period) * period))
	return lag < len(x) && Unlike(x, lag, len(x)-lag) < surely
}

// plainly is how much a sound differs from itself a period later at the most that
// has one steady pitch.
const plainly = 0.25

// difference returns YIN's cumulative mean normalised difference for lags 0 to
// maxLag, over as many samples as allow the longest lag.
func (y *YIN) difference(x []float64, maxLag int) []float64 {
	if len(x) < 2*maxLag {
		return nil
	}
	w := len(x) - maxLag
	likeness := y.correlation(x, w)
	still := SumSquares(x[:w])
	moved := still
	d := make([]float64, maxLag+1)
	d[0] = 1
	sum := 0.0
	for lag := 1; lag <= maxLag; lag++ {
		moved += x[lag+w-1]*x[lag+w-1] - x[lag-1]*x[lag-1]
		v := max(0, still+moved-2*likeness(lag))
		sum += v
		d[lag] = v * float64(lag) / (sum + 1e-18)
	}
	return d
}

// correlation returns Σ x[i]·x[i+lag] over the first w samples as a function of
// lag, until it is asked for again. x[:w] goes there as the real part and all of x
// as the imaginary; of what comes back, even lags are the real part and odd ones
// the imaginary.
func (y *YIN) correlation(x []float64, w int) func(lag int) float64 {
	for i := range y.buf {
		switch {
		case i < w:
			y.buf[i] = complex(x[i], x[i])
		case i < len(x):
			y.buf[i] = complex(0, x[i])
		default:
			y.buf[i] = 0
		}
	}
	y.there.Transform(y.buf)
	half := len(y.spec)
	for k := range half/2 + 1 {
		a, b := y.product(k), y.product(half-k)
		y.spec[k] = folded(a, cmplx.Conj(b), y.there.turns[k])
		if k > 0 {
			y.spec[half-k] = folded(b, cmplx.Conj(a), y.there.turns[half-k])
		}
	}
	y.back.Transform(y.spec)
	scale := 0.25 / float64(len(y.buf))
	return func(lag int) float64 {
		if lag%2 == 0 {
			return scale * real(y.spec[lag/2])
		}
		return scale * imag(y.spec[lag/2])
	}
}

// product is four times the transform of x[:w] times that of x, conjugate.
func (y *YIN) product(k int) complex128 {
	z := y.buf[k&(len(y.buf)-1)]
	mirror := cmplx.Conj(y.buf[-k&(len(y.buf)-1)])
	return (z + mirror) * quarterTurn(cmplx.Conj(z-mirror))
}

// folded makes of two values of a transform, half of it apart, one whose even and
// odd results are real and imaginary parts.
func folded(a, b, turn complex128) complex128 { return a + b + quarterTurn((a-b)*turn) }

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

// dip returns the first dip of d about as deep as its deepest, of which the deepest
// is a multiple, or 0 if the sound repeats at no lag.
func dip(d []float64, minLag int) int {
	if len(d) == 0 {
		return 0
	}
	lowest := deepest(d, minLag, len(d))
	least := depth(d, lowest)
	enough := least + alike
	if least < perfect {
		enough = least + alikePerfect
	}
	for lag := minLag; lag+1 < len(d); lag++ {
		if d[lag] <= d[lag-1] && d[lag] <= d[lag+1] && depth(d, lag) < min(aperiodic, enough) {
			if at := deepest(d, lag, lag+lag/8); divides(between(d, at), between(d, lowest)) {
				return at
			}
		}
	}
	return 0
}

// offPeriods is how far from a whole number of periods the lag is told, at the most, at
// which a sound repeats best.
const offPeriods = 0.04

// divides reports whether one lag is a whole number of times another.
func divides(lag, of float64) bool {
	times := of / lag
	return times < 1 || math.Abs(times-math.Round(times)) < offPeriods
}

// between is the place of a dip between the whole lags. At the end of a search lag may be no
// dip, and the parabola's lowest point anywhere: it is looked for within an eighth, which is
// two semitones.
func between(d []float64, lag int) float64 {
	near := float64(lag) / 8
	return float64(lag) + max(-near, min(near, vertex(d, lag)))
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

// depth is how low d is at a dip between the whole lags, by the same parabola: of a
// short period, whole lags may miss the bottom.
func depth(d []float64, lag int) float64 {
	return max(0, d[lag]-vertex(d, lag)*(d[lag-1]-d[lag+1])/4)
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

// Unlike is how much the first samples of x differ from those a lag later, from 0, the
// same, over 1, nothing in common, to 2.
func Unlike(x []float64, lag, over int) float64 {
	var d, power float64
	for i, v := range x[:over] {
		w := x[i+lag]
		d, power = d+(v-w)*(v-w), power+v*v+w*w
	}
	return d / (power + LeastPower)
}

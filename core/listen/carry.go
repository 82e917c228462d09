package listen

import (
	"iter"
	"math"
	"slices"

	"manudrill/core/listen/dsp"

	"manudrill/core/guitar"
)

// Times of the comparison of a string before and after the next note starts, in
// seconds about it. The attack and what a moving finger still lets ring are left
// out.
const (
	ringFrom, ringTo   = -0.050, -0.006
	carryFrom, carryTo = 0.040, 0.084
)

// Harmonics of the note before that are looked for in the next, unless one of
// the next note's own lies within so many Hz, where the window cannot tell them
// apart.
const (
	carryHarmonics = 8
	apart          = 2.2 / (carryTo - carryFrom)
)

// leastCarryDB is the bottom of what is told of a string that has gone silent.
const leastCarryDB = -60

// carry returns how loud the note before, of a pitch, still is within the note
// that starts at a sample, in dB against what it was; false where the two cannot
// be told apart.
func (l *Listener) carry(at, end int, before, now float64) (float64, bool) {
	was, is := l.slowly(at, end, ringFrom, ringTo), l.slowly(at, end, carryFrom, carryTo)
	if before == 0 || len(is) < len(was) || len(was) == 0 {
		return 0, false
	}
	window := l.pursuit.Window(len(was))

	var old, new float64
	for hz := range clearHarmonics(before, carryHarmonics, now) {
		a, b := dsp.PowersAt(was, is, window, hz/l.slow.Rate)
		old, new = old+a, new+b
	}
	if old == 0 {
		return 0, false
	}
	return max(leastCarryDB, dsp.Decibels(new/old)), true
}

// slowSteps is how many samples of low last so many seconds.
func (l *Listener) slowSteps(seconds float64) int { return int(math.Round(seconds * l.slow.Rate)) }

// slowly returns the sound from and to some seconds about a sample, up to an end,
// thinned for the lower partials. It is not to be changed.
func (l *Listener) slowly(at, end int, from, to float64) []float64 {
	return l.low.slice(at/l.by+l.slowSteps(from), min(end/l.by, at/l.by+l.slowSteps(to)))
}

// clearHarmonics are the first so many harmonics of a pitch, in Hz, that lie at none of
// others'.
func clearHarmonics(pitch float64, first int, but ...float64) iter.Seq[float64] {
	return func(yield func(float64) bool) {
		for h := 1; h <= first; h++ {
			hz := guitar.Frequency(pitch) * float64(h)
			if hz > dsp.HighestPartial || slices.ContainsFunc(but, func(p float64) bool { return collides(hz, guitar.Frequency(p)) }) {
				continue
			}
			if !yield(hz) {
				return
			}
		}
	}
}

// collides reports whether a frequency lies at a harmonic of another.
func collides(hz, of float64) bool {
	return math.Abs(max(1, math.Round(hz/of))*of-hz) < apart
}

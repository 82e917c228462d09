package listen

import (
	"math"

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
	was, is := l.about(at, end, ringFrom, ringTo), l.about(at, end, carryFrom, carryTo)
	if before == 0 || len(is) < len(was) || len(was) == 0 {
		return 0, false
	}
	window := l.pursuit.window(len(was))
	var old, new float64
	for h := 1; h <= carryHarmonics; h++ {
		hz := guitar.Frequency(before) * float64(h)
		if hz > highestPartial || collides(hz, guitar.Frequency(now)) {
			continue
		}
		old += powerAt(was, window, hz/l.rate)
		new += powerAt(is, window, hz/l.rate)
	}
	if old == 0 {
		return 0, false
	}
	return max(leastCarryDB, decibels(new/old)), true
}

// about returns the sound from and to some seconds about a sample, up to an end.
func (l *Listener) about(at, end int, from, to float64) []float64 {
	return l.sound.slice(at+int(from*l.rate), min(end, at+int(to*l.rate)))
}

// collides reports whether a frequency lies at a harmonic of another.
func collides(hz, of float64) bool {
	return math.Abs(max(1, math.Round(hz/of))*of-hz) < apart
}

// powerAt is the power of x at a frequency in cycles a sample, under a window.
func powerAt(x, window []float64, cycles float64) float64 {
	s, c := math.Sincos(2 * math.Pi * cycles)
	zr, zi, re, im := 1.0, 0.0, 0.0, 0.0
	for i, w := range window {
		v := w * x[i]
		re, im = re+v*zr, im+v*zi
		zr, zi = zr*c-zi*s, zr*s+zi*c
	}
	return re*re + im*im
}

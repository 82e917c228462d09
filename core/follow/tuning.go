package follow

import (
	"math"

	"manudrill/core/listen"
)

// detuned returns by how much a guitar may be out of tune, in semitones, given
// what was heard: the part of the pitches that is no whole semitone, averaged on
// the circle (Fisher, Statistical Analysis of Circular Data, 1993). Strings far
// out may be flat as well as sharp; then both are returned, the nearer first.
func detuned(heard []listen.Note) []float64 {
	var c, s float64
	for _, n := range heard {
		sin, cos := math.Sincos(2 * math.Pi * n.Pitch)
		c, s = c+cos, s+sin
	}
	if math.Hypot(c, s) < 0.3*float64(len(heard)) {
		return []float64{0} // no common part: voices and noises, not frets
	}
	off := math.Atan2(s, c) / (2 * math.Pi)
	if math.Abs(off) < ambiguous {
		return []float64{off}
	}
	return []float64{off, off - math.Copysign(1, off)}
}

// ambiguous is how far out of tune, in semitones, strings may be the other way
// round instead: measured pitches waver by some 15 cents about a quarter tone.
const ambiguous = 0.35

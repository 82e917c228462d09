package listen

import "math"

// A leveller takes a constant offset out of a sound, which some recorders add: by a
// pole and a zero at 0 Hz (Julius O. Smith, Introduction to Digital Filters, "DC
// Blocker").
type leveller struct {
	pole    float64
	in, out float64
	started bool
}

// offsetHz is below what a sound is no string's.
const offsetHz = 15

func newLeveller(rate float64) leveller { return leveller{pole: 1 - 2*math.Pi*offsetHz/rate} }

// level changes samples in place. What comes first is taken to have been there before.
func (l *leveller) level(x []float64) {
	if !l.started && len(x) > 0 {
		l.in, l.started = x[0], true
	}
	for i, v := range x {
		l.out = v - l.in + l.pole*l.out
		l.in, x[i] = v, l.out
	}
}

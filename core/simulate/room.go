package simulate

import "math/rand/v2"

// A room's echo: comb filters in parallel, then all-pass filters in a row
// (Schroeder, J. Audio Eng. Soc. 10, 1962). Delays in seconds, with no common
// divisor to speak of; a small room that has died away after some 0.3 s.
var (
	combDelays    = []float64{0.0297, 0.0371, 0.0411, 0.0437}
	allPassDelays = []float64{0.0050, 0.0017}
)

const (
	combFeedback = 0.55
	allPassGain  = 0.7
)

// echo adds a room's echo at a gain.
func echo(x []float64, rate, gain float64) {
	wet := make([]float64, len(x))
	for _, seconds := range combDelays {
		comb(wet, x, int(seconds*rate))
	}
	for _, seconds := range allPassDelays {
		allPass(wet, int(seconds*rate))
	}
	for i, v := range wet {
		x[i] += gain * v / float64(len(combDelays))
	}
}

// comb adds to out what comes back of x after a delay, again and again.
func comb(out, x []float64, delay int) {
	line := make([]float64, delay)
	for i, v := range x {
		back := line[i%delay]
		out[i] += back
		line[i%delay] = v + combFeedback*back
	}
}

// allPass spreads x in time and leaves its spectrum.
func allPass(x []float64, delay int) {
	line := make([]float64, delay)
	for i, v := range x {
		back := line[i%delay]
		in := v + allPassGain*back
		x[i] = back - allPassGain*in
		line[i%delay] = in
	}
}

// Squeaks: a finger moving along a wound string, this loud and long.
const (
	squeakDB      = -32
	squeakSeconds = 0.035
)

// squeak puts short hisses before some of the notes.
func (p Player) squeak(out []float64, strokes []Stroke, rate float64) {
	rng := rand.New(rand.NewPCG(p.Seed, 0x73717565))
	for range p.Squeaks {
		if len(strokes) < 2 {
			return
		}
		i := 1 + rng.IntN(len(strokes)-1)
		before := strokes[i].T - strokes[i-1].T
		at := strokes[i].T - before*(0.35+0.2*rng.Float64())
		x := make([]float64, int(squeakSeconds*rate))
		last := 0.0
		for k := range x {
			noise := rng.NormFloat64()
			swell := float64(k) / float64(len(x))
			x[k] = decibels(squeakDB) * (noise - last) * 4 * swell * (1 - swell) // without low frequencies
			last = noise
		}
		mix(out, x, int(at*rate))
	}
}

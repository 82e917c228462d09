package simulate

import (
	"math"
	"math/rand/v2"

	"manudrill/core/guitar"
)

// pluck returns n samples of a string at a pitch, of peak about 1: noise sent
// round a delay line that averages and loses a little each time (Karplus &
// Strong, Computer Music Journal 7(2), 1983), tuned to a fraction of a sample
// by an all-pass filter (Jaffe & Smith, same issue). brightness from 0 to 1
// lets high partials into the noise: a pick has more than a hammering finger.
func pluck(rng *rand.Rand, rate, midi, brightness float64, n int) []float64 {
	period := rate / guitar.Frequency(midi)
	// The averaging delays by half a sample, the all-pass by 0.5 to 1.5.
	whole := int(period - 1)
	fraction := period - 0.5 - float64(whole)
	tune := (1 - fraction) / (1 + fraction)

	line := make([]float64, whole)
	held := 0.0
	for i := range line {
		held += brightness * (rng.Float64()*2 - 1 - held)
		line[i] = held
	}
	out := make([]float64, n)
	loss := math.Exp(-3 / (guitar.Frequency(midi) * decaySeconds(midi)))
	var before, inBefore, outBefore float64
	for i := range out {
		at := i % whole
		v := line[at]
		out[i] = v
		averaged := loss * (v + before) / 2
		before = v
		tuned := tune*averaged + inBefore - tune*outBefore
		inBefore, outBefore = averaged, tuned
		line[at] = tuned
	}
	return out
}

// decaySeconds is how long a string rings: thick ones longer.
func decaySeconds(midi float64) float64 { return 3 * math.Exp2((52-midi)/24) }

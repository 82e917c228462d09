package simulate

import (
	"math"
	"math/rand/v2"

	"manudrill/core/drill"
)

// Times of a note's shape, in seconds.
const (
	maxRing    = 2.0   // no note is rendered longer
	damp       = 0.004 // a finger stops the string
	lift       = 0.030 // how long a string rings into a note on another string
	slurRise   = 0.002 // a hammered or pulled note swells, a picked one does not
	levelStart = 0.005
	levelEnd   = 0.105
)

// Render makes the sound of strokes at a rate per second: mono samples of full
// scale ±1, seconds long. The player's seed makes the strings' noise.
func (p Player) Render(strokes []Stroke, rate, seconds float64) []float64 {
	rng := rand.New(rand.NewPCG(p.Seed, 0x736f756e))
	out := make([]float64, int(seconds*rate))
	if p.NoiseDB < 0 {
		room := math.Pow(10, p.NoiseDB/20)
		for i := range out {
			out[i] = room * rng.NormFloat64()
		}
	}
	for i, s := range strokes {
		note := s.sound(rng, rate, ringUntil(strokes, i)-s.T)
		at := int(s.T * rate)
		for k, v := range note {
			if at+k >= 0 && at+k < len(out) {
				out[at+k] += v
			}
		}
	}
	return out
}

// ringUntil returns when a stroke's string is stopped: at the next note on it,
// or soon after the next note on another.
func ringUntil(strokes []Stroke, i int) float64 {
	until := strokes[i].T + maxRing
	for _, next := range strokes[i+1:] {
		if next.String == strokes[i].String {
			return min(until, next.T)
		}
		until = min(until, next.T+lift)
	}
	return until
}

// sound renders one stroke and stops it after ring seconds.
func (s Stroke) sound(rng *rand.Rand, rate, ring float64) []float64 {
	brightness, rise := 0.9, 0.0
	if s.Attack.Slurred() || s.Attack == drill.Tap {
		brightness, rise = 0.5, slurRise
	}
	// The whole first part is made even if it is stopped early: it sets the level.
	x := pluck(rng, rate, float64(s.MIDI), brightness, int(max(ring+damp, levelEnd)*rate))
	for i := range int(rise * rate) {
		x[i] *= float64(i) / (rise * rate)
	}
	factor := math.Pow(10, s.LevelDB/20) / rms(x[int(levelStart*rate):int(levelEnd*rate)])
	for i := range x {
		x[i] *= factor * fade(float64(i)/rate-ring)
	}
	return x
}

// fade falls from 1 to 0 within damp after the string is stopped.
func fade(since float64) float64 {
	switch {
	case since <= 0:
		return 1
	case since >= damp:
		return 0
	}
	return 0.5 + 0.5*math.Cos(math.Pi*since/damp)
}

func rms(x []float64) float64 {
	sum := 1e-18
	for _, v := range x {
		sum += v * v
	}
	return math.Sqrt(sum / float64(len(x)))
}

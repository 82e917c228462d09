package simulate

import (
	"math"
	"math/rand/v2"

	"manudrill/core/drill/chart"
)

// Times of a note's shape, in seconds.
const (
	maxRing    = 2.0   // no note is rendered longer
	damp       = 0.004 // a finger stops the string
	slurRise   = 0.002 // a hammered or pulled note swells, a picked one does not
	levelStart = 0.005
	levelEnd   = 0.105
	drag       = 0.060 // over which a string is dragged aside
)

// Render makes the sound of strokes at a rate per second: mono samples of full
// scale ±1, seconds long, without a metronome. The player's seed makes the
// strings' noise.
func (p Player) Render(strokes []Stroke, rate, seconds float64) []float64 {
	rng := rand.New(rand.NewPCG(p.Seed, 0x736f756e))
	out := make([]float64, int(seconds*rate))
	for _, s := range strokes {
		mix(out, p.sound(rng, s, rate), int(s.T*rate))
	}
	p.squeak(out, strokes, rate)
	if p.RoomDB < 0 {
		echo(out, rate, decibels(p.RoomDB))
	}
	if p.NoiseDB < 0 {
		noise := rand.New(rand.NewPCG(p.Seed, 0x726f6f6d))
		for i := range out {
			out[i] += decibels(p.NoiseDB) * noise.NormFloat64()
		}
	}
	return out
}

// mix adds x from a sample on, as far as there is room.
func mix(out, x []float64, at int) {
	for k, v := range x {
		if at+k >= 0 && at+k < len(out) {
			out[at+k] += v
		}
	}
}

// decibels is the amplitude of a level.
func decibels(db float64) float64 { return math.Pow(10, db/20) }

// sound renders one stroke until its string is stopped.
func (p Player) sound(rng *rand.Rand, s Stroke, rate float64) []float64 {
	ring := s.Until - s.T
	brightness, rise := 0.9, 0.0
	if s.Attack.Slurred() || s.Attack == chart.Tap {
		brightness, rise = 0.5, slurRise
		if p.SlurRiseMs > 0 {
			rise = p.SlurRiseMs / 1000
		}
	}
	// The whole first part is made even if it is stopped early: it sets the level.
	x := pluck(rng, rate, float64(s.MIDI)+p.TuningCents/100, brightness, int(max(ring+damp, levelEnd)*rate)+int(0.01*rate))
	if s.BendCents > 0 {
		x = dragged(x, int(ring*rate), int(drag*rate), s.BendCents)
	}
	for i := range int(rise * rate) {
		x[i] *= 0.5 - 0.5*math.Cos(math.Pi*float64(i)/(rise*rate))
	}
	factor := decibels(s.LevelDB) / rms(x[int(levelStart*rate):int(levelEnd*rate)])
	for i := range x {
		x[i] *= factor * fade(float64(i)/rate-ring)
	}
	return x
}

// dragged raises the pitch of x over some samples before its end by reading it
// ever faster.
func dragged(x []float64, end, over int, cents float64) []float64 {
	out := make([]float64, len(x))
	at := 0.0
	for i := range out {
		whole := int(at)
		if whole+1 >= len(x) {
			break
		}
		share := at - float64(whole)
		out[i] = x[whole]*(1-share) + x[whole+1]*share
		bent := cents * min(1, max(0, float64(i-end+over)/float64(over)*2))
		at += math.Exp2(bent / 1200)
	}
	return out
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

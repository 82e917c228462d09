package listen

import (
	"math"

	"manudrill/core/listen/dsp"
)

// A gain brings recordings of any level to the one at which flux is judged. It
// follows the loudest sound so far and forgets it slowly.
type gain struct {
	loudest float64 // mean square
	forget  float64 // share kept from one frame to the next
	factor  float64 // what brings the loudest sound to the working level
}

// Levels of frames: what the loudest is brought to, and below which takes are
// not lifted further.
var (
	working  = dsp.FromDecibels(-15)
	quietest = dsp.FromDecibels(-45)
)

// silent is the mean square of a frame in which nothing can be heard.
var silent = dsp.FromDecibels(-90)

// loudnessHalfLife is how long until a loud frame counts half, in seconds.
const loudnessHalfLife = 8

func newGain() gain {
	return gain{loudest: quietest, forget: math.Exp2(-frameHop / loudnessHalfLife)}
}

// next hears one more frame of samples and returns its mean square. Every fourth
// sample tells that well enough.
func (g *gain) next(samples []float64) float64 {
	sum := 0.0
	for i := 0; i < len(samples); i += 4 {
		sum += samples[i] * samples[i]
	}
	loud := 4 * sum / float64(len(samples))
	g.loudest = max(g.loudest*g.forget, loud, quietest)
	g.factor = math.Sqrt(working / g.loudest)
	return loud
}

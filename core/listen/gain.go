package listen

import "math"

// A gain brings recordings of any level to the one at which flux is judged. It
// follows the loudest sound so far and forgets it slowly.
type gain struct {
	loudest float64 // mean square
	forget  float64 // share kept from one frame to the next
}

// Levels in dB of full scale.
const (
	workingDB  = -15 // what the loudest frame is brought to
	quietestDB = -45 // takes quieter than this are not lifted further
)

// loudnessHalfLife is how long until a loud frame counts half, in seconds.
const loudnessHalfLife = 8

func newGain() gain {
	return gain{loudest: fromDecibels(quietestDB), forget: math.Exp2(-frameHop / loudnessHalfLife)}
}

// next hears one more frame of samples.
func (g *gain) next(samples []float64) {
	g.loudest = max(g.loudest*g.forget, meanSquare(samples), fromDecibels(quietestDB))
}

// factor is what brings the loudest sound to the working level.
func (g *gain) factor() float64 { return math.Sqrt(fromDecibels(workingDB) / g.loudest) }

func fromDecibels(db float64) float64 { return math.Pow(10, db/10) }
